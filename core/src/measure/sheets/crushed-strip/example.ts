import type { WorkedExample } from '../define.js';

/** Figures worked by hand from the formulas in `docs/methods/sheets.md`. */
export const example: WorkedExample = {
  file: {
    sheet: 'crushed-strip',
    readings: {
      thread: 0.25,
      widths: [
        {
          at: 'front',
          value: 0.98,
        },
        {
          at: 'mid',
          value: 0.95,
        },
        {
          at: 'rear',
          value: 0.9,
        },
      ],
    },
    spec: {
      clearance: {
        lower: 0.025,
        upper: 0.06,
        source: 'demo spec sheet',
      },
    },
  },
  gives: { 'strip.front': 0.05009, taper: 0.00445 },
};
