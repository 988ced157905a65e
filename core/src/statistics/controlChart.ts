import { mean } from 'simple-statistics';

/** A control chart for single figures: where they vary by chance, and from where on they do not. */
export interface IndividualsChart {
  readonly centre: number;
  readonly sigma: number;
  readonly lower: number;
  readonly upper: number;
}

/** Mean range of two figures over their standard deviation (d₂ for n = 2; Montgomery, Introduction to Statistical Quality Control). */
const D2 = 1.128;

/**
 * Chart of single figures by their moving range: centre ± 3 MR̄ / d₂. `leastSigma`: what the reading itself strays by, below which no chance variation is believed. Null under two figures: nothing varies yet.
 */
export function individualsChart(values: readonly number[], leastSigma = 0): IndividualsChart | null {
  if (values.length < 2) return null;
  const ranges = values.slice(1).map((v, i) => Math.abs(v - values[i]!));
  const centre = mean([...values]);
  const sigma = Math.max(leastSigma, mean(ranges) / D2);
  return { centre, sigma, lower: centre - 3 * sigma, upper: centre + 3 * sigma };
}

/** Why a figure does not look like chance. */
type ChartRule = 'beyond' | 'two-of-three' | 'four-of-five' | 'eight-on-one-side' | 'six-on-the-way';

export interface ChartSignal {
  readonly rule: ChartRule;
  readonly side: 'above' | 'below';
}

/**
 * What of a chart the last of these figures sets off: beyond three sigma, two of three beyond two, four of five beyond one, eight on one side of the centre (Western Electric, Statistical Quality Control Handbook, 1956), and
 * six on the way up or down (Nelson, Journal of Quality Technology 16, 1984).
 */
export function signalsAt(values: readonly number[], { centre, sigma }: IndividualsChart): ChartSignal[] {
  const last = values.at(-1);
  if (last === undefined || sigma === 0) return [];
  const z = values.map((v) => (v - centre) / sigma);
  const side = z.at(-1)! >= 0 ? 'above' : 'below';
  const away = z.map((v) => (side === 'above' ? v : -v));
  const among = (n: number, past: number): number => away.slice(-n).filter((v) => v > past).length;
  const found: ChartRule[] = [];
  if (away.at(-1)! > 3) found.push('beyond');
  if (away.at(-1)! > 2 && away.length >= 3 && among(3, 2) >= 2) found.push('two-of-three');
  if (away.at(-1)! > 1 && away.length >= 5 && among(5, 1) >= 4) found.push('four-of-five');
  if (away.length >= 8 && among(8, 0) === 8) found.push('eight-on-one-side');
  const way = values.slice(-6);
  const steps = way.slice(1).map((v, i) => Math.sign(v - way[i]!));
  const signals = found.map((rule): ChartSignal => ({ rule, side }));
  if (way.length === 6 && steps[0] !== 0 && steps.every((s) => s === steps[0]))
    signals.push({ rule: 'six-on-the-way', side: steps[0]! > 0 ? 'above' : 'below' });
  return signals;
}
