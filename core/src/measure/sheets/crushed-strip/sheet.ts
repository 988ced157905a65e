import { list, name, object } from '../../../kit/schema.js';
import { shellBearings } from '../bearing.js';
import { cell, type Cell } from '../cells.js';
import { both, defineSheet, raw, refused, upper } from '../define.js';
import { PLANES } from '../journal/journal.js';
import { chance, trueBearing } from '../trueEngine.js';
import { crushedStripLines } from './strip.js';

/** Thread of the demonstration strip, mm. */
const DEMO_THREAD_MM = 0.25;

function cells(): Cell[] {
  return [
    cell({ key: 'thread', name: 'thread of the strip', column: 'thread', role: 'scale', sense: [0.02, 1.5] }),
    ...PLANES.map((at) =>
      cell({
        key: `width.${at}`,
        name: `flattened width, ${at}`,
        column: at,
        role: 'scale',
        sense: [0.1, 12],
        item: { at },
        optional: at === 'mid',
      }),
    ),
  ];
}

/** Running clearance by a plastic thread crushed between shell and journal. */
export const crushedStrip = defineSheet({
  id: 'crushed-strip',
  name: 'Shell clearance by crushed strip',
  says: '`thread`; `widths`: list of `at`, `value`',
  file: object({
    thread: raw,
    widths: list(object({ at: name(30), value: raw }), 2000)
      .min(1)
      .unique('at'),
  }),
  read: (given, reader) => ({
    threadMm: reader.need(given.thread, 'readings.thread'),
    widths: reader.each(
      given.widths.map((w, index) => ({ ...w, index })),
      (w, i) => reader.length(w.value, `readings.widths.${i}.value`),
      (w, widthMm) => ({ at: w.at, index: w.index, widthMm }),
    ),
  }),
  compute: ({ threadMm, widths }, { gauge }) => {
    const flat = widths.find((w) => w.widthMm <= 0);
    if (flat) return refused('reading', 'A flattened width is more than nothing.', `readings.widths.${flat.index}.value`);
    const narrow = widths.find((w) => w.widthMm <= threadMm);
    if (narrow)
      return refused(
        'reading',
        'The strip is no wider than its thread: it was not crushed there, so there is no clearance to be read. Check the width and the thread; a larger thread is needed for a larger clearance.',
        `readings.widths.${narrow.index}.value`,
      );
    return { lines: crushedStripLines(threadMm, widths, gauge('scale')) };
  },
  bench: {
    group: 'bearings',
    rank: 2,
    round: 'Clearance by strip',
    drawing: 'strip',
    chart: 'clearance',
    specs: { 'main.strip': { name: 'Main clearance by strip', rank: 6 }, 'rod.strip': { name: 'Rod clearance by strip', rank: 11 } },
    fields: { lines: [both('clearance', 'Least clearance'), upper('taper', 'Taper of clearance')] },
    places: (layout, has) =>
      shellBearings(layout, has).map((b) => ({
        station: b.lower,
        name: `${b.name} clearance by crushed strip`,
        short: `${b.name} strip`,
        spec: `${b.part}.strip`,
        turn: b.turn,
        needs: ['thread'],
        cells: cells(),
      })),
    readings: (values) => {
      const threadMm = values.of('thread');
      const widths = PLANES.flatMap((at, index) => {
        const widthMm = values.of(`width.${at}`);
        return widthMm === null ? [] : [{ at, index, widthMm }];
      });
      return threadMm === null || widths.length === 0 ? null : { threadMm, widths };
    },
    truth: (engine, place, key) => {
      if (key === 'thread') return DEMO_THREAD_MM;
      const b = trueBearing(engine, place.station!);
      const clearance = b.housing('vertical') - 2 * (b.wall - 0.001) + 0.024 * (b.severity('upper') + b.severity('lower')) - b.journal;
      const here = clearance + 0.002 * chance(`${engine.seed} ${place.id} ${key}`);
      return (Math.PI * DEMO_THREAD_MM ** 2) / (4 * Math.max(0.01, here));
    },
  },
});
