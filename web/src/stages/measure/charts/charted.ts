import type { Gauge } from '@true-ledger/core/units';
import type { PlaceOutcome } from '@true-ledger/core/measure';
import type { ReadingEntry } from '@true-ledger/core/measured';
import { DEFAULT_GAUGE } from '@true-ledger/core/bundle';
import type { Layout } from 'plotly.js';
import { COLOUR } from '../../../app/tokens.js';

export const INK = { first: COLOUR.accent, second: COLOUR.copper, band: COLOUR.steel, limit: COLOUR.ink } as const;

/** Damage ramp of the layers of a bearing, light to dark. */
export const RAMP: Array<[number, string]> = [
  [0, COLOUR.steel],
  [0.25, COLOUR.lining],
  [0.5, COLOUR.bronze],
  [0.75, COLOUR.copper],
  [1, COLOUR.heat],
];

export interface Charted {
  readonly outcome: PlaceOutcome;
  readonly readings: readonly ReadingEntry[];
}

export const gaugeOf = (readings: readonly ReadingEntry[]): Gauge => readings.at(-1)?.value.gauge ?? DEFAULT_GAUGE;

export function band(lower: number, upper: number): Partial<Layout['shapes'][number]>[] {
  const edge = (y: number): Partial<Layout['shapes'][number]> => ({
    type: 'line',
    xref: 'paper',
    x0: 0,
    x1: 1,
    y0: y,
    y1: y,
    line: { color: INK.limit, width: 1.2, dash: 'dash' },
  });
  return [
    {
      type: 'rect',
      xref: 'paper',
      x0: 0,
      x1: 1,
      y0: lower,
      y1: upper,
      fillcolor: INK.band,
      opacity: 0.45,
      line: { width: 0 },
      layer: 'below',
    },
    edge(lower),
    edge(upper),
  ];
}
