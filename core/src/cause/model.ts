import { STRENGTH, type Cause, type Feature } from './types.js';
import { memoOf } from '../kit/memo.js';

/**
 * For comparing figures: equal ones stay equal whatever machine reckoned them. Logarithms differ in their last digits from one to the next, and neither the choice between two pieces of
 * evidence of a group nor the order of what is shown may hang on them.
 */
export const steady = (x: number): number => Math.round(x * 1e9);

/**
 * One piece of evidence: the chance of what was observed if the feature is there (`ifPresent`) and if it is not (`ifAbsent`).
 * Seen for certain = 1 / 0, looked for and not there = 0 / 1, told = in between.
 */
export interface Observation {
  readonly feature: string;
  readonly ifPresent: number;
  readonly ifAbsent: number;
}

/** Posterior over all sets of up to three causes. Members are indices into `causes`, −1 for none. */
export interface Posterior {
  readonly causes: readonly Cause[];
  readonly members: Int16Array;
  readonly probability: Float64Array;
  readonly marginal: Float64Array;
  /** The observations that weigh: of each group only the strongest. */
  readonly weighed: readonly Observation[];
}

const MAX_SET = 3;
/** No observation is held to be impossible altogether. */
export const LEAST = 1e-12;

/** (1 − w) and (1 − v) of one feature for every cause, and the causes that touch it. */
export interface FeatureRow {
  readonly feature: Feature;
  readonly keep: Float64Array;
  readonly allow: Float64Array;
  readonly touched: Uint16Array;
  /** P(f | {c}), filled when first asked for. */
  single?: Float64Array;
}

const rowOf = memoOf(
  'row of a feature',
  (feature: Feature) => feature.id,
  (causes: readonly Cause[], feature: Feature): FeatureRow => makeRow(feature, causes),
);

export function featureRow(feature: Feature, causes: readonly Cause[]): FeatureRow {
  const row = rowOf(causes, feature);
  // A feature of the same name and another record, as a test makes one, is none of the table.
  return row.feature === feature ? row : makeRow(feature, causes);
}

function makeRow(feature: Feature, causes: readonly Cause[]): FeatureRow {
  const keep = new Float64Array(causes.length).fill(1);
  const allow = new Float64Array(causes.length).fill(1);
  causes.forEach((cause, i) => {
    const link = cause.links.find((l) => l.feature === feature.id);
    if (!link) {
      if (feature.othersPrevent) allow[i] = 1 - feature.othersPrevent;
    } else if (link.prevents) allow[i] = 1 - STRENGTH[link.strength];
    else keep[i] = 1 - STRENGTH[link.strength];
  });
  const touched = Uint16Array.from([...keep.keys()].filter((i) => keep[i] !== 1 || allow[i] !== 1));
  return { feature, keep, allow, touched };
}

/** Noisy-OR with leak and prevention: P(f | S) = [1 − (1 − leak) Π(1 − w)] · Π(1 − v) (Pearl 1988, 4.3.2, with inhibitors). */
export function featureProbability(feature: Feature, set: readonly Cause[]): number {
  const row = makeRow(feature, set);
  let keep = 1 - feature.leak;
  let allow = 1;
  for (let i = 0; i < set.length; i++) {
    keep *= row.keep[i]!;
    allow *= row.allow[i]!;
  }
  return (1 - keep) * allow;
}

const setCache = new Map<number, Int16Array>();

/** All sets of up to three of `n` causes as triples: the empty set, then those of one, two and three in order. Shared: do not write to it. */
export function enumerateSets(n: number): Int16Array {
  const held = setCache.get(n);
  if (held) return held;
  const list: number[] = [-1, -1, -1];
  for (let a = 0; a < n; a++) list.push(a, -1, -1);
  for (let a = 0; a < n; a++) for (let b = a + 1; b < n; b++) list.push(a, b, -1);
  for (let a = 0; a < n; a++) for (let b = a + 1; b < n; b++) for (let c = b + 1; c < n; c++) list.push(a, b, c);
  const made = Int16Array.from(list);
  setCache.set(n, made);
  return made;
}

const startCache = new Map<number, Int32Array>();

/** Where the set {a, b, b + 1} stands in the enumeration, at `a * n + b` for a < b; {a, b, c} stands c − b − 1 further on. Shared: do not write to it. */
export function tripleStarts(n: number): Int32Array {
  const held = startCache.get(n);
  if (held) return held;
  const start = new Int32Array(n * n);
  let at = 1 + n + (n * (n - 1)) / 2;
  for (let a = 0; a < n; a++)
    for (let b = a + 1; b < n; b++) {
      start[a * n + b] = at;
      at += n - b - 1;
    }
  startCache.set(n, start);
  return start;
}

/** Where the set {a, b} stands in the enumeration, a < b. */
const pairAt = (n: number, a: number, b: number): number => 1 + n + a * n - (a * (a + 1)) / 2 + b - a - 1;

/** P(feature | {c}) for every single cause c, in order. Shared: do not write to it. */
export function probabilityBySingle(feature: Feature, causes: readonly Cause[]): Float64Array {
  const row = featureRow(feature, causes);
  row.single ??= row.keep.map((k, i) => (1 - (1 - feature.leak) * k) * row.allow[i]!);
  return row.single;
}

/** Binary entropy in bits. */
export function binaryEntropy(p: number): number {
  return p <= 0 || p >= 1 ? 0 : -p * Math.log2(p) - (1 - p) * Math.log2(1 - p);
}

/** Of observations whose features share a group, keeps the one that moves single causes furthest from the empty set. */
export function strongestOfGroups(
  observations: readonly Observation[],
  features: ReadonlyMap<string, Feature>,
  causes: readonly Cause[],
): Observation[] {
  const best = new Map<string, { observation: Observation; force: number }>();
  for (const observation of observations) {
    const feature = features.get(observation.feature);
    if (!feature) continue;
    const key = feature.group ?? feature.id;
    const force = feature.group ? forceOf(observation, feature, causes) : 0;
    const rival = best.get(key);
    // Of two that move as far, what is there stands before what is not: the second mostly follows from the first.
    const before = rival ? steady(force) - steady(rival.force) || presence(observation) - presence(rival.observation) : 1;
    if (before > 0) best.set(key, { observation, force });
  }
  return [...best.values()].map((entry) => entry.observation);
}

const presence = (o: Observation): number => (o.ifPresent > o.ifAbsent ? 1 : 0);

function forceOf(observation: Observation, feature: Feature, causes: readonly Cause[]): number {
  const likelihood = (p: number): number => Math.log(Math.max(LEAST, p * observation.ifPresent + (1 - p) * observation.ifAbsent));
  const base = likelihood(feature.leak);
  return probabilityBySingle(feature, causes).reduce((most, p) => Math.max(most, Math.abs(likelihood(p) - base)), 0);
}

/** Weighed features as seen by one cause: only those it touches. */
interface Touches {
  readonly feature: Uint16Array;
  readonly keep: Float64Array;
  readonly allow: Float64Array;
}

/** Likelihood of every weighed feature under some set, with what is needed to add a cause to it. */
interface SetState {
  readonly keep: Float64Array;
  readonly allow: Float64Array;
  readonly like: Float64Array;
}

/**
 * Exact posterior over all cause sets up to three, in log space. `odds` are prior odds per cause, in the order of `causes`.
 * A cause changes only the features it touches, so the likelihood of a set is that of the set without its last member, corrected at those features.
 */
export function posterior(
  causes: readonly Cause[],
  odds: readonly number[],
  observations: readonly Observation[],
  features: ReadonlyMap<string, Feature>,
): Posterior {
  const weighed = strongestOfGroups(observations, features, causes);
  const rows = weighed.map((o) => featureRow(features.get(o.feature) as Feature, causes));
  const slope = Float64Array.from(weighed, (o) => o.ifPresent - o.ifAbsent);
  const no = Float64Array.from(weighed, (o) => o.ifAbsent);
  const likelihood = (f: number, keep: number, allow: number): number => {
    return Math.max(LEAST, (1 - keep) * allow * slope[f]! + no[f]!);
  };
  const touches = causes.map((_, c): Touches => {
    const list = { feature: new Uint16Array(rows.length), keep: new Float64Array(rows.length), allow: new Float64Array(rows.length) };
    let count = 0;
    for (let f = 0; f < rows.length; f++) {
      const k = rows[f]!.keep[c]!;
      const v = rows[f]!.allow[c]!;
      if (k === 1 && v === 1) continue;
      list.feature[count] = f;
      list.keep[count] = k;
      list.allow[count++] = v;
    }
    return { feature: list.feature.subarray(0, count), keep: list.keep.subarray(0, count), allow: list.allow.subarray(0, count) };
  });
  /** log of P(evidence | S ∪ c) / P(evidence | S). Each factor lies between 1e-12 and 1e12, so eight of them cannot overflow. */
  const gain = (state: SetState, t: Touches): number => {
    const { keep: kept, allow: allowed, like } = state;
    const { feature: at, keep: more, allow: less } = t;
    let log = 0;
    let above = 1;
    let below = 1;
    for (let i = 0; i < at.length; i++) {
      const f = at[i]!;
      const p = (1 - kept[f]! * more[i]!) * allowed[f]! * less[i]!;
      const l = p * slope[f]! + no[f]!;
      above *= l < LEAST ? LEAST : l;
      below *= like[f]!;
      if ((i & 7) === 7) {
        log += Math.log(above / below);
        above = 1;
        below = 1;
      }
    }
    return log + Math.log(above / below);
  };
  const put = (to: SetState, from: SetState, t: Touches): void => {
    to.keep.set(from.keep);
    to.allow.set(from.allow);
    to.like.set(from.like);
    for (let i = 0; i < t.feature.length; i++) {
      const f = t.feature[i]!;
      to.keep[f] = to.keep[f]! * t.keep[i]!;
      to.allow[f] = to.allow[f]! * t.allow[i]!;
      to.like[f] = likelihood(f, to.keep[f]!, to.allow[f]!);
    }
  };
  const n = causes.length;
  const members = enumerateSets(n);
  const log = new Float64Array(members.length / 3);
  const prior = odds.map((o) => Math.log(o));
  const keep = Float64Array.from(rows, (r) => 1 - r.feature.leak);
  const empty: SetState = { keep, allow: new Float64Array(rows.length).fill(1), like: keep.map((k, f) => likelihood(f, k, 1)) };
  log[0] = empty.like.reduce((sum, l) => sum + Math.log(l), 0);
  const blank = (): SetState => ({
    keep: new Float64Array(rows.length),
    allow: new Float64Array(rows.length),
    like: new Float64Array(rows.length),
  });
  const withA = blank();
  const withAb = blank();
  const start = tripleStarts(n);
  // Causes that touch much go to the outer loops, so that the innermost has least to correct.
  const order = Uint16Array.from(touches.keys()).sort((x, y) => touches[y]!.feature.length - touches[x]!.feature.length);
  for (let i = 0; i < n; i++) {
    const x = order[i]!;
    const ofX = log[0]! + prior[x]! + gain(empty, touches[x]!);
    log[1 + x] = ofX;
    put(withA, empty, touches[x]!);
    for (let j = i + 1; j < n; j++) {
      const y = order[j]!;
      const ofXy = ofX + prior[y]! + gain(withA, touches[y]!);
      const low = x < y ? x : y;
      const high = x < y ? y : x;
      log[pairAt(n, low, high)] = ofXy;
      put(withAb, withA, touches[y]!);
      for (let k = j + 1; k < n; k++) {
        const z = order[k]!;
        const at =
          z < low
            ? start[z * n + low]! + high - low - 1
            : z < high
              ? start[low * n + z]! + high - z - 1
              : start[low * n + high]! + z - high - 1;
        log[at] = ofXy + prior[z]! + gain(withAb, touches[z]!);
      }
    }
  }
  const probability = normalise(log);
  return { causes, members, probability, marginal: marginals(members, probability, n), weighed };
}

/** exp and normalise in place, safe against underflow. */
function normalise(log: Float64Array): Float64Array {
  let top = -Infinity;
  for (let i = 0; i < log.length; i++) if (log[i]! > top) top = log[i]!;
  let total = 0;
  for (let i = 0; i < log.length; i++) total += log[i] = Math.exp(log[i]! - top);
  for (let i = 0; i < log.length; i++) log[i] = log[i]! / total;
  return log;
}

function marginals(members: Int16Array, probability: Float64Array, causes: number): Float64Array {
  const out = new Float64Array(causes);
  for (let s = 0; s < probability.length; s++) {
    for (let j = 0; j < MAX_SET; j++) {
      const m = members[s * 3 + j]!;
      if (m >= 0) out[m] = out[m]! + probability[s]!;
    }
  }
  return out;
}
