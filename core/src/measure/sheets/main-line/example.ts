import type { WorkedExample } from '../define.js';

/** Figures worked by hand from the formulas in `docs/methods/sheets.md`. */
export const example: WorkedExample = {
  file: {
    sheet: 'main-line',
    readings: [
      {
        main: 1,
        gap: 0,
      },
      {
        main: 2,
        gap: 0.03,
      },
      {
        main: 3,
        gap: '0.08',
      },
      {
        main: 4,
        gap: 0.04,
      },
      {
        main: 5,
        gap: 0,
      },
    ],
  },
  gives: { line: 0.08, step: 0.05 },
};
