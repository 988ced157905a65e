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

/** The draws and, last, the table itself. */
const COLUMNS = DRAWS + 1;

/** What every cause does to one feature in every draw (`cause * COLUMNS + draw`), and its leak. */
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
    const row = featureRow(feature, causes);
    const figures = (): Float64Array => new Float64Array(causes.length * COLUMNS).fill(1);
    const [keep, spare, allow] = [figures(), figures(), figures()];
    for (const c of row.touched) {
      const z = normals(seedOf(`${causes[c]!.id}>${feature.id}`), DRAWS);
      for (let d = 0; d < COLUMNS; d++) {
        // Of the table itself nothing is shifted.
        const left = (share: number): number => (share === 1 || d === DRAWS ? share : 1 - shifted(1 - share, z[d]! * spread.strength));
        keep[c * COLUMNS + d] = left(row.keep[c]!);
        spare[c * COLUMNS + d] = left(row.spare[c]!);
        allow[c * COLUMNS + d] = left(row.allow[c]!);
      }
    }
    const z = normals(seedOf(feature.id), DRAWS);
    return { keep, spare, allow, leak: Float64Array.from([...z.map((v) => shifted(feature.leak, v * spread.leak)), feature.leak]) };
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
  const shift = drawnOdds(post.causes, odds, spread.odds);
  const touching: number[][] = post.causes.map(() => []);
  rows.forEach((f, at) => featureRow(f, post.causes).touched.forEach((c) => touching[c]!.push(at)));
  const likelihood = (at: number, p: number): number => {
    const o = post.weighed[at]!;
    return Math.max(LEAST, p * (o.ifPresent - o.ifAbsent) + o.ifAbsent);
  };
  const beside = Float64Array.from(post.weighed, (o) => 1 - (explained.get(o.feature) ?? 0));
  const none = table.map((t, at) => t.leak.map((leak) => likelihood(at, 1 - (1 - leak) * beside[at]!)));
  const keep = new Float64Array(COLUMNS);
  const spare = new Float64Array(COLUMNS);
  const allow = new Float64Array(COLUMNS);
  const ratio = new Float64Array(COLUMNS);
  /** log P(evidence | core) less that of the empty set, in every draw and, last, by the table itself. */
  const scoresOf = (core: readonly number[]): Float64Array => {
    const log = new Float64Array(COLUMNS);
    ratio.fill(1);
    let inRatio = 0;
    for (const at of new Set(core.flatMap((c) => touching[c]!))) {
      const t = table[at]!;
      keep.fill(beside[at]!);
      spare.set(t.leak);
      allow.fill(1);
      for (const c of core)
        for (let d = 0, from = c * COLUMNS; d < COLUMNS; d++, from++) {
          keep[d] = keep[d]! * t.keep[from]!;
          spare[d] = spare[d]! * t.spare[from]!;
          allow[d] = allow[d]! * t.allow[from]!;
        }
      for (let d = 0; d < COLUMNS; d++)
        ratio[d] = (ratio[d]! * likelihood(at, (1 - (1 - spare[d]!) * keep[d]!) * allow[d]!)) / none[at]![d]!;
      // Each factor lies between 1e-12 and 1e12, so eight of them cannot overflow.
      if (++inRatio % 8 === 0)
        for (let d = 0; d < COLUMNS; d++) {
          log[d] = log[d]! + Math.log(ratio[d]!);
          ratio[d] = 1;
        }
    }
    return log.map((l, d) => l + Math.log(ratio[d]!));
  };
  // What never is the answer leads in no draw.
  const mayLead = (c: number): boolean => !post.causes[c]!.unlisted && !post.causes[c]!.follows;
  const scores = Array.from({ length: count }, (_, k) => scoresOf(post.cores[k]!));
  const rest = post.probability.subarray(count).reduce((a, b) => a + b, 0);
  const mean = new Float64Array(post.probability.length);
  const marginals: Float64Array[] = [];
  const leads = new Float64Array(n);
  for (let d = 0; d < DRAWS; d++) {
    const weight = Float64Array.from({ length: count }, (_, k) => {
      const core = post.cores[k]!;
      return (
        post.probability[k]! *
        Math.exp(Math.max(-600, Math.min(600, scores[k]![d]! - scores[k]![DRAWS]! + core.reduce((s, c) => s + shift[d]![c]!, 0))))
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
