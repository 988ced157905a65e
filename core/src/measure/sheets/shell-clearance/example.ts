import type { WorkedExample } from '../define.js';

/** Figures worked by hand from the formulas in `docs/methods/sheets.md`. */
export const example: WorkedExample = {
  file: {
    sheet: 'shell-clearance',
    readings: {
      housing: {
        vertical: 56.7,
        left: 56.702,
        right: 56.704,
      },
      upper: 1.835,
      lower: 1.832,
      upperSide: 1.826,
      lowerSide: 1.824,
      journal: 52.976,
      newWall: 1.842,
    },
    spec: {
      vertical: {
        lower: 0.025,
        upper: 0.07,
        source: 'demo spec sheet',
      },
    },
  },
  gives: { vertical: 0.057, horizontal: 0.077, eccentricity: 0.01, 'wallLoss.lower': 0.01 },
};
