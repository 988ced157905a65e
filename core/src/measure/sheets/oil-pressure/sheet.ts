import { object } from '../../../kit/schema.js';
import { defineSheet, mayRead } from '../define.js';
import type { SheetLine } from '../line.js';

type State = 'coldIdle' | 'coldRated' | 'hotIdle' | 'hotRated';

/** Oil pressure on a gauge of the builder's own. The gauge is taken to be good to 0.1 bar. */
export const oilPressure = defineSheet({
  id: 'oil-pressure',
  name: 'Oil pressure',
  says: 'any of `coldIdle`, `coldRated`, `hotIdle`, `hotRated`, bar',
  file: object({ coldIdle: mayRead, coldRated: mayRead, hotIdle: mayRead, hotRated: mayRead }).min(1),
  read: (given, reader) =>
    (Object.keys(given) as State[]).flatMap((state) => {
      const bar = reader.quantity(given[state], 'pressure', `readings.${state}`);
      return bar === null ? [] : [{ state, bar }];
    }),
  compute: (read) => ({
    lines: read.map(({ state, bar }): SheetLine => ({
      id: state,
      name: state.replace(/([A-Z])/, ', $1').toLowerCase(),
      value: bar,
      unit: 'bar',
      expanded: 0.1,
      at: 'own gauge in the gallery',
    })),
    thumbs: { hotIdle: { lower: 0.7 } },
  }),
});
