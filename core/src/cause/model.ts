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

/**
 * Posterior over sets of causes, as a list of cores: a core is a set of causes that are in, and about it every other cause is in with a chance of its own or out. Cores exclude each other, so
 * that every set of causes belongs to one. The likeliest stands first. Causes are indices into `causes`.
 */
export interface Posterior {
  readonly causes: readonly Cause[];
  /** Causes of every core, in rising order. */
  readonly cores: ReadonlyArray<readonly number[]>;
  /** Probability of every core with all the sets that belong to it. */
  readonly probability: Float64Array;
  /** Chance that a cause is in, given the core: `core * causes.length + cause`; 1 for the core's own. */
  readonly chance: Float64Array;
  readonly marginal: Float64Array;
  /** Share of all probability that no longer moved when cores were told apart last. */
  readonly mass: number;
  /** The observations that weigh: of each group only the strongest. */
  readonly weighed: readonly Observation[];
}

/** No observation is held to be impossible altogether. */
export const LEAST = 1e-12;

/** What every cause does to one feature, and the causes that touch it. */
export interface FeatureRow {
  readonly feature: Feature;
  /** 1 − w: the chance that it does not bring the feature about. */
  readonly keep: Float64Array;
  /** What it leaves of the leak: a cause that prevents a feature accounts for its absence, and takes nothing from another cause that brings it about. */
  readonly spare: Float64Array;
  /** What it leaves of the feature whatever brings it about: damage leaves no engine without damage. */
  readonly allow: Float64Array;
  readonly touched: Uint16Array;
  /** P(f | {c}), filled when first asked for. */
  single?: Float64Array;
}

const rowFor = memoOf(
  'row of a feature',
  (feature: Feature) => feature.id,
  (causes: readonly Cause[], feature: Feature): FeatureRow => makeRow(feature, causes),
);

export function featureRow(feature: Feature, causes: readonly Cause[]): FeatureRow {
  const row = rowFor(causes, feature);
  // A feature of the same name and another record, as a test makes one, is none of the table.
  return row.feature === feature ? row : makeRow(feature, causes);
}

/** A neutral sight is there where one of the features it may be is there and shows so: P(sight | S) = 1 − (1 − leak) Π(1 − shows · w). */
function sightRow(feature: Feature, causes: readonly Cause[]): FeatureRow {
  const keep = new Float64Array(causes.length).fill(1);
  const spare = new Float64Array(causes.length).fill(1);
  causes.forEach((cause, i) => {
    const links = cause.links.filter((l) => feature.of!.includes(l.feature));
    // What stands for every cause without a record has one weak tie to the sight, not one to each thing it may be.
    if (cause.unlisted && links[0]) {
      keep[i] = 1 - feature.shows! * STRENGTH[links[0].strength];
      return;
    }
    for (const l of links) if (!l.prevents) keep[i] = keep[i]! * (1 - feature.shows! * STRENGTH[l.strength]);
    // What rules out every one of them rules out the sight.
    if (links.length === feature.of!.length && links.every((l) => l.prevents))
      spare[i] = 1 - Math.min(...links.map((l) => STRENGTH[l.strength]));
  });
  return rowOf(feature, keep, spare, new Float64Array(causes.length).fill(1));
}

function rowOf(feature: Feature, keep: Float64Array, spare: Float64Array, allow: Float64Array): FeatureRow {
  const touched = Uint16Array.from([...keep.keys()].filter((i) => keep[i] !== 1 || spare[i] !== 1 || allow[i] !== 1));
  return { feature, keep, spare, allow, touched };
}

function makeRow(feature: Feature, causes: readonly Cause[]): FeatureRow {
  if (feature.of) return sightRow(feature, causes);
  const keep = new Float64Array(causes.length).fill(1);
  const spare = new Float64Array(causes.length).fill(1);
  const allow = new Float64Array(causes.length).fill(1);
  causes.forEach((cause, i) => {
    const link = cause.links.find((l) => l.feature === feature.id);
    if (!link) {
      if (feature.othersPrevent) allow[i] = 1 - feature.othersPrevent;
    } else if (link.prevents) spare[i] = 1 - STRENGTH[link.strength];
    else keep[i] = 1 - STRENGTH[link.strength];
  });
  return rowOf(feature, keep, spare, allow);
}

/**
 * Noisy-OR with leak and prevention (Pearl 1988, 4.3.2): P(f | S) = [1 − (1 − leak · Π(1 − v)) · Π(1 − w)] · Π(1 − o). A cause that prevents a feature (v) takes from what is there without a
 * cause, not from what another cause of the set brings about; what every other cause rules out (o) it rules out whatever brings it about.
 */
export function featureProbability(feature: Feature, set: readonly Cause[]): number {
  const row = makeRow(feature, set);
  let keep = 1;
  let spare = feature.leak;
  let allow = 1;
  for (let i = 0; i < set.length; i++) {
    keep *= row.keep[i]!;
    spare *= row.spare[i]!;
    allow *= row.allow[i]!;
  }
  return (1 - (1 - spare) * keep) * allow;
}

/** P(feature | {c}) for every single cause c, in order. Shared: do not write to it. */
export function probabilityBySingle(feature: Feature, causes: readonly Cause[]): Float64Array {
  const row = featureRow(feature, causes);
  row.single ??= row.keep.map((k, i) => (1 - (1 - feature.leak * row.spare[i]!) * k) * row.allow[i]!);
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
