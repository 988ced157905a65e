import { list, name, object, optional } from '../../../kit/schema.js';
import { engineTemplate } from '../../../engine/templates.js';
import type { EngineLayout } from '../../../engine/layout.js';
import { compressionResult } from '../../../opening/results.js';
import { defineSheet, raw } from '../define.js';

interface Readings {
  readonly layout: EngineLayout;
  /** Bar by cylinder. */
  readonly dry: ReadonlyArray<number | null>;
  readonly wet: ReadonlyArray<number | null>;
}

const PLAIN = engineTemplate('inline-4-petrol')!.layout;

/** Compression, dry and wet. The gauge is taken to be good to 0.2 bar. */
export const compression = defineSheet({
  id: 'compression',
  name: 'Compression',
  says: '`dry`, `wet`: bar by cylinder; `template` for banks and neighbours (default: all in line)',
  file: object({ template: optional(name(60)), dry: list(raw, 16).min(1), wet: optional(list(raw, 16)) }),
  read: (given, reader): Readings => {
    const base = given.template === undefined ? PLAIN : engineTemplate(given.template)?.layout;
    if (!base)
      reader.problem ??= { code: 'template', sentence: `"${given.template}" is not an engine template.`, field: 'readings.template' };
    const layout = base && given.template !== undefined ? base : { ...PLAIN, cylinders: given.dry.length, arrangement: 'inline' as const };
    const bars = (list: readonly unknown[] | undefined, what: string): Array<number | null> =>
      Array.from({ length: layout.cylinders }, (_, i) => reader.quantity(list?.[i], 'pressure', `readings.${what}.${i}`));
    return { layout, dry: bars(given.dry, 'dry'), wet: bars(given.wet, 'wet') };
  },
  compute: ({ layout, dry, wet }, { sizes }) => {
    const c = compressionResult(layout, [...dry], [...wet], sizes.leastBar);
    if (!c) return { lines: [], missing: ['every reading'] };
    return {
      lines: [
        { id: 'highest', name: 'Highest', value: c.highest, unit: 'bar', expanded: 0.2, at: '' },
        {
          id: 'lowest',
          name: 'Lowest',
          value: c.lowest,
          unit: 'bar',
          expanded: 0.2,
          at: c.low.length > 0 ? `cylinder ${c.low.join(', ')}` : '',
        },
        { id: 'spread', name: 'Spread', value: c.spreadPercent, unit: '%', expanded: (100 * 0.28) / c.highest, at: 'of the highest' },
      ],
      says: [`${c.words[0]?.toUpperCase()}${c.words.slice(1)}.`],
      thumbs: { spread: { upper: 15 } },
    };
  },
});
