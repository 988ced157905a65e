import { featureRow, LEAST, steady, strongestOfGroups, type Observation, type Posterior } from './model.js';
import type { Cause, Feature } from './types.js';

/** Weighed features as seen by one cause: only those it touches. */
interface Touches {
  readonly feature: Uint16Array;
  readonly keep: Float64Array;
  readonly spare: Float64Array;
  readonly allow: Float64Array;
}

/** A core and the causes that may still come to it. */
interface Node {
  readonly core: readonly number[];
  readonly log: number;
  /** The node it came of, and which of its further causes came to it last; the causes ranked behind that one, and the free ones, may still come. */
  readonly parent: Worked | null;
  readonly at: number;
  /** Logarithm of the most that the core and all its supersets may hold. */
  readonly bound: number;
  worked: Worked | null;
}

/** A core that was worked out: the causes that make cores of their own, those free about it, and what each adds (prior odds times what the evidence gains, as logarithms by cause). */
interface Worked {
  readonly further: readonly number[];
  readonly free: readonly number[];
  readonly ratios: Float64Array;
}

const NONE: readonly number[] = [];

/** A cause that raises the odds of a set by less than this is left free about it: two such causes hardly touch each other. */
const FREE_BELOW = 0.03;
/** A cause that makes nothing of what was found likelier than by this (in log) touches no other: it is free too. */
const EXPLAINS = 0.02;
/** A core whose sets can hold no more than this share is not worked out. */
const SLIGHT = Math.log(1e-4);
/** A core that holds less than this beside the likeliest is not kept. */
const NOTHING = Math.log(1e-9);
/** Cores kept for what is asked afterwards, the likeliest; of the rest only the share is kept. */
const KEPT = 220;
/** How much likelier (log odds) another fault of one family is beside a cause that stands for several small ones. Judgement. */
export const COUPLED = Math.log(6);
/** At most this many cores are worked out; what they hold is reported, so that a cut is never silent. */
const WORKED_AT_MOST = 240;
/** Tables of so few causes are enumerated whole. */
const SMALL = 12;
const MOST = 700;

/**
 * Posterior over sets of as many causes as the engine has, in log space. `odds` are prior odds per cause, in the order of `causes`; `explained` the chance that damage which was found brings a
 * feature about by itself (by feature id), which counts for no cause.
 *
 * Branch and bound (Land & Doig 1960) over cores. At a core every further cause is weighed: those that raise its odds by little (0.03) stay free about it, each with a chance of its own, which is
 * exact for causes that share no evidence and off by the product of two small figures where they do; each of the others makes a core of its own, in rising rank, so that every set is reached by
 * one way. A cause never explains more beside others than alone (noisy-OR has diminishing returns, Henrion 1991), so its odds times Π(1 + ratio) bound what lies beyond a core; so does
 * what the evidence can gain at most times Π(1 + odds · what speaks against). Cores that can hold next to nothing (1e-4) are left. Tables of up to twelve causes are enumerated whole. Nothing hangs on the machine: equal figures are told apart by their place in the table.
 */
export function posterior(
  causes: readonly Cause[],
  odds: readonly number[],
  observations: readonly Observation[],
  features: ReadonlyMap<string, Feature>,
  explained?: ReadonlyMap<string, number>,
): Posterior {
  const weighed = strongestOfGroups(observations, features, causes);
  const rows = weighed.map((o) => featureRow(features.get(o.feature) as Feature, causes));
  const slope = Float64Array.from(weighed, (o) => o.ifPresent - o.ifAbsent);
  const no = Float64Array.from(weighed, (o) => o.ifAbsent);
  const n = causes.length;
  const touches = causes.map((_, c): Touches => {
    const at = [...rows.keys()].filter((f) => rows[f]!.keep[c] !== 1 || rows[f]!.spare[c] !== 1 || rows[f]!.allow[c] !== 1);
    return {
      feature: Uint16Array.from(at),
      keep: Float64Array.from(at, (f) => rows[f]!.keep[c]!),
      spare: Float64Array.from(at, (f) => rows[f]!.spare[c]!),
      allow: Float64Array.from(at, (f) => rows[f]!.allow[c]!),
    };
  });
  const prior = odds.map((o) => Math.log(o));
  // One pair of hands: beside a cause that stands for several small faults, others of its family are likelier.
  const several = causes.findIndex((c) => c.several);
  const kin = causes.map((c, i) => several >= 0 && i !== several && c.family === causes[several]!.family);
  let withSeveral = false;
  let kinIn = 0;
  const oddsOf = (c: number): number => prior[c]! + (c === several ? kinIn * COUPLED : withSeveral && kin[c] ? COUPLED : 0);
  const leaks = Float64Array.from(rows, (row) => row.feature.leak);
  const unexplained = Float64Array.from(weighed, (o) => 1 - (explained?.get(o.feature) ?? 0));
  const keep = new Float64Array(rows.length);
  const spare = new Float64Array(rows.length);
  const allow = new Float64Array(rows.length);
  const like = new Float64Array(rows.length);
  const reach = new Float64Array(rows.length);
  /** Makes the state that of a set. */
  const standAt = (members: readonly number[]): void => {
    withSeveral = several >= 0 && members.includes(several);
    kinIn = members.filter((c) => kin[c]).length;
    keep.set(unexplained);
    spare.set(leaks);
    allow.fill(1);
    for (const c of members) {
      const t = touches[c]!;
      for (let i = 0; i < t.feature.length; i++) {
        const f = t.feature[i]!;
        keep[f] = keep[f]! * t.keep[i]!;
        spare[f] = spare[f]! * t.spare[i]!;
        allow[f] = allow[f]! * t.allow[i]!;
      }
    }
    for (let f = 0; f < like.length; f++) like[f] = Math.max(LEAST, (1 - (1 - spare[f]!) * keep[f]!) * allow[f]! * slope[f]! + no[f]!);
  };
  /** What of a cause's odds is left where evidence it explains is not counted: set by `ratioOf` beside its answer. */
  let against = 0;
  /** What a cause can add at most to a set beyond this state: where it prevents what was found, another cause may yet bring that about. Set by `ratioOf` beside its answer. */
  let atMost = 0;
  /** log of odds · P(evidence | S ∪ c) / P(evidence | S) at the state that stands. Each factor lies between 1e-12 and 1e12, so eight of them cannot overflow. */
  const ratioOf = (c: number): number => {
    const { feature: at, keep: more, spare: sparing, allow: less } = touches[c]!;
    let log = 0;
    let worse = 0;
    let prevented = 0;
    let above = 1;
    let below = 1;
    let short = 1;
    for (let i = 0; i < at.length; i++) {
      const f = at[i]!;
      const raw = (1 - (1 - spare[f]! * sparing[i]!) * keep[f]! * more[i]!) * allow[f]! * less[i]! * slope[f]! + no[f]!;
      const l = raw < LEAST ? LEAST : raw;
      above *= l;
      below *= like[f]!;
      if (l < like[f]!) {
        if (sparing[i] !== 1 && slope[f]! > 0) prevented += Math.log(l / like[f]!);
        else short *= l / like[f]!;
      }
      if ((i & 7) === 7) {
        log += Math.log(above / below);
        worse += Math.log(short);
        above = 1;
        below = 1;
        short = 1;
      }
    }
    against = oddsOf(c) + worse + Math.log(short);
    const ratio = oddsOf(c) + log + Math.log(above / below);
    atMost = ratio - prevented;
    return ratio;
  };
  /** log of how much likelier the evidence can become at most where all of these causes come to the state that stands and nothing speaks against them. */
  const capOf = (eligible: readonly number[]): number => {
    reach.set(keep);
    for (const c of eligible) {
      const t = touches[c]!;
      for (let i = 0; i < t.feature.length; i++) reach[t.feature[i]!] = reach[t.feature[i]!]! * t.keep[i]!;
    }
    let log = 0;
    for (let f = 0; f < reach.length; f++)
      if (slope[f]! > 0) log += Math.log(Math.max(like[f]!, (1 - (1 - spare[f]!) * reach[f]!) * slope[f]! + no[f]!) / like[f]!);
    return log;
  };

  const whole = n <= SMALL;
  const least = Math.log(FREE_BELOW);
  standAt([]);
  const empty = like.reduce((sum, l) => sum + Math.log(l), 0);
  const root: Node = {
    core: [],
    log: empty,
    parent: null,
    at: 0,
    bound: Infinity,
    worked: null,
  };
  const ranked = greedyOrder(n, standAt, ratioOf);
  /** What each cause can add at most where it prevents nothing of what was found. */
  const most = new Float64Array(n);
  const nodes: Node[] = [];
  const open: Node[] = [root];
  const alone = new Float64Array(n);
  const slight: number[] = [];
  /** Everything is compared with the likeliest core met so far. */
  let top = empty;
  for (let worked = 0; open.length > 0;) {
    // The heap gives the largest bound first: where that is too slight, or enough was worked out, all the rest stays as it is.
    if (!whole && (worked >= WORKED_AT_MOST || open[0]!.bound < top + SLIGHT)) {
      for (const rest of open) nodes.push(rest);
      break;
    }
    const node = pop(open);
    nodes.push(node);
    worked++;
    standAt(node.core);
    const eligible = node.parent ? [...node.parent.further.slice(node.at + 1), ...node.parent.free] : ranked;
    const ratios = new Float64Array(n);
    for (const c of eligible) {
      ratios[c] = ratioOf(c);
      most[c] = atMost;
      alone[c] = against;
    }
    const cap = whole ? MOST : capOf(eligible);
    const isFree = (c: number): boolean => !whole && (ratios[c]! <= least || most[c]! - alone[c]! <= EXPLAINS);
    const further: number[] = [];
    const free: number[] = [];
    let room = 0;
    let bare = 0;
    for (const c of eligible) {
      if (!isFree(c)) {
        further.push(c);
        continue;
      }
      free.push(c);
      room += softplus(most[c]!);
      bare += softplus(alone[c]!);
    }
    node.worked = { further, free, ratios };
    for (let i = further.length - 1; i >= 0; i--) {
      const c = further[i]!;
      const log = node.log + ratios[c]!;
      top = Math.max(top, log);
      const bound = Math.min(node.log + most[c]! + room, node.log + cap + alone[c]! + bare);
      room += softplus(most[c]!);
      bare += softplus(alone[c]!);
      if (!whole && bound < top + SLIGHT) {
        // Too slight to be worked out; what it may hold counts against the mass.
        slight.push(bound);
        continue;
      }
      push(open, { core: insert(node.core, c), log, parent: node.worked, at: i, bound, worked: null });
    }
  }
  const held = nodes.map((node) => node.log + (node.worked?.free ?? NONE).reduce((sum, c) => sum + softplus(node.worked!.ratios[c]!), 0));
  const likeliest = held.reduce((a, b) => Math.max(a, b), -Infinity);
  const all = [...nodes.keys()]
    .filter((i) => whole || held[i]! > likeliest + NOTHING)
    .sort((a, b) => steady(held[b]!) - steady(held[a]!) || before(nodes[a]!.core, nodes[b]!.core));
  const order = whole ? all : all.slice(0, KEPT);
  const best = held[order[0]!]!;
  const weight = order.map((i) => Math.exp(held[i]! - best));
  const sum = weight.reduce((a, b) => a + b, 0);
  const probability = Float64Array.from(weight, (w) => w / sum);
  const chance = new Float64Array(order.length * n);
  const marginal = new Float64Array(n);
  // What was left may hold its bound beside what it holds itself.
  const sumWorked = nodes.reduce((sum, node, i) => sum + (node.worked ? Math.exp(held[i]! - best) : 0), 0);
  const sumKept = order.reduce((sum, i) => sum + (nodes[i]!.worked ? Math.exp(held[i]! - best) : 0), 0);
  const sumLeft =
    nodes.reduce((sum, node, i) => sum + (node.worked ? 0 : Math.exp(Math.max(node.bound, held[i]!) - best)), 0) +
    slight.reduce((sum, bound) => sum + Math.exp(bound - best), 0);
  order.forEach((i, k) => {
    const node = nodes[i]!;
    for (const c of node.core) chance[k * n + c] = 1;
    const free = node.worked?.free ?? NONE;
    for (const c of free) chance[k * n + c] = 1 / (1 + Math.exp(-node.worked!.ratios[c]!));
    for (const c of [...node.core, ...free]) marginal[c] = marginal[c]! + probability[k]! * chance[k * n + c]!;
  });
  return {
    causes,
    cores: order.map((i) => nodes[i]!.core),
    probability,
    chance,
    marginal,
    mass: whole ? 1 : Math.min(1, sumKept / (sumWorked + sumLeft)),
    weighed,
  };
}

/** log(1 + eˣ). */
const softplus = (x: number): number => (x > 30 ? x : Math.log1p(Math.exp(x)));

/** Causes ranked greedily: each next is the one that raises the set of those before it most; from where none raises it, by what they would add to that set. */
function greedyOrder(n: number, standAt: (members: readonly number[]) => void, ratioOf: (c: number) => number): number[] {
  const order: number[] = [];
  for (;;) {
    standAt(order);
    const rest = Array.from({ length: n }, (_, c) => c).filter((c) => !order.includes(c));
    const ratio = new Map(rest.map((c) => [c, ratioOf(c)]));
    const ranked = rest.sort((a, b) => steady(ratio.get(b)!) - steady(ratio.get(a)!) || a - b);
    const best = ranked[0];
    if (best === undefined) return order;
    if (ratio.get(best)! <= 0 && order.length > 0) return [...order, ...ranked];
    order.push(best);
  }
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

const sooner = (a: Node, b: Node): boolean =>
  a.bound === b.bound ? before(a.core, b.core) < 0 : (steady(b.bound) - steady(a.bound) || before(a.core, b.core)) < 0;

/** A heap whose first may hold most. */
function push(heap: Node[], node: Node): void {
  let i = heap.push(node) - 1;
  while (i > 0) {
    const up = (i - 1) >> 1;
    if (!sooner(node, heap[up]!)) break;
    heap[i] = heap[up]!;
    i = up;
  }
  heap[i] = node;
}

function pop(heap: Node[]): Node {
  const first = heap[0]!;
  const last = heap.pop()!;
  if (heap.length === 0) return first;
  let i = 0;
  for (;;) {
    let down = 2 * i + 1;
    if (down >= heap.length) break;
    if (down + 1 < heap.length && sooner(heap[down + 1]!, heap[down]!)) down++;
    if (!sooner(heap[down]!, last)) break;
    heap[i] = heap[down]!;
    i = down;
  }
  heap[i] = last;
  return first;
}
