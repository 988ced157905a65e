import { list, name, number, object, oneOrOther, optional, positive, record } from '../../../kit/schema.js';
import { bankCount, bankName, cylinderPlaces } from '../../../engine/layout.js';
import { cell, type Cell } from '../cells.js';
import { defineSheet, mayRead, raw } from '../define.js';
import { chance } from '../trueEngine.js';
import { camJournalLines, camLines } from './cam.js';

const VALVES = ['intake', 'exhaust'] as const;

function cells(cylinders: readonly number[], journals: number): Cell[] {
  const lobes = cylinders.flatMap((c) =>
    VALVES.flatMap((kind) => {
      const lobe = `${c} ${kind}`;
      return (['height', 'base'] as const).map((what) =>
        cell({
          key: `lobe.${c}.${kind}.${what}`,
          name: `lobe ${lobe}, ${what === 'height' ? 'over the nose' : 'base circle'}`,
          row: lobe,
          column: what === 'height' ? 'nose' : 'base circle',
          role: 'micrometer',
          sense: [8, 120],
          item: { lobe, kind },
        }),
      );
    }),
  );
  return [
    ...lobes,
    ...Array.from({ length: journals }, (_, i) =>
      (['value', 'bore'] as const).map((what) =>
        cell({
          key: `journal.${i + 1}.${what}`,
          name: `cam journal ${i + 1}${what === 'bore' ? ', its bore' : ''}`,
          row: `journal ${i + 1}`,
          column: what === 'bore' ? 'bore' : 'journal',
          role: what === 'bore' ? 'bore' : 'micrometer',
          sense: [10, 120],
          item: { journal: i + 1 },
          optional: true,
        }),
      ),
    ).flat(),
  ];
}

interface Readings {
  readonly lobes: ReadonlyArray<{ readonly lobe: string; readonly kind: string; readonly heightMm: number; readonly baseMm: number }>;
  readonly journals: ReadonlyArray<{ readonly journal: string; readonly mm: number; readonly boreMm: number | null }>;
  readonly newLiftMm: Readonly<Record<string, number>>;
}

/** A camshaft: its lobes over their base circles, its journals. */
export const cam = defineSheet({
  id: 'cam',
  name: 'Camshaft',
  says: '`lobes`: list of `lobe`, `kind`, `height`, `base`; `newLift` by kind; `journals`: list of `journal`, `value`, `bore`',
  file: object({
    lobes: list(object({ lobe: oneOrOther(name(20), number), kind: name(20), height: raw, base: raw }), 2000)
      .min(1)
      .unique('lobe'),
    journals: optional(list(object({ journal: oneOrOther(name(20), number), value: raw, bore: mayRead }), 40).unique('journal')),
    newLift: optional(record(positive(100))),
  }),
  read: (given, reader): Readings => ({
    lobes: given.lobes.map((l, i) => ({
      lobe: String(l.lobe),
      kind: l.kind,
      heightMm: reader.need(l.height, `readings.lobes.${i}.height`),
      baseMm: reader.need(l.base, `readings.lobes.${i}.base`),
    })),
    journals: (given.journals ?? []).flatMap((j, i) => {
      const mm = reader.size(j.value, `readings.journals.${i}.value`);
      return mm === null ? [] : [{ journal: String(j.journal), mm, boreMm: reader.size(j.bore, `readings.journals.${i}.bore`) }];
    }),
    newLiftMm: given.newLift ?? {},
  }),
  compute: ({ lobes, journals, newLiftMm }, { gauge, sizes }) => {
    const lines = camLines(lobes, newLiftMm, gauge('micrometer'));
    return {
      lines: [...lines, ...camJournalLines(journals, sizes.maxMm ?? null, gauge('micrometer'), gauge('bore'))],
      thumbs: Object.fromEntries(lines.filter((l) => l.id.startsWith('loss.')).map((l) => [l.id, { upper: 0.15 }])),
    };
  },
  bench: {
    group: 'head',
    rank: 2,
    round: 'Camshaft',
    drawing: 'cam',
    chart: 'lobes',
    specs: { cam: { name: 'Camshaft', rank: 23 } },
    fields: { lines: [] },
    places: (layout) => {
      if (layout.valveGear === 'ports') return [];
      const all = cylinderPlaces(layout);
      const cams =
        layout.valveGear === 'overhead-cam'
          ? Array.from({ length: bankCount(layout) }, (_, b) => all.filter((p) => p.bank === b).map((p) => p.cylinder))
          : [all.map((p) => p.cylinder)];
      return cams.map((cylinders, i) => ({
        station: null,
        sheet: `cam.${i + 1}`,
        name: `Camshaft${cams.length > 1 ? bankName(layout, i) : ''}`,
        short: `Cam${cams.length > 1 ? ` ${i + 1}` : ''}`,
        spec: 'cam',
        cells: cells(cylinders, Math.min(7, Math.ceil(cylinders.length / 2) + 2)),
      }));
    },
    readings: (values, place) => {
      const names = new Map(
        place.cells.flatMap((c) => (c.item?.['lobe'] === undefined ? [] : [[String(c.item['lobe']), c.item] as const])),
      );
      const lobes = [...names].flatMap(([lobe, item]) => {
        const key = `lobe.${lobe.replace(' ', '.')}`;
        const [heightMm, baseMm] = [values.of(`${key}.height`), values.of(`${key}.base`)];
        return heightMm === null || baseMm === null ? [] : [{ lobe, kind: String(item['kind']), heightMm, baseMm }];
      });
      const numbers = new Set(place.cells.flatMap((c) => c.item?.['journal'] ?? []));
      const journals = [...numbers].flatMap((n) => {
        const mm = values.size(`journal.${n}.value`);
        return mm === null ? [] : [{ journal: String(n), mm, boreMm: values.size(`journal.${n}.bore`) }];
      });
      return lobes.length === 0 ? null : { lobes, journals, newLiftMm: {} };
    },
    truth: (engine, place, key) => {
      const h = (what: string): number => chance(`${engine.seed} ${place.id} ${what}`);
      if (key.startsWith('journal.')) return key.endsWith('bore') ? 44.03 : 43.965 + 0.004 * h(key);
      const base = 34 + 0.006 * h(`${key.split('.').slice(0, 3).join('.')} base`);
      return key.endsWith('base') ? base : base + (key.includes('intake') ? 8.8 : 8.6) - 0.02 - 0.015 * Math.abs(h(key));
    },
  },
});
