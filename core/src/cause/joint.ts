import { binaryEntropy, featureRow, LEAST, type FeatureRow, type Observation, type Posterior } from './model.js';
import type { Feature } from './types.js';

/**
 * A chance of a feature is a sum of three products over causes, Π(1−o) − Π(1−w)(1−o) + leak · Π(1−v)(1−w)(1−o), so that causes which are free about a core are summed out exactly,
 * each by its own chance.
 */
class Chance {
  private allowed = 1;
  private kept = 1;
  private spared: number;

  constructor(private readonly row: FeatureRow) {
    this.spared = row.feature.leak;
  }

  /** Takes in a cause that is there with chance `q`. */
  take(c: number, q: number): void {
    const { keep, spare, allow } = this.row;
    const o = allow[c]!;
    this.allowed *= 1 - q * (1 - o);
    this.kept *= 1 - q * (1 - keep[c]! * o);
    this.spared *= 1 - q * (1 - spare[c]! * keep[c]! * o);
  }

  get value(): number {
    return this.allowed - this.kept + this.spared;
  }

  /** The same with one cause there for certain that was taken in with chance `q`; 0 for one that was not. */
  withFor(c: number, q: number): number {
    const { keep, spare, allow } = this.row;
    const o = allow[c]!;
    const ko = keep[c]! * o;
    const sko = spare[c]! * ko;
    return (this.allowed * o) / (1 - q * (1 - o)) - (this.kept * ko) / (1 - q * (1 - ko)) + (this.spared * sko) / (1 - q * (1 - sko));
  }
}

/** P(feature | core). */
function chanceAt(post: Posterior, row: FeatureRow, core: number): Chance {
  const n = post.causes.length;
  const chance = new Chance(row);
  for (const c of row.touched) {
    const q = post.chance[core * n + c]!;
    if (q > 0) chance.take(c, q);
  }
  return chance;
}

/** P(S holds at least one of these causes). */
export function chanceOfAny(post: Posterior, group: readonly number[]): number {
  const n = post.causes.length;
  let sum = 0;
  for (let k = 0; k < post.probability.length; k++) {
    let none = 1;
    for (const c of group) none *= 1 - post.chance[k * n + c]!;
    sum += post.probability[k]! * (1 - none);
  }
  return Math.min(1, sum);
}

/** A free cause of less chance tells nothing worth counting. */
const COUNTS = 0.005;

/**
 * What looking for a feature is worth: the chance that it is found, and the mutual information between it and the cause set in bits,
 * I(f; S) = H(f) − Σ P(S) H(f | S). Of free causes the sets with none and with one are taken as they are, those with more at their mean.
 */
export function informationGain(post: Posterior, feature: Feature): { readonly chance: number; readonly bits: number } {
  const row = featureRow(feature, post.causes);
  const n = post.causes.length;
  let chance = 0;
  let inner = 0;
  for (let k = 0; k < post.probability.length; k++) {
    const p = post.probability[k]!;
    if (p < 1e-7) continue;
    const mean = chanceAt(post, row, k).value;
    chance += p * mean;
    let none = 1;
    const free: number[] = [];
    for (const c of row.touched) {
      const q = post.chance[k * n + c]!;
      if (q > COUNTS && q < 1) {
        free.push(c);
        none *= 1 - q;
      }
    }
    if (free.length === 0) {
      inner += p * binaryEntropy(mean);
      continue;
    }
    // By hand: every free cause out, then one of them in.
    const without = new Chance(row);
    for (const c of row.touched) {
      const q = post.chance[k * n + c]!;
      if (q > 0 && !(q > COUNTS && q < 1)) without.take(c, q);
    }
    let left = 1 - none;
    let over = mean - none * without.value;
    let h = none * binaryEntropy(without.value);
    for (const c of free) {
      const q = post.chance[k * n + c]!;
      const w = (none * q) / (1 - q);
      const with1 = without.withFor(c, 0);
      left -= w;
      over -= w * with1;
      h += w * binaryEntropy(with1);
    }
    if (left > 1e-12) h += left * binaryEntropy(Math.min(1, Math.max(0, over / left)));
    inner += p * h;
  }
  return { chance, bits: Math.max(0, binaryEntropy(chance) - inner) };
}

/** Marginals when one feature is observed as `now`; where it was weighed before as `was`, that observation is taken out first. */
export function marginalsAfter(
  post: Posterior,
  feature: Feature,
  now: Omit<Observation, 'feature'>,
  was: Omit<Observation, 'feature'> = { ifPresent: 1, ifAbsent: 1 },
): Float64Array {
  const row = featureRow(feature, post.causes);
  const n = post.causes.length;
  const inRow = new Uint8Array(n);
  for (const c of row.touched) inRow[c] = 1;
  const ratio = (q: number): number =>
    Math.max(LEAST, now.ifAbsent + q * (now.ifPresent - now.ifAbsent)) / Math.max(LEAST, was.ifAbsent + q * (was.ifPresent - was.ifAbsent));
  const out = new Float64Array(n);
  let total = 0;
  for (let k = 0; k < post.probability.length; k++) {
    const p = post.probability[k]!;
    if (p < 1e-12) continue;
    const there = chanceAt(post, row, k);
    const r = ratio(there.value);
    total += p * r;
    for (let c = 0; c < n; c++) {
      const q = post.chance[k * n + c]!;
      if (q === 0) continue;
      let own = r;
      if (inRow[c] && q < 1) own = ratio(there.withFor(c, q));
      out[c] = out[c]! + p * q * own;
    }
  }
  return total > 0 ? out.map((v) => Math.min(1, v / total)) : Float64Array.from(post.marginal);
}
