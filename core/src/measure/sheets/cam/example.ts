import type { WorkedExample } from '../define.js';

/** Figures worked by hand from the formulas in `docs/methods/sheets.md`. */
export const example: WorkedExample = {
  file: {
    sheet: 'cam',
    readings: {
      lobes: [
        {
          lobe: 1,
          kind: 'inlet',
          height: 42.8,
          base: 34.0,
        },
        {
          lobe: 2,
          kind: 'exhaust',
          height: 42.6,
          base: 34.0,
        },
        {
          lobe: 3,
          kind: 'inlet',
          height: 42.35,
          base: 34.0,
        },
        {
          lobe: 4,
          kind: 'exhaust',
          height: 42.58,
          base: 34.0,
        },
      ],
      journals: [
        {
          journal: 1,
          value: 43.96,
          bore: 44.03,
        },
        {
          journal: 2,
          value: 43.91,
          bore: 44.03,
        },
        {
          journal: 3,
          value: 43.955,
        },
      ],
    },
  },
  gives: { 'loss.3': 0.45, 'journalWear.2': 0.05, 'journalClearance.2': 0.12 },
};
