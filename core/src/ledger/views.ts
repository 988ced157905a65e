import type { EngineLayout } from '../engine/layout.js';
import { stationsOf, type PartClass, type Station } from '../engine/stations.js';
import { STARTING_PRICES, type PriceBook } from '../salvage/prices.js';
import type { Grade } from '../damage/classes.js';
import { GRADE_BOOK, proposeGrade, type GradeBook, type GradeProposal } from '../damage/gradeBook.js';
import { lineDepth, mergeLines, mergeReads, TRUSTED, type ReadLine } from '../damage/surfaceRead.js';
import { summariseMap, summariseWear, wearMap, type SurfaceMark, type WearMap, type WearSummary } from '../damage/wearMap.js';
import type { SpecKey } from '../measure/program/specs.js';
import type { EntryBodies, EntryBody, EntryKind, IntakeField, ReportField, StationState } from './bodies.js';
import type { CaseState, SlotGroup, SlotVersion } from './state.js';

/** A current value with the entry behind it. */
export interface Sourced<T> {
  readonly value: T;
  readonly version: SlotVersion;
}

const NO_GROUP: SlotGroup = {};

function collect<K extends EntryKind>(group: SlotGroup, kind: K): Array<Sourced<EntryBodies[K]>> {
  const found: Array<Sourced<EntryBodies[K]>> = [];
  for (const slot of Object.values(group)) {
    const version = slot.at(-1);
    if (version?.kind === kind) found.push({ value: version.body as EntryBodies[K], version });
  }
  return found.sort((a, b) => a.version.seq - b.version.seq);
}

function single<K extends EntryKind>(group: SlotGroup, slot: string): Sourced<EntryBodies[K]> | undefined {
  const version = group[slot]?.at(-1);
  return version ? { value: version.body as EntryBodies[K], version } : undefined;
}

const ours = <T extends Sourced<EntryBody>>(value: T | undefined): T | undefined =>
  value?.version.author.shop === undefined ? value : undefined;

/** Everything known of one station. */
export interface StationView {
  readonly station: Station;
  readonly state: StationState;
  readonly grade: Sourced<EntryBodies['grade-confirmed']> | undefined;
  readonly proposal: GradeProposal | null;
  /** What another hand says without having seen the first grade. */
  readonly secondOpinion: Sourced<EntryBodies['second-opinion']> | undefined;
  readonly photos: ReadonlyArray<Sourced<EntryBodies['photo-added']>>;
  readonly corners: Readonly<Record<string, Sourced<EntryBodies['corners-set']>>>;
  readonly marks: ReadonlyArray<Sourced<EntryBodies['mark-made']>>;
  /** What was read in its pictures, the newest last. */
  readonly reads: ReadonlyArray<Sourced<EntryBodies['surface-read']>>;
  /** Lines that were read and not wiped out by hand. */
  readonly readLines: readonly ReadLine[];
  readonly patterns: ReadonlyArray<Sourced<EntryBodies['pattern-set']>>;
  readonly remarks: ReadonlyArray<Sourced<EntryBodies['remark']>>;
  readonly readings: ReadonlyArray<Sourced<EntryBodies['reading-taken']>>;
  readonly clips: ReadonlyArray<Sourced<EntryBodies['clip-added']>>;
  /** What the part tag in a picture said, and regions made unrecognisable in its shared rendition, by picture. */
  readonly tags: Readonly<Record<string, Sourced<EntryBodies['tag-read']>>>;
  readonly blurs: Readonly<Record<string, Sourced<EntryBodies['blur-set']>>>;
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

const viewCache = new WeakMap<SlotGroup, Map<string, StationView>>();

function stationView(layout: EngineLayout, station: Station, group: SlotGroup, book: GradeBook): StationView {
  const key = `${station.id}|${book.version}|${layout.shellConstruction}|${station.surface?.widthMm ?? 0}|${station.surface?.heightMm ?? 0}`;
  const cached = viewCache.get(group)?.get(key);
  if (cached) return cached;
  const marks = collect(group, 'mark-made');
  const grade = single<'grade-confirmed'>(group, 'grade');
  const patterns = collect(group, 'pattern-set');
  const stated = single<'state-set'>(group, 'state')?.value.state;
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
  const reads = collect(group, 'surface-read');
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
    return shown ? proposeGrade(station.part, layout.shellConstruction, shown, book) : null;
  });
  const view: StationView = {
    station,
    state,
    grade,
    get proposal() {
      return proposal();
    },
    secondOpinion: single<'second-opinion'>(group, 'second-opinion'),
    photos: collect(group, 'photo-added'),
    corners: Object.fromEntries(collect(group, 'corners-set').map((c) => [c.value.sha256, c])),
    marks,
    reads,
    get readLines() {
      return readLines();
    },
    patterns,
    remarks: collect(group, 'remark'),
    readings: collect(group, 'reading-taken'),
    clips: collect(group, 'clip-added'),
    tags: Object.fromEntries(collect(group, 'tag-read').map((t) => [t.value.sha256, t])),
    blurs: Object.fromEntries(collect(group, 'blur-set').map((b) => [b.value.sha256, b])),
    charted: marks.length > 0 || (reads.length > 0 && state === 'findings'),
    get wear() {
      return wear();
    },
    get summary() {
      return summary();
    },
  };
  const perGroup = viewCache.get(group) ?? new Map<string, StationView>();
  perGroup.set(key, view);
  if (group !== NO_GROUP) viewCache.set(group, perGroup);
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

/** Was the place examined by us (sound or with findings)? */
export function isExamined(view: StationView): boolean {
  return view.state === 'sound' || view.state === 'findings';
}

export function readLayout(state: CaseState): EngineLayout | null {
  return single<'layout-set'>(state.groups[''] ?? NO_GROUP, 'layout')?.value.layout ?? null;
}

/** Everything recorded while the engine was stripped. */
export interface StripRecord {
  readonly steps: ReadonlyMap<string, Sourced<EntryBodies['step-set']>>;
  readonly order: readonly string[];
  readonly holds: ReadonlyMap<string, Sourced<EntryBodies['hold-set']>>;
  readonly bolts: ReadonlyArray<Sourced<EntryBodies['bolt-torque']>>;
  readonly bags: ReadonlyMap<string, Sourced<EntryBodies['bag-set']>>;
  readonly caps: ReadonlyMap<string, Sourced<EntryBodies['cap-checked']>>;
  /** In the order the caps were eased. */
  readonly easing: ReadonlyArray<Sourced<EntryBodies['ease-torque']>>;
  readonly expectations: ReadonlyArray<Sourced<EntryBodies['expectation']>>;
}

/** The case as screens, report and cause engine read it. */
export interface CaseView {
  readonly caseId: string;
  readonly number: string;
  readonly title: string;
  readonly layout: EngineLayout;
  readonly stations: readonly StationView[];
  readonly byId: ReadonlyMap<string, StationView>;
  readonly history: ReadonlyArray<Sourced<EntryBodies['history-line']>>;
  readonly evidence: ReadonlyArray<Sourced<EntryBodies['evidence-set']>>;
  readonly decisions: ReadonlyArray<Sourced<EntryBodies['cause-decided']>>;
  /** What was drawn, rejected and moved in the sequence of events. */
  readonly sequence: {
    readonly links: ReadonlyArray<Sourced<EntryBodies['sequence-link']>>;
    readonly events: ReadonlyArray<Sourced<EntryBodies['sequence-event']>>;
    readonly places: ReadonlyArray<Sourced<EntryBodies['sequence-place']>>;
  };
  /** Corrective actions and collateral checks of confirmed causes. */
  readonly answers: ReadonlyArray<Sourced<EntryBodies['answer-set']>>;
  readonly unexplained: ReadonlyMap<string, Sourced<EntryBodies['unexplained-set']>>;
  readonly answerable: Sourced<EntryBodies['answerable-set']> | undefined;
  readonly released: Sourced<EntryBodies['case-released']> | undefined;
  readonly shelved: Sourced<EntryBodies['case-shelved']> | undefined;
  readonly schools: ReadonlyMap<string, Sourced<EntryBodies['school-set']>>;
  /** What the builder decided about parts, by station. */
  readonly dispositions: ReadonlyArray<Sourced<EntryBodies['disposition-set']> & { readonly station: string }>;
  readonly prices: PriceBook;
  readonly plan: EntryBodies['plan-set'] | null;
  readonly moved: ReadonlyMap<string, number>;
  readonly quotes: ReadonlyArray<Sourced<EntryBodies['quote-sent']>>;
  readonly remarks: ReadonlyArray<Sourced<EntryBodies['remark']>>;
  readonly specs: Readonly<Partial<Record<SpecKey, Sourced<EntryBodies['spec-set']>>>>;
  /** Readings of sheets that belong to no station: runout, camshaft, seats, main line. */
  readonly readings: ReadonlyArray<Sourced<EntryBodies['reading-taken']>>;
  readonly received: ReadonlyArray<Sourced<EntryBodies['received-item']>>;
  readonly buildMarks: ReadonlyArray<Sourced<EntryBodies['build-mark']>>;
  readonly questions: ReadonlyArray<Sourced<EntryBodies['open-question']>>;
  /** Pictures and clips of the engine as a whole. */
  readonly photos: ReadonlyArray<Sourced<EntryBodies['photo-added']>>;
  readonly clips: ReadonlyArray<Sourced<EntryBodies['clip-added']>>;
  readonly blurs: Readonly<Record<string, Sourced<EntryBodies['blur-set']>>>;
  /** Answers of the checks before opening, by `check:field`. */
  readonly checks: ReadonlyMap<string, Sourced<EntryBodies['check-set']>>;
  readonly limits: Sourced<EntryBodies['limits-set']> | undefined;
  /** The grade book the case goes by: the shipped one, or the version of the shop's that was taken over. */
  readonly book: GradeBook;
  readonly strip: StripRecord;
  intake(field: IntakeField): string;
  report(field: ReportField): string;
  /** The account as laid out by hand; undefined: as its template. */
  readonly accountLayout: EntryBodies['account-laid-out'] | undefined;
  /** Generated sentences in other words, by what they tell. */
  readonly sentences: ReadonlyMap<string, Sourced<EntryBodies['sentence-set']>>;
  /** Signed versions of the account, oldest first. */
  readonly signed: ReadonlyArray<Sourced<EntryBodies['account-signed']>>;
}

const caseCache = new WeakMap<CaseState['groups'], CaseView>();

/** Reads a folded state; null while the case has no layout. Cached against the state. */
export function caseView(state: CaseState): CaseView | null {
  const cached = caseCache.get(state.groups);
  if (cached) return cached;
  const own = state.groups[''] ?? NO_GROUP;
  const layout = readLayout(state);
  if (!layout) return null;
  const opened = single<'case-opened'>(own, 'case');
  const gradeBook = single<'grade-book-set'>(own, 'grade-book');
  const book = gradeBook?.value.book ?? GRADE_BOOK;
  const stations = stationsOf(layout).map((station) => stationView(layout, station, state.groups[station.id] ?? NO_GROUP, book));
  const intake = (field: IntakeField): string => single<'intake-set'>(own, `intake:${field}`)?.value.value ?? '';
  const view: CaseView = {
    caseId: state.caseId,
    number: opened?.value.number ?? '',
    title: intake('title') || (opened?.value.title ?? ''),
    layout,
    stations,
    byId: new Map(stations.map((s) => [s.station.id, s])),
    history: collect(own, 'history-line'),
    evidence: collect(own, 'evidence-set'),
    decisions: collect(own, 'cause-decided'),
    sequence: { links: collect(own, 'sequence-link'), events: collect(own, 'sequence-event'), places: collect(own, 'sequence-place') },
    answers: collect(own, 'answer-set'),
    unexplained: new Map(collect(own, 'unexplained-set').map((u) => [u.value.place, u])),
    answerable: single<'answerable-set'>(own, 'answerable'),
    // Another shop releases nothing here.
    released: ours(single<'case-released'>(own, 'released')),
    shelved: ours(single<'case-shelved'>(own, 'shelved')),
    schools: new Map(collect(own, 'school-set').map((x) => [x.value.question, x])),
    dispositions: stations.flatMap(({ station }) => {
      const held = single<'disposition-set'>(state.groups[station.id] ?? NO_GROUP, 'disposition');
      return held ? [{ ...held, station: station.id }] : [];
    }),
    prices: single<'price-book-set'>(own, 'price-book')?.value.book ?? STARTING_PRICES,
    plan: single<'plan-set'>(own, 'plan')?.value ?? null,
    moved: new Map(collect(own, 'task-moved').map((t) => [t.value.task, t.value.notBeforeHours])),
    quotes: collect(own, 'quote-sent'),
    remarks: collect(own, 'remark'),
    specs: Object.fromEntries(collect(own, 'spec-set').map((s) => [s.value.quantity, s])),
    readings: collect(own, 'reading-taken'),
    received: collect(own, 'received-item'),
    buildMarks: collect(own, 'build-mark'),
    questions: collect(own, 'open-question'),
    photos: collect(own, 'photo-added'),
    clips: collect(own, 'clip-added'),
    blurs: Object.fromEntries(collect(own, 'blur-set').map((b) => [b.value.sha256, b])),
    checks: new Map(collect(own, 'check-set').map((c) => [`${c.value.check}:${c.value.field}`, c])),
    limits: single<'limits-set'>(own, 'limits'),
    book,
    strip: {
      steps: new Map(collect(own, 'step-set').map((s) => [s.value.step, s])),
      order: single<'step-order'>(own, 'step-order')?.value.order ?? [],
      holds: new Map(collect(own, 'hold-set').map((h) => [h.value.item, h])),
      bolts: collect(own, 'bolt-torque'),
      bags: new Map(collect(own, 'bag-set').map((b) => [b.value.bag, b])),
      caps: new Map(collect(own, 'cap-checked').map((c) => [c.value.cap, c])),
      easing: collect(own, 'ease-torque').sort((a, b) => a.value.index - b.value.index),
      expectations: collect(own, 'expectation'),
    },
    intake,
    accountLayout: single<'account-laid-out'>(own, 'account-layout')?.value,
    sentences: new Map(collect(own, 'sentence-set').map((x) => [x.value.sentence, x])),
    signed: collect(own, 'account-signed'),
    report: (field) => single<'report-set'>(own, `report:${field}`)?.value.value ?? '',
  };
  caseCache.set(state.groups, view);
  return view;
}

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
