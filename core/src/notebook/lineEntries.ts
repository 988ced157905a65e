import { sightPatterns } from '../damage/sights.js';
import { pattern } from '../damage/patterns.js';
import { markOfWords } from '../damage/wordMark.js';
import type { EngineLayout } from '../engine/layout.js';
import { stationOf } from '../engine/stations.js';
import type { EntryBodies, EntryKind } from '../entries/entries.js';
import type { NotedFeature, NotedFinding, NotedLine } from './readLine.js';

/** An entry that a line proposes, to be written at a place or at the case. */
export type LineEntry = {
  [K in EntryKind]: { readonly kind: K; readonly station: string | null; readonly body: EntryBodies[K] };
}[EntryKind];

/** What of a line is kept: its findings with what was chosen for them, and its features. */
export interface KeptLine {
  readonly findings: readonly NotedFinding[];
  readonly features: readonly NotedFeature[];
}

/** Share of a shell's face that "worn along one edge" is drawn as, percent. */
const EDGE_PERCENT = 5;

/**
 * Entries of a line that somebody kept. The line itself is kept as a remark at its first place, or at the case, so that nothing of it is lost. `book` is the version of the grade book the case goes
 * by; `newId` makes a new id for every entry that needs one.
 */
export function entriesOfLine(line: NotedLine, kept: KeptLine, layout: EngineLayout, book: string, newId: () => string): LineEntry[] {
  const entries: LineEntry[] = [];
  let first: string | null = null;
  for (const f of kept.findings) {
    if (f.stations.length === 0) continue;
    if (f.sight !== null && (f.of !== null || f.reliability === 'told')) {
      entries.push({
        kind: 'sight-set',
        station: null,
        body: {
          note: newId(),
          sight: f.sight,
          present: f.present,
          among: f.stations,
          of: f.of,
          grade: f.grade,
          reliability: f.reliability,
          words: line.text,
        },
      });
      continue;
    }
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
  // A line that is the history or the note of an entry stands there; what is left of any other is a remark.
  if (first !== null || entries.length === 0) entries.push({ kind: 'remark', station: first, body: { remark: newId(), text: line.text } });
  return entries;
}

/** Patterns a neutral sight may be at these places, for one who knows more; none for a pattern. */
export function closerSights(f: NotedFinding, layout: EngineLayout): string[] {
  if (f.sight === null || pattern(f.sight)) return [];
  return [...new Set(f.stations.flatMap((id) => sightPatterns(f.sight!, stationOf(layout, id)!.part).map((p) => p.id)))];
}
