import type { WorkedExample } from '../define.js';

/** Figures worked by hand from the formulas in `docs/methods/sheets.md`. */
export const example: WorkedExample = {
  file: {
    sheet: 'shell-fit',
    readings: {
      protrusion: '0.045',
      freeSpread: 57.1,
      housing: 56.7,
      thumb: 'firm',
    },
  },
  gives: { spread: 0.4 },
};
