import { both, defineSheet } from '../define.js';
import { readTravel, TRAVEL_NEEDS, travelCells, travelFile, travelLines, travelOf, trueTravel } from '../travel.js';

/** Crank pushed against its thrust faces. */
export const endFloat = defineSheet({
  id: 'end-float',
  name: 'Crank end float',
  says: '`towards`, `away`',
  file: travelFile,
  read: readTravel,
  compute: (travel, { gauge }) => ({
    lines: travelLines('endFloat', 'End float', travel, gauge('indicator')),
    thumbs: { endFloat: { upper: 0.3 } },
  }),
  bench: {
    group: 'crank',
    rank: 3,
    round: 'End float',
    drawing: 'travel',
    specs: { 'end-float': { name: 'Crank end float', rank: 4 } },
    fields: { lines: [both('endFloat', 'End float')] },
    places: (layout, has) => {
      const station = `main.${layout.thrustMain}.thrust.front`;
      if (!has(station)) return [];
      return [{ station, name: 'Crank end float', short: 'End float', spec: 'end-float', needs: TRAVEL_NEEDS, cells: travelCells() }];
    },
    readings: travelOf,
    limit: { quantity: 'end-float', line: 'endFloat' },
    truth: (engine, place, key) => trueTravel(engine, place, key, 0.14),
  },
});
