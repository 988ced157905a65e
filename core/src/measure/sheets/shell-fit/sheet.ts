import { stationOf } from '../../../engine/stations.js';
import { object, oneOf, optional } from '../../../kit/schema.js';
import { shellBearings } from '../bearing.js';
import { cell, type Cell } from '../cells.js';
import { both, defineSheet, lower, mayRead } from '../define.js';
import { trueBearing } from '../trueEngine.js';
import { shellFitLines } from './fit.js';

/** How a half goes home under the thumb, and what that says. */
const THUMB = {
  firm: 'Goes home under firm thumbs and stays: spread and fit as they should be.',
  light: 'Goes home lightly: the spread is nearly gone, measure it before the half is used again.',
  'drops in': 'Drops in or falls out: no spread left, the half has lost its hold by heat or a loose cap and is not used again.',
} as const;

function cells(): Cell[] {
  return [
    cell({ key: 'protrusion', name: 'protrusion above the joint', column: 'protrusion', role: 'depth', sense: [0, 1] }),
    cell({ key: 'freeSpread', name: 'across the free ends', column: 'free ends', role: 'caliper', sense: [10, 400] }),
    cell({ key: 'housing', name: 'housing bore', column: 'housing', role: 'caliper', sense: [10, 400] }),
  ];
}

/** What holds a half in its housing. */
export const shellFit = defineSheet({
  id: 'shell-fit',
  name: 'Shell fit',
  says: '`protrusion`, `freeSpread`, `housing`, `thumb` (`firm`, `light`, `drops in`)',
  file: object({
    protrusion: mayRead,
    freeSpread: mayRead,
    housing: mayRead,
    thumb: optional(oneOf(['firm', 'light', 'drops in'])),
  }).min(1),
  read: (given, reader) => ({
    protrusionMm: reader.length(given.protrusion, 'readings.protrusion'),
    freeSpreadMm: reader.length(given.freeSpread, 'readings.freeSpread'),
    housingMm: reader.length(given.housing, 'readings.housing'),
    thumb: given.thumb,
  }),
  compute: ({ thumb, ...fit }, { gauge }) => ({
    lines: shellFitLines(fit, gauge('caliper')),
    thumbs: { crush: { lower: 0.02 }, spread: { lower: 0.1 } },
    says: [...(thumb ? [THUMB[thumb]] : []), 'Crush holds a shell; the tab only places it.'],
  }),
  bench: {
    group: 'bearings',
    rank: 3,
    round: 'Shell fit',
    drawing: 'bearing',
    specs: { 'main.fit': { name: 'Main shell fit', rank: 7 }, 'rod.fit': { name: 'Rod shell fit', rank: 12 } },
    fields: { lines: [both('crush', 'Crush'), lower('spread', 'Free spread')] },
    places: (layout, has) =>
      shellBearings(layout, has).flatMap((b) =>
        (['upper', 'lower'] as const).map((half) => ({
          station: b[half],
          name: `${b.name} ${half} shell fit`,
          short: `${b.name} fit, ${half}`,
          spec: `${b.part}.fit`,
          turn: b.turn,
          cells: cells(),
        })),
      ),
    readings: (values) => ({
      protrusionMm: values.of('protrusion'),
      freeSpreadMm: values.of('freeSpread'),
      housingMm: values.of('housing'),
      thumb: undefined,
    }),
    truth: (engine, place, key) => {
      const b = trueBearing(engine, place.station!);
      const gone = b.severity(stationOf(engine.layout, place.station!)?.half ?? 'lower');
      if (key === 'protrusion') return 0.045 - 0.03 * gone;
      const held = b.housing('left');
      return key === 'freeSpread' ? held + 0.6 - 0.55 * gone : held;
    },
    borrows: (layout, place) =>
      shellBearings(layout, () => true)
        .filter((b) => b.upper === place.station || b.lower === place.station)
        .map((b) => ({ cell: 'housing', station: b.lower, sheet: 'housing', of: () => true })),
    speaks: /./,
  },
});
