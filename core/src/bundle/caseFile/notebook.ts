import type { EngineLayout } from '../../engine/layout.js';
import { engineTemplate } from '../../engine/templates.js';
import { pattern } from '../../damage/patterns.js';
import { ok, type Result } from '../../kit/result.js';
import { openSight } from '../../notebook/lineEntries.js';
import { numbersOf } from '../../notebook/lexicon/parts.js';
import { namedKeys } from '../../notebook/places.js';
import { readLine, type NotedLine } from '../../notebook/readLine.js';
import { CASE_FILE_FORMAT, CASE_FILE_VERSION, type CaseFile, type FindingWords, type SightWords } from './format.js';
import { readCaseFile } from './read.js';

type Evidence = NonNullable<CaseFile['evidence']>[number];
type History = NonNullable<CaseFile['history']>[number];

interface Drafted {
  grade?: number;
  readonly patterns: Set<string>;
  readonly absent: Set<string>;
  edge?: 'front' | 'rear';
  readonly notes: string[];
  sound: boolean;
}

/** Figures of the lesser part of its places deny nothing of the others: they stay with the line. */
function ofFew(noted: NotedLine, layout: EngineLayout): boolean {
  return noted.places.some((p) => p.numbers.length > 0 && p.numbers.length < MOST_PLACES * numbersOf(layout, p.part.numbered));
}

/** Share of the places of a part that figures must cover before they deny something of the part as a whole. Judgement. */
const MOST_PLACES = 0.6;

/** A longer line is no line of a notebook: it is kept and not read. */
const LONGEST_LINE = 1000;
/** What a remark, and what the title of a case can hold. */
const LONGEST_NOTE = 4000;
const LONGEST_TITLE = 160;
/** History lines and open sights of one case; what comes after them stays as remarks. */
const MOST = 500;

/** Parts joined again, as many at a time as `most` characters hold. */
function piecesOf(parts: readonly string[], most: number, between: string): string[] {
  const pieces: string[] = [];
  for (const part of parts) {
    const last = pieces.at(-1);
    if (last !== undefined && last.length + between.length + part.length <= most) pieces[pieces.length - 1] = last + between + part;
    else pieces.push(part);
  }
  return pieces;
}

const unread = (text: string): NotedLine => ({
  text,
  chips: [],
  places: [],
  findings: [],
  features: [],
  result: null,
  clauses: 1,
  left: [{ from: 0, to: text.length }],
  notExamined: false,
  gone: [],
});

/**
 * The case file that the lines of a notebook make, and how each line was understood. A line that starts with `#` is the question of the case. Where two lines contradict each other the place
 * keeps the worse grade and what was seen, and both lines stay as notes. Refused only where the engine is none; no text is lost.
 */
export function caseFileOfNotebook(
  engine: CaseFile['engine'],
  lines: readonly string[],
): Result<{ readonly file: CaseFile; readonly lines: readonly NotedLine[] }> {
  const head = { format: CASE_FILE_FORMAT, version: CASE_FILE_VERSION, engine } as const;
  const checked = readCaseFile(head);
  if (!checked.ok) return checked;
  const layout: EngineLayout = { ...engineTemplate(engine.template)!.layout, ...engine };
  const named = new Map<string, Set<number>>();
  const places = new Map<string, Drafted>();
  const at = (station: string): Drafted => {
    const held = places.get(station) ?? { patterns: new Set(), absent: new Set(), notes: [], sound: false };
    places.set(station, held);
    return held;
  };
  const sights: SightWords[] = [];
  const evidence = new Map<string, Evidence>();
  const history: History[] = [];
  const notes: string[] = [];
  const lost = new Set<string>();
  const read: NotedLine[] = [];
  let question = '';
  for (const raw of lines) {
    // What cannot be written down in a ledger is a blank.
    const line = raw.replace(/[\p{Cc}\p{Cs}]/gu, ' ').trim();
    if (line === '') continue;
    if (line.startsWith('#')) {
      question = [question, line.replace(/^#+\s*/, '')].filter(Boolean).join(' ');
      continue;
    }
    if (line.length > LONGEST_LINE) {
      notes.push(...piecesOf([...line], LONGEST_NOTE, ''));
      read.push(unread(line));
      continue;
    }
    const noted = readLine(line, layout, { named });
    read.push(noted);
    for (const p of noted.places) for (const key of namedKeys(p.part)) named.set(key, new Set([...(named.get(key) ?? []), ...p.numbers]));
    for (const id of noted.gone) lost.add(id);
    const where = new Set<string>();
    let kept = false;
    for (const f of noted.findings) {
      if (f.stations.length === 0) continue;
      const open = openSight(f, line);
      if (open && sights.length < MOST) {
        sights.push(open);
        kept = true;
      }
      if (open || f.of !== null) continue;
      for (const station of f.stations) {
        const place = at(station);
        where.add(station);
        if (f.sound) place.sound = true;
        else if (f.sight !== null) (f.present ? place.patterns : place.absent).add(f.sight);
        if (f.present && f.grade !== null) place.grade = Math.max(place.grade ?? 0, f.grade);
        if (f.edge) place.edge = f.edge;
      }
    }
    // One place carries the words; of many it is the first.
    const first = [...where][0];
    if (first !== undefined) {
      at(first).notes.push(line);
      kept = true;
    }
    for (const f of noted.features) {
      if (!f.present && f.reliability === 'measured' && ofFew(noted, layout)) continue;
      if (f.reliability !== 'measured' && f.present) {
        if (history.length === MOST) continue;
        history.push({ text: line, feature: f.feature, reliability: f.reliability });
        kept = true;
        continue;
      }
      const held = evidence.get(f.feature);
      // Found at one place and not at another it is there; a measurement outweighs what was only said.
      const stronger =
        !held || (f.present ? !held.present : held.reliability !== 'measured') || (f.present && f.reliability === 'measured');
      if (!stronger || history.some((h) => h.feature === f.feature)) continue;
      if (held?.note) notes.push(held.note);
      evidence.set(f.feature, { feature: f.feature, present: f.present, note: line, reliability: f.reliability });
      kept = true;
    }
    if (!kept) notes.push(line);
  }
  // What a finding shows is not denied beside it: the line that denied it stays as a note of its own.
  const told = new Set<string | null | undefined>(history.map((h) => h.feature));
  for (const p of places.values()) for (const id of p.patterns) told.add(pattern(id)?.feature);
  const findings: FindingWords[] = [];
  const sound: string[] = [];
  for (const [station, p] of places) {
    for (const id of p.patterns) p.absent.delete(id);
    if (p.sound && p.patterns.size === 0 && (p.grade ?? 0) === 0) sound.push(station);
    const [note, ...rest] = piecesOf(p.notes, LONGEST_NOTE, '\n');
    notes.push(...rest);
    const said = p.patterns.size > 0 || p.absent.size > 0 || p.grade !== undefined || p.notes.length > 0;
    if (!said) continue;
    findings.push({
      station,
      ...(p.grade !== undefined && !(p.sound && p.grade === 0 && p.patterns.size === 0) ? { grade: p.grade } : {}),
      ...(p.patterns.size > 0 ? { patterns: [...p.patterns] } : {}),
      ...(p.absent.size > 0 ? { absent: [...p.absent] } : {}),
      ...(p.edge && p.patterns.has('edge-loading') ? { edge: p.edge } : {}),
      ...(note !== undefined ? { note } : {}),
    });
  }
  // What was seen of a part before it went stands.
  const gone = [...lost].filter((id) => !findings.some((f) => f.station === id) && !sound.includes(id));
  const asked = piecesOf([...question], LONGEST_NOTE, '');
  for (const e of evidence.values()) if (told.has(e.feature) && e.note) notes.push(e.note);
  notes.push(...asked.slice(1));
  return ok({
    file: {
      ...head,
      ...(question ? { case: { title: piecesOf([...question], LONGEST_TITLE, '')[0]! } } : {}),
      ...(asked[0] ? { intake: { question: asked[0] } } : {}),
      history,
      ...(gone.length > 0 ? { states: Object.fromEntries(gone.map((id) => [id, 'lost'])) } : {}),
      sound,
      findings,
      sights,
      evidence: [...evidence.values()].filter((e) => !told.has(e.feature)),
      // Few remarks stay each its own; of a great many, several share one.
      notes: notes.length <= 2 * MOST ? notes : piecesOf(notes, LONGEST_NOTE, '\n'),
    },
    lines: read,
  });
}
