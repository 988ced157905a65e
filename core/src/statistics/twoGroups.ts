import { combinations, mean, median } from 'simple-statistics';
import { seeded } from '../kit/seeded.js';

/** How far one group lies above another, with its interval and how often that interval holds it. */
export interface GroupShift {
  readonly shift: number;
  readonly low: number;
  readonly high: number;
  /** Chance that an interval made so holds the true shift: with few figures less than was asked for. */
  readonly level: number;
}

/** How often chance alone gives as much. `exact`: every way was counted, else so many were drawn. */
export interface ByChance {
  readonly asMuch: number;
  readonly of: number;
  readonly exact: boolean;
}

/** What an interval is to hold. */
const HOLDS = 0.9;
/** Ways counted one by one; of more so many are drawn. */
const MOST_WAYS = 20_000;
/** Figures a group may have: the exact counts grow with its cube. */
export const MOST_FIGURES = 60;

/**
 * How far `a` lies above `b`: median of all differences (Hodges & Lehmann 1963), with the interval of Moses (in Walker & Lev 1953; Hollander & Wolfe, Nonparametric
 * Statistical Methods) from the exact distribution of the rank sum (Mann & Whitney 1947). It takes the two for one shape that is shifted, and no shape in
 * particular. Where the groups are too small for 90 %, the widest interval there is, and what it holds. Null where a group is empty.
 */
export function groupShift(a: readonly number[], b: readonly number[]): GroupShift | null {
  if (a.length === 0 || b.length === 0) return null;
  const differences = a.flatMap((x) => b.map((y) => x - y)).sort((p, q) => p - q);
  return intervalOf(differences, rankSumCounts(a.length, b.length));
}

/** The same of differences within pairs: median of their means two by two (Walsh), with the interval of Tukey (1949) from the exact distribution of the signed rank sum (Wilcoxon 1945). */
export function pairedShift(d: readonly number[]): GroupShift | null {
  if (d.length === 0) return null;
  const means = d.flatMap((x, i) => d.slice(i).map((y) => (x + y) / 2)).sort((p, q) => p - q);
  return intervalOf(means, signedRankCounts(d.length));
}

/** The ordered figures between which the shift lies: as many are left off at each end as the counts of the statistic allow. */
function intervalOf(ordered: readonly number[], counts: readonly number[]): GroupShift {
  const all = counts.reduce((s, c) => s + c, 0);
  let [k, below] = [1, counts[0]!];
  const holds = (tail: number): number => 1 - (2 * tail) / all;
  // The k-th from each end leaves out what the statistic does k − 1 or less.
  while (k < ordered.length / 2 && holds(below + counts[k]!) >= HOLDS) below += counts[k++]!;
  return { shift: median([...ordered]), low: ordered[k - 1]!, high: ordered.at(-k)!, level: Math.max(0, holds(below)) };
}

/** Ways in which n of n + m ranks sum to each value above the least, from 0 to n m. */
function rankSumCounts(n: number, m: number): number[] {
  // ways[size][sum above the least] over the ranks taken in so far.
  const ways = Array.from({ length: n + 1 }, () => new Float64Array(n * m + 1));
  ways[0]![0] = 1;
  for (let rank = 1; rank <= n + m; rank++)
    for (let size = Math.min(n, rank); size >= 1; size--) {
      const up = rank - size;
      if (up > m) continue;
      for (let sum = n * m; sum >= up; sum--) ways[size]![sum]! += ways[size - 1]![sum - up]!;
    }
  return [...ways[n]!];
}

/** Ways in which signs put on the ranks 1 to n sum to each value of the positive ones. */
function signedRankCounts(n: number): number[] {
  const top = (n * (n + 1)) / 2;
  const ways = new Float64Array(top + 1);
  ways[0] = 1;
  for (let rank = 1; rank <= n; rank++) for (let sum = top; sum >= rank; sum--) ways[sum]! += ways[sum - rank]!;
  return [...ways];
}

const TIE = 1e-9;

/** In how many of the ways to divide these figures into groups of such sizes the means lie at least as far apart (permutation test, Fisher 1935; Pitman 1937). */
export function dividedByChance(a: readonly number[], b: readonly number[], seed = 1): ByChance {
  const all = [...a, ...b];
  const [n, total] = [a.length, all.reduce((s, x) => s + x, 0)];
  const apart = (sum: number): number => Math.abs(sum / n - (total - sum) / (all.length - n));
  const seen = apart(a.reduce((s, x) => s + x, 0)) - TIE;
  if (waysOf(all.length, n) <= MOST_WAYS) {
    const ways = combinations(all, n);
    return { asMuch: ways.filter((w) => apart(w.reduce((s, x) => s + x, 0)) >= seen).length, of: ways.length, exact: true };
  }
  const draw = seeded(seed);
  // What was found is one of the ways.
  let asMuch = 1;
  for (let t = 1; t < MOST_WAYS; t++) {
    let sum = 0;
    for (let i = 0; i < n; i++) {
      const j = i + Math.floor(draw() * (all.length - i));
      [all[i], all[j]] = [all[j]!, all[i]!];
      sum += all[i]!;
    }
    if (apart(sum) >= seen) asMuch++;
  }
  return { asMuch, of: MOST_WAYS, exact: false };
}

/** In how many of the ways to put signs on these differences their mean lies at least as far from nothing. */
export function signedByChance(d: readonly number[], seed = 1): ByChance {
  const seen = Math.abs(mean([...d])) * d.length - TIE;
  const exact = 2 ** d.length <= MOST_WAYS;
  const of = exact ? 2 ** d.length : MOST_WAYS;
  const draw = seeded(seed);
  let asMuch = exact ? 0 : 1;
  for (let way = exact ? 0 : 1; way < of; way++) {
    const sum = d.reduce((s, x, i) => s + ((exact ? (way >> i) & 1 : draw() < 0.5) ? -x : x), 0);
    if (Math.abs(sum) >= seen) asMuch++;
  }
  return { asMuch, of, exact };
}

function waysOf(n: number, k: number): number {
  let ways = 1;
  for (let i = 1; i <= k; i++) ways = (ways * (n - k + i)) / i;
  return Math.round(ways);
}
