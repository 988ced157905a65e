import { seeded } from '../kit/seeded.js';
import { featureRow, LEAST, type Observation } from './model.js';
import { COUPLED } from './beliefs.js';
import type { Cause, Feature } from './types.js';

/** Sets between two rebuildings of the products, so that rounding does not pile up. */
const REBUILT_EVERY = 200;
/** Exchanges of one cause for another that are tried after every round: by single steps a set of two that explain the same is hardly ever left. */
const EXCHANGES = 6;

/**
 * Marginals of the causes by Gibbs sampling (Geman & Geman 1984) with exchanges (Metropolis 1953): slow, and held to no structure, which makes it the peer the search is measured against in tests
 * and bench. `rounds` visits of every cause, the first tenth thrown away; the same seed gives the same answer. Observations are those that weigh (`Posterior.weighed`).
 */
export function sampledMarginals(
  causes: readonly Cause[],
  odds: readonly number[],
  weighed: readonly Observation[],
  features: ReadonlyMap<string, Feature>,
  explained: ReadonlyMap<string, number> | undefined,
  rounds: number,
): Float64Array {
  const n = causes.length;
  const rows = weighed.map((o) => featureRow(features.get(o.feature) as Feature, causes));
  const touching = causes.map((_, c) => [...rows.keys()].filter((f) => rows[f]!.touched.includes(c)));
  const several = causes.findIndex((c) => c.several);
  const kin = causes.map((c, i) => several >= 0 && i !== several && c.family === causes[several]!.family);
  const random = seeded(1);
  const here = new Uint8Array(n);
  const keep = new Float64Array(rows.length);
  const spare = new Float64Array(rows.length);
  const allow = new Float64Array(rows.length);
  const put = (c: number, power: 1 | -1): void => {
    for (const f of touching[c]!) {
      const row = rows[f]!;
      keep[f] = keep[f]! * row.keep[c]! ** power;
      spare[f] = spare[f]! * row.spare[c]! ** power;
      allow[f] = allow[f]! * row.allow[c]! ** power;
    }
  };
  const rebuild = (): void => {
    weighed.forEach((o, f) => {
      keep[f] = 1 - (explained?.get(o.feature) ?? 0);
      spare[f] = rows[f]!.feature.leak;
      allow[f] = 1;
    });
    here.forEach((there, c) => there && put(c, 1));
  };
  const evidence = (at: Iterable<number>): number => {
    let log = 0;
    for (const f of at) {
      const p = (1 - (1 - spare[f]!) * keep[f]!) * allow[f]!;
      log += Math.log(Math.max(LEAST, p * weighed[f]!.ifPresent + (1 - p) * weighed[f]!.ifAbsent));
    }
    return log;
  };
  const prior = (c: number): number => {
    const beside = c === several ? kin.filter((k, i) => k && here[i]).length : several >= 0 && here[several] && kin[c] ? 1 : 0;
    return Math.log(odds[c]!) + beside * COUPLED;
  };
  /** Draws a cause anew given all others; the chance it was drawn by. */
  const draw = (c: number): number => {
    if (here[c]) put(c, -1);
    const out = evidence(touching[c]!);
    put(c, 1);
    const chance = 1 / (1 + Math.exp(out - evidence(touching[c]!) - prior(c)));
    here[c] = random() < chance ? 1 : 0;
    if (!here[c]) put(c, -1);
    return chance;
  };
  const exchange = (): void => {
    const there = [...here.keys()].filter((c) => here[c]);
    const from = there[Math.floor(random() * there.length)];
    const to = Math.floor(random() * n);
    if (from === undefined || here[to]) return;
    const both = new Set([...touching[from]!, ...touching[to]!]);
    const was = evidence(both) + prior(from);
    put(from, -1);
    here[from] = 0;
    put(to, 1);
    const now = evidence(both) + prior(to);
    here[to] = 1;
    if (Math.log(random()) < now - was) return;
    put(to, -1);
    here[to] = 0;
    put(from, 1);
    here[from] = 1;
  };
  const sum = new Float64Array(n);
  let counted = 0;
  for (let round = 0; round < rounds; round++) {
    if (round % REBUILT_EVERY === 0) rebuild();
    const counts = round * 10 >= rounds;
    for (let c = 0; c < n; c++) {
      const chance = draw(c);
      if (counts) sum[c] = sum[c]! + chance;
    }
    if (counts) counted++;
    for (let k = 0; k < EXCHANGES; k++) exchange();
  }
  return sum.map((s) => s / counted);
}
