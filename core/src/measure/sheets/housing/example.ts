import type { WorkedExample } from '../define.js';

/** Figures worked by hand from the formulas in `docs/methods/sheets.md`. */
export const example: WorkedExample = {
  file: {
    sheet: 'housing',
    readings: [
      {
        direction: 'vertical',
        value: 56.728,
      },
      {
        direction: 'left',
        value: 56.703,
      },
      {
        direction: 'right',
        value: 56.705,
      },
    ],
    spec: {
      outOfRound: {
        upper: 0.015,
        source: 'demo spec sheet',
      },
    },
  },
  gives: { outOfRound: 0.025, stretch: 0.024 },
};
