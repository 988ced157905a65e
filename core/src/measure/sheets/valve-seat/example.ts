import type { WorkedExample } from '../define.js';

/** Figures worked by hand from the formulas in `docs/methods/sheets.md`. */
export const example: WorkedExample = {
  file: {
    sheet: 'valve-seat',
    readings: {
      startKpa: 70,
      endKpa: 52,
      seconds: 10,
    },
  },
  gives: { loss: 25.714 },
};
