import type { WorkedExample } from '../define.js';

/** Figures worked by hand from the formulas in `docs/methods/sheets.md`. */
export const example: WorkedExample = {
  file: {
    sheet: 'oil-pressure',
    readings: {
      coldIdle: 4.1,
      hotIdle: '8 psi',
      hotRated: 2.1,
    },
  },
  gives: { hotIdle: 0.5516 },
};
