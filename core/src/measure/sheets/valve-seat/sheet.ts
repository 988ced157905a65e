import { figure, object, positive } from '../../../kit/schema.js';
import { cylinderPlaces } from '../../../engine/layout.js';
import { cell, type Cell } from '../cells.js';
import { defineSheet, upper } from '../define.js';
import { chance } from '../trueEngine.js';

const NEEDS = ['startKpa', 'endKpa', 'seconds'] as const;

function cells(): Cell[] {
  return [
    cell({ key: 'startKpa', name: 'vacuum at the start, kPa', column: 'start', quantity: 'vacuum', role: 'vacuum', sense: [5, 101] }),
    cell({ key: 'endKpa', name: 'vacuum at the end, kPa', column: 'end', quantity: 'vacuum', role: 'vacuum', sense: [0, 101] }),
    cell({ key: 'seconds', name: 'seconds held', column: 'held', quantity: 'time', role: 'clock', sense: [1, 600] }),
  ];
}

/** A valve and its seat under vacuum at the port. Loss is linear over the time held, carried to 10 s. */
export const valveSeat = defineSheet({
  id: 'valve-seat',
  name: 'Valve seat by vacuum',
  says: '`startKpa`, `endKpa`, `seconds`',
  file: object({ startKpa: positive(101), endKpa: figure(0, 101), seconds: positive(600) }),
  read: (given) => given,
  compute: ({ startKpa, endKpa, seconds }) => {
    const loss = ((startKpa - endKpa) / startKpa) * 100 * (10 / seconds);
    return {
      lines: [
        {
          id: 'loss',
          name: 'Vacuum lost in 10 s',
          value: loss,
          unit: '%',
          expanded: 2,
          at: `from ${startKpa} to ${endKpa} kPa in ${seconds} s`,
        },
      ],
      says: [`${loss < 10 ? 'Tight' : loss < 40 ? 'Weeps' : 'Leaks'} (rule of thumb: under 10 % tight, under 40 % weeps).`],
      thumbs: { loss: { upper: 10 } },
    };
  },
  bench: {
    group: 'head',
    rank: 3,
    round: 'Valve seats',
    drawing: 'seat',
    specs: { 'valve-seat': { name: 'Valve seats', rank: 24 } },
    fields: { lines: [upper('loss', 'Vacuum lost in 10 s', '%')] },
    places: (layout) =>
      layout.valveGear === 'ports'
        ? []
        : cylinderPlaces(layout).flatMap(({ cylinder: c }) =>
            (['intake', 'exhaust'] as const).map((valve) => ({
              station: null,
              sheet: `valve-seat.${c}.${valve}`,
              name: `Valve seat ${c}, ${valve}`,
              short: `Seat ${c} ${valve}`,
              spec: 'valve-seat',
              needs: NEEDS,
              cells: cells(),
            })),
          ),
    readings: (values) => {
      const needed = values.all(NEEDS);
      if (!needed || needed[0] <= 0 || needed[2] <= 0) return null;
      const [startKpa, endKpa, seconds] = needed;
      return { startKpa, endKpa, seconds };
    },
    truth: (engine, place, key) =>
      key === 'startKpa' ? 60 : key === 'seconds' ? 10 : 58 - 4 * Math.abs(chance(`${engine.seed} ${place.id} ${key}`)),
  },
});
