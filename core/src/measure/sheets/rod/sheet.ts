import { object, positive } from '../../../kit/schema.js';
import { cylinderPlaces, type EngineLayout } from '../../../engine/layout.js';
import { cell, PLAY, type Cell } from '../cells.js';
import { both, defineSheet, mayRead } from '../define.js';
import { chance } from '../trueEngine.js';
import { rodLines } from './rod.js';

/** Length bend and twist are read over on the bench, mm. */
const OVER_MM = 100;

function cells(layout: EngineLayout): Cell[] {
  return [
    cell({ key: 'bend', name: 'bend, read over 100 mm', column: 'bend', role: 'indicator', sense: PLAY }),
    cell({ key: 'twist', name: 'twist, read over 100 mm', column: 'twist', role: 'indicator', sense: PLAY }),
    cell({
      key: 'centres',
      name: 'length between centres',
      column: 'centres',
      role: 'caliper',
      expectMm: layout.rodLengthMm,
      optional: true,
    }),
  ];
}

/** A rod between mandrels. */
export const rod = defineSheet({
  id: 'rod',
  name: 'Rod',
  says: '`bend`, `twist` read over `overMm`; `centres`',
  file: object({ bend: mayRead, twist: mayRead, overMm: positive(1000), centres: mayRead }),
  read: (given, reader) => ({
    bendMm: reader.length(given.bend, 'readings.bend'),
    twistMm: reader.length(given.twist, 'readings.twist'),
    overMm: given.overMm,
    centresMm: reader.length(given.centres, 'readings.centres'),
  }),
  compute: (rod, { gauge }) => ({
    lines: rodLines(rod, gauge('indicator')),
    thumbs: { bend: { lower: -0.05, upper: 0.05 }, twist: { lower: -0.08, upper: 0.08 } },
    says: ['A bent rod leaves diagonal wear on its skirt and opposite edges on its two halves.'],
  }),
  bench: {
    group: 'rods',
    rank: 1,
    round: 'Bend and twist',
    drawing: 'rod',
    specs: { rod: { name: 'Rods', rank: 14 } },
    fields: { lines: [both('bend', 'Bend per 100 mm'), both('twist', 'Twist per 100 mm'), both('centres', 'Length between centres')] },
    places: (layout) =>
      cylinderPlaces(layout).map(({ cylinder: c }, turn) => ({
        station: `rod.${c}`,
        name: `Rod ${c} bend and twist`,
        short: `Rod ${c}`,
        spec: 'rod',
        turn,
        cells: cells(layout),
      })),
    readings: (values) => ({
      bendMm: values.of('bend'),
      twistMm: values.of('twist'),
      overMm: OVER_MM,
      centresMm: values.of('centres'),
    }),
    truth: (engine, place, key) => {
      const h = (what: string): number => chance(`${engine.seed} ${place.id} ${what}`);
      if (key === 'centres') return engine.layout.rodLengthMm + 0.01 * h('centres');
      return 0.012 * h(key) + 0.09 * engine.severity(place.station!) * h(`${key} bent`);
    },
  },
});
