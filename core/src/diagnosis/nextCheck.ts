import { isExamined, type CaseView } from '../case/views.js';
import type { EvidenceItem } from './evidenceItem.js';
import { informationGain, marginalsAfter } from '../cause/joint.js';
import { steady, type Posterior } from '../cause/model.js';
import type { EngineLayout } from '../engine/layout.js';
import { RUNNING_PARTS } from '../engine/stations.js';
import { memo } from '../kit/memo.js';
import { checksFor, featuresOf } from '../opening/checks.js';
import { laidBareBy, measuredAfter, STEP_MINUTES } from '../strip/laidBare.js';
import { wayTo, type WayTo } from '../case/wayTo.js';
import { featuresAnswered, featuresSetAside } from '../case/checksNotMade.js';
import { stripStanding } from '../case/stripStanding.js';
import type { Feature } from '../cause/types.js';

/** A check worth making next: the observation, what it would tell (expected gain in bits), its minutes, and where it is made. */
export interface NextCheck {
  readonly feature: string;
  readonly name: string;
  readonly step: string;
  /** Minutes of the check itself. */
  readonly minutes: number;
  readonly destroys: string | null;
  /** Steps of the strip to be done before it can be made. */
  readonly opens: readonly string[];
  /** What is to be recorded before: those steps destroy it, and it would still tell something. */
  readonly first: readonly RecordFirst[];
  /** Minutes until it is made: its own, those of the steps, and those of what is recorded first. */
  readonly minutesInAll: number;
  /** Expected information about the cause set, bits. */
  readonly bits: number;
  /** Of all its minutes. */
  readonly bitsPerMinute: number;
  /** Chance that the feature is found. */
  readonly chance: number;
  /** The cause each outcome moves most, before → after. */
  readonly ifFound: Shift;
  readonly ifNot: Shift;
}

/** What is to be recorded before a step destroys it, and the features it would still tell. */
interface RecordFirst {
  readonly hold: string;
  readonly name: string;
  readonly minutes: number;
  readonly tells: readonly string[];
}

/** The way to a check: the names of the steps, what is recorded before them, and the minutes of both. */
interface Way {
  readonly opens: readonly string[];
  readonly first: readonly RecordFirst[];
  readonly minutes: number;
}

interface Shift {
  readonly cause: string;
  readonly before: number;
  readonly after: number;
}

/** Information under which what a step destroys need not be recorded first, bits. Judgement. */
const WORTH_RECORDING = 0.002;

/**
 * Unexamined features by expected information gain per minute. The gain is the mutual information between the feature and the cause set,
 * I(f; S) = H(f) − Σ P(S) H(f | S), over the cores of the posterior. The minutes are those it takes to get there without losing anything: the steps that
 * lay it bare, and the record of what they destroy where that would still tell something. Features whose group already holds an observation, and those
 * whose every place is lost, gone before it came to us or not present, are never asked for; nor are those of checks said not to be done, unless a part
 * shows them too.
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
  const observed = new Set([...featuresAnswered(view), ...evidence.map((e) => e.feature.id)]);
  const groups = new Set(evidence.flatMap((e) => (e.feature.group ? [e.feature.group] : [])));
  const open = [...features.values()].filter(
    (f) => !observed.has(f.id) && !(f.group && groups.has(f.group)) && !lost.has(f.id) && !isPerished(view, f) && !f.of && !f.likened,
  );
  const gains = new Map(open.map((f) => [f.id, informationGain(post, f)]));
  const firstOf = (way: WayTo): RecordFirst[] =>
    way.loses.flatMap((h) => {
      const tells = h.features.filter((id) => (gains.get(id)?.bits ?? 0) >= WORTH_RECORDING && !aside.has(id));
      const minutes = Math.max(...tells.map((id) => features.get(id)!.check.minutes));
      return tells.length > 0 ? [{ hold: h.id, name: h.name, minutes, tells }] : [];
    });
  const ways = new Map<string | null, Way>();
  const wayBy = (step: string | null): Way => {
    const way = wayTo(view, step);
    const first = firstOf(way);
    const minutes = way.steps.length * STEP_MINUTES + first.reduce((sum, r) => sum + r.minutes, 0);
    return { opens: way.steps.map((s) => s.name), first, minutes };
  };
  const wayOf = (f: Feature): Way => {
    const steps = laidBareFor(view, f);
    for (const step of steps) if (!ways.has(step)) ways.set(step, wayBy(step));
    const found = steps.map((step) => ways.get(step)!);
    // One place shows a sight; how damage is spread is seen once the last of the running parts is.
    return found.reduce((one, w) => ((f.kind === 'spread' ? w.minutes > one.minutes : w.minutes < one.minutes) ? w : one));
  };
  return open
    .filter((f) => !aside.has(f.id) || f.parts)
    .map((f) => {
      const { chance, bits } = gains.get(f.id)!;
      const { opens, first, minutes } = wayOf(f);
      const minutesInAll = f.check.minutes + minutes;
      return { f, opens, first, minutesInAll, chance, bits, bitsPerMinute: bits / minutesInAll };
    })
    .sort((a, b) => steady(b.bitsPerMinute) - steady(a.bitsPerMinute))
    .slice(0, limit)
    .map(({ f, ...told }) => ({
      feature: f.id,
      name: f.name,
      step: stepWords(view, f),
      minutes: f.check.minutes,
      destroys: f.check.destroys ?? null,
      ...told,
      ifFound: shift(post, f, true),
      ifNot: shift(post, f, false),
    }));
}

/** Steps that lay a feature bare: any of them, of a spread all; null: none is needed. */
function laidBareFor(view: CaseView, f: Feature): ReadonlyArray<string | null> {
  if (checkedBeforeOpening(view.layout).has(f.id)) return [null];
  const places = f.kind === 'spread' ? view.stations.filter((s) => RUNNING_PARTS.includes(s.station.part)) : placesOf(view, f);
  const unseen = places.filter((s) => s.state === 'not-examined' && !isExamined(s));
  if (places.length > 0) return unseen.length > 0 ? [...new Set(unseen.map((s) => laidBareBy(view.layout, s.station)))] : [null];
  return [f.kind === 'measured' || f.kind === 'fluid' ? measuredAfter(view.layout, f.id) : null];
}

const checkedBeforeOpening: (layout: EngineLayout) => ReadonlySet<string> = memo(
  'features of the checks before opening',
  (layout: EngineLayout) => new Set(checksFor(layout).flatMap(featuresOf)),
);

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
