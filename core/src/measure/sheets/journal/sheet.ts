import { list, object, oneOf } from '../../../kit/schema.js';
import { stationsOf } from '../../../engine/stations.js';
import { cell, deepestMark, DEEPEST_MARK, type Cell } from '../cells.js';
import { defineSheet, questionsOf, raw, referencesOf } from '../define.js';
import { takeRepeats, type SheetLine } from '../line.js';
import { USUAL_STEPS_MM } from '../sizes.js';
import { trueJournalMm } from '../trueEngine.js';
import { AXES, barrelText, journalSheet, PLANES, type Axis, type JournalReading, type MeasuredValue, type Plane } from './journal.js';

function cells(expectMm: number): Cell[] {
  return [
    ...PLANES.flatMap((plane) =>
      AXES.map((axis) =>
        cell({
          key: `${plane}.${axis}`,
          name: `${plane}, axis ${axis}`,
          row: axis,
          column: plane,
          role: 'micrometer',
          expectMm,
          item: { plane, axis },
        }),
      ),
    ),
    deepestMark,
  ];
}

/** Results whose sign tells a direction. */
const SIGNED = /^(taper|barrel\.)/;
const resultLine = (id: string, name: string, v: MeasuredValue | undefined): SheetLine[] =>
  v ? [{ id, name, value: v.value, unit: 'mm', expanded: v.expanded, at: v.at, ...(SIGNED.test(id) ? { signed: true } : {}) }] : [];

/** A main journal or crankpin: six diameters, front, middle and rear in two axes. */
export const journal = defineSheet({
  id: 'journal',
  name: 'Journal or crankpin',
  says: 'list of `plane` (`front`, `mid`, `rear`), `axis` (`A`, `B`), `value`',
  file: list(object({ plane: oneOf(PLANES), axis: oneOf(AXES), value: raw }), 2000).min(1),
  read: (given, reader) =>
    reader.each(
      given,
      (x, i) => reader.size(x.value, `readings.${i}.value`),
      (x, mm): JournalReading => ({ plane: x.plane, axis: x.axis, mm }),
    ),
  compute: (readings, { gauge, sizes }) => {
    const { minMm, maxMm } = sizes;
    const listed = sizes.undersizesMm ?? [];
    const known =
      minMm !== undefined && maxMm !== undefined
        ? { minMm, maxMm, undersizesMm: listed.length > 0 ? listed : USUAL_STEPS_MM, source: sizes.source ?? '' }
        : null;
    const taken = takeRepeats(readings, (x) => `${x.plane} ${x.axis}`, gauge('micrometer'));
    const s = journalSheet(taken.readings, taken.gauge, known, sizes.deepestMarkMm ?? 0);
    return {
      lines: [
        ...resultLine('greatest', 'Largest', s.max),
        ...resultLine('least', 'Least', s.min),
        ...resultLine('outOfRound', 'Out-of-round', s.outOfRound),
        ...resultLine('taper', 'Taper', s.taper),
        ...s.barrel.flatMap((b) => resultLine(`barrel.${b.axis}`, `Barrel or hourglass, ${b.axis}`, b)),
        ...resultLine('wear', 'Wear', s.wear),
      ],
      says: [...(s.barrel.length > 0 ? [`${s.barrel.map((b) => barrelText(b)).join('; ')}.`] : []), ...(s.size ? [s.size.reason] : [])],
      missing: [
        ...(s.outOfRound ? [] : ['a second axis, so no out-of-round']),
        ...(s.taper ? [] : ['front and rear, so no taper']),
        ...(s.barrel.length > 0 ? [] : ['the middle plane, so no barrel or hourglass']),
      ],
      questions: questionsOf(
        readings.map((x) => ({ mm: x.mm, place: `${x.plane}, axis ${x.axis}` })),
        sizes,
      ),
      references: referencesOf(sizes, [
        ['least', 'minMm', 'lower'],
        ['greatest', 'maxMm', 'upper'],
        ['outOfRound', 'outOfRoundMaxMm', 'upper'],
        ['taper', 'taperMaxMm', 'upper'],
      ]),
    };
  },
  bench: {
    group: 'crank',
    rank: 1,
    round: 'Journals',
    drawing: 'journal',
    chart: 'journal',
    specs: { 'crank.pin': { name: 'Crankpins', rank: 1 }, 'crank.main': { name: 'Main journals', rank: 2 } },
    fields: { sizes: true, roundness: true, steps: 'undersizesMm', lines: [] },
    places: (layout, has) => [
      ...Array.from({ length: layout.mains }, (_, i) => i + 1)
        .filter((m) => has(`crank.main.${m}`))
        .map((m) => ({
          station: `crank.main.${m}`,
          name: `Main journal ${m}`,
          short: `Main ${m}`,
          spec: 'crank.main',
          cells: cells(layout.mainDiameterMm),
        })),
      ...stationsOf(layout)
        .filter((s) => s.part === 'journal' && s.carries === 'rod')
        .map((s) => ({ station: s.id, name: s.name, short: `Pin ${s.number}`, spec: 'crank.pin', cells: cells(layout.pinDiameterMm) })),
    ],
    readings: (values, place) => {
      const readings = place.cells.flatMap((c): JournalReading[] => {
        const mm = c.key === DEEPEST_MARK ? null : values.size(c.key);
        return mm === null ? [] : [{ plane: c.item!['plane'] as Plane, axis: c.item!['axis'] as Axis, mm }];
      });
      return readings.length === 0 ? null : readings;
    },
    truth: (engine, place, key) => {
      if (key === DEEPEST_MARK) return 0.004 + 0.06 * engine.severity(place.station!);
      const [plane, axis] = key.split('.') as [string, string];
      return trueJournalMm(engine, place.station!, plane, axis);
    },
    speaks: /^(least|outOfRound|taper|wear)$/,
    losses: /^wear$/,
  },
});
