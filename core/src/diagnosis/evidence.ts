import { measuredPlaces } from '../measured/caseMeasure.js';
import type { Reliability } from '../entries/registry.js';
import { shellConstructionAt, stationOf } from '../engine/stations.js';
import { isExamined, namedPatterns, standingGrade, type CaseView, type StationView } from '../case/views.js';
import { pattern, PATTERNS, takenFor } from '../damage/patterns.js';
import { neutralSight, sightName } from '../damage/sights.js';
import { positionOf } from '../damage/schools.js';
import { ALL_FEATURES, feature, FEATURES } from '../cause/data/features.js';
import { sightFeature } from '../cause/data/features/sights.js';
import { JUDGEMENT, type Judgement } from '../cause/judgement.js';
import type { Observation } from '../cause/model.js';
import { openingFindings, type Answers, type LimitSource } from '../opening/evidence.js';
import { easingResult } from '../strip/easing.js';
import { fastenerResult } from '../strip/fasteners.js';
import { stripPlan } from '../strip/plan.js';
import { openSpread } from './openSpread.js';
import { featuresOfMarks } from './marks.js';
import { type Feature } from '../cause/types.js';
import { applies, engineTags } from '../engine/tags.js';

/** Where a piece of evidence comes from, so that a screen can open it. */
interface EvidenceSource {
  readonly station: string | null;
  readonly entry: string | null;
  readonly words: string;
}

export interface EvidenceItem {
  readonly feature: Feature;
  readonly present: boolean;
  readonly reliability: Reliability | 'certain' | 'silent' | 'open';
  /** Of a silence only: chance that it is there all the same and nobody said so. */
  readonly missed?: number;
  /** Of a spread over open places only: shares of the placements in which it is there and in which it is not. */
  readonly placed?: { readonly there: number; readonly not: number };
  readonly sources: readonly EvidenceSource[];
}

/** Likelihoods of a report given that the thing is so / is not so: 19 : 1, and certain. */
const RELIABILITY_LIKELIHOOD = { seen: [0.95, 0.05], measured: [1, 0], certain: [1, 0] } as const;

/** What an observation says of its feature. A silence is kept by everybody where there is nothing, and with the chance `missed` where there is something. */
export function toObservation(item: EvidenceItem, { told }: Judgement = JUDGEMENT): Observation {
  if (item.reliability === 'silent') return { feature: item.feature.id, ifPresent: item.missed ?? 1, ifAbsent: 1 };
  // In expectation over the placements; where too little is known the report says nothing.
  if (item.reliability === 'open')
    return { feature: item.feature.id, ifPresent: 1 - (item.placed?.not ?? 0), ifAbsent: 1 - (item.placed?.there ?? 0) };
  const [yes, no] = item.reliability === 'told' ? told : RELIABILITY_LIKELIHOOD[item.reliability];
  return item.present
    ? { feature: item.feature.id, ifPresent: yes, ifAbsent: no }
    : { feature: item.feature.id, ifPresent: no, ifAbsent: yes };
}

const INTAKE_EVIDENCE: ReadonlyArray<{ field: 'complaint' | 'onset' | 'afterFirstSign'; value: string; feature: string }> = [
  { field: 'complaint', value: 'overheating', feature: 'told.overheated' },
  { field: 'complaint', value: 'low-pressure', feature: 'told.pressure-low-hot' },
  { field: 'complaint', value: 'oil-level-rising', feature: 'fluid.level-high' },
  { field: 'complaint', value: 'oil-level-falling', feature: 'fluid.level-low' },
  { field: 'onset', value: 'after-work', feature: 'told.recent-work' },
  { field: 'onset', value: 'after-start-up', feature: 'told.after-start-up' },
  { field: 'afterFirstSign', value: 'driven-on', feature: 'told.ran-on' },
];

/** Share of a part class that must have been looked at before "none of it" is evidence. */
const ABSENCE_COVERAGE = 0.6;

/** Everything in the case that is evidence, each with its sources. What was not examined, or is lost, yields nothing. */
export function collectEvidence(view: CaseView, { missed }: Judgement = JUDGEMENT): EvidenceItem[] {
  const tags = engineTags(view.layout);
  const known = new Map(ALL_FEATURES.filter((f) => applies(f.needs, tags)).map((f) => [f.id, f]));
  const items = new Map<string, EvidenceItem>();
  const put: Put = (id, present, reliability, source, missed, placed) => {
    const feature = known.get(id);
    if (!feature) return;
    const held = items.get(id);
    if (held && held.present === present && RANK[reliability] <= RANK[held.reliability])
      items.set(id, { ...held, sources: [...held.sources, source] });
    else if (!held || RANK[reliability] >= RANK[held.reliability])
      items.set(id, {
        feature,
        present,
        reliability,
        sources: [source],
        ...(missed === undefined ? {} : { missed }),
        ...(placed ? { placed } : {}),
      });
  };

  for (const rule of INTAKE_EVIDENCE) {
    if (view.intake(rule.field).split(',').includes(rule.value))
      put(rule.feature, true, 'told', { station: null, entry: null, words: 'stated at intake' });
  }
  for (const line of view.history) {
    if (line.value.feature)
      put(line.value.feature, true, line.value.reliability, { station: null, entry: line.version.entry, words: line.value.text });
  }
  for (const [id, { finding, there, not }] of Object.entries(openSpread(view))) {
    const present = there >= not;
    const sure = there === 1 || not === 1;
    put(
      id,
      present,
      finding.faint ? 'told' : sure ? 'certain' : 'open',
      { station: finding.stations[0] ?? null, entry: null, words: sure ? finding.words : `${finding.words}; which place is open` },
      undefined,
      sure ? undefined : { there, not },
    );
  }
  for (const s of view.stations) {
    for (const found of featuresOfMarks(s))
      put(found.feature, true, found.reliability, { station: s.station.id, entry: null, words: `${s.station.name}: ${found.words}` });
    for (const p of s.patterns) {
      const record = pattern(p.value.pattern);
      if (record && p.value.present)
        put(record.feature, true, faint(s, feature(record.feature)) ? 'told' : 'certain', {
          station: s.station.id,
          entry: p.version.entry,
          words: `${s.station.name}: ${record.name.toLowerCase()}`,
        });
    }
  }
  sightEvidence(view, known, items, put);
  bySchool(view, items, put);
  absences(view, [...known.values()], items, missed, put);
  measuredEvidence(view, put);
  openingEvidence(view, items, put);
  stripEvidence(view, put);
  for (const e of view.evidence) {
    const school = e.value.feature === 'measured.sample-clean' ? view.schools.get('one-sample')?.value.position : undefined;
    const words = e.value.note || (e.value.present ? 'looked for and found' : 'looked for, not there');
    // A single clean sample never clears anything by itself, unless the shop holds that it does.
    const trust = e.value.feature === 'measured.sample-clean' && school !== 'clears' ? 'told' : (e.value.reliability ?? 'certain');
    put(e.value.feature, e.value.present, trust, { station: null, entry: e.version.entry, words });
  }
  const voided = new Set([...items.values()].flatMap((item) => (item.present ? (item.feature.voids ?? []) : [])));
  const standing = [...items.values()].filter((item) => !voided.has(item.feature.id));
  const early =
    !view.stations.some((s) => (standingGrade(s) ?? 0) >= RUN_ON) && !standing.some((item) => item.present && item.feature.late);
  return early ? standing.flatMap(inTime) : standing;
}

/** An engine with a part of this grade was run on after it had failed. */
const RUN_ON = 3;

/** In an engine opened early nobody can be silent about what comes late, and who says that it is not there says little. */
function inTime(item: EvidenceItem): EvidenceItem[] {
  if (item.present || !item.feature.late) return [item];
  return item.reliability === 'silent' ? [] : [{ ...item, reliability: 'told' }];
}

/** A mark of grade 1 may always be something else; what wears so in the ordinary way is as it is said. */
function faint(s: StationView, f: Feature | undefined): boolean {
  return s.grade !== undefined && s.grade.value.grade <= 1 && f !== undefined && f.damage && !ORDINARY_WEAR.has(f.id);
}

const ORDINARY_WEAR = new Set(['seen.long-wear', 'seen.skirt-print', 'seen.ring-ridge', 'seen.hatch-gone-top', 'seen.bore-glaze']);

/**
 * Neutral sights, and sights whose place is not certain or that were told. A neutral sight beside one of its own patterns that was named says nothing more. A pattern at one of several places is
 * there all the same; only where is open.
 */
function sightEvidence(view: CaseView, known: ReadonlyMap<string, Feature>, items: ReadonlyMap<string, EvidenceItem>, put: Put): void {
  const say = (
    sight: string,
    stations: readonly StationView[],
    present: boolean,
    reliability: Reliability | 'certain',
    entry: string,
    words: string,
  ): void => {
    if (pattern(sight))
      return put(pattern(sight)!.feature, present, reliability, { station: stations[0]?.station.id ?? null, entry, words });
    for (const part of new Set(stations.map((s) => s.station.part))) {
      const f = known.get(sightFeature(sight, part));
      // Beside one of its own patterns that was named, a neutral sight says nothing more; nor does it deny what was found elsewhere.
      if (!f || f.of!.some((child) => items.get(child)?.present)) continue;
      const at = stations.find((s) => s.station.part === part)!;
      put(f.id, present, reliability, { station: at.station.id, entry, words });
    }
  };
  for (const s of view.stations)
    for (const p of s.patterns)
      if (neutralSight(p.value.pattern) && p.value.present)
        say(
          p.value.pattern,
          [s],
          true,
          s.grade && s.grade.value.grade <= 1 ? 'told' : 'seen',
          p.version.entry,
          `${s.station.name}: ${sightName(p.value.pattern).toLowerCase()}`,
        );
  // A denial counts where no place of its kind shows the sight.
  for (const s of view.stations)
    for (const p of s.patterns)
      if (neutralSight(p.value.pattern) && !p.value.present && !items.get(sightFeature(p.value.pattern, s.station.part))?.present)
        say(
          p.value.pattern,
          [s],
          false,
          'seen',
          p.version.entry,
          `${s.station.name}: ${sightName(p.value.pattern).toLowerCase()} looked for, not there`,
        );
  for (const { value: x, version } of view.sights) {
    const among = x.among.flatMap((id) => view.byId.get(id) ?? []);
    const words = x.words || `${sightName(x.sight)} at ${x.of === null ? '' : `${x.of} of `}${among.map((s) => s.station.name).join(', ')}`;
    say(x.sight, among, x.present, x.reliability, version.entry, words);
  }
}

/** Where builders disagree, the position the case goes by decides what a sight is worth. */
function bySchool(view: CaseView, items: Map<string, EvidenceItem>, put: Put): void {
  const chosen = new Map([...view.schools].map(([id, s]) => [id, s.value.position]));
  const smear = items.get('seen.journal-transfer');
  const second = ['seen.journal-heat', 'seen.wiping', 'seen.dry-seizure', 'seen.heat-shell', 'fluid.level-low'].some(
    (f) => items.get(f)?.present,
  );
  if (smear?.present && !second && positionOf('alloy-on-pin', chosen) === 'second-sign')
    items.set('seen.journal-transfer', { ...smear, reliability: 'told' });
  const dirt = items.get('seen.embedded');
  if (
    dirt?.present &&
    dirt.sources.every((x) => shellConstructionAt(view.layout, x.station ?? '') === 'coated') &&
    positionOf('soft-coating', chosen) === 'wear'
  )
    items.set('seen.embedded', { ...dirt, reliability: 'told' });
  const edges = items.get('seen.edge-wear');
  const rodsOnly = edges?.present && edges.sources.every((x) => stationOf(view.layout, x.station ?? '')?.carries === 'rod');
  if (edges && rodsOnly && positionOf('end-float', chosen) === 'mains-only') {
    items.delete('seen.edge-wear');
    for (const source of edges.sources) put('seen.edge-wear-rods', true, edges.reliability, source);
  }
}

const RANK: Readonly<Record<EvidenceItem['reliability'], number>> = { silent: 0, open: 1, told: 1, seen: 2, measured: 3, certain: 4 };
type Put = (
  id: string,
  present: boolean,
  reliability: EvidenceItem['reliability'],
  source: EvidenceSource,
  missed?: number,
  placed?: EvidenceItem['placed'],
) => void;

/**
 * A seen feature of which nobody spoke. Looked for by name and not there, it is denied. Else it is a silence, once most of its parts were examined and no finding among them is still
 * unnamed; how much a silence says falls with the share of places that nobody looked at, where the sight may be.
 */
function absences(
  view: CaseView,
  features: readonly Feature[],
  items: ReadonlyMap<string, EvidenceItem>,
  missed: Judgement['missed'],
  put: Put,
): void {
  // Who named a neutral sight, or denied one, spoke of what it may be.
  const spoken = new Set([...items.values()].flatMap((item) => item.feature.of ?? []));
  for (const f of features) {
    if (f.kind !== 'seen' || !f.parts || f.of || items.has(f.id) || spoken.has(f.id)) continue;
    const stations = view.stations.filter((s) => f.parts!.includes(s.station.part) && s.state !== 'not-present');
    if (stations.length === 0) continue;
    const denied = stations.find((s) => s.patterns.some((p) => !p.value.present && pattern(p.value.pattern)?.feature === f.id));
    const examined = stations.filter(isExamined);
    const unnamed = examined.some((s) => (standingGrade(s) ?? 0) >= 2 && !s.patterns.some((p) => p.value.present) && s.marks.length === 0);
    const every = f.parts.every((part) => {
      const all = stations.filter((s) => s.station.part === part);
      return all.length === 0 || all.filter(isExamined).length / all.length >= ABSENCE_COVERAGE;
    });
    if (denied)
      put(f.id, false, 'certain', { station: denied.station.id, entry: null, words: `${denied.station.name}: looked for, not there` });
    else if (every && !unnamed && f.damage) {
      const glanced = examined.every(onlyMarkedSound);
      put(
        f.id,
        false,
        'silent',
        {
          station: examined[0]?.station.id ?? null,
          entry: null,
          words: glanced
            ? `${examined.length} of ${stations.length} places looked at, nothing struck the eye`
            : `${examined.length} of ${stations.length} places examined, none named it`,
        },
        missedChance(f, examined, stations.length, glanced, missed),
      );
    }
  }
}

/** Chance that a sight is there although none of the examined places was said to show it. */
function missedChance(f: Feature, examined: readonly StationView[], places: number, glanced: boolean, missed: Judgement['missed']): number {
  const own = PATTERNS.filter((p) => p.feature === f.id).map((p) => p.id);
  const takenForIt = (id: string): boolean => own.some((o) => takenFor(o, id)) || own.some((o) => takenFor(id, o));
  const silent = Math.max(
    glanced ? missed.glanced : missed.examined,
    examined.some((s) => namedPatterns(s).some(takenForIt)) ? missed.lookAlike : 0,
    examined.some((s) => standingGrade(s) === 4) ? missed.destroyed : 0,
  );
  return 1 - (examined.length / places) * (1 - silent);
}

/** How an absence reads: one that was looked for by name or measured is more than a place of which nobody said it. */
export function absenceWords({ reliability }: Pick<EvidenceItem, 'reliability'>): string {
  return reliability === 'silent' ? 'looked at, not named' : 'looked for, not there';
}

/** Marked sound and nothing else: no grade, no picture that was read, no finding named as absent. */
function onlyMarkedSound(s: StationView): boolean {
  return s.state === 'sound' && !s.grade && s.reads.length === 0 && s.patterns.length === 0 && s.marks.length === 0;
}

/** A place marked sound although what was recorded says something was found there. */
export interface SoundContradiction {
  readonly station: string;
  readonly feature: string;
  readonly words: string;
}

/** Places that cannot be sound as they are marked, by what else was recorded of their kind of part. */
export function soundContradictions(view: CaseView): SoundContradiction[] {
  const recorded = new Map(view.evidence.filter((e) => e.value.present).map((e) => [e.value.feature, e]));
  return FEATURES.flatMap((f): SoundContradiction[] => {
    if (!f.parts || !recorded.has(f.id)) return [];
    const places = view.stations.filter((s) => f.parts!.includes(s.station.part) && isExamined(s));
    if (places.length === 0 || !places.every((s) => s.state === 'sound')) return [];
    return [
      {
        station: places[0]!.station.id,
        feature: f.id,
        words: `${places[0]!.station.name} is marked sound, and “${f.name}” was recorded. Both cannot hold: correct the one or take back the other.`,
      },
    ];
  });
}

/** Verdicts of the sheets as features. One rule a feature: what counts as showing it, what as denying it, and how many sheets denial takes. */
function measuredEvidence(view: CaseView, put: Put): void {
  const sheets = measuredPlaces(view);
  const journals = view.stations.filter((s) => s.station.part === 'journal').length;
  for (const rule of MEASURED_RULES) {
    const judged = sheets.flatMap((m) => {
      if (!rule.kinds.includes(m.place.kind)) return [];
      const verdict = m.outcome?.lines.find((l) => rule.lines.includes(l.id))?.verdict;
      return verdict && verdict.reference !== 'typical' ? [{ place: m.place, verdict }] : [];
    });
    const past = judged.filter((x) => x.verdict.word === 'outside' && (rule.side === 'any' || x.verdict.side === rule.side));
    const first = past[0];
    const enough = rule.everywhere ? past.length >= 2 && past.length > judged.length / 2 : past.length > 0;
    if (first && enough)
      put(rule.feature, true, 'certain', {
        station: first.place.station,
        entry: null,
        words: `measured at ${past.map((x) => x.place.short).join(', ')}`,
      });
    else {
      const good = judged.filter((x) => x.verdict.word === 'within').length;
      if (past.length === 0 && good >= (rule.single ? 1 : Math.max(2, journals / 3)))
        put(rule.feature, false, 'certain', { station: null, entry: null, words: `${good} measured within` });
    }
  }
}

interface MeasuredRule {
  readonly feature: string;
  readonly kinds: readonly string[];
  readonly lines: readonly string[];
  readonly side: 'lower' | 'upper' | 'any';
  /** Two at least and more than half of those measured must show it. */
  readonly everywhere?: boolean;
  /** One sheet within denies it: there is only one such place. */
  readonly single?: boolean;
}

const CLEARANCE = { kinds: ['shell-clearance', 'crushed-strip'], lines: ['vertical', 'clearance'] } as const;
const MEASURED_RULES: readonly MeasuredRule[] = [
  { feature: 'measured.journal-worn', kinds: ['journal'], lines: ['least'], side: 'lower' },
  { feature: 'measured.out-of-round', kinds: ['journal'], lines: ['outOfRound'], side: 'upper' },
  { feature: 'measured.taper', kinds: ['journal'], lines: ['taper'], side: 'any' },
  { feature: 'measured.end-float-high', kinds: ['end-float'], lines: ['endFloat'], side: 'upper', single: true },
  { feature: 'measured.clearance-high', ...CLEARANCE, side: 'upper', everywhere: true },
  { feature: 'measured.clearance-low', ...CLEARANCE, side: 'lower' },
  { feature: 'measured.crank-runout', kinds: ['crank-runout'], lines: ['runout'], side: 'upper', single: true },
];

/** Limits of the case's own copy of its spec sheet, as the checks before opening read them. */
export function limitSource(view: CaseView): LimitSource {
  return (quantity) => {
    const limit = view.limits?.value.limits.find((l) => l.quantity === quantity);
    if (!limit) return null;
    const band = { ...(limit.lower === null ? {} : { lower: limit.lower }), ...(limit.upper === null ? {} : { upper: limit.upper }) };
    return { band, source: view.limits?.value.sheet?.source || 'limit entered in this case' };
  };
}

/** Answers of the checks before opening by `check:field`, without their entries. */
export function answersOf(view: CaseView): Answers {
  return new Map([...view.checks].map(([key, a]) => [key, a.value]));
}

/** What was seen on a part outweighs what was not seen through a plug hole or on a dipstick. */
function openingEvidence(view: CaseView, items: ReadonlyMap<string, EvidenceItem>, put: Put): void {
  if (view.checks.size === 0) return;
  for (const f of openingFindings(view.layout, answersOf(view), limitSource(view)))
    if (f.present || !items.get(f.feature)?.present)
      put(f.feature, f.present, 'certain', {
        station: null,
        entry: view.checks.get(f.from)?.version.entry ?? null,
        words: `Before opening, ${f.words}`,
      });
}

function stripEvidence(view: CaseView, put: Put): void {
  const { bolts, caps, easing } = view;
  const uneven: string[] = [];
  let judged = 0;
  for (const step of bolts.length > 0 ? stripPlan(view.layout).steps : []) {
    if (!step.pattern) continue;
    const read = bolts.filter((b) => b.value.pattern === step.pattern!.id && b.value.newtonMetre !== null);
    const result = fastenerResult(
      step.pattern,
      read.map((b) => ({ position: b.value.position, newtonMetre: b.value.newtonMetre! })),
    );
    if (!result) continue;
    judged++;
    for (const u of result.uneven) uneven.push(`${step.pattern.name} ${u.positions.join(' against ')}: ${u.percent.toFixed(0)} % apart`);
  }
  if (judged > 0)
    put('measured.torque-uneven', uneven.length > 0, 'certain', {
      station: null,
      entry: bolts[0]?.version.entry ?? null,
      words:
        uneven.length > 0
          ? `break-loose torque: ${uneven.slice(0, 3).join('; ')}`
          : `break-loose torque even in ${judged} pattern${judged === 1 ? '' : 's'}`,
    });
  const wrong = [...caps.values()].filter((c) => !c.value.agrees || c.value.joint === 'step');
  if (wrong.length > 0 || caps.size >= Math.max(2, view.layout.mains))
    put('measured.cap-mismatch', wrong.length > 0, 'certain', {
      station: null,
      entry: (wrong[0] ?? [...caps.values()][0])?.version.entry ?? null,
      words:
        wrong.length > 0
          ? `caps ${wrong.map((c) => c.value.cap).join(', ')} do not agree`
          : `${caps.size} caps agree in number, direction and joint`,
    });
  const eased = easingResult(easing.map((e) => ({ cap: e.value.cap, newtonMetre: e.value.newtonMetre })));
  if (eased && easing.length >= 3)
    put('measured.cap-binding', eased.binding !== null, 'certain', {
      station: null,
      entry: easing[0]?.version.entry ?? null,
      words: `turning torque while easing caps: ${eased.words}`,
    });
}
