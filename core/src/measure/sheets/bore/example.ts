import type { WorkedExample } from '../define.js';

/** Figures worked by hand from the formulas in `docs/methods/sheets.md`. */
export const example: WorkedExample = {
  file: {
    sheet: 'bore',
    readings: {
      unworn: '84.002',
      temperatureC: 20,
      material: 'grey-iron',
      at: [
        {
          depthMm: 8,
          axis: 'thrust',
          value: 84.09,
        },
        {
          depthMm: 8,
          axis: 'along',
          value: 84.055,
        },
        {
          depthMm: 60,
          axis: 'thrust',
          value: 84.048,
        },
        {
          depthMm: 60,
          axis: 'along',
          value: 84.036,
        },
        {
          depthMm: 120,
          axis: 'thrust',
          value: 84.02,
        },
        {
          depthMm: 120,
          axis: 'along',
          value: 84.018,
        },
      ],
    },
    spec: {
      minMm: 84.0,
      maxMm: 84.02,
      oversizesMm: [0.25, 0.5],
      ovality: {
        upper: 0.05,
        kind: 'limit',
        source: 'demo spec sheet, bore',
      },
    },
  },
  gives: { wear: 0.088, ovality: 0.035, taper: 0.07, form: -0.007, ridge: 0.044 },
};
