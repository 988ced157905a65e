import { layOut, Standing, statedFigures, type Beliefs, type Laid } from './beliefs.js';
import { featureRow, steady, strongestOfGroups, type Observation, type Posterior } from './model.js';
import type { Cause, Feature } from './types.js';

/** A core, the causes that may still come to it, and what they hold about it; every other cause is out. */
export interface Leaf {
  readonly core: readonly number[];
  readonly rest: readonly number[];
  readonly beliefs: Beliefs;
  /** log of what the core holds with all the sets that belong to it. */
  readonly log: number;
  /** The cause of the rest that is told apart next, and how much may hang on it; none where nothing does. */
  readonly next: number | null;
  readonly doubt: number;
  /** By what share the sum moved when this leaf and its sibling were told apart. */
  readonly moved: number;
}

/** A cause on which less than this hangs is not told apart: it hardly touches the others. */
const HANGS = 0.05;
/** A core that holds less than this of all probability, times what hangs on its next cause, stays as it is. */
const LEFT = Math.log(0.001);
/** At most so many cores are told apart; how much still moves is reported, so that a cut is never silent. */
const CORES = 80;
/** Tables of so few causes are told apart to the last set. */
const SMALL = 12;

/**
 * Posterior over sets of as many causes as the engine has, in log space. `odds` are prior odds per cause, in the order of `causes`; `explained` the chance that damage which was found brings a
 * feature about by itself (by feature id), which counts for no cause; at most `cores` cores are told apart.
 *
 * Cutset conditioning (Pearl 1988, 4.4.1) about belief propagation (`beliefs.ts`). Causes that share what was found make the messages between them too sure. So the cause on which most hangs,
 * what it explains times its own spread √(q(1−q)), is told apart: one core with it, one without, each with messages of its own, the core that holds most in doubt first. No set is left out; what is
 * not told apart is held by its messages. Tables of up to twelve causes are told apart whole, which is the sum over every set. Nothing hangs on the machine: equal figures are told apart by
 * their place in the table.
 */
export function posterior(
  causes: readonly Cause[],
  odds: readonly number[],
  observations: readonly Observation[],
  features: ReadonlyMap<string, Feature>,
  explained?: ReadonlyMap<string, number>,
  cores = CORES,
): Posterior {
  const laid = laidAgainst(causes, observations, features, explained);
  const leaves = leavesOf(new Standing(laid, statedFigures(laid, odds)), causes.length, cores);
  const n = causes.length;
  const best = leaves[0]!.log;
  const weight = leaves.map((leaf) => Math.exp(leaf.log - best));
  const sum = weight.reduce((a, b) => a + b, 0);
  const probability = Float64Array.from(weight, (w) => w / sum);
  const chance = new Float64Array(leaves.length * n);
  leaves.forEach((leaf, k) => chance.set(chancesOf(leaf.core, leaf.beliefs), k * n));
  return {
    causes,
    cores: leaves.map((leaf) => leaf.core),
    probability,
    chance,
    marginal: marginalOf(probability, chance, n),
    mass: massOf(leaves),
    weighed: laid.weighed,
  };
}

/** The observations that weigh, laid against the causes. */
export function laidAgainst(
  causes: readonly Cause[],
  observations: readonly Observation[],
  features: ReadonlyMap<string, Feature>,
  explained?: ReadonlyMap<string, number>,
): Laid {
  const weighed = strongestOfGroups(observations, features, causes);
  return layOut(
    causes,
    weighed,
    weighed.map((o) => featureRow(features.get(o.feature) as Feature, causes)),
    explained,
  );
}

/** Chance of every cause about a core. */
export function chancesOf(core: readonly number[], { odds }: Beliefs): Float64Array {
  const chance = odds.map((o) => o / (1 + o));
  for (const c of core) chance[c] = 1;
  return chance;
}

export function marginalOf(probability: Float64Array, chance: Float64Array, n: number): Float64Array {
  const marginal = new Float64Array(n);
  probability.forEach((p, k) => {
    for (let c = 0; c < n; c++) marginal[c] = marginal[c]! + p * chance[k * n + c]!;
  });
  return marginal;
}

/** Cores that exclude each other and leave no set out, the likeliest first. */
export function leavesOf(standing: Standing, n: number, cores: number): Leaf[] {
  const leaves = n <= SMALL ? everyCore(standing, n) : toldApart(standing, n, cores);
  return leaves.sort((a, b) => steady(b.log) - steady(a.log) || before(a.core, b.core));
}

/** Every set of a small table as a core of its own. */
function everyCore(standing: Standing, n: number): Leaf[] {
  return Array.from({ length: 1 << n }, (_, bits) => {
    const core = Array.from({ length: n }, (_c, c) => c).filter((c) => bits & (1 << c));
    standing.standAt(core);
    return { ...settled(standing, core, []), next: null };
  });
}

function toldApart(standing: Standing, n: number, cores: number): Leaf[] {
  standing.standAt([]);
  const leaves = [
    settled(
      standing,
      [],
      Array.from({ length: n }, (_, c) => c),
    ),
  ];
  const inDoubt = (leaf: Leaf): number => leaf.log + Math.log(leaf.doubt);
  while (leaves.length < cores) {
    let at = -1;
    leaves.forEach((leaf, i) => {
      if (leaf.next !== null && (at < 0 || steady(inDoubt(leaf)) > steady(inDoubt(leaves[at]!)))) at = i;
    });
    if (at < 0 || inDoubt(leaves[at]!) < leaves.reduce((most, leaf) => Math.max(most, leaf.log), -Infinity) + LEFT) break;
    const leaf = leaves[at]!;
    const rest = leaf.rest.filter((c) => c !== leaf.next);
    standing.standAt(leaf.core);
    const without = settled(standing, leaf.core, rest);
    const core = insert(leaf.core, leaf.next!);
    standing.standAt(core);
    const withIt = settled(standing, core, rest);
    const sum = Math.exp(without.log - leaf.log) + Math.exp(withIt.log - leaf.log);
    const moved = Math.abs(1 - sum) / sum;
    leaves.splice(at, 1, { ...without, moved }, { ...withIt, moved });
  }
  return leaves;
}

/** What the rest holds about the core that stands, and which of it is told apart next. */
function settled(standing: Standing, core: readonly number[], rest: readonly number[]): Leaf {
  const beliefs = standing.settle(rest);
  let next: number | null = null;
  let doubt = HANGS;
  for (const c of rest) {
    const hangs = (beliefs.explains[c]! * Math.sqrt(beliefs.odds[c]!)) / (1 + beliefs.odds[c]!);
    if (steady(hangs) > steady(doubt)) {
      doubt = hangs;
      next = c;
    }
  }
  return { core, rest, beliefs, log: standing.log + beliefs.gain, next, doubt, moved: 1 };
}

/** Share of all probability that no longer moved when its cores were told apart last. Where nothing hangs on any cause, nothing moves. */
export function massOf(leaves: readonly Leaf[]): number {
  const top = leaves.reduce((most, leaf) => Math.max(most, leaf.log), -Infinity);
  let all = 0;
  let moving = 0;
  for (const leaf of leaves) {
    const w = Math.exp(leaf.log - top);
    all += w;
    if (leaf.next !== null) moving += Math.min(1, leaf.moved) * w;
  }
  return 1 - moving / all;
}

function insert(members: readonly number[], c: number): number[] {
  const at = members.findIndex((m) => m > c);
  return at < 0 ? [...members, c] : [...members.slice(0, at), c, ...members.slice(at)];
}

/** Fewer causes first, then by their order in the table. */
function before(a: readonly number[], b: readonly number[]): number {
  if (a.length !== b.length) return a.length - b.length;
  const i = a.findIndex((m, k) => m !== b[k]);
  return i < 0 ? 0 : a[i]! - b[i]!;
}
