import type { WorkedExample } from '../define.js';

/** Figures worked by hand from the formulas in `docs/methods/sheets.md`. */
export const example: WorkedExample = {
  file: {
    sheet: 'side-clearance',
    readings: {
      towards: 0.16,
      away: -0.15,
    },
  },
  gives: { sideClearance: 0.31 },
};
