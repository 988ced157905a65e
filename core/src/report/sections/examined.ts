import { percentText } from '../../cause/percent.js';
import { PART_NAMES } from '../../engine/stations.js';
import { coverage, isExamined, type CaseView } from '../../case/views.js';
import type { ReportBlock, ReportSection } from '../blocks.js';

/** Coverage, and by name what was not seen and why. */
export function examined(view: CaseView): ReportSection {
  const c = coverage(view);
  const not = view.stations.filter((s) => !isExamined(s));
  const words: Readonly<Record<string, string>> = {
    'not-examined': 'not examined',
    'before-us': 'altered or missing before it came to us',
    lost: 'lost during the strip',
    'not-present': 'not present',
  };
  const groups = new Map<string, string[]>();
  for (const s of not) groups.set(words[s.state] ?? s.state, [...(groups.get(words[s.state] ?? s.state) ?? []), s.station.name]);
  return {
    id: 'examined',
    heading: 'What was and was not examined',
    blocks: [
      {
        kind: 'text',
        key: 'examined.share',
        text: `${c.examined} of ${c.total} places (${percentText(c.examined / Math.max(1, c.total))}) were examined.`,
      },
      {
        kind: 'table',
        head: ['Part', 'Examined', 'Of'],
        rows: c.byPart.map((p) => [PART_NAMES[p.part], String(p.examined), String(p.total)]),
        figures: [1, 2],
      },
      ...[...groups].map(([word, names]): ReportBlock => ({
        kind: 'text',
        key: `examined.${word.split(' ')[0]}`,
        text: `${word[0]?.toUpperCase()}${word.slice(1)}: ${names.join(', ')}.`,
      })),
    ],
  };
}
