import { binaryEntropy, featureRow, LEAST, tripleStarts, type FeatureRow, type Observation, type Posterior } from './model.js';
import type { Feature } from './types.js';
import { memo } from '../kit/memo.js';

/**
 * What one more observation would do, exactly and without going over all sets again. A feature looks only at the causes that touch it (set L), so it needs the chances
 * P(S ∩ L = T) for T of up to three members, which follow from P(i ∈ S), P(i, j ∈ S) and P(S = {i, j, k}) by inclusion and exclusion.
 */
interface Joint {
  readonly n: number;
  /** P(i, j ∈ S), `i * n + j`. */
  readonly two: Float64Array;
  /** Index of the set {i, j, j + 1} in the enumeration, `i * n + j`. */
  readonly start: Int32Array;
}

const jointOf = memo('joint of a posterior', (post: Posterior): Joint => {
  const n = post.causes.length;
  const two = new Float64Array(n * n);
  const start = tripleStarts(n);
  let pair = 1 + n;
  let at = pair + (n * (n - 1)) / 2;
  for (let a = 0; a < n; a++)
    for (let b = a + 1; b < n; b++) {
      two[a * n + b] = two[a * n + b]! + post.probability[pair++]!;
      for (let c = b + 1; c < n; c++) {
        const p = post.probability[at++]!;
        two[a * n + b] = two[a * n + b]! + p;
        two[a * n + c] = two[a * n + c]! + p;
        two[b * n + c] = two[b * n + c]! + p;
      }
    }
  for (let a = 0; a < n; a++) for (let b = 0; b < a; b++) two[a * n + b] = two[b * n + a]!;
  return { n, two, start };
});

/** P(S = {x, a, b}) for a < b and x another. */
function three(post: Posterior, joint: Joint, x: number, a: number, b: number): number {
  if (x < a) return post.probability[joint.start[x * joint.n + a]! + b - a - 1]!;
  return x < b
    ? post.probability[joint.start[a * joint.n + x]! + b - x - 1]!
    : post.probability[joint.start[a * joint.n + b]! + x - b - 1]!;
}

/** Every T of one feature: P(S ∩ L = T), P(feature | T), and its members as places in L, −1 for none. One set of buffers serves all: read it before the next call. */
interface Touched {
  count: number;
  weight: Float64Array;
  chance: Float64Array;
  a: Int16Array;
  b: Int16Array;
  c: Int16Array;
}

const buffer: Touched = {
  count: 0,
  weight: new Float64Array(0),
  chance: new Float64Array(0),
  a: new Int16Array(0),
  b: new Int16Array(0),
  c: new Int16Array(0),
};

function room(m: number): Touched {
  const need = 1 + m + (m * (m - 1)) / 2 + (m * (m - 1) * (m - 2)) / 6;
  if (buffer.weight.length < need) {
    buffer.weight = new Float64Array(need);
    buffer.chance = new Float64Array(need);
    buffer.a = new Int16Array(need);
    buffer.b = new Int16Array(need);
    buffer.c = new Int16Array(need);
  }
  buffer.count = 0;
  return buffer;
}

function overTouched(post: Posterior, row: FeatureRow): Touched {
  const joint = jointOf(post);
  const { n, two } = joint;
  const { touched: L, keep, allow } = row;
  const m = L.length;
  const out = room(m);
  const { weight, chance, a: of, b: and, c: third } = out;
  const absent = 1 - row.feature.leak;
  const { probability } = post;
  const one = new Float64Array(m);
  for (let a = 0; a < m; a++) one[a] = post.marginal[L[a]!]!;
  const pairs = new Float64Array(m * m);
  let none = 1;
  let at = 0;
  for (let a = 0; a < m; a++)
    for (let b = a + 1; b < m; b++) {
      const p = two[L[a]! * n + L[b]!]!;
      pairs[a * m + b] = p;
      one[a] = one[a]! - p;
      one[b] = one[b]! - p;
    }
  for (let a = 0; a < m; a++)
    for (let b = a + 1; b < m; b++) {
      const from = joint.start[L[a]! * n + L[b]!]! - L[b]! - 1;
      const ka = absent * keep[L[a]!]! * keep[L[b]!]!;
      const va = allow[L[a]!]! * allow[L[b]!]!;
      for (let c = b + 1; c < m; c++) {
        const w = probability[from + L[c]!]!;
        pairs[a * m + b] = pairs[a * m + b]! - w;
        pairs[a * m + c] = pairs[a * m + c]! - w;
        pairs[b * m + c] = pairs[b * m + c]! - w;
        one[a] = one[a]! + w;
        one[b] = one[b]! + w;
        one[c] = one[c]! + w;
        none -= w;
        weight[at] = w;
        chance[at] = (1 - ka * keep[L[c]!]!) * va * allow[L[c]!]!;
        of[at] = a;
        and[at] = b;
        third[at++] = c;
      }
    }
  for (let a = 0; a < m; a++)
    for (let b = a + 1; b < m; b++) {
      const w = Math.max(0, pairs[a * m + b]!);
      none -= w;
      weight[at] = w;
      chance[at] = (1 - absent * keep[L[a]!]! * keep[L[b]!]!) * allow[L[a]!]! * allow[L[b]!]!;
      of[at] = a;
      and[at] = b;
      third[at++] = -1;
    }
  for (let a = 0; a < m; a++) {
    const w = Math.max(0, one[a]!);
    none -= w;
    weight[at] = w;
    chance[at] = (1 - absent * keep[L[a]!]!) * allow[L[a]!]!;
    of[at] = a;
    and[at] = -1;
    third[at++] = -1;
  }
  weight[at] = Math.max(0, none);
  chance[at] = 1 - absent;
  of[at] = -1;
  and[at] = -1;
  third[at++] = -1;
  out.count = at;
  return out;
}

/** P(S holds at least one of these causes), indices in rising order. */
export function chanceOfAny(post: Posterior, group: readonly number[]): number {
  const { n, two, start } = jointOf(post);
  let sum = 0;
  for (let a = 0; a < group.length; a++) {
    sum += post.marginal[group[a]!]!;
    for (let b = a + 1; b < group.length; b++) {
      sum -= two[group[a]! * n + group[b]!]!;
      const from = start[group[a]! * n + group[b]!]! - group[b]! - 1;
      for (let c = b + 1; c < group.length; c++) sum += post.probability[from + group[c]!]!;
    }
  }
  return Math.max(0, Math.min(1, sum));
}

/**
 * What looking for a feature is worth: the chance that it is found, and the mutual information between it and the cause set in bits,
 * I(f; S) = H(f) − Σ P(S) H(f | S).
 */
export function informationGain(post: Posterior, feature: Feature): { readonly chance: number; readonly bits: number } {
  const sets = overTouched(post, featureRow(feature, post.causes));
  let chance = 0;
  let inner = 0;
  for (let t = 0; t < sets.count; t++) {
    chance += sets.weight[t]! * sets.chance[t]!;
    inner += sets.weight[t]! * binaryEntropy(sets.chance[t]!);
  }
  return { chance, bits: Math.max(0, binaryEntropy(chance) - inner) };
}

/**
 * Marginals when one feature is observed as `now`; where it was weighed before as `was`, that observation is taken out first. Causes that cannot reach `atLeast` may be left at 0.
 */
export function marginalsAfter(
  post: Posterior,
  feature: Feature,
  now: Omit<Observation, 'feature'>,
  was: Omit<Observation, 'feature'> = { ifPresent: 1, ifAbsent: 1 },
  atLeast = 0,
): Float64Array {
  const row = featureRow(feature, post.causes);
  const joint = jointOf(post);
  const { n, two } = joint;
  const L = row.touched;
  const m = L.length;
  const up = now.ifPresent - now.ifAbsent;
  const down = was.ifPresent - was.ifAbsent;
  const out = new Float64Array(n);
  const alone = new Float64Array(m);
  const both = new Float64Array(m * m);
  let none = 0;
  let most = 0;
  let total = 0;
  const sets = overTouched(post, row);
  for (let t = 0; t < sets.count; t++) {
    const p = sets.chance[t]!;
    const r = Math.max(LEAST, now.ifAbsent + p * up) / Math.max(LEAST, was.ifAbsent + p * down);
    const weight = sets.weight[t]! * r;
    const a = sets.a[t]!;
    const b = sets.b[t]!;
    const c = sets.c[t]!;
    total += weight;
    if (r > most) most = r;
    if (a < 0) {
      none = r;
      continue;
    }
    out[L[a]!] = out[L[a]!]! + weight;
    if (b < 0) {
      alone[a] = r;
      continue;
    }
    out[L[b]!] = out[L[b]!]! + weight;
    if (c < 0) both[a * m + b] = r;
    else out[L[c]!] = out[L[c]!]! + weight;
  }
  const inL = new Uint8Array(n);
  for (const i of L) inL[i] = 1;
  for (let x = 0; x < n; x++) {
    // No cause can gain more than the largest ratio.
    if (inL[x] || post.marginal[x]! * most < atLeast * total) continue;
    let sum = none * post.marginal[x]!;
    for (let a = 0; a < m; a++) {
      sum += (alone[a]! - none) * two[x * n + L[a]!]!;
      for (let b = a + 1; b < m; b++) sum += (both[a * m + b]! - alone[a]! - alone[b]! + none) * three(post, joint, x, L[a]!, L[b]!);
    }
    out[x] = sum;
  }
  return total > 0 ? out.map((v) => Math.max(0, v / total)) : Float64Array.from(post.marginal);
}
