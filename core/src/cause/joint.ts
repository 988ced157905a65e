import { binaryEntropy, featureRow, LEAST, type FeatureRow, type Observation, type Posterior } from './model.js';
import type { Feature } from './types.js';

/** P(feature | core): causes that are free about it are summed out, each by its own chance, which is exact since a chance of the feature is a product over causes. */
function chanceAt(post: Posterior, row: FeatureRow, core: number): number {
  const { chance } = post;
  const n = post.causes.length;
  let both = 1 - row.feature.leak;
  let allowed = 1;
  for (const c of row.touched) {
    const p = chance[core * n + c]!;
    if (p === 0) continue;
    const v = row.allow[c]!;
    allowed *= 1 - p * (1 - v);
    both *= 1 - p * (1 - row.keep[c]! * v);
  }
  return allowed - both;
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
    const mean = chanceAt(post, row, k);
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
    let bare = 1 - feature.leak;
    let allowed = 1;
    for (const c of row.touched) {
      const q = post.chance[k * n + c]!;
      if (q === 0 || (q > COUNTS && q < 1)) continue;
      allowed *= 1 - q * (1 - row.allow[c]!);
      bare *= 1 - q * (1 - row.keep[c]! * row.allow[c]!);
    }
    let left = 1 - none;
    let over = mean - none * (allowed - bare);
    let h = none * binaryEntropy(allowed - bare);
    for (const c of free) {
      const q = post.chance[k * n + c]!;
      const w = (none * q) / (1 - q);
      const with1 = row.allow[c]! * allowed - row.keep[c]! * row.allow[c]! * bare;
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
    if (p < 1e-9) continue;
    let both = 1 - feature.leak;
    let allowed = 1;
    for (const c of row.touched) {
      const q = post.chance[k * n + c]!;
      if (q === 0) continue;
      allowed *= 1 - q * (1 - row.allow[c]!);
      both *= 1 - q * (1 - row.keep[c]! * row.allow[c]!);
    }
    const r = ratio(allowed - both);
    total += p * r;
    for (let c = 0; c < n; c++) {
      const q = post.chance[k * n + c]!;
      if (q === 0) continue;
      let own = r;
      if (inRow[c] && q < 1) {
        // The same with this cause in for certain.
        const v = row.allow[c]!;
        const kv = row.keep[c]! * v;
        own = ratio((allowed / (1 - q * (1 - v))) * v - (both / (1 - q * (1 - kv))) * kv);
      }
      out[c] = out[c]! + p * q * own;
    }
  }
  return total > 0 ? out.map((v) => Math.min(1, v / total)) : Float64Array.from(post.marginal);
}
