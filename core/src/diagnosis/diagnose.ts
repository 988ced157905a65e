import { RUNNING_PARTS } from '../engine/stations.js';
import { isExamined, standingGrade, type CaseView } from '../case/views.js';
import { CAUSES, CAUSE_TABLE_VERSION, isListed } from '../cause/data/causes.js';
import { AGE_ODDS, ALL_FEATURES, COMES_WITH_AGE } from '../cause/data/features.js';
import { serviceAge, type ServiceAge } from '../engine/layout.js';
import { endingOf, foundBeside, type Ending } from './ending.js';
import { collectEvidence, toObservation } from './evidence.js';
import type { EvidenceItem } from './evidenceItem.js';
import { chanceOfAny } from '../cause/joint.js';
import { probabilityBySingle, steady, type Observation, type Posterior } from '../cause/model.js';
import { drawn } from '../cause/draws.js';
import { JUDGEMENT, type Judgement } from '../cause/judgement.js';
import { explainedFeatures } from './explained.js';
import { nextChecks, type NextCheck } from './nextCheck.js';
import { rankPlaces, type PlaceShare } from './places.js';
import { goneThatWouldTell, unexplainedFindings, type UnexplainedFinding } from './unexplained.js';
import { turningPoint, type TurningPoint } from '../cause/turningPoint.js';
import { type Cause, type CauseLink, type Feature, type Mechanism } from '../cause/types.js';
import { applies, engineTags, type EngineTag } from '../engine/tags.js';
import { memo } from '../kit/memo.js';

/** One cause of the differential: probability (0 to 1), weights of its evidence in decibans, and where it most likely began. */
export interface RankedCause {
  readonly id: string;
  readonly name: string;
  readonly family: string;
  /** How it acts, the leading way first. */
  readonly mechanisms: readonly Mechanism[];
  /** Mean over the draws of the table about its words, and its 10 and 90 % quantiles. */
  readonly probability: number;
  readonly low: number;
  readonly high: number;
  /** Share of the draws in which it leads. */
  readonly leads: number;
  readonly range: string;
  readonly places: readonly PlaceShare[];
  readonly evidence: readonly WeighedEvidence[];
}

/** One bar of the waterfall: weight in decibans (10 log₁₀ of the likelihood ratio) of this cause against its strongest rival. */
export interface WeighedEvidence {
  readonly feature: string;
  readonly name: string;
  readonly present: boolean;
  readonly decibans: number;
  readonly reason: string;
  readonly reliability: EvidenceItem['reliability'];
  readonly sources: EvidenceItem['sources'];
}

/** The differential of a case: causes by probability, evidence weighed, what is unexplained, what to check next, and how it ends. */
export interface Diagnosis {
  readonly table: string;
  readonly causes: readonly RankedCause[];
  /** Most probable sets of causes; an empty list of ids means "none of these". */
  readonly sets: ReadonlyArray<{ readonly causes: readonly string[]; readonly probability: number }>;
  readonly mechanisms: ReadonlyArray<{ readonly mechanism: Mechanism; readonly probability: number }>;
  readonly unexplained: readonly UnexplainedFinding[];
  readonly nextChecks: readonly NextCheck[];
  readonly turningPoint: TurningPoint | null;
  readonly ending: Ending;
  readonly evidence: readonly EvidenceItem[];
  readonly examinedShare: number;
  /** Causes found beside the leading one, of their own: likely together with it, not instead of it. */
  readonly beside: readonly string[];
  /** Share of all probability that no longer moved when its sets were told apart last. */
  readonly mass: number;
}

/** Words for probability, defined once for screens and reports. */
export function rangeWord(p: number): string {
  if (p >= 0.9) return 'practically certain';
  if (p >= 0.7) return 'probable';
  if (p >= 0.4) return 'possible';
  if (p >= 0.1) return 'less likely';
  return 'unlikely';
}

function priorOdds(cause: Cause, tags: ReadonlySet<EngineTag>): number {
  for (const [tag, odds] of Object.entries(cause.priorOddsFor ?? {})) if (tags.has(tag as EngineTag)) return odds;
  return cause.priorOdds;
}

export interface ApplicableModel {
  readonly causes: readonly Cause[];
  readonly odds: readonly number[];
  readonly features: ReadonlyMap<string, Feature>;
}

const modelCache = new Map<string, ApplicableModel>();

/** Causes and features that exist for an engine, with prior odds; one shared object per kind of engine. */
export function applicableModel(tags: ReadonlySet<EngineTag>, age: ServiceAge = 'middling'): ApplicableModel {
  const key = [age, ...[...tags].sort()].join(' ');
  const held = modelCache.get(key);
  if (held) return held;
  const causes = CAUSES.filter((c) => applies(c.needs, tags)).map((c) => inEngine(c, tags));
  const model = {
    causes,
    odds: causes.map((c) => priorOdds(c, tags)),
    features: new Map(ALL_FEATURES.filter((f) => applies(f.needs, tags)).map((f) => [f.id, aged(f, age)])),
  };
  modelCache.set(key, model);
  return model;
}

/** A cause as it acts in an engine of this kind. */
function inEngine(c: Cause, tags: ReadonlySet<EngineTag>): Cause {
  const own = Object.entries(c.linksFor ?? {}).flatMap(([tag, links]) => (tags.has(tag as EngineTag) ? links : []));
  if (own.length === 0) return c;
  const replaced = new Set(own.map((l) => l.feature));
  return { ...c, links: [...own, ...c.links.filter((l) => !replaced.has(l.feature))] };
}

/** A feature as common by itself as it is in an engine of this service. */
function aged(f: Feature, age: ServiceAge): Feature {
  const odds = AGE_ODDS[age];
  const ages = COMES_WITH_AGE.has(f.id) || (f.of?.some((child) => COMES_WITH_AGE.has(child)) ?? false);
  return ages && odds !== 1 ? { ...f, leak: (f.leak * odds) / (1 - f.leak + f.leak * odds) } : f;
}

/**
 * What a cause counts for in the order of the list, beside its probability: ordinary wear never accounts for a part that is through or lost, nor leads before a cause that is likelier than not; something else leads only where a finding is truly left
 * over; and metal of another part only passes on what another failure gave off. They stay in the list as what was found besides.
 */
function rankWeight(c: Cause, failed: boolean, orphaned: boolean): number {
  if ((c.ordinary && failed) || (c.unlisted && !orphaned)) return ASIDE;
  return c.follows ? ASIDE : 1;
}

const RUINED = 3;
const ASIDE = 0.2;

/** How many of the ranked causes come with their evidence. */
const WEIGHED_FOR = 15;

/** A cause is believed when its marginal reaches this. */
const BELIEVED = 0.3;

/** What a case says, laid against the causes its engine may have. */
interface LaidOut extends ApplicableModel {
  readonly evidence: readonly EvidenceItem[];
  readonly observations: readonly Observation[];
  /** Chance that damage which was found brings a feature about by itself, by feature. */
  readonly explained: ReadonlyMap<string, number>;
}

/** Lays a case out: what may be at work in its engine, and what was observed. */
export function laidOut(view: CaseView, judgement: Judgement): LaidOut {
  const evidence = collectEvidence(view, judgement);
  const model = applicableModel(engineTags(view.layout), serviceAge(view.layout));
  // What the shop itself proved so far moves the odds the table begins with, and nothing else.
  const factors = view.priors?.value.priors?.factors ?? {};
  return {
    ...model,
    odds: model.odds.map((odds, i) => odds * (factors[model.causes[i]!.id] ?? 1)),
    evidence,
    observations: evidence.map((item) => toObservation(item, judgement)),
    explained: explainedFeatures(view, judgement.bringsAbout),
  };
}

/** The whole differential of a case. Deterministic; kept with the view. */
export const diagnose: (view: CaseView) => Diagnosis = memo('differential', (view: CaseView) => diagnoseBy(view, JUDGEMENT));

/** The differential under other figures of judgement than those the application goes by, for weighing them against cases. */
export function diagnoseBy(view: CaseView, judgement: Judgement): Diagnosis {
  const laid = laidOut(view, judgement);
  const { causes, odds, features, evidence, explained } = laid;
  const rejected = new Set(view.decisions.filter((d) => d.value.decision === 'rejected').map((d) => d.value.cause));
  const { posterior: post, range } = drawn(causes, odds, laid.observations, features, explained, judgement.spread);
  const sets = bestSets(post);
  // What stands for every cause without a record accounts for nothing.
  const believed = causes.filter((c, i) => !c.unlisted && post.marginal[i]! >= BELIEVED);
  const unexplained = unexplainedFindings(
    view,
    evidence,
    believed.length > 0 ? believed : sets[0]!.causes.map((id) => causes.find((c) => c.id === id)!),
    explained,
  );
  const worstGrade = Math.max(0, ...view.stations.map((s) => standingGrade(s) ?? 0));
  const failed = worstGrade >= RUINED || causes.some((c, i) => !c.ordinary && !c.follows && !c.unlisted && post.marginal[i]! >= 0.5);
  const orphaned = unexplained.some((u) => u.named);
  const standing = post.marginal.map((p, i) => p * rankWeight(causes[i]!, failed, orphaned));
  const order = causes.map((_, i) => i).sort((a, b) => steady(standing[b]!) - steady(standing[a]!) || a - b);
  const singles = new Map(post.weighed.map((o) => [o.feature, probabilityBySingle(features.get(o.feature)!, causes)]));
  const items = new Map(evidence.map((e) => [e.feature.id, e]));
  const ranked = order.map((i, rank): RankedCause => {
    const c = causes[i]!;
    const rival = order.find((j) => j !== i && !rejected.has(causes[j]!.id)) ?? i;
    return {
      id: c.id,
      name: c.name,
      family: c.family,
      mechanisms: c.mechanisms,
      probability: post.marginal[i]!,
      low: range.low[i]!,
      high: range.high[i]!,
      leads: range.leads[i]!,
      range: rangeWord(post.marginal[i]!),
      places: post.marginal[i]! > 0.05 ? rankPlaces(c, view).slice(0, 3) : [],
      evidence: rank < WEIGHED_FOR ? waterfall(i, rival, items, post, singles, features) : [],
    };
  });
  const mechanisms = mechanismShares(post);
  const present = view.stations.filter((s) => s.state !== 'not-present');
  const examinedShare = present.filter(isExamined).length / Math.max(1, present.length);
  const running = present.filter((s) => RUNNING_PARTS.includes(s.station.part));
  const result: Diagnosis = {
    table: CAUSE_TABLE_VERSION,
    causes: ranked,
    sets,
    mechanisms,
    unexplained,
    nextChecks: nextChecks(view, post, features, evidence),
    turningPoint: turningPoint(post, features),
    ending: endingOf({
      ranked,
      sets,
      mechanisms,
      examinedShare,
      runningShare: running.filter(isExamined).length / Math.max(1, running.length),
      worstGrade,
      unexplained: unexplained.filter((u) => u.grade >= 3 && u.named && !view.byId.get(u.station)?.station.aside).length,
      gone: goneThatWouldTell(view, causes[order.find((i) => isListed(causes[i]!.id)) ?? order[0]!]!, features, items),
      evidenceCount: post.weighed.length,
    }),
    evidence,
    examinedShare,
    beside: foundBeside(ranked).map((c) => c.id),
    mass: post.mass,
  };
  return result;
}

/** Links of a cause by feature. */
export const linksOf = memo('links of a cause', (c: Cause): ReadonlyMap<string, CauseLink> => new Map(c.links.map((l) => [l.feature, l])));

function waterfall(
  own: number,
  other: number,
  items: ReadonlyMap<string, EvidenceItem>,
  post: Posterior,
  singles: ReadonlyMap<string, Float64Array>,
  features: ReadonlyMap<string, Feature>,
): WeighedEvidence[] {
  const cause = post.causes[own]!;
  const rival = post.causes[other]!;
  const ownLinks = linksOf(cause);
  const rivalLinks = linksOf(rival);
  return post.weighed
    .map((o): WeighedEvidence => {
      const item = items.get(o.feature)!;
      const f = features.get(o.feature)!;
      const likelihood = (c: number): number => {
        const p = singles.get(o.feature)![c]!;
        return p * o.ifPresent + (1 - p) * o.ifAbsent;
      };
      const link = ownLinks.get(f.id) ?? rivalLinks.get(f.id);
      const owner = ownLinks.has(f.id) ? '' : link ? `${rival.name}: ` : '';
      return {
        feature: f.id,
        name: f.name,
        present: item.present,
        decibans: 10 * Math.log10(Math.max(1e-12, likelihood(own)) / Math.max(1e-12, likelihood(other))),
        reason: link ? `${owner}${link.strength}${link.prevents ? ' prevents it' : ''}: ${link.reason}` : f.leakReason,
        reliability: item.reliability,
        sources: item.sources,
      };
    })
    .filter((w) => Math.abs(w.decibans) >= 0.05)
    .sort((a, b) => steady(Math.abs(b.decibans)) - steady(Math.abs(a.decibans)) || (a.feature < b.feature ? -1 : 1));
}

/** The likeliest sets: of every core the set in which each cause that is free about it is where it more likely is. */
function bestSets(post: Posterior): Array<{ causes: string[]; probability: number }> {
  const n = post.causes.length;
  return post.cores
    .map((_, k) => {
      const chance = post.chance.subarray(k * n, (k + 1) * n);
      return {
        causes: post.causes.flatMap((c, i) => (chance[i]! > 0.5 ? [c.id] : [])),
        probability: chance.reduce((p, q) => p * Math.max(q, 1 - q), post.probability[k]!),
      };
    })
    .sort((a, b) => steady(b.probability) - steady(a.probability))
    .slice(0, 5);
}

/** Probability of a mechanism = that of all sets holding an origin that works through it. */
function mechanismShares(post: Posterior): Array<{ mechanism: Mechanism; probability: number }> {
  const names = [...new Set(post.causes.flatMap((c) => c.mechanisms))];
  return names
    .map((mechanism) => ({
      mechanism,
      probability: chanceOfAny(
        post,
        post.causes.flatMap((c, i) => (c.mechanisms.includes(mechanism) ? [i] : [])),
      ),
    }))
    .sort((a, b) => steady(b.probability) - steady(a.probability));
}
