import type { EntryBodies } from '../entries/entries.js';
import { CAUSES } from '../cause/data/causes.js';
import { applicableModel } from '../diagnosis/diagnose.js';
import { engineTags } from '../engine/tags.js';
import { engineTemplate } from '../engine/templates.js';
import type { CountedCase } from './statistics.js';

/** Cases the table counts for beside the shop's own, and the shop beside a kind of engine. Judgement: with twenty proven cases the shop's own word weighs as much as the table. */
export const TABLE_WEIGHS = 20;
const SHOP_WEIGHS = 10;
/** How far a shop's own frequency moves the odds of the table: what never came in a thousand cases may come in the next. */
const FACTORS = { least: 0.01, most: 1000 } as const;
/** A change of the odds by less is none. */
const LEAST = 0.02;

const chance = (odds: number): number => odds / (1 + odds);
const odds = (p: number): number => p / (1 - p);

/**
 * Share of cases with a cause, shrunk towards what was held before: (w p + k) / (w + n), the mean of a Beta prior of weight w (Efron & Morris, Journal of the American Statistical Association 70, 1975; here with a stated weight
 * instead of one estimated from few). With no cases it is the prior, with many the share of the cases.
 */
export const shrunk = (prior: number, weight: number, k: number, n: number): number => (weight * prior + k) / (weight + n);

/**
 * What the shop's own proven cases make of the odds of the table, as factors: first the shop as a whole, then the kind of engine shrunk towards the shop. A known weakness of a kind stays a prior: it moves where a
 * judgement begins and is no evidence. Null while nothing was proved.
 */
export function shopPriors(cases: readonly CountedCase[], family: string, on: string): EntryBodies['priors-taken']['priors'] {
  const proven = cases.filter((c) => c.facts.proven !== null);
  if (proven.length === 0) return null;
  const own = proven.filter((c) => c.facts.family === family);
  const count = (among: readonly CountedCase[], id: string): number => among.filter((c) => c.facts.proven!.includes(id)).length;
  const factors: Record<string, number> = {};
  const template = engineTemplate(family);
  const model = template ? applicableModel(engineTags(template.layout)) : { causes: CAUSES, odds: CAUSES.map((c) => c.priorOdds) };
  for (const [i, c] of model.causes.entries()) {
    // The table holds other odds for some kinds of engine: the shop moves those, and the kind's own cases come to its own share.
    const table = model.odds[i]!;
    const shop = odds(shrunk(chance(c.priorOdds), TABLE_WEIGHS, count(proven, c.id), proven.length)) / c.priorOdds;
    const kind = shrunk(chance(table * shop), SHOP_WEIGHS, count(own, c.id), own.length);
    const factor = Math.min(FACTORS.most, Math.max(FACTORS.least, odds(Math.min(0.95, kind)) / table));
    if (Math.abs(Math.log(factor)) > LEAST) factors[c.id] = Number(factor.toPrecision(4));
  }
  return { cases: proven.length, ofFamily: own.length, family, on, factors };
}
