import { median, probit } from 'simple-statistics';

/** Slope of figures over time with its interval. */
export interface RobustSlope {
  readonly slope: number;
  readonly lower: number;
  readonly upper: number;
}

/** Chance that the interval of a slope holds it. */
const HOLDS = 0.9;

/**
 * Median of the slopes of all pairs (Theil 1950) with the interval of Sen (Journal of the American Statistical Association 63, 1968), from the variance of Kendall's statistic n (n − 1)(2 n + 5) / 18. Points at one time make
 * no slope. Null under three points or where all are at one time.
 */
export function robustSlope(points: ReadonlyArray<readonly [at: number, value: number]>): RobustSlope | null {
  const n = points.length;
  const slopes = points
    .flatMap(([x, y], i) => points.slice(i + 1).flatMap(([u, v]) => (u === x ? [] : [(v - y) / (u - x)])))
    .sort((a, b) => a - b);
  if (n < 3 || slopes.length === 0) return null;
  const spread = probit((1 + HOLDS) / 2) * Math.sqrt((n * (n - 1) * (2 * n + 5)) / 18);
  const at = (rank: number): number => slopes[Math.max(0, Math.min(slopes.length - 1, Math.round(rank)))]!;
  return { slope: median(slopes), lower: at((slopes.length - spread) / 2 - 1), upper: at((slopes.length + spread) / 2) };
}
