import type { WorkedExample } from '../define.js';

/** Figures worked by hand from the formulas in `docs/methods/sheets.md`. */
export const example: WorkedExample = {
  file: {
    sheet: 'crank-runout',
    readings: [
      {
        main: 1,
        alongMm: 0,
        tir: 0.0,
        highDeg: 0,
      },
      {
        main: 2,
        alongMm: 95,
        tir: 0.06,
        highDeg: 40,
      },
      {
        main: 3,
        alongMm: 190,
        tir: 0.12,
        highDeg: 40,
      },
      {
        main: 4,
        alongMm: 285,
        tir: 0.06,
        highDeg: 40,
      },
      {
        main: 5,
        alongMm: 380,
        tir: 0.0,
        highDeg: 0,
      },
    ],
  },
  gives: { bow: 0.12 },
};
