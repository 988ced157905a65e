import type { WorkedExample } from '../define.js';

/** Figures worked by hand from the formulas in `docs/methods/sheets.md`. */
export const example: WorkedExample = {
  file: {
    sheet: 'rod',
    readings: {
      bend: 0.03,
      twist: -0.02,
      overMm: 150,
      centres: 145.02,
    },
  },
  gives: { bend: 0.02 },
};
