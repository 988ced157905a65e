import type { WorkedExample } from '../define.js';

/** Figures worked by hand from the formulas in `docs/methods/sheets.md`. */
export const example: WorkedExample = {
  file: {
    sheet: 'fasteners',
    readings: [
      {
        position: 1,
        pair: 'main 1',
        value: 98,
      },
      {
        position: 2,
        pair: 'main 1',
        value: 95,
      },
      {
        position: 3,
        pair: 'main 2',
        value: 61,
      },
      {
        position: 4,
        pair: 'main 2',
        value: '72 lb·ft',
      },
    ],
  },
  gives: { greatest: 98 },
};
