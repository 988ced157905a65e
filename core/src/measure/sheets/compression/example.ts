import type { WorkedExample } from '../define.js';

/** Figures worked by hand from the formulas in `docs/methods/sheets.md`. */
export const example: WorkedExample = {
  file: {
    sheet: 'compression',
    readings: {
      dry: [12.1, 11.9, 6.2, 6.0],
      wet: [12.6, 12.4, 6.4, 6.2],
    },
  },
  gives: { spread: 50.41 },
};
