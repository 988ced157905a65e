import type { Grade } from '../damage/classes.js';
import { pattern } from '../damage/patterns.js';
import { neutralSight } from '../damage/sights.js';
import { stationOf, type PartClass } from '../engine/stations.js';
import type { EngineLayout } from '../engine/layout.js';
import type { Reliability } from '../entries/registry.js';
import type { WordRoles } from './chips.js';
import { clauseStart, clauseText, isNegated, type Clause } from './clauses.js';
import { GRADE_SAYINGS, SOUND_SAYINGS } from './lexicon/sights.js';
import type { NamedPlace } from './places.js';
import { canShow, sightHits, type Hit } from './sightHits.js';
import { matches, wordAt, type ReadText } from './words.js';

/** Something seen, or looked for and not there, at places. */
export interface NotedFinding {
  readonly stations: readonly string[];
  /** At how many of the stations; null: at every one. */
  readonly of: number | null;
  /** Pattern or neutral sight; null where only a grade or soundness is said. */
  readonly sight: string | null;
  readonly present: boolean;
  readonly sound: boolean;
  readonly edge: 'front' | 'rear' | null;
  readonly grade: Grade | null;
  readonly reliability: Reliability;
}

/** What a clause is read with: its line, its places, and what the line as a whole says of grade and reliability. */
export interface ClauseContext {
  readonly text: ReadText;
  readonly layout: EngineLayout;
  readonly roles: WordRoles;
  readonly here: readonly NamedPlace[];
  readonly grade: Grade | null;
  /** It is told of how the engine came here, not of how a part was found. */
  readonly history: boolean;
  readonly reliability: Reliability;
}

/** What one clause says of its places; `alone` are patterns that need none. */
export function clauseFindings(clause: Clause, context: ClauseContext): { findings: NotedFinding[]; alone: Hit[] } {
  const { text, layout, roles, here } = context;
  const stations = [...new Set(here.flatMap((p) => p.stations))];
  const parts = new Set<PartClass>(stations.flatMap((id) => stationOf(layout, id)?.part ?? []));
  const hits = sightHits(text, clause, parts, here.length > 0, (from, to) => roles.isPlace(from, to));
  const findings: NotedFinding[] = [];
  const alone: Hit[] = [];
  for (const h of hits) {
    const told = stations.length === 0 || isFinding(h, parts, context);
    const role = told ? (h.negated ? 'not there' : 'sight') : 'described';
    roles.mark(h.from, h.to, role, pattern(h.sight)?.name ?? neutralSight(h.sight)?.name ?? h.sight);
    if (here.length === 0 && pattern(h.sight)) alone.push(h);
    if (told && stations.length > 0) findings.push(findingOf(h, stations, clause, context));
  }
  return { findings: [...findings, ...soundFindings(clause, stations, hits, context)], alone };
}

/** Facts that can be seen of any part; every other neutral sight is one only where one of its patterns can lie. */
const OF_ANY_PART = new Set(
  ['broken', 'cracked', 'bent', 'loose', 'missing', 'leaking', 'holed', 'struck', 'misfitted', 'blocked', 'shifted'].map(
    (id) => `sight-${id}`,
  ),
);

/** Is a sight something found? A colour or shine of a place that was graded sound describes it, and so does one that no pattern of the part looks like. */
function isFinding(h: Hit, parts: ReadonlySet<PartClass>, { grade }: ClauseContext): boolean {
  if (!neutralSight(h.sight)) return true;
  if (grade === 0 && !h.negated) return false;
  return OF_ANY_PART.has(h.sight) || [...parts].some((p) => canShow(h.sight, p));
}

/** A sight at those of the places that can show it, or at all of them where none can. */
function findingOf(
  h: Hit,
  stations: readonly string[],
  clause: Clause,
  { text, layout, here, grade, reliability }: ClauseContext,
): NotedFinding {
  const shown = stations.filter((id) => canShow(h.sight, stationOf(layout, id)!.part));
  const of = here.find((p) => p.of !== null)?.of ?? null;
  const own = pattern(h.sight) || (h.grade ?? 0) >= 3 ? ((h.grade ?? null) as Grade | null) : null;
  return {
    stations: shown.length > 0 ? shown : stations,
    of: of === null ? null : Math.min(of, shown.length || stations.length),
    sight: h.sight,
    present: !h.negated,
    sound: false,
    edge: h.sight === 'edge-loading' && !h.negated ? edgeOf(text, clause) : null,
    grade: h.negated ? null : (grade ?? gradeInWords(text, clause) ?? own),
    reliability,
  };
}

/** What a clause says is as it should be, and what that denies by name. */
function soundFindings(
  clause: Clause,
  stations: readonly string[],
  hits: readonly Hit[],
  { text, layout, roles, grade, history, reliability }: ClauseContext,
): NotedFinding[] {
  if (history) return [];
  const findings: NotedFinding[] = [];
  const plain = { of: null, edge: null, grade: null, reliability };
  const start = clauseStart(text, clause);
  for (const { says, denies, only } of SOUND_SAYINGS)
    for (const m of matches(says, clauseText(text, clause))) {
      const from = wordAt(text, start + m.index);
      const to = wordAt(text, start + m.index + m.text.length - 1) + 1;
      if (hits.some((h) => h.from < to && from < h.to) || isNegated(text, from, clause)) continue;
      roles.mark(from, to, 'sound', 'as it should be');
      if (stations.length === 0) continue;
      const shown = denies ? stations.filter((id) => canShow(denies, stationOf(layout, id)!.part)) : [];
      if (only && shown.length === 0) continue;
      if (denies && shown.length > 0) findings.push({ ...plain, stations: shown, sight: denies, present: false, sound: false });
      if (!hits.some((h) => !h.negated) && !(grade && grade >= 1))
        findings.push({ ...plain, stations, sight: null, present: true, sound: true });
    }
  return findings;
}

function edgeOf(text: ReadText, clause: Clause): 'front' | 'rear' | null {
  const words = clauseText(text, clause);
  const front = /\b(?:front|nose|timing)\b(?: \w+)? edge|edge (?:at|toward|to) the (?:front|nose)\b/.test(words);
  const rear = /\b(?:rear|flywheel|back|drive)\b(?: \w+)? edge|edge (?:at|toward|to) the (?:rear|back|flywheel)\b/.test(words);
  return front === rear ? null : front ? 'front' : 'rear';
}

/** `grade 3`, `g3`, `(3)` at the end. */
export function gradeStated(text: ReadText): { grade: Grade; from: number; to: number } | null {
  const m = /\b(?:grade|severity|g) ?:? ?([0-4])\b|\( ?([0-4]) ?\) ?$/.exec(text.text);
  if (!m) return null;
  const from = text.starts.findIndex((s) => s >= m.index);
  const to = text.starts.filter((s) => s < m.index + m[0].length).length;
  return { grade: Number(m[1] ?? m[2]) as Grade, from, to };
}

function gradeInWords(text: ReadText, clause: Clause): Grade | null {
  const words = clauseText(text, clause);
  return GRADE_SAYINGS.find((g) => g.says.test(words))?.grade ?? null;
}

const worse = (a: Grade | null, b: Grade | null): Grade | null => (a === null || b === null ? (a ?? b) : a > b ? a : b);

/** Is a denial about what was named there, by itself or through the neutral sight above it? */
function speaksOf(denied: string, named: string): boolean {
  return (
    denied === named ||
    (neutralSight(denied)?.patterns.includes(named) ?? false) ||
    (neutralSight(named)?.patterns.includes(denied) ?? false)
  );
}

/** One finding a place and sight; of two grades the worse, and a place with a sight is not sound. */
export function merged(findings: readonly NotedFinding[]): NotedFinding[] {
  const hurt = new Set(findings.filter((f) => f.present && !f.sound).flatMap((f) => f.stations));
  const out: NotedFinding[] = [];
  for (const f of findings) {
    if (f.sound && f.stations.some((s) => hurt.has(s))) continue;
    if (
      !f.present &&
      findings.some((o) => o.present && o.sight !== null && speaksOf(f.sight!, o.sight) && o.stations.some((s) => f.stations.includes(s)))
    )
      continue;
    const same = out.findIndex(
      (o) => o.sight === f.sight && o.present === f.present && o.sound === f.sound && o.stations.join() === f.stations.join(),
    );
    if (same < 0) out.push(f);
    else out[same] = { ...out[same]!, grade: worse(out[same]!.grade, f.grade), edge: out[same]!.edge ?? f.edge };
  }
  return out;
}
