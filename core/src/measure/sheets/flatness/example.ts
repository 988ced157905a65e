import type { WorkedExample } from '../define.js';

/** Figures worked by hand from the formulas in `docs/methods/sheets.md`. */
export const example: WorkedExample = {
  file: {
    sheet: 'flatness',
    readings: {
      points: [
        {
          xMm: 0,
          yMm: 0,
          value: 0.0,
        },
        {
          xMm: 100,
          yMm: 0,
          value: 0.02,
        },
        {
          xMm: 200,
          yMm: 0,
          value: 0.04,
        },
        {
          xMm: 300,
          yMm: 0,
          value: 0.06,
        },
        {
          xMm: 400,
          yMm: 0,
          value: 0.08,
        },
        {
          xMm: 0,
          yMm: 75,
          value: -0.0075,
        },
        {
          xMm: 100,
          yMm: 75,
          value: 0.0125,
        },
        {
          xMm: 200,
          yMm: 75,
          value: -0.0275,
        },
        {
          xMm: 300,
          yMm: 75,
          value: 0.0525,
        },
        {
          xMm: 400,
          yMm: 75,
          value: 0.0725,
        },
        {
          xMm: 0,
          yMm: 150,
          value: -0.015,
        },
        {
          xMm: 100,
          yMm: 150,
          value: 0.005,
        },
        {
          xMm: 200,
          yMm: 150,
          value: 0.025,
        },
        {
          xMm: 300,
          yMm: 150,
          value: 0.045,
        },
        {
          xMm: 400,
          yMm: 150,
          value: 0.065,
        },
      ],
      cut: {
        boreMm: 84,
        strokeMm: 90,
        compressionRatio: 10,
        cutMm: 0.2,
      },
      scratches: [
        {
          at: 'cylinder 2, between 2 and 3',
          depth: '0.04',
        },
        {
          at: 'cylinder 4, rear',
          depth: 0.015,
        },
      ],
    },
  },
  gives: { scratch: 0.04 },
};
