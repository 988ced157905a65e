import type { Grade } from '../damage/classes.js';
import { sightPatterns } from '../damage/sights.js';
import { pattern } from '../damage/patterns.js';
import { markOfWords } from '../damage/wordMark.js';
import type { EngineLayout } from '../engine/layout.js';
import { stationOf } from '../engine/stations.js';
import type { EntryBodies, EntryKind } from '../entries/entries.js';
import type { Sourced } from '../ledger/state.js';
import type { NotedFeature, NotedFinding, NotedLine } from './readLine.js';

/** An entry that a line proposes, to be written at a place or at the case. */
export type LineEntry = {
  [K in EntryKind]: { readonly kind: K; readonly station: string | null; readonly body: EntryBodies[K] };
}[EntryKind];

/** What of a line is kept: its findings with what was chosen for them, and its features. */
export interface KeptLine {
  readonly findings: readonly NotedFinding[];
  readonly features: readonly NotedFeature[];
  readonly gone: readonly string[];
}

/** Share of a shell's face that "worn along one edge" is drawn as, percent. */
const EDGE_PERCENT = 5;

/** A sight that is written at the case: its place is open, or somebody told of it. Null: it belongs to its places, or names nothing. */
export function openSight(f: NotedFinding, words: string): Omit<EntryBodies['sight-set'], 'note'> | null {
  if (f.sight === null || (f.of === null && f.reliability !== 'told')) return null;
  return {
    sight: f.sight,
    present: f.present,
    among: f.stations,
    of: f.of,
    grade: f.grade,
    reliability: f.reliability,
    words,
  };
}

/**
 * Entries of a line that somebody kept. The line itself is kept as a remark at its first place, at the one it speaks of, or at the case, so that nothing of it is lost. `book` is the version of the grade book the case goes
 * by; `newId` makes a new id for every entry that needs one.
 */
export function entriesOfLine(line: NotedLine, kept: KeptLine, layout: EngineLayout, book: string, newId: () => string): LineEntry[] {
  const entries: LineEntry[] = [];
  let first: string | null = null;
  for (const f of kept.findings) {
    if (f.stations.length === 0) continue;
    const open = openSight(f, line.text);
    if (open) entries.push({ kind: 'sight-set', station: null, body: { note: newId(), ...open } });
    // A grade at one of several, without a name, can be written nowhere: the line stays as it is.
    if (open || f.of !== null) continue;
    for (const id of f.stations) {
      const station = stationOf(layout, id);
      if (!station) continue;
      first ??= id;
      if (f.sight !== null) entries.push({ kind: 'pattern-set', station: id, body: { pattern: f.sight, present: f.present } });
      if (f.sound) entries.push({ kind: 'state-set', station: id, body: { state: 'sound' } });
      else if (f.present && f.grade !== null)
        entries.push({ kind: 'grade-confirmed', station: id, body: { grade: f.grade, proposed: null, reason: '', book } });
      const mark = f.edge ? markOfWords(station, { class: 'lining', percent: EDGE_PERCENT, where: `${f.edge}-edge` }, newId()) : null;
      if (mark) entries.push({ kind: 'mark-made', station: id, body: { mark } });
    }
  }
  for (const f of kept.features) {
    if (f.present && f.reliability !== 'measured')
      entries.push({
        kind: 'history-line',
        station: null,
        body: { line: newId(), text: line.text, feature: f.feature, reliability: f.reliability, date: null },
      });
    else
      entries.push({
        kind: 'evidence-set',
        station: null,
        body: { feature: f.feature, present: f.present, note: line.text, reliability: f.reliability },
      });
  }
  for (const id of kept.gone) entries.push({ kind: 'state-set', station: id, body: { state: 'lost' } });
  // A line that is the history or the note of an entry stands there; what is left of any other is a remark.
  const [place, ...others] = line.places.flatMap((p) => p.stations);
  if (first !== null || entries.length === 0)
    entries.push({
      kind: 'remark',
      station: first ?? (others.length === 0 ? place : undefined) ?? null,
      body: { remark: newId(), text: line.text },
    });
  return entries;
}

/**
 * What is written once somebody says at which place an open sight is: that place shows it from then on, with the words it was noted in, and the sight is open at the others only as far as it was
 * at several. What was told stays told and is only narrowed.
 */
export function entriesOfPlace(held: Sourced<EntryBodies['sight-set']>, station: string, book: string, newId: () => string): LineEntry[] {
  const { value: sight, version } = held;
  const told = sight.reliability === 'told';
  const more = (sight.of ?? 1) - 1;
  const entries: LineEntry[] = [];
  if (more > 0)
    entries.push({
      kind: 'sight-set',
      station: null,
      body: { ...sight, among: sight.among.filter((id) => id !== station), of: more },
    });
  else if (!told)
    entries.push({
      kind: 'retracted',
      station: null,
      body: { target: version.entry, slot: `sight:${sight.note}`, reason: 'its place was found' },
    });
  if (told)
    return [
      ...entries,
      { kind: 'sight-set', station: null, body: { ...sight, note: more > 0 ? newId() : sight.note, among: [station], of: null } },
    ];
  entries.push({ kind: 'pattern-set', station, body: { pattern: sight.sight, present: sight.present } });
  if (sight.present && sight.grade !== null)
    entries.push({ kind: 'grade-confirmed', station, body: { grade: sight.grade as Grade, proposed: null, reason: '', book } });
  if (sight.words !== '') entries.push({ kind: 'remark', station, body: { remark: newId(), text: sight.words } });
  return entries;
}

/** Patterns a neutral sight may be at these places, for one who knows more; none for a pattern. */
export function closerSights(f: NotedFinding, layout: EngineLayout): string[] {
  if (f.sight === null || pattern(f.sight)) return [];
  return [...new Set(f.stations.flatMap((id) => sightPatterns(f.sight!, stationOf(layout, id)!.part).map((p) => p.id)))];
}
