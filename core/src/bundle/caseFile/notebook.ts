import type { EngineLayout } from '../../engine/layout.js';
import { engineTemplate } from '../../engine/templates.js';
import { pattern } from '../../damage/patterns.js';
import { readLine, type NotedLine } from '../../notebook/readLine.js';
import { CASE_FILE_FORMAT, CASE_FILE_VERSION, type CaseFile, type FindingWords, type SightWords } from './format.js';

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

/**
 * The case file that the lines of a notebook make, and how each line was understood. A line that starts with `#` is the question of the case. Where two lines contradict each other the place
 * keeps the worse grade and what was seen, and both lines stay as notes.
 */
export function caseFileOfNotebook(
  engine: CaseFile['engine'],
  lines: readonly string[],
): { readonly file: CaseFile; readonly lines: readonly NotedLine[] } {
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
  const read: NotedLine[] = [];
  let question = '';
  for (const raw of lines) {
    const line = raw.trim();
    if (line === '') continue;
    if (line.startsWith('#')) {
      question = [question, line.replace(/^#+\s*/, '')].filter(Boolean).join(' ');
      continue;
    }
    const noted = readLine(line, layout, { named });
    read.push(noted);
    for (const p of noted.places) {
      const before = named.get(p.part.numbered) ?? new Set<number>();
      for (const n of p.numbers) before.add(n);
      named.set(p.part.numbered, before);
    }
    const where = new Set<string>();
    for (const f of noted.findings) {
      if (f.stations.length === 0) continue;
      if (f.sight !== null && (f.of !== null || f.reliability === 'told')) {
        sights.push({
          sight: f.sight,
          present: f.present,
          among: f.stations,
          of: f.of,
          grade: f.grade,
          reliability: f.reliability,
          words: line,
        });
        continue;
      }
      if (f.of !== null) continue;
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
    if (first !== undefined) at(first).notes.push(line);
    else if (noted.features.length === 0) notes.push(line);
    for (const f of noted.features) {
      if (f.reliability !== 'measured' && f.present) history.push({ text: line, feature: f.feature, reliability: f.reliability });
      const held = evidence.get(f.feature);
      const stronger = !held || (f.present && !held.present) || f.reliability === 'measured';
      if ((f.reliability === 'measured' || !f.present) && stronger && !history.some((h) => h.feature === f.feature))
        evidence.set(f.feature, { feature: f.feature, present: f.present, note: line, reliability: f.reliability });
    }
  }
  // What a finding shows is not denied beside it: the line that denied it stays as a note of its own.
  const told = new Set<string | null | undefined>(history.map((h) => h.feature));
  for (const p of places.values()) for (const id of p.patterns) told.add(pattern(id)?.feature);
  const findings: FindingWords[] = [];
  const sound: string[] = [];
  for (const [station, p] of places) {
    for (const id of p.patterns) p.absent.delete(id);
    if (p.sound && p.patterns.size === 0 && (p.grade ?? 0) === 0) sound.push(station);
    const said = p.patterns.size > 0 || p.absent.size > 0 || p.grade !== undefined || p.notes.length > 0;
    if (!said) continue;
    findings.push({
      station,
      ...(p.grade !== undefined && !(p.sound && p.grade === 0 && p.patterns.size === 0) ? { grade: p.grade } : {}),
      ...(p.patterns.size > 0 ? { patterns: [...p.patterns] } : {}),
      ...(p.absent.size > 0 ? { absent: [...p.absent] } : {}),
      ...(p.edge && p.patterns.has('edge-loading') ? { edge: p.edge } : {}),
      ...(p.notes.length > 0 ? { note: p.notes.join('\n').slice(0, 4000) } : {}),
    });
  }
  return {
    file: {
      format: CASE_FILE_FORMAT,
      version: CASE_FILE_VERSION,
      ...(question ? { case: { title: question.slice(0, 200) } } : {}),
      engine,
      ...(question ? { intake: { question } } : {}),
      history,
      sound,
      findings,
      sights,
      evidence: [...evidence.values()].filter((e) => !told.has(e.feature)),
      notes: [...notes, ...[...evidence.values()].flatMap((e) => (told.has(e.feature) && e.note ? [e.note] : []))],
    },
    lines: read,
  };
}
