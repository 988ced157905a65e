import type { WorkedExample } from '../define.js';

/** Figures worked by hand from the formulas in `docs/methods/sheets.md`. */
export const example: WorkedExample = {
  file: {
    sheet: 'oil-pump',
    readings: {
      end: 0.06,
      tip: 0.26,
      side: 0.14,
      springLength: 52.4,
      popPressure: '62 psi',
    },
    spec: {
      springLength: {
        lower: 54,
        source: 'demo spec sheet',
      },
    },
  },
  gives: { popPressure: 62 * 0.0689475729 },
};
