import type { WorkedExample } from '../define.js';

/** Figures worked by hand from the formulas in `docs/methods/sheets.md`. */
export const example: WorkedExample = {
  file: {
    sheet: 'journal',
    readings: [
      {
        plane: 'front',
        axis: 'A',
        value: 52.978,
      },
      {
        plane: 'front',
        axis: 'B',
        value: 52.971,
      },
      {
        plane: 'mid',
        axis: 'A',
        value: 52.975,
      },
      {
        plane: 'mid',
        axis: 'B',
        value: 52.966,
      },
      {
        plane: 'rear',
        axis: 'A',
        value: 52.981,
      },
      {
        plane: 'rear',
        axis: 'B',
        value: 52.976,
      },
    ],
    spec: {
      minMm: 52.984,
      maxMm: 53.0,
      outOfRoundMaxMm: 0.008,
      taperMaxMm: 0.008,
      source: 'demo spec sheet, crankpin',
    },
    gauges: {
      default: {
        id: 'om-50-75',
        name: 'Outside micrometer 50–75',
        kind: 'outside-micrometer',
        resolutionMm: 0.001,
        expandedUncertaintyMm: 0.002,
        repeatabilityMm: 0.001414,
      },
    },
  },
  gives: { outOfRound: 0.009, taper: 0.005, 'barrel.A': -0.0045, 'barrel.B': -0.0075, wear: 0.018 },
};
