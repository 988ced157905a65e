import { memoOf } from '../kit/memo.js';
import type { Judgement } from './judgement.js';
import { featureRow, LEAST, type Posterior } from './model.js';
import type { Cause, Feature } from './types.js';

/** How often the table is drawn about its words. */
const DRAWS = 16;

/** How sure a probability is: its 10 and 90 % quantiles over the draws by cause, and the share of draws in which each cause leads. */
export interface DrawnRange {
  readonly low: Float64Array;
  readonly high: Float64Array;
  readonly leads: Float64Array;
}

/** A number that follows from words alone (FNV-1a), the same on every machine. */
function seedOf(text: string): number {
  let h = 0x811c9dc5;
  for (let i = 0; i < text.length; i++) h = Math.imul(h ^ text.charCodeAt(i), 0x01000193);
  return h >>> 0;
}

/** Draws of a standard normal: twelve uniforms less six (Irwin–Hall), so that no function of the machine's own takes part. */
function normals(seed: number, count: number): Float64Array {
  let state = seed;
  const uniform = (): number => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
  return Float64Array.from({ length: count }, () => {
    let sum = -6;
    for (let i = 0; i < 12; i++) sum += uniform();
    return sum;
  });
}

/** A probability shifted by x in log-odds. */
function shifted(p: number, x: number): number {
  const e = Math.exp(x);
  return (p * e) / (1 - p + p * e);
}

/** (1 − w), what is left of the leak and of the feature, and the leak of one feature in every draw: `draw * causes + cause`. */
interface DrawnRow {
  readonly keep: Float64Array;
  readonly spare: Float64Array;
  readonly allow: Float64Array;
  readonly leak: Float64Array;
}

const drawnRow = memoOf(
  'drawn row of a feature',
  (feature: Feature, spread: Judgement['spread']) => `${feature.id} ${spread.strength} ${spread.leak}`,
  (causes: readonly Cause[], feature: Feature, spread: Judgement['spread']): DrawnRow => {
    const n = causes.length;
    const row = featureRow(feature, causes);
    const keep = new Float64Array(DRAWS * n).fill(1);
    const spare = new Float64Array(DRAWS * n).fill(1);
    const allow = new Float64Array(DRAWS * n).fill(1);
    for (const c of row.touched) {
      const z = normals(seedOf(`${causes[c]!.id}>${feature.id}`), DRAWS);
      for (let d = 0; d < DRAWS; d++) {
        const x = z[d]! * spread.strength;
        if (row.keep[c] !== 1) keep[d * n + c] = 1 - shifted(1 - row.keep[c]!, x);
        if (row.spare[c] !== 1) spare[d * n + c] = 1 - shifted(1 - row.spare[c]!, x);
        if (row.allow[c] !== 1) allow[d * n + c] = 1 - shifted(1 - row.allow[c]!, x);
      }
    }
    const z = normals(seedOf(feature.id), DRAWS);
    return { keep, spare, allow, leak: z.map((v) => shifted(feature.leak, v * spread.leak)) };
  },
);

const drawnOdds = memoOf(
  'drawn odds of the causes',
  (odds: readonly number[], spread: number) => `${odds.join()} ${spread}`,
  (causes: readonly Cause[], odds: readonly number[], spread: number): Float64Array[] => {
    const z = causes.map((c) => normals(seedOf(c.id), DRAWS));
    return Array.from({ length: DRAWS }, (_, d) => Float64Array.from(odds, (_o, c) => z[c]![d]! * spread));
  },
);

/** Cores beyond this share of all probability are left at what they hold. */
const COVERED = 0.99;
const MOST_CORES = 70;

/**
 * The posterior where the table carries its own uncertainty: the mean over draws of its strengths, leaks and priors, seeded by their names. Every draw weighs the cores of the posterior anew; the
 * causes that are free about a core keep their chance. Deterministic.
 */
export function drawn(
  post: Posterior,
  odds: readonly number[],
  features: ReadonlyMap<string, Feature>,
  explained: ReadonlyMap<string, number>,
  spread: Judgement['spread'],
): { readonly posterior: Posterior; readonly range: DrawnRange } {
  const n = post.causes.length;
  let count = 0;
  for (let sum = 0; count < post.cores.length && count < MOST_CORES && sum < COVERED; count++) sum += post.probability[count]!;
  const rows = post.weighed.map((o) => features.get(o.feature)!);
  const table = rows.map((f) => drawnRow(post.causes, f, spread));
  const base = rows.map((f) => featureRow(f, post.causes));
  const shift = drawnOdds(post.causes, odds, spread.odds);
  const touching = post.causes.map((_, c) => [...rows.keys()].filter((f) => base[f]!.touched.includes(c)));
  const slope = Float64Array.from(post.weighed, (o) => o.ifPresent - o.ifAbsent);
  const no = Float64Array.from(post.weighed, (o) => o.ifAbsent);
  const beside = Float64Array.from(post.weighed, (o) => 1 - (explained.get(o.feature) ?? 0));
  const keep = new Float64Array(rows.length);
  const spare = new Float64Array(rows.length);
  const allow = new Float64Array(rows.length);
  const stamp = new Int32Array(rows.length);
  let mark = 0;
  /** log P(evidence | core) less that of the empty set, under the figures of draw d; of the table itself where d is −1. */
  const scoreOf = (core: readonly number[], d: number): number => {
    mark++;
    const met: number[] = [];
    for (const c of core)
      for (const f of touching[c]!) {
        if (stamp[f] !== mark) {
          stamp[f] = mark;
          met.push(f);
          keep[f] = beside[f]!;
          spare[f] = d < 0 ? rows[f]!.leak : table[f]!.leak[d]!;
          allow[f] = 1;
        }
        keep[f] = keep[f]! * (d < 0 ? base[f]!.keep[c]! : table[f]!.keep[d * n + c]!);
        spare[f] = spare[f]! * (d < 0 ? base[f]!.spare[c]! : table[f]!.spare[d * n + c]!);
        allow[f] = allow[f]! * (d < 0 ? base[f]!.allow[c]! : table[f]!.allow[d * n + c]!);
      }
    let log = 0;
    let above = 1;
    let below = 1;
    for (let i = 0; i < met.length; i++) {
      const f = met[i]!;
      const bare = (1 - (d < 0 ? rows[f]!.leak : table[f]!.leak[d]!)) * beside[f]!;
      above *= Math.max(LEAST, (1 - (1 - spare[f]!) * keep[f]!) * allow[f]! * slope[f]! + no[f]!);
      below *= Math.max(LEAST, (1 - bare) * slope[f]! + no[f]!);
      if ((i & 7) === 7) {
        log += Math.log(above / below);
        above = 1;
        below = 1;
      }
    }
    return log + Math.log(above / below);
  };
  // What never is the answer leads in no draw.
  const mayLead = (c: number): boolean => !post.causes[c]!.unlisted && !post.causes[c]!.follows;
  const own = Float64Array.from({ length: count }, (_, k) => scoreOf(post.cores[k]!, -1));
  const rest = post.probability.subarray(count).reduce((a, b) => a + b, 0);
  const mean = new Float64Array(post.probability.length);
  const marginals: Float64Array[] = [];
  const leads = new Float64Array(n);
  for (let d = 0; d < DRAWS; d++) {
    const weight = Float64Array.from({ length: count }, (_, k) => {
      const core = post.cores[k]!;
      return (
        post.probability[k]! *
        Math.exp(Math.max(-600, Math.min(600, scoreOf(core, d) - own[k]! + core.reduce((s, c) => s + shift[d]![c]!, 0))))
      );
    });
    const sum = weight.reduce((a, b) => a + b, 0);
    const marginal = new Float64Array(n);
    for (let k = 0; k < post.probability.length; k++) {
      const p = k < count ? ((1 - rest) * weight[k]!) / sum : post.probability[k]!;
      mean[k] = mean[k]! + p / DRAWS;
      if (p > 1e-6) for (let c = 0; c < n; c++) marginal[c] = marginal[c]! + p * post.chance[k * n + c]!;
    }
    marginals.push(marginal);
    let lead = 0;
    for (let c = 1; c < n; c++) if (mayLead(c) && (!mayLead(lead) || marginal[c]! > marginal[lead]!)) lead = c;
    leads[lead] = leads[lead]! + 1 / DRAWS;
  }
  const quantile = (c: number, q: number): number => {
    const sorted = marginals.map((m) => m[c]!).sort((a, b) => a - b);
    const at = q * (DRAWS - 1);
    const low = Math.floor(at);
    return sorted[low]! + (at - low) * ((sorted[low + 1] ?? sorted[low]!) - sorted[low]!);
  };
  const each = post.causes.map((_, c) => c);
  return {
    posterior: { ...post, probability: mean, marginal: Float64Array.from(each, (c) => marginals.reduce((s, m) => s + m[c]!, 0) / DRAWS) },
    range: { low: Float64Array.from(each, (c) => quantile(c, 0.1)), high: Float64Array.from(each, (c) => quantile(c, 0.9)), leads },
  };
}
