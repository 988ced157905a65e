import { cylinderPlaces } from '../../../engine/layout.js';
import { both, defineSheet } from '../define.js';
import { readTravel, TRAVEL_NEEDS, travelCells, travelFile, travelLines, travelOf, trueTravel } from '../travel.js';

/** Rod pushed along its pin. */
export const sideClearance = defineSheet({
  id: 'side-clearance',
  name: 'Rod side clearance',
  says: '`towards`, `away`',
  file: travelFile,
  read: readTravel,
  compute: (travel, { gauge }) => ({
    lines: travelLines('sideClearance', 'Side clearance', travel, gauge('indicator')),
    thumbs: { sideClearance: { lower: 0.1, upper: 0.5 } },
  }),
  bench: {
    group: 'rods',
    rank: 2,
    round: 'Side clearance',
    drawing: 'travel',
    specs: { 'rod.side': { name: 'Rod side clearance', rank: 15 } },
    fields: { lines: [both('sideClearance', 'Side clearance')] },
    places: (layout) =>
      cylinderPlaces(layout).map(({ cylinder: c }, turn) => ({
        station: `rod.${c}`,
        name: `Rod ${c} side clearance`,
        short: `Rod ${c} side`,
        spec: 'rod.side',
        turn,
        needs: TRAVEL_NEEDS,
        cells: travelCells(),
      })),
    readings: travelOf,
    truth: (engine, place, key) => trueTravel(engine, place, key, 0.22),
  },
});
