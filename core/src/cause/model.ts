import { STRENGTH, type Cause, type Feature } from './types.js';

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

export const MAX_SET = 3;

/** (1 − w) and (1 − v) of one feature for every cause. */
interface FeatureRow {
  readonly feature: Feature;
  readonly keep: Float64Array;
  readonly allow: Float64Array;
  /** P(f | S) and H(f | S) over all sets, filled when first asked for. */
  bySet?: Float64Array;
  entropyBySet?: Float32Array;
}

const rowCache = new WeakMap<readonly Cause[], Map<string, FeatureRow>>();

function featureRow(feature: Feature, causes: readonly Cause[]): FeatureRow {
  const rows = rowCache.get(causes) ?? new Map<string, FeatureRow>();
  rowCache.set(causes, rows);
  const held = rows.get(feature.id);
  if (held?.feature === feature) return held;
  const row = makeRow(feature, causes);
  rows.set(feature.id, row);
  return row;
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
  return { feature, keep, allow };
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

/** All sets of up to three of `n` causes as triples, the empty set first. Shared: do not write to it. */
export function enumerateSets(n: number): Int16Array {
  const held = setCache.get(n);
  if (held) return held;
  const made = makeSets(n);
  setCache.set(n, made);
  return made;
}

function makeSets(n: number): Int16Array {
  const list: number[] = [-1, -1, -1];
  for (let a = 0; a < n; a++) list.push(a, -1, -1);
  for (let a = 0; a < n; a++) for (let b = a + 1; b < n; b++) list.push(a, b, -1);
  for (let a = 0; a < n; a++) for (let b = a + 1; b < n; b++) for (let c = b + 1; c < n; c++) list.push(a, b, c);
  return Int16Array.from(list);
}

/** P(feature | {c}) for every single cause c, in order. */
export function probabilityBySingle(feature: Feature, causes: readonly Cause[]): Float64Array {
  const { keep, allow } = featureRow(feature, causes);
  return keep.map((k, i) => (1 - (1 - feature.leak) * k) * allow[i]!);
}

/** P(feature | S) for every set, kept for the next time. Do not write to it. */
export function probabilityBySet(feature: Feature, causes: readonly Cause[], members: Int16Array): Float64Array {
  const row = featureRow(feature, causes);
  row.bySet ??= computeBySet(row, members);
  return row.bySet;
}

/** Binary entropy in bits. */
export function binaryEntropy(p: number): number {
  return p <= 0 || p >= 1 ? 0 : -p * Math.log2(p) - (1 - p) * Math.log2(1 - p);
}

/** H(feature | S) in bits for every set, kept for the next time. */
export function entropyBySet(feature: Feature, causes: readonly Cause[], members: Int16Array): Float32Array {
  const row = featureRow(feature, causes);
  row.entropyBySet ??= Float32Array.from(probabilityBySet(feature, causes, members), binaryEntropy);
  return row.entropyBySet;
}

function computeBySet({ feature, keep, allow }: FeatureRow, members: Int16Array): Float64Array {
  const out = new Float64Array(members.length / 3);
  for (let s = 0; s < out.length; s++) {
    let k = 1 - feature.leak;
    let v = 1;
    for (let j = 0; j < 3; j++) {
      const m = members[s * 3 + j]!;
      if (m < 0) break;
      k *= keep[m]!;
      v *= allow[m]!;
    }
    out[s] = (1 - k) * v;
  }
  return out;
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
    const likelihood = (p: number): number => Math.log(Math.max(1e-12, p * observation.ifPresent + (1 - p) * observation.ifAbsent));
    const base = likelihood(feature.leak);
    const force = probabilityBySingle(feature, causes).reduce((most, p) => Math.max(most, Math.abs(likelihood(p) - base)), 0);
    const key = feature.group ?? feature.id;
    const rival = best.get(key);
    if (!rival || force > rival.force) best.set(key, { observation, force });
  }
  return [...best.values()].map((entry) => entry.observation);
}

/** Exact posterior over all cause sets up to three, in log space. `odds` are prior odds per cause, in the order of `causes`. */
export function posterior(
  causes: readonly Cause[],
  odds: readonly number[],
  observations: readonly Observation[],
  features: ReadonlyMap<string, Feature>,
): Posterior {
  const members = enumerateSets(causes.length);
  const count = members.length / 3;
  const log = new Float64Array(count);
  const logOdds = odds.map((o) => Math.log(o));
  for (let s = 0; s < count; s++) {
    let sum = 0;
    for (let j = 0; j < 3; j++) {
      const m = members[s * 3 + j]!;
      if (m >= 0) sum += logOdds[m]!;
    }
    log[s] = sum;
  }
  const weighed = strongestOfGroups(observations, features, causes);
  // Likelihoods are multiplied and taken to log space a few at a time: at least 1e-12 each, sixteen of them cannot underflow.
  const product = new Float64Array(count).fill(1);
  weighed.forEach((observation, k) => {
    const feature = features.get(observation.feature) as Feature;
    const p = probabilityBySet(feature, causes, members);
    for (let s = 0; s < count; s++)
      product[s] = product[s]! * Math.max(1e-12, p[s]! * observation.ifPresent + (1 - p[s]!) * observation.ifAbsent);
    if (k % 16 !== 15 && k !== weighed.length - 1) return;
    for (let s = 0; s < count; s++) log[s] = log[s]! + Math.log(product[s]!);
    product.fill(1);
  });
  const probability = normalise(log);
  return { causes, members, probability, marginal: marginals(members, probability, causes.length), weighed };
}

/** exp and normalise, safe against underflow. */
export function normalise(log: Float64Array): Float64Array {
  let top = -Infinity;
  for (const value of log) if (value > top) top = value;
  const out = log.map((value) => Math.exp(value - top));
  const total = out.reduce((a, b) => a + b, 0);
  for (let i = 0; i < out.length; i++) out[i] = out[i]! / total;
  return out;
}

export function marginals(members: Int16Array, probability: Float64Array, causes: number): Float64Array {
  const out = new Float64Array(causes);
  for (let s = 0; s < probability.length; s++) {
    for (let j = 0; j < 3; j++) {
      const m = members[s * 3 + j]!;
      if (m >= 0) out[m] = out[m]! + probability[s]!;
    }
  }
  return out;
}

/** Posterior after one more observation, without folding the rest again. */
export function updated(prior: Posterior, bySet: Float64Array, present: boolean): { probability: Float64Array; marginal: Float64Array } {
  const probability = prior.probability.map((p, s) => p * (present ? bySet[s]! : 1 - bySet[s]!));
  const total = probability.reduce((a, b) => a + b, 0);
  for (let s = 0; s < probability.length; s++) probability[s] = total > 0 ? probability[s]! / total : prior.probability[s]!;
  return { probability, marginal: marginals(prior.members, probability, prior.causes.length) };
}
