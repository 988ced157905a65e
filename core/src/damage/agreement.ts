import { GRADES, type Grade } from './classes.js';

/** How well two hands agree that graded the same places without seeing each other's grades. */
export interface Agreement {
  readonly places: number;
  readonly equal: number;
  readonly withinOne: number;
  /** Weighted kappa with squared weights (Cohen 1968): 1 full agreement, 0 what chance would give; null under two places or where all grades are one. */
  readonly kappa: number | null;
}

/** How far two hands agree, from the pair of grades of every place both graded. The order of the pairs, and which hand is first, do not matter. */
export function agreement(pairs: ReadonlyArray<readonly [first: Grade, second: Grade]>): Agreement {
  const n = pairs.length;
  const weight = (a: number, b: number): number => ((a - b) / (GRADES.length - 1)) ** 2;
  const share = (k: 0 | 1, g: Grade): number => pairs.filter((p) => p[k] === g).length / Math.max(1, n);
  let observed = 0;
  let chance = 0;
  for (const [a, b] of pairs) observed += weight(a, b) / n;
  for (const a of GRADES) for (const b of GRADES) chance += share(0, a) * share(1, b) * weight(a, b);
  return {
    places: n,
    equal: pairs.filter(([a, b]) => a === b).length,
    withinOne: pairs.filter(([a, b]) => Math.abs(a - b) <= 1).length,
    kappa: n < 2 || chance === 0 ? null : 1 - observed / chance,
  };
}
