import type { WorkedExample } from '../define.js';

/** Figures worked by hand from the formulas in `docs/methods/sheets.md`. */
export const example: WorkedExample = {
  file: {
    sheet: 'end-float',
    readings: {
      towards: '0.11',
      away: '-0.09',
    },
    spec: {
      endFloat: {
        lower: 0.07,
        upper: 0.25,
        source: 'demo spec sheet',
      },
    },
  },
  gives: { endFloat: 0.2 },
};
