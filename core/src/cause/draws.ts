import { memoOf } from '../kit/memo.js';
import { seeded } from '../kit/seeded.js';
import { Standing, statedFigures, type Figures, type Laid } from './beliefs.js';
import type { Judgement } from './judgement.js';
import { featureRow, LEAST, type Observation, type Posterior } from './model.js';
import { chancesOf, laidAgainst, leavesOf, marginalOf, massOf } from './search.js';
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
  const uniform = seeded(seed);
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

/** What every cause does to one feature in every draw (`cause * DRAWS + draw`), and its leak. */
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
    const figures = (): Float64Array => new Float64Array(causes.length * DRAWS).fill(1);
    const [keep, spare, allow] = [figures(), figures(), figures()];
    for (const c of row.touched) {
      const z = normals(seedOf(`${causes[c]!.id}>${feature.id}`), DRAWS);
      for (let d = 0; d < DRAWS; d++) {
        const left = (share: number): number => (share === 1 ? share : 1 - shifted(1 - share, z[d]! * spread.strength));
        keep[c * DRAWS + d] = left(row.keep[c]!);
        spare[c * DRAWS + d] = left(row.spare[c]!);
        allow[c * DRAWS + d] = left(row.allow[c]!);
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

/** Cores told apart for a differential. Beside the width of what the draws leave open, more of them move nothing: against 64 in every draw they move a mean by 0.002 and the end of a range by 0.002 (practice notebooks). */
const CORES = 8;

/**
 * The posterior where the table carries its own uncertainty: the mean over draws of its strengths, leaks and priors, seeded by their names. Cores are told apart once, by the table itself; every draw weighs
 * them anew, with messages of its own that begin from those. Deterministic.
 */
export function drawn(
  causes: readonly Cause[],
  odds: readonly number[],
  observations: readonly Observation[],
  features: ReadonlyMap<string, Feature>,
  explained: ReadonlyMap<string, number>,
  spread: Judgement['spread'],
): { readonly posterior: Posterior; readonly range: DrawnRange } {
  const n = causes.length;
  const laid = laidAgainst(causes, observations, features, explained);
  const stated = statedFigures(laid, odds);
  const standing = new Standing(laid, stated);
  const leaves = leavesOf(standing, n, CORES);
  const figures = drawnFigures(laid, odds, spread);
  const probability = new Float64Array(leaves.length);
  const together = new Float64Array(leaves.length * n);
  const marginals: Float64Array[] = [];
  const leads = new Float64Array(n);
  // What never is the answer leads in no draw.
  const mayLead = (c: number): boolean => !causes[c]!.unlisted && !causes[c]!.follows;
  for (const own of figures) {
    standing.take(own);
    const logs = new Float64Array(leaves.length);
    const chance = new Float64Array(leaves.length * n);
    leaves.forEach((leaf, k) => {
      standing.standAt(leaf.core);
      const beliefs = standing.settle(leaf.rest, leaf.beliefs);
      logs[k] = standing.log + beliefs.gain;
      chance.set(chancesOf(leaf.core, beliefs), k * n);
    });
    const best = logs.reduce((a, b) => Math.max(a, b), -Infinity);
    const weight = logs.map((log) => Math.exp(log - best));
    const sum = weight.reduce((a, b) => a + b, 0);
    const share = weight.map((w) => w / sum);
    share.forEach((p, k) => {
      probability[k] = probability[k]! + p / DRAWS;
      for (let i = k * n; i < (k + 1) * n; i++) together[i] = together[i]! + (p * chance[i]!) / DRAWS;
    });
    const marginal = marginalOf(share, chance, n);
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
  const each = causes.map((_, c) => c);
  return {
    posterior: {
      causes,
      cores: leaves.map((leaf) => leaf.core),
      probability,
      chance: together.map((p, i) => Math.min(1, p / Math.max(LEAST, probability[Math.floor(i / n)]!))),
      marginal: Float64Array.from(each, (c) => marginals.reduce((s, m) => s + m[c]!, 0) / DRAWS),
      mass: massOf(leaves),
      weighed: laid.weighed,
    },
    range: { low: Float64Array.from(each, (c) => quantile(c, 0.1)), high: Float64Array.from(each, (c) => quantile(c, 0.9)), leads },
  };
}

/** The figures of the table in every draw. */
function drawnFigures(laid: Laid, odds: readonly number[], spread: Judgement['spread']): Figures[] {
  const { causes, rows, feature, from } = laid;
  const table = rows.map((row) => drawnRow(causes, row.feature, spread));
  const shift = drawnOdds(causes, odds, spread.odds);
  return Array.from({ length: DRAWS }, (_, d) => {
    const figures = {
      odds: Float64Array.from(odds, (o, c) => o * Math.exp(shift[d]![c]!)),
      leak: Float64Array.from(table, (t) => t.leak[d]!),
      allow: new Float64Array(feature.length),
      keep: new Float64Array(feature.length),
      spare: new Float64Array(feature.length),
    };
    for (let c = 0; c < causes.length; c++)
      for (let t = from[c]!; t < from[c + 1]!; t++) {
        const row = table[feature[t]!]!;
        const at = c * DRAWS + d;
        figures.allow[t] = row.allow[at]!;
        figures.keep[t] = row.allow[at]! * row.keep[at]!;
        figures.spare[t] = row.allow[at]! * row.keep[at]! * row.spare[at]!;
      }
    return figures;
  });
}
