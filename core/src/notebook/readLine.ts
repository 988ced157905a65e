import type { EngineLayout } from '../engine/layout.js';
import { engineTags, applies } from '../engine/tags.js';
import { feature } from '../cause/data/features.js';
import { pattern } from '../damage/patterns.js';
import type { Reliability } from '../entries/registry.js';
import { tally, WordRoles, type LineChip } from './chips.js';
import { clauseSays, clausesOf, clauseText, type Clause } from './clauses.js';
import { clauseFindings, gradeStated, merged, type NotedFinding } from './findings.js';
import { DESCRIBED } from './lexicon/sights.js';
import { namedPlaces, placeHere, saysNoOther, subjectOf, type NamedPlace, type NotebookContext } from './places.js';
import { notedResult, type NotedResult } from './result.js';
import { toldFeatures } from './told.js';
import { VOCABULARY } from './vocabulary.js';
import { matches, readText, wordAt, type ReadText } from './words.js';

export type { NotedFinding } from './findings.js';

/** A feature of the engine as a whole, found or not there. */
export interface NotedFeature {
  readonly feature: string;
  readonly present: boolean;
  readonly reliability: Reliability;
}

/** A line of a notebook as it was understood. */
export interface NotedLine {
  readonly text: string;
  readonly chips: readonly LineChip[];
  readonly places: readonly NamedPlace[];
  readonly findings: readonly NotedFinding[];
  readonly features: readonly NotedFeature[];
  readonly result: NotedResult | null;
  /** Clauses of the line that carry something, and those of them nothing was understood of, as stretches of the line. */
  readonly clauses: number;
  readonly left: ReadonlyArray<{ readonly from: number; readonly to: number }>;
  /** It says of something that it was not examined. */
  readonly notExamined: boolean;
  /** Places that it says are gone: scrapped, thrown away or not sent, so that nobody can look at them any more. */
  readonly gone: readonly string[];
}

/** What was not kept for whoever strips the engine. */
const GONE =
  /\b(?:(?:was |were |has |have |is |are |been )*(?:(?<!far )gone(?! (?:to(?! (?:the )?(?:scrap|skip|bin|tip))|through|from|over))|scrapped|thrown away|binned|not (?:kept|sent|found))|went (?:to|in) (?:the )?(?:scrap|skip|bin|tip)(?: yard)?|(?:he|she|they) did not bring)\b/;

/** A figure with its unit, or what it should be: kept with the line, and judged where its quantity is known. */
const FIGURE_SAID =
  /\b(?:limit [^;]*|\d[\d.,/]* ?(?:mm|cm|thou|in\b|bar|psi|nm|lb ft|%|per cent|litres?|degrees?|cst|ppm|inch(?:es)?|km|miles|h\b|hours?))/;
const PREFIX = /^(told|heard|seen|felt|measured|not examined|not looked at|not stripped|not done) :/;

/** A bullet, or the label of a list of notes ("F3:", "N1."); letters that stand for a part are none. */
const LABEL = /^\s*(?:[-*•–]\s+|[FHNQX]\d{1,2}[.):]?\s+)/;

/** What stands before a line and says how far it can be relied on. */
interface Prefix {
  readonly words: number;
  readonly text: string;
  readonly told: boolean;
  readonly reliability: Reliability;
  readonly notExamined: boolean;
}

function prefixOf(text: ReadText): Prefix {
  const prefix = PREFIX.exec(text.text)?.[1] ?? '';
  const told = /^(?:told|heard)$/.test(prefix);
  const heard = told || /\b(?:he says|she says|owner says|driver says|they say)\b/.test(text.text);
  return {
    words: prefix === '' ? 0 : prefix.split(' ').length,
    text: prefix,
    told,
    reliability: heard ? 'told' : prefix === 'measured' ? 'measured' : 'seen',
    notExamined:
      /^not/.test(prefix) || /\b(?:not (?:examined|stripped|looked at|opened|crack tested|cleaned|checked)|left in)\b/.test(text.text),
  };
}

/** The colon that parts what a line is about from what it says; −1 without one. The colon behind "told" parts nothing, nor does that of "2: 17 bar". */
function colonOf(text: ReadText, prefix: Prefix): number {
  const digit = (k: number): boolean => /^\d/.test(text.words[k]?.text ?? '');
  return text.words.findIndex(
    (w, i) =>
      w.text === ':' &&
      i >= prefix.words + (prefix.words > 0 ? 1 : 0) &&
      !(digit(i - 1) && (digit(i + 1) || /^[-+]$/.test(text.words[i + 1]?.text ?? ''))),
  );
}

/** A head that says itself what became of the part: "connecting rod, in five or six bits: …". */
const IN_PIECES = /\bin (?:\w+ ){1,3}(?:bits|pieces|lumps|halves)\b/;

/** The places every clause speaks of. */
function subjectsOf(
  text: ReadText,
  clauses: readonly Clause[],
  places: readonly NamedPlace[],
  head: readonly NamedPlace[],
  colon: number,
  layout: EngineLayout,
): Map<Clause, readonly NamedPlace[]> {
  const subjects = new Map<Clause, readonly NamedPlace[]>();
  const before = (clause: Clause): boolean => colon >= 0 && clause.from < colon;
  let subject = head;
  for (const clause of clauses) {
    if (before(clause)) {
      subjects.set(clause, IN_PIECES.test(clauseText(text, clause)) ? head : []);
      continue;
    }
    const own = places.filter((p) => startsIn(p, clause.from, clause.to));
    const numbered = own.filter((p) => p.numbers.length > 0);
    if (head.length > 0) {
      // Behind a colon a part is mostly what the subject touched; one with a number of its own is spoken of anew after a stop.
      if (!clause.soft) subject = numbered.length > 0 ? subjectOf(numbered, layout) : head;
    } else if (own.length > 0 && clause.soft && saysNoOther(own, subject)) {
      // "Rod bolts whole, nuts tight": the nuts are theirs.
    } else if (own.length > 0 && (colon < 0 || numbered.length > 0))
      subject =
        clause.soft && subject.length > 0 && !clauseSays(text, clauses, clause)
          ? subjectOf([...subject, ...own], layout)
          : subjectOf(own, layout);
    else if (!clause.soft) subject = [];
    subjects.set(clause, subject);
  }
  // "No blue, nothing melted on the journals": what comes before the place in one sentence is of the place too.
  if (head.length === 0)
    for (let i = clauses.length - 2; i >= 0; i--)
      if (subjects.get(clauses[i]!)?.length === 0 && clauses[i + 1]!.soft && !before(clauses[i]!))
        subjects.set(clauses[i]!, subjects.get(clauses[i + 1]!) ?? []);
  return subjects;
}

const startsIn = (p: NamedPlace, from: number, to: number): boolean => p.spans[0]![0] >= from && p.spans[0]![0] < to;

/** The subject of a line with a colon: what stands before it. */
function headOf(text: ReadText, places: readonly NamedPlace[], colon: number, layout: EngineLayout): NamedPlace[] {
  const named = colon >= 0 ? places.filter((p) => startsIn(p, 0, colon)) : [];
  const joined = named.some(
    (p, i) => i > 0 && text.words.slice(named[i - 1]!.spans[0]![1], p.spans[0]![0]).some((w) => /^(?:and|&|\+|\/)$/.test(w.text)),
  );
  return subjectOf(named, layout, joined);
}

/** Stations one part has at most, as a main has shells. */
const ONE_PART = 2;

/** Whole parts that are gone. "The copper is gone" speaks of a face: only the one part a clause names counts, and only in a line that says what was not examined, or was seen beside the strip; what was told may be of an earlier repair. */
function goneIn(
  text: ReadText,
  clauses: readonly Clause[],
  subjects: ReadonlyMap<Clause, readonly NamedPlace[]>,
  prefix: Prefix,
  roles: WordRoles,
  findings: readonly NotedFinding[],
): string[] {
  if (prefix.words === 0 || prefix.told) return [];
  const found = new Set(findings.flatMap((f) => f.stations));
  const gone = new Set<string>();
  for (const clause of clauses) {
    const said = matches(GONE, clauseText(text, clause))[0];
    const subject = subjects.get(clause)?.[0] ?? (prefix.notExamined ? subjects.values().next().value?.[0] : undefined);
    if (!said || !subject || subject.of !== null || subject.stations.length > ONE_PART) continue;
    for (const id of subject.stations) if (!found.has(id)) gone.add(id);
    roles.mark(clause.from, clause.to, 'described', 'gone');
  }
  return [...gone];
}

/** Reads one line. Deterministic; a few milliseconds at most. `context` is what the line may leave unsaid. */
export function readLine(line: string, layout: EngineLayout, context?: NotebookContext): NotedLine {
  const text = readText(
    line.replace(LABEL, (label) => ' '.repeat(label.length)),
    VOCABULARY,
  );
  const roles = new WordRoles(text);
  const prefix = prefixOf(text);
  const { reliability, notExamined } = prefix;
  roles.mark(0, prefix.words, 'reliability', prefix.text);
  const colon = colonOf(text, prefix);
  const named = namedPlaces(text, layout, colon, context);
  const places = named.length === 0 && context?.here ? [placeHere(context.here)] : named;
  for (const p of places) for (const [from, to] of p.spans) roles.mark(from, to, 'place', p.part.id);
  const stated = gradeStated(text);
  if (stated) roles.mark(stated.from, stated.to, 'grade', `grade ${stated.grade}`);
  const clauses = clausesOf(text);
  const head = named.length === 0 ? places : headOf(text, places, colon, layout);
  const subjects = subjectsOf(text, clauses, named, head, colon, layout);
  const result = notExamined ? null : notedResult(text, layout);
  const tags = engineTags(layout);
  const features: NotedFeature[] = [];
  const add = (id: string, present: boolean, how: Reliability): void => {
    const record = feature(id);
    if (record && applies(record.needs, tags) && !features.some((f) => f.feature === id))
      features.push({ feature: id, present, reliability: how });
  };
  for (const s of result?.shows ?? []) add(s.feature, s.present, 'measured');
  const findings: NotedFinding[] = [];
  // What was told of damage is history, not a finding of ours.
  if (!notExamined && !prefix.told)
    for (const clause of clauses) {
      if (result && result.shows.length > 0 && clause.from >= result.span[0] && colon >= 0) continue;
      const said = clauseFindings(clause, {
        text,
        layout,
        roles,
        here: subjects.get(clause) ?? [],
        grade: stated?.grade ?? null,
        history: prefix.words > 0,
        reliability,
      });
      findings.push(...said.findings);
      for (const h of said.alone) add(pattern(h.sight)!.feature, !h.negated, reliability);
    }
  const beside = findings.some((f) => f.sight !== null && f.present);
  if (!notExamined)
    for (const t of toldFeatures(text, clauses, tags, beside, roles)) add(t.feature, t.present, reliability === 'told' ? 'told' : 'seen');
  if (result) roles.mark(result.span[0], result.span[1], 'reading', result.name);
  for (const [says, role] of [
    [DESCRIBED, 'described'],
    [FIGURE_SAID, 'reading'],
  ] as const)
    for (const m of matches(says, text.text)) roles.mark(wordAt(text, m.index), wordAt(text, m.index + m.text.length - 1) + 1, role, '');
  if (stated && findings.every((f) => !f.present || f.sound)) {
    const of = head.length > 0 ? head : places.slice(0, 1);
    const stations = [...new Set(of.flatMap((p) => p.stations))];
    if (stations.length > 0)
      findings.push({
        stations,
        of: of[0]?.of ?? null,
        sight: null,
        present: true,
        sound: stated.grade === 0,
        edge: null,
        grade: stated.grade,
        reliability,
      });
  }
  const gone = goneIn(text, clauses, subjects, prefix, roles, findings);
  const { count, left } = tally(text, clauses, roles.role, notExamined, colon);
  return {
    text: line,
    chips: roles.chips(),
    places,
    findings: merged(findings),
    features,
    result,
    clauses: count,
    left,
    notExamined,
    gone,
  };
}
