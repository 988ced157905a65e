import type { WorkedExample } from '../define.js';

/** Figures worked by hand from the formulas in `docs/methods/sheets.md`. */
export const example: WorkedExample = {
  file: {
    sheet: 'turning',
    readings: {
      ahead: [9, 9.5, 9.2, 14, 9.1, 9.3],
      back: [9, 9.2, 9.1, 13.5, 9, 9.4],
      eased: [
        {
          cap: 'main 1',
          value: 9.4,
        },
        {
          cap: 'main 2',
          value: 9.1,
        },
        {
          cap: 'main 3',
          value: 3.2,
        },
        {
          cap: 'main 4',
          value: 2.9,
        },
      ],
    },
  },
  gives: { ahead: 9.25, 'drop.main 3': 5.9 },
};
