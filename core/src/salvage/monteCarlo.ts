import { randomBeta, randomLcg } from 'd3-random';
import type { Estimate } from '../workshop/prices.js';
import { inOrder, type Calendar, type Task } from './schedule.js';

/** One cost of a route: quantity times a price that is low, likely or high. */
export interface RouteLine {
  readonly what: string;
  readonly kind: 'part' | 'machine' | 'labour' | 'engine';
  readonly quantity: number;
  /** Cost of one. */
  readonly cost: Estimate;
  /** Calendar days it takes or until it is there. */
  readonly days: Estimate;
}

interface Distribution {
  readonly p10: number;
  readonly p50: number;
  readonly p90: number;
  readonly mean: number;
}

/** Cost and time of a route over many draws. */
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
const DAY = 24;

/** Working time of a bench that opens at hour 0 of its days: from hours of the calendar to hours worked since the start, and back. Both take the same few steps whatever the length. */
export function workingTime(calendar: Calendar): { worked: (at: number) => number; at: (worked: number) => number } {
  const first = new Date(`${calendar.from}T00:00:00Z`).getUTCDay();
  const open = Array.from({ length: 7 }, (_, i) => calendar.workdays.includes((first + i) % 7 === 0 ? 7 : (first + i) % 7));
  const before = open.reduce<number[]>((sum, o) => [...sum, sum.at(-1)! + (o ? calendar.hoursPerDay : 0)], [0]);
  const week = before[7]!;
  return {
    worked(at) {
      const day = Math.floor(at / DAY);
      const inWeek = day % 7;
      return Math.floor(day / 7) * week + before[inWeek]! + (open[inWeek] ? Math.min(calendar.hoursPerDay, at - day * DAY) : 0);
    },
    at(worked) {
      const weeks = Math.max(0, Math.ceil((worked - 1e-9) / week) - 1);
      const left = worked - weeks * week;
      let day = 0;
      while (day < 6 && before[day + 1]! < left - 1e-9) day++;
      return (weeks * 7 + day) * DAY + (left - before[day]!);
    },
  };
}

/**
 * Cost and time of a route by seeded Monte Carlo. Cost is the sum over lines, the bench hours at the hourly cost among them; time is the end of the last task of the route's plan on the bench's
 * calendar, with the same hours. The same seed gives the same figures.
 */
export function simulateRoute(
  lines: readonly RouteLine[],
  hours: Estimate,
  options: {
    readonly seed: number;
    readonly draws: number;
    readonly hourCost: Estimate;
    readonly tasks: readonly Task[];
    readonly calendar: Calendar;
    readonly deadlineDays: number | null;
  },
): Simulated {
  const source = randomLcg(options.seed / 2 ** 32);
  const costs = lines.map((l) => ({ quantity: l.quantity, draw: pert(l.cost, source) }));
  const bench = pert(hours, source);
  const hourCost = pert(options.hourCost, source);
  const { worked, at } = workingTime(options.calendar);
  const order = inOrder(options.tasks);
  const place = new Map(order.map((t, i) => [t.id, i]));
  const steps = order.map((t) => ({
    after: t.after.map((a) => place.get(a)!),
    free: t.notBeforeHours ?? 0,
    share: t.share ?? 0,
    hours: t.hours,
    days: t.where === 'bench' ? null : t.range ? pert(t.range, source) : () => t.days,
  }));
  const finish = new Float64Array(steps.length);
  const cost = new Float64Array(options.draws);
  const days = new Float64Array(options.draws);
  for (let k = 0; k < options.draws; k++) {
    const h = bench();
    let sum = h * hourCost();
    for (const c of costs) sum += c.quantity * c.draw();
    cost[k] = sum;
    let last = 0;
    steps.forEach((s, i) => {
      let from = s.free;
      for (const a of s.after) if (finish[a]! > from) from = finish[a]!;
      const end = s.days ? from + s.days() * DAY : at(worked(from) + (s.share > 0 ? s.share * h : s.hours));
      finish[i] = Math.max(from, end);
      if (finish[i]! > last) last = finish[i]!;
    });
    days[k] = last / DAY;
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
