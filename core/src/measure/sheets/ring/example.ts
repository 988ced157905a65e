import type { WorkedExample } from '../define.js';

/** Figures worked by hand from the formulas in `docs/methods/sheets.md`. */
export const example: WorkedExample = {
  file: {
    sheet: 'ring',
    readings: {
      gapUnworn: '0.35',
      gapWorn: '0.62',
      groove: 1.54,
      ring: 1.48,
      boreMm: 84,
      freeGap: 9.4,
      tension: '2.7 lbf',
    },
  },
  gives: { boreWear: 0.27 / Math.PI, side: 0.06, freeGap: 9.4, tension: 2.7 * 4.4482216 },
};
