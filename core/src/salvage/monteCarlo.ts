import { randomBeta, randomLcg } from 'd3-random';
import type { Estimate } from './prices.js';

export interface RouteLine {
  readonly what: string;
  readonly kind: 'part' | 'machine' | 'labour' | 'engine';
  readonly quantity: number;
  /** Cost of one. */
  readonly cost: Estimate;
  /** Calendar days it takes or until it is there; lines of one kind run side by side, kinds after each other. */
  readonly days: Estimate;
}

export interface Distribution {
  readonly p10: number;
  readonly p50: number;
  readonly p90: number;
  readonly mean: number;
}

export interface Simulated {
  readonly draws: number;
  readonly seed: number;
  readonly cost: Distribution;
  readonly days: Distribution;
  /** Share of draws that are done in time; null without a deadline. */
  readonly inTime: number | null;
  /** Counts of cost over equal steps between least and greatest. */
  readonly histogram: { readonly from: number; readonly step: number; readonly counts: readonly number[] };
}

/** Mean of a PERT distribution, (a + 4m + b) / 6 (Malcolm et al. 1959). */
export function pertMean({ low, likely, high }: Estimate): number {
  return (low + 4 * likely + high) / 6;
}

/** Draws from a PERT distribution: a beta over [a, b] with α = 1 + 4 (m − a)/(b − a), β = 1 + 4 (b − m)/(b − a). */
export function pert(estimate: Estimate, source: () => number): () => number {
  const { low, likely, high } = estimate;
  const span = high - low;
  if (span <= 0) return () => low;
  const draw = randomBeta.source(source)(1 + (4 * (likely - low)) / span, 1 + (4 * (high - likely)) / span);
  return () => low + span * draw();
}

const BINS = 30;

/**
 * Cost and time of a route by seeded Monte Carlo. Cost is the sum over lines; time is the longest of the parts and engines, side by side with the machine work after `beforeDays`, then the bench
 * hours at `hoursPerDay`. The same seed gives the same figures.
 */
export function simulateRoute(
  lines: readonly RouteLine[],
  hours: Estimate,
  options: {
    readonly seed: number;
    readonly draws: number;
    readonly hoursPerDay: number;
    readonly hourCost: Estimate;
    readonly queueDays: Estimate;
    readonly deadlineDays: number | null;
  },
): Simulated {
  const source = randomLcg(options.seed / 2 ** 32);
  const costs = lines.map((l) => ({ quantity: l.quantity, draw: pert(l.cost, source) }));
  const waits = lines.filter((l) => l.kind === 'part' || l.kind === 'engine').map((l) => pert(l.days, source));
  const machine = lines.filter((l) => l.kind === 'machine').map((l) => pert(l.days, source));
  const bench = pert(hours, source);
  const hourCost = pert(options.hourCost, source);
  const queue = pert(options.queueDays, source);
  const cost = new Float64Array(options.draws);
  const days = new Float64Array(options.draws);
  for (let k = 0; k < options.draws; k++) {
    const h = bench();
    let sum = h * hourCost();
    for (const c of costs) sum += c.quantity * c.draw();
    let parts = 0;
    for (const w of waits) parts = Math.max(parts, w());
    let shop = 0;
    for (const m of machine) shop = Math.max(shop, m());
    cost[k] = sum;
    days[k] = Math.max(parts, machine.length > 0 ? queue() + shop : 0) + h / options.hoursPerDay;
  }
  const { deadlineDays } = options;
  return {
    draws: options.draws,
    seed: options.seed,
    cost: distribution(cost),
    days: distribution(days),
    inTime: deadlineDays === null ? null : days.reduce((n, d) => n + (d <= deadlineDays ? 1 : 0), 0) / Math.max(1, options.draws),
    histogram: histogram(cost),
  };
}

function distribution(values: Float64Array): Distribution {
  const sorted = values.slice().sort();
  const at = (q: number): number => sorted[Math.min(sorted.length - 1, Math.floor(q * sorted.length))] ?? 0;
  return { p10: at(0.1), p50: at(0.5), p90: at(0.9), mean: values.reduce((a, b) => a + b, 0) / Math.max(1, values.length) };
}

function histogram(values: Float64Array): Simulated['histogram'] {
  let from = Infinity;
  let to = -Infinity;
  for (const v of values) {
    if (v < from) from = v;
    if (v > to) to = v;
  }
  const step = (to - from) / BINS || 1;
  const counts = new Array<number>(BINS).fill(0);
  for (const v of values) counts[Math.min(BINS - 1, Math.floor((v - from) / step))]!++;
  return { from: Number.isFinite(from) ? from : 0, step, counts };
}
