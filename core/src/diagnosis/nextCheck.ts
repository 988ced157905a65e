import { isExamined, type CaseView } from '../case/views.js';
import type { EvidenceItem } from './evidenceItem.js';
import { informationGain, marginalsAfter } from '../cause/joint.js';
import { steady, type Posterior } from '../cause/model.js';
import { featuresSetAside } from '../case/checksNotMade.js';
import { stripStanding } from '../case/stripStanding.js';
import type { Feature } from '../cause/types.js';

/** A check worth making next: the observation, what it would tell (expected gain in bits), its minutes, and where it is made. */
export interface NextCheck {
  readonly feature: string;
  readonly name: string;
  readonly step: string;
  readonly minutes: number;
  readonly destroys: string | null;
  /** Expected information about the cause set, bits. */
  readonly bits: number;
  readonly bitsPerMinute: number;
  /** Chance that the feature is found. */
  readonly chance: number;
  /** The cause each outcome moves most, before → after. */
  readonly ifFound: Shift;
  readonly ifNot: Shift;
}

interface Shift {
  readonly cause: string;
  readonly before: number;
  readonly after: number;
}

/**
 * Unexamined features by expected information gain per minute. The gain is the mutual information between the feature and the cause set,
 * I(f; S) = H(f) − Σ P(S) H(f | S), over the cores of the posterior. Features whose group already holds an observation, and those whose every
 * place is lost, gone before it came to us or not present, are never asked for; nor are those of checks said not to be done, unless a part shows them too.
 */
export function nextChecks(
  view: CaseView,
  post: Posterior,
  features: ReadonlyMap<string, Feature>,
  evidence: readonly EvidenceItem[],
  limit = 6,
): NextCheck[] {
  const lost = stripStanding(view).lostFeatures;
  const aside = featuresSetAside(view);
  const observed = new Set(evidence.map((e) => e.feature.id));
  const groups = new Set(evidence.flatMap((e) => (e.feature.group ? [e.feature.group] : [])));
  const checks: Array<NextCheck & { of: Feature }> = [];
  for (const f of features.values()) {
    if (observed.has(f.id) || (f.group && groups.has(f.group)) || lost.has(f.id) || isPerished(view, f)) continue;
    if (f.of || f.likened || (aside.has(f.id) && !f.parts)) continue;
    const { chance, bits } = informationGain(post, f);
    const none: Shift = { cause: '', before: 0, after: 0 };
    checks.push({
      feature: f.id,
      name: f.name,
      step: stepWords(view, f),
      minutes: f.check.minutes,
      destroys: f.check.destroys ?? null,
      bits,
      bitsPerMinute: bits / f.check.minutes,
      chance,
      ifFound: none,
      ifNot: none,
      of: f,
    });
  }
  return checks
    .sort((a, b) => steady(b.bitsPerMinute) - steady(a.bitsPerMinute))
    .slice(0, limit)
    .map(({ of, ...check }) => ({ ...check, ifFound: shift(post, of, true), ifNot: shift(post, of, false) }));
}

function shift(post: Posterior, feature: Feature, present: boolean): Shift {
  const after = marginalsAfter(post, feature, present ? { ifPresent: 1, ifAbsent: 0 } : { ifPresent: 0, ifAbsent: 1 });
  let best = 0;
  for (let i = 0; i < after.length; i++)
    if (Math.abs(after[i]! - post.marginal[i]!) > Math.abs(after[best]! - post.marginal[best]!)) best = i;
  return { cause: post.causes[best]?.name ?? '', before: post.marginal[best] ?? 0, after: after[best] ?? 0 };
}

function placesOf(view: CaseView, f: Feature): CaseView['stations'] {
  if (f.lies) {
    const own = view.stations.filter((s) => f.lies!.includes(s.station.id));
    if (own.length > 0) return own;
  }
  return f.parts ? view.stations.filter((s) => f.parts!.includes(s.station.part)) : [];
}

export function isPerished(view: CaseView, f: Feature): boolean {
  const places = placesOf(view, f);
  return places.length > 0 && places.every((s) => s.state === 'lost' || s.state === 'before-us' || s.state === 'not-present');
}

function stepWords(view: CaseView, f: Feature): string {
  const open = placesOf(view, f).filter((s) => !isExamined(s) && s.state === 'not-examined');
  return open.length > 0 ? `${f.check.step} (${open.length} not examined)` : f.check.step;
}
