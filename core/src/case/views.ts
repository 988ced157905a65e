import { benchPlan, type BenchPlan } from '../engine/bench.js';
import type { EngineLayout } from '../engine/layout.js';
import { shellConstructionAt, stationsOf, type PartClass, type Station } from '../engine/stations.js';
import { STARTING_PRICES, type PriceBook } from '../workshop/prices.js';
import type { Grade } from '../damage/classes.js';
import { GRADE_BOOK, proposeGrade, type GradeBook, type GradeProposal } from '../damage/gradeBook.js';
import { tells } from '../damage/patterns.js';
import type { PatternFact } from '../damage/catalogue/record.js';
import { lineDepth, mergeLines, mergeReads, TRUSTED, type ReadLine } from '../damage/surfaceRead.js';
import { summariseMap, summariseWear, wearMap, type SurfaceMark, type WearMap, type WearSummary } from '../damage/wearMap.js';
import { recordOf, type CaseRecord, type StationRecord } from '../entries/entries.js';
import type { EntryBodies } from '../entries/entries.js';
import type { IntakeField, ReportField, StationState } from '../entries/registry.js';
import { currentVersion, type CaseState, type SlotGroup, type Sourced } from '../ledger/state.js';
import { memo, memoOf } from '../kit/memo.js';

const NO_GROUP: SlotGroup = {};

/** Everything known of one station. */
export interface StationView extends StationRecord {
  readonly station: Station;
  readonly state: StationState;
  readonly proposal: GradeProposal | null;
  /** Lines that were read and not wiped out by hand. */
  readonly readLines: readonly ReadLine[];
  /** Its surface is drawn by hand, or read in a picture that somebody confirmed as showing findings: what it shows counts as evidence. */
  readonly charted: boolean;
  readonly wear: WearMap | null;
  readonly summary: WearSummary | null;
}

/** Computed when it is first asked for: who reads a case for its pictures does not wait for its surfaces to be drawn. */
function once<T>(compute: () => T): () => T {
  let held: { readonly value: T } | undefined;
  return () => (held ??= { value: compute() }).value;
}

/** The view of a station by its group; a group stands for one station, but that an empty one stands for many and a book or layout may be changed. */
const stationView = memoOf(
  'view of a station',
  (layout: EngineLayout, station: Station, book: GradeBook) =>
    `${station.id}|${book.version}|${shellConstructionAt(layout, station.id)}|${station.surface?.widthMm ?? 0}|${station.surface?.heightMm ?? 0}`,
  makeStationView,
);

function makeStationView(group: SlotGroup, layout: EngineLayout, station: Station, book: GradeBook): StationView {
  const record = recordOf(group, 'ofStation');
  const { marks, grade, patterns, reads } = record;
  const stated = record.stated?.value.state;
  const bare: SurfaceMark[] = marks.map((m) => m.value.mark);
  const touched = marks.length > 0 || grade !== undefined || patterns.some((p) => p.value.present);
  const onlySound =
    !marks.some((m) => m.value.mark.class !== 'unseen') && (grade?.value.grade ?? 1) === 0 && !patterns.some((p) => p.value.present);
  const state: StationState = touched
    ? stated && stated !== 'sound' && stated !== 'not-examined'
      ? stated
      : onlySound
        ? 'sound'
        : 'findings'
    : (stated ?? 'not-examined');
  const examined = state === 'sound' || state === 'findings';
  const read = reads.map((r) => r.value);
  const frame = station.surface;
  // A picture that was read shows its wear before anyone has confirmed it; it counts as examined only then.
  const wear = once(() => (frame && (examined || reads.length > 0) ? wearMap(frame, bare, mergeReads(read)) : null));
  const readLines = once(() => (frame ? mergeLines(read, bare, frame.uSpanDeg, frame.heightMm) : []));
  const summary = once(() => {
    const map = wear();
    return map ? withLines(summariseWear(map, bare), readLines(), reads.length > 0 ? map : null) : null;
  });
  const trusted = read.some((r) => r.confidence >= TRUSTED);
  const proposal = once(() => {
    const shown = marks.length > 0 || trusted ? summary() : null;
    return shown ? proposeGrade(station.part, shellConstructionAt(layout, station.id), shown, book) : null;
  });
  const view: StationView = {
    ...record,
    station,
    state,
    charted: marks.length > 0 || (reads.length > 0 && state === 'findings'),
    get proposal() {
      return proposal();
    },
    get readLines() {
      return readLines();
    },
    get wear() {
      return wear();
    },
    get summary() {
      return summary();
    },
  };
  return view;
}

/** A summary of marks with the lines and the map that were read. */
function withLines(summary: WearSummary, lines: readonly ReadLine[], map: WearMap | null): WearSummary {
  if (!map) return summary;
  const counts = { ...summary.lines };
  for (const l of lines) counts[lineDepth(l)]++;
  return summariseMap(map, counts);
}

/** Grade that stands for a station: confirmed by the builder, else proposed from marks, else 0 when marked sound, else none. */
export function standingGrade(view: StationView): Grade | null {
  if (view.grade) return view.grade.value.grade;
  if (view.state === 'sound') return 0;
  return view.state === 'findings' ? (view.proposal?.grade ?? null) : null;
}

/** What its pictures read at a place that was called sound without a look at them: a grade of 2 or more. Null where they agree, or a grade was confirmed over them. */
export function readAgainstSound(view: StationView): Grade | null {
  const read = view.state === 'sound' && !view.grade ? view.proposal?.grade : undefined;
  return read !== undefined && read >= 2 ? read : null;
}

/** Patterns named as present at a place. */
export function namedPatterns(view: StationView): string[] {
  return view.patterns.filter((p) => p.value.present).map((p) => p.value.pattern);
}

/** Does a pattern named as present at a place tell this? */
export function showsFact(view: StationView, fact: PatternFact): boolean {
  return namedPatterns(view).some((id) => tells(id, fact));
}

/** Was this place examined by us, found sound or with findings? What is lost, absent or was altered before it came was not. */
export function isExamined(view: StationView): boolean {
  return view.state === 'sound' || view.state === 'findings';
}

export function readLayout(state: CaseState): EngineLayout | null {
  const set = currentVersion(state, null, 'layout')?.body as EntryBodies['layout-set'] | undefined;
  return set?.layout ?? null;
}

/** The case as screens, report and cause engine read it: what its entries say, and what follows from them at once. */
export interface CaseView extends CaseRecord {
  readonly caseId: string;
  readonly number: string;
  readonly title: string;
  readonly layout: EngineLayout;
  readonly stations: readonly StationView[];
  readonly byId: ReadonlyMap<string, StationView>;
  /** What the builder decided about parts, by station. */
  readonly dispositions: ReadonlyArray<Sourced<EntryBodies['disposition-set']> & { readonly station: string }>;
  /** The price book the case is reckoned with: the starting one, or the one that was taken over. */
  readonly prices: PriceBook;
  /** The grade book the case goes by: the shipped one, or the version of the shop's that was taken over. */
  readonly book: GradeBook;
  intake(field: IntakeField): string;
  report(field: ReportField): string;
}

/** Reads a folded state; null while the case has no layout. Kept with the groups of the state. */
export function caseView(state: CaseState): CaseView | null {
  return viewOfGroups(state.groups, state);
}

const viewOfGroups = memo('view of a case', (_: CaseState['groups'], state: CaseState): CaseView | null => {
  const layout = readLayout(state);
  if (!layout) return null;
  const record = recordOf(state.groups[''] ?? NO_GROUP, 'ofCase');
  const book = record.gradeBook?.value.book ?? GRADE_BOOK;
  const all = stationsOf(layout).map((station) => {
    const group = state.groups[station.id];
    // A place nobody wrote at is made anew: what is kept for it would be kept for ever.
    return group ? stationView(group, layout, station, book) : makeStationView(NO_GROUP, layout, station, book);
  });
  // What stands beside the running parts belongs to the case once somebody wrote of it.
  const stations = all.filter(
    (s) => !s.station.aside || s.state !== 'not-examined' || s.remarks.length > 0 || s.photos.length > 0 || s.patterns.length > 0,
  );
  const intake = (field: IntakeField): string => record.intakeFields.get(field)?.value.value ?? '';
  const view: CaseView = {
    ...record,
    caseId: state.caseId,
    number: record.opened?.value.number ?? '',
    title: intake('title') || (record.opened?.value.title ?? ''),
    layout,
    stations,
    byId: new Map(all.map((s) => [s.station.id, s])),
    dispositions: stations.flatMap(({ station, disposition }) => (disposition ? [{ ...disposition, station: station.id }] : [])),
    prices: record.priceBook?.value.book ?? STARTING_PRICES,
    book,
    intake,
    report: (field) => record.reportFields.get(field)?.value.value ?? '',
  };
  return view;
});

/** The bench of a case: the running parts, and what of the places beside them something is written of. */
export const caseBench = memo('bench of a case', (view: CaseView): BenchPlan =>
  benchPlan(view.layout, new Set(view.stations.flatMap((s) => (s.station.aside ? [s.station.id] : [])))),
);

export interface Coverage {
  readonly examined: number;
  readonly total: number;
  readonly byPart: ReadonlyArray<{ readonly part: PartClass; readonly examined: number; readonly total: number }>;
}

/** Share of stations examined, in all and by part class; places that are not present do not count. */
export function coverage(view: CaseView): Coverage {
  const parts = new Map<PartClass, { examined: number; total: number }>();
  for (const s of view.stations) {
    if (s.state === 'not-present') continue;
    const row = parts.get(s.station.part) ?? { examined: 0, total: 0 };
    row.total++;
    if (isExamined(s)) row.examined++;
    parts.set(s.station.part, row);
  }
  const byPart = [...parts].map(([part, row]) => ({ part, ...row }));
  return { examined: byPart.reduce((s, r) => s + r.examined, 0), total: byPart.reduce((s, r) => s + r.total, 0), byPart };
}
