import type { Reliability } from '../entries/registry.js';
import { shellConstructionAt, stationOf } from '../engine/stations.js';
import { isExamined, standingGrade, type CaseView, type StationView } from '../case/views.js';
import { pattern } from '../damage/patterns.js';
import { neutralSight, sightName } from '../damage/sights.js';
import { positionOf } from '../damage/schools.js';
import { ALL_FEATURES, feature, FEATURES } from '../cause/data/features.js';
import { sightFeature } from '../cause/data/features/sights.js';
import { JUDGEMENT, type Judgement } from '../cause/judgement.js';
import type { Observation } from '../cause/model.js';
import type { EvidenceItem, Put } from './evidenceItem.js';
import { measuredEvidence, openingEvidence, stripEvidence } from './gaugeEvidence.js';
import { likenedEvidence } from './likenedEvidence.js';
import { oilLogEvidence } from './oilLogEvidence.js';
import { openSpread } from './openSpread.js';
import { absences } from './silences.js';
import { featuresOfMarks } from './marks.js';
import { type Feature } from '../cause/types.js';
import { applies, engineTags } from '../engine/tags.js';

/** Likelihoods of a report given that the thing is so / is not so: 19 : 1, and certain. */
const RELIABILITY_LIKELIHOOD = { seen: [0.95, 0.05], measured: [1, 0], certain: [1, 0] } as const;

/** What an observation says of its feature. A silence is kept by everybody where there is nothing, and with the chance `missed` where there is something. */
export function toObservation(item: EvidenceItem, { told }: Judgement = JUDGEMENT): Observation {
  if (item.reliability === 'silent') return { feature: item.feature.id, ifPresent: item.missed ?? 1, ifAbsent: 1 };
  // In expectation over the placements; where too little is known the report says nothing.
  if (item.reliability === 'open')
    return { feature: item.feature.id, ifPresent: 1 - (item.placed?.not ?? 0), ifAbsent: 1 - (item.placed?.there ?? 0) };
  if (item.reliability === 'likened') {
    const likely = item.likelihoodRatio! / (1 + item.likelihoodRatio!);
    return { feature: item.feature.id, ifPresent: item.present ? likely : 1 - likely, ifAbsent: item.present ? 1 - likely : likely };
  }
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

/** Everything in the case that is evidence, each with its sources. What was not examined, or is lost, yields nothing. */
export function collectEvidence(view: CaseView, { missed }: Judgement = JUDGEMENT): EvidenceItem[] {
  const tags = engineTags(view.layout);
  const known = new Map(ALL_FEATURES.filter((f) => applies(f.needs, tags)).map((f) => [f.id, f]));
  const items = new Map<string, EvidenceItem>();
  const put: Put = (id, present, reliability, source, how) => {
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
        ...how,
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
      sure ? undefined : { placed: { there, not } },
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
  likenedEvidence(view, put);
  oilLogEvidence(view, put);
  for (const e of view.evidence) {
    const school = e.value.feature === 'measured.sample-clean' ? view.schools.get('one-sample')?.value.position : undefined;
    const words = e.value.note || (e.value.present ? 'looked for and found' : 'looked for, not there');
    // A single clean sample never clears anything by itself, unless the shop holds that it does.
    const trust =
      e.value.feature === 'measured.sample-clean' && school !== 'clears'
        ? 'told'
        : feature(e.value.feature)?.likened
          ? 'seen'
          : (e.value.reliability ?? 'certain');
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

const RANK: Readonly<Record<EvidenceItem['reliability'], number>> = {
  silent: 0,
  open: 1,
  likened: 1,
  told: 1,
  seen: 2,
  measured: 3,
  certain: 4,
};
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
