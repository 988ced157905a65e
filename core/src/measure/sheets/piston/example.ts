import type { WorkedExample } from '../define.js';

/** Figures worked by hand from the formulas in `docs/methods/sheets.md`. */
export const example: WorkedExample = {
  file: {
    sheet: 'piston',
    readings: {
      piston: 83.955,
      bore: 84.02,
      new: 83.965,
      crown: 83.52,
      pinBoss: '22.004',
      print: 18,
    },
    spec: {
      clearance: {
        lower: 0.03,
        upper: 0.06,
        kind: 'target',
        source: 'shop build sheet',
      },
    },
  },
  gives: { clearance: 0.065, collapse: 0.01, crownDrop: 0.435, pinBoss: 22.004 },
};
