import { pattern } from '../damage/patterns.js';
import { neutralSight, sightPatterns } from '../damage/sights.js';
import type { Grade } from '../damage/classes.js';
import type { EngineLayout } from '../engine/layout.js';
import { stationOf, type PartClass } from '../engine/stations.js';
import { engineTags, applies } from '../engine/tags.js';
import { feature } from '../cause/data/features.js';
import type { Reliability } from '../entries/registry.js';
import { DESCRIBED, GRADE_SAYINGS, NEUTRAL_SAYINGS, ORDINARY, PATTERN_SAYINGS, SOUND_SAYINGS, type SightWord } from './lexicon/sights.js';
import { TOLD_SAYINGS } from './lexicon/told.js';
import { namedPlaces, subjectOf, type NamedPlace, type NotebookContext } from './places.js';
import { notedResult, type NotedResult } from './result.js';
import { VOCABULARY } from './vocabulary.js';
import { matches, readText, type ReadText } from './words.js';

/** What a stretch of a line was taken for. */
type ChipRole = 'place' | 'described' | 'sight' | 'not there' | 'sound' | 'told' | 'reading' | 'grade' | 'reliability' | 'not understood';

/** A stretch of the line as it was typed, and what it was taken for. */
interface LineChip {
  readonly from: number;
  readonly to: number;
  readonly role: ChipRole;
  readonly says: string;
}

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
}

const HARD_STOP = /^(?:;|\.|but|however|though|while|whereas)$/;
const SOFT_STOP = /^(?:,|:|\(|\))$/;
const NEGATOR = /^(?:no|not|without|none|never|nothing|neither|nor|nobody|cannot|isnt|arent|wasnt|didnt|doesnt)$/;
/** Words that carry no finding of their own: a clause of nothing else needs no understanding. */
const FILLER =
  /^(?:the|a|an|and|or|of|in|on|at|to|by|with|for|from|it|its|is|are|was|were|be|been|as|has|have|had|there|that|this|these|those|they|them|you|i|we|he|she|his|her|my|same|also|again|still|all|both|each|every|other|others|rest|only|one|two|three|four|five|six|seven|eight|no|nos|number|side|sides|old|new|story|here|where|what|which|can|could|would|then|so|very|quite|rather|than|too|out|up|down|over|under|about|round|off|away|back|just|most|more|less|much|many|some|several|any|when|if|into|onto|through|toward|towards|between|above|below|near|mm|cm|inch|thou|deg|bar|psi|nm|left|right|front|rear|top|bottom|upper|lower|middle|outer|inner|half|halves|end|ends|part|place|places|long|wide|high|deep|thick|seen|felt|measured|told|grade|found|[-–—.,;:()'"%°/+=?!]|\d[\d.,/]*)$/;
/** A figure with its unit, or what it should be: kept with the line, and judged where its quantity is known. */
const FIGURE_SAID =
  /\b(?:limit [^;]*|\d[\d.,/]* ?(?:mm|cm|thou|in\b|bar|psi|nm|lb ft|%|per cent|litres?|degrees?|cst|ppm|inch(?:es)?|km|miles|h\b|hours?))/;
const PREFIX = /^(told|heard|seen|felt|measured|not examined|not looked at|not stripped|not done) :/;

/** A bullet, or the label of a list of notes ("F3:", "N1."); letters that stand for a part are none. */
const LABEL = /^\s*(?:[-*•–]\s+|[FHNQX]\d{1,2}[.):]?\s+)/;

interface Clause {
  readonly from: number;
  readonly to: number;
  /** A stop within the sentence: places before it still hold. */
  readonly soft: boolean;
}

function clausesOf(text: ReadText): Clause[] {
  const list: Clause[] = [];
  let from = 0;
  let soft = false;
  const word = (k: number): string => text.words[k]?.text ?? '';
  for (let i = 0; i <= text.words.length; i++) {
    const w = word(i);
    // "no. 2" and "1, 3 and 4" stop nothing.
    const number = w === '.' && /^(?:no|nos|nr)$/.test(word(i - 1));
    const row = w === ',' && /^\d/.test(word(i - 1)) && /^(?:\d|and)/.test(word(i + 1));
    const hard = HARD_STOP.test(w) && !number;
    if (i < text.words.length && !hard && !(SOFT_STOP.test(w) && !row)) continue;
    if (i > from) list.push({ from, to: i, soft });
    soft = !hard;
    from = i + 1;
  }
  return list;
}

interface Hit {
  readonly from: number;
  readonly to: number;
  readonly sight: string;
  readonly grade: SightWord['grade'];
  readonly negated: boolean;
}

/** Reads one line. Deterministic; a few milliseconds at most. `context` is what earlier lines said of numbers. */
export function readLine(line: string, layout: EngineLayout, context?: NotebookContext): NotedLine {
  const text = readText(
    line.replace(LABEL, (label) => ' '.repeat(label.length)),
    VOCABULARY,
  );
  const word = (k: number): string => text.words[k]?.text ?? '';
  const at = (position: number): number => {
    let lo = 0;
    let hi = text.starts.length - 1;
    while (lo < hi) {
      const mid = (lo + hi + 1) >> 1;
      if (text.starts[mid]! <= position) lo = mid;
      else hi = mid - 1;
    }
    return lo;
  };
  const role: Array<ChipRole | null> = new Array<ChipRole | null>(text.words.length).fill(null);
  const says: string[] = new Array<string>(text.words.length).fill('');
  const mark = (from: number, to: number, r: ChipRole, what: string): void => {
    for (let i = from; i < to; i++) {
      if (role[i] !== null && role[i] !== 'place') continue;
      role[i] = r;
      says[i] = what;
    }
  };
  const prefix = PREFIX.exec(text.text)?.[1] ?? '';
  const reliability: Reliability =
    /^(?:told|heard)$/.test(prefix) || /\b(?:he says|she says|owner says|driver says|they say)\b/.test(text.text)
      ? 'told'
      : prefix === 'measured'
        ? 'measured'
        : 'seen';
  const notExamined =
    /^not/.test(prefix) || /\b(?:not (?:examined|stripped|looked at|opened|crack tested|cleaned|checked)|left in)\b/.test(text.text);
  if (prefix) mark(0, prefix.split(' ').length, 'reliability', prefix);
  // The colon behind "told" or "seen" parts nothing.
  const colon = text.words.findIndex(
    (w, i) =>
      w.text === ':' &&
      i > (prefix ? prefix.split(' ').length : -1) &&
      !(/^\d/.test(text.words[i - 1]?.text ?? '') && /^[-+]$|^\d/.test(text.words[i + 1]?.text ?? '')),
  );
  const places = namedPlaces(text, layout, colon, context);
  for (const p of places) for (const [from, to] of p.spans) mark(from, to, 'place', p.part.id);

  const clauses = clausesOf(text);
  const stated = gradeStated(text);
  if (stated) mark(stated.from, stated.to, 'grade', `grade ${stated.grade}`);

  const result = notExamined ? null : notedResult(text, layout);
  const findings: NotedFinding[] = [];
  const features: NotedFeature[] = [];
  const tags = engineTags(layout);
  const add = (id: string, present: boolean, how: Reliability): void => {
    if (!feature(id) || !applies(feature(id)!.needs, tags)) return;
    if (!features.some((f) => f.feature === id)) features.push({ feature: id, present, reliability: how });
  };
  if (result && result.shows.length > 0) for (const s of result.shows) add(s.feature, s.present, 'measured');
  const bySubject = new Map<Clause, readonly NamedPlace[]>();
  const startsIn = (p: NamedPlace, from: number, to: number): boolean => p.spans[0]![0] >= from && p.spans[0]![0] < to;
  const named = colon >= 0 ? places.filter((p) => startsIn(p, 0, colon)) : [];
  const joined = named.some(
    (p, i) => i > 0 && text.words.slice(named[i - 1]!.spans[0]![1], p.spans[0]![0]).some((w) => /^(?:and|&|\+|\/)$/.test(w.text)),
  );
  const head = subjectOf(named, layout, joined);
  let subject: readonly NamedPlace[] = head;
  for (const clause of clauses) {
    if (colon >= 0 && clause.from < colon) {
      bySubject.set(clause, []);
      continue;
    }
    const own = places.filter((p) => startsIn(p, clause.from, clause.to));
    if (head.length > 0) {
      // Behind a colon a part is mostly what the subject touched; one with a number of its own, or of the engine but once, after a stop is spoken of anew.
      if (!clause.soft && own.some((p) => p.numbers.length > 0))
        subject = subjectOf(
          own.filter((p) => p.numbers.length > 0),
          layout,
        );
      else if (!clause.soft) subject = head;
    } else if (own.length > 0 && (colon < 0 || own.some((p) => p.numbers.length > 0))) {
      const anew = subjectOf(own, layout);
      subject = clause.soft && subject.length > 0 && !clauseSays(text, clauses, clause) ? subjectOf([...subject, ...own], layout) : anew;
    } else if (!clause.soft) subject = [];
    bySubject.set(clause, subject);
  }
  // "No blue, nothing melted on the journals": what comes before the place in one sentence is of the place too.
  if (head.length === 0)
    for (let i = clauses.length - 2; i >= 0; i--)
      if (bySubject.get(clauses[i]!)?.length === 0 && clauses[i + 1]!.soft && !(colon >= 0 && clauses[i]!.from < colon))
        bySubject.set(clauses[i]!, bySubject.get(clauses[i + 1]!) ?? []);
  if (!notExamined && prefix !== 'told' && prefix !== 'heard')
    for (const clause of clauses) {
      const here = bySubject.get(clause) ?? [];
      if (result && result.shows.length > 0 && clause.from >= result.span[0] && colon >= 0) continue;
      const stations = [...new Set(here.flatMap((p) => p.stations))];
      const parts = new Set(stations.flatMap((id) => stationOf(layout, id)?.part ?? []));
      const hits = sightHits(text, clause, parts, here.length > 0, (from, to) => role.slice(from, to).every((r) => r === 'place'));
      const grade = stated?.grade ?? null;
      const edge = edgeOf(text, clause);
      for (const h of hits) {
        const name = pattern(h.sight)?.name ?? neutralSight(h.sight)?.name ?? h.sight;
        mark(h.from, h.to, h.negated ? 'not there' : 'sight', name);
        if (here.length === 0 && !pattern(h.sight)) continue;
        if (here.length > 0 && stations.length === 0) continue;
        const shown = stations.filter((id) => canShow(h.sight, stationOf(layout, id)!.part));
        const of = here.find((p) => p.of !== null)?.of ?? null;
        if (shown.length > 0 || here.length > 0)
          findings.push({
            stations: shown.length > 0 ? shown : stations,
            of: of === null ? null : Math.min(of, shown.length || stations.length),
            sight: h.sight,
            present: !h.negated,
            sound: false,
            edge: h.sight === 'edge-loading' && !h.negated ? edge : null,
            grade: h.negated
              ? null
              : (grade ??
                gradeInWords(text, clause) ??
                (pattern(h.sight) || (h.grade ?? 0) >= 3 ? ((h.grade ?? null) as Grade | null) : null)),
            reliability,
          });
        else if (pattern(h.sight)) add(pattern(h.sight)!.feature, !h.negated, reliability);
      }
      const soundHits = SOUND_SAYINGS.flatMap((s) => matches(s.says, clauseText(text, clause)).map((m) => ({ s, m })));
      const overall = clauseStart(text, clause);
      for (const { s, m } of soundHits) {
        const from = at(overall + m.index);
        const to = at(overall + m.index + m.text.length - 1) + 1;
        if (from < clause.from || to > clause.to || hits.some((h) => h.from < to && from < h.to)) continue;
        if (isNegated(text, from, clause)) continue;
        mark(from, to, 'sound', 'as it should be');
        if (stations.length === 0) continue;
        if (s.denies) {
          const shown = stations.filter((id) => canShow(s.denies!, stationOf(layout, id)!.part));
          if (shown.length > 0)
            findings.push({
              stations: shown,
              of: null,
              sight: s.denies,
              present: false,
              sound: false,
              edge: null,
              grade: null,
              reliability,
            });
        }
        if (!hits.some((h) => !h.negated) && !(grade && grade >= 1))
          findings.push({ stations, of: null, sight: null, present: true, sound: true, edge: null, grade: null, reliability });
      }
    }
  // What is told of the engine as a whole; beside a finding only what fluids and checks show.
  const beside = findings.some((f) => f.sight !== null && f.present && f.stations.length > 0);
  for (const saying of TOLD_SAYINGS) {
    const m = saying.says.exec(text.text);
    if (!m || m[0] === '') continue;
    const from = at(m.index);
    const to = at(m.index + m[0].length - 1) + 1;
    if (saying.about && !saying.about.test(text.text)) continue;
    if (!feature(saying.feature) || !applies(feature(saying.feature)!.needs, tags)) continue;
    if (beside && !/^(?:fluid|measured)\./.test(saying.feature)) continue;
    if (notExamined) continue;
    const clause = clauses.find((c) => from >= c.from && from < c.to);
    const negated = saying.present && clause !== undefined && isNegated(text, from, clause);
    mark(from, to, 'told', feature(saying.feature)!.name);
    add(
      saying.feature,
      saying.present && !negated,
      prefix === 'told' || prefix === 'heard' ? 'told' : reliability === 'told' ? 'told' : 'seen',
    );
  }
  if (result) mark(result.span[0], result.span[1], 'reading', result.name);
  for (const m of matches(DESCRIBED, text.text)) mark(at(m.index), at(m.index + m.text.length - 1) + 1, 'described', '');
  for (const m of matches(FIGURE_SAID, text.text)) mark(at(m.index), at(m.index + m.text.length - 1) + 1, 'reading', 'figure');
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
  const { count, left } = tally(text, clauses, role, notExamined, colon);
  for (let i = 0; i < text.words.length; i++)
    if (role[i] === null && !FILLER.test(word(i)) && /\p{L}/u.test(word(i))) mark(i, i + 1, 'not understood', '');
  return {
    text: line,
    chips: chipsOf(text, role, says),
    places,
    findings: merged(findings),
    features,
    result,
    clauses: count,
    left,
    notExamined,
  };
}

const clauseStart = (text: ReadText, c: Clause): number => text.starts[c.from] ?? 0;
const clauseText = (text: ReadText, c: Clause): string =>
  text.words
    .slice(c.from, c.to)
    .map((w) => w.text)
    .join(' ');

/** Does the stretch between the last stop and this one say anything of the places before it? */
function clauseSays(text: ReadText, clauses: readonly Clause[], clause: Clause): boolean {
  const before = clauses[clauses.indexOf(clause) - 1];
  if (!before) return false;
  const words = clauseText(text, before);
  return [...PATTERN_SAYINGS, ...NEUTRAL_SAYINGS].some((s) => s.says.test(words)) || SOUND_SAYINGS.some((s) => s.says.test(words));
}

/** Can a part of this class show the pattern, or one the neutral sight stands for? */
function canShow(id: string, part: PartClass): boolean {
  const record = pattern(id);
  return record ? record.parts.includes(part) : sightPatterns(id, part).length > 0;
}

function isNegated(text: ReadText, from: number, clause: Clause): boolean {
  for (let i = from - 1; i >= clause.from && i >= from - 7; i--) {
    const w = text.words[i]!.text;
    if (/^(?:but|yet|only)$/.test(w)) return false;
    if (isNegator(text, i)) return !(w === 'not' && /^(?:only|just|through|yet)$/.test(text.words[i + 1]?.text ?? ''));
  }
  // "No dents, nicks or marks": a list that began with the denial.
  if (!clause.soft || !text.words.slice(clause.from, clause.to).some((w) => /^n?or$/.test(w.text))) return false;
  for (let i = clause.from - 2; i >= 0 && !HARD_STOP.test(text.words[i]!.text) && text.words[i]!.text !== ':'; i--)
    if (isNegator(text, i)) return true;
  return false;
}

/** A word that denies; the "no" of "no. 2" is none. */
function isNegator(text: ReadText, i: number): boolean {
  const next = text.words[i + 1]?.text ?? '';
  return NEGATOR.test(text.words[i]!.text) && !(text.words[i]!.text === 'no' && (next === '.' || /^\d/.test(next)));
}

/** Sights of one clause: patterns its parts can show first, then neutral sights; a neutral one that can be but one pattern there is that pattern. */
function sightHits(
  text: ReadText,
  clause: Clause,
  parts: ReadonlySet<PartClass>,
  placed: boolean,
  isPlace: (from: number, to: number) => boolean,
): Hit[] {
  // "Core not collapsed" is read as "core collapsed", denied.
  const kept = Array.from({ length: clause.to - clause.from }, (_, i) => clause.from + i).filter((i) => text.words[i]!.text !== 'not');
  const starts: number[] = [];
  let words = '';
  for (const i of kept) {
    if (words !== '') words += ' ';
    starts.push(words.length);
    words += text.words[i]!.text;
  }
  const wordAt = (position: number): number => kept[starts.findLastIndex((s) => s <= position)]!;
  const hits: Hit[] = [];
  const sound = SOUND_SAYINGS.some((s) => !s.denies && s.says.test(words));
  const ordinary = matches(ORDINARY, words).map((m) => ({ from: wordAt(m.index), to: wordAt(m.index + m.text.length - 1) + 1 }));
  const take = (saying: SightWord, accept: (id: string, from: number, to: number) => string | null): void => {
    for (const m of matches(saying.says, words)) {
      const from = wordAt(m.index);
      const to = wordAt(m.index + m.text.length - 1) + 1;
      if (hits.some((h) => h.from < to && from < h.to)) continue;
      const sight = accept(saying.sight, from, to);
      if (sight === null || hits.some((h) => h.sight === sight)) continue;
      if (saying.beside && !saying.beside.test(words)) continue;
      if (saying.where && sound) continue;
      if (ordinary.some((o) => o.from < to && from < o.to)) continue;
      const within = text.words.slice(from, to).some((w) => w.text === 'not');
      // "Scuff-free": what stands before it is not there.
      const free = text.words[to]?.text === 'free' && to < clause.to;
      hits.push({ from, to, sight, grade: saying.grade, negated: within || free || isNegated(text, from, clause) });
    }
  };
  for (const s of PATTERN_SAYINGS) take(s, (id) => ((placed ? [...parts].some((p) => canShow(id, p)) : standsAlone(id)) ? id : null));
  if (placed)
    for (const s of NEUTRAL_SAYINGS)
      take(s, (id, from, to) => {
        // Names of parts and likenesses ("like a copper pot") are no sights.
        if (isPlace(from, to) || text.words.slice(Math.max(clause.from, from - 3), from).some((w) => w.text === 'like')) return null;
        if (parts.size === 0) return id;
        const possible = new Set([...parts].flatMap((p) => sightPatterns(id, p).map((x) => x.id)));
        return possible.size === 1 && PLAIN.has(id) ? [...possible][0]! : id;
      });
  // A neutral sight beside one of its own patterns says nothing more.
  const named = hits.filter((h) => pattern(h.sight)).map((h) => h.sight);
  return hits.filter((h) => !neutralSight(h.sight)?.patterns.some((p) => named.includes(p)));
}

/** Neutral sights that, where a part can show but one of their patterns, are that pattern; colour, dryness and wear may always be something else. */
const PLAIN = new Set(
  ['scored', 'scuffed', 'broken', 'cracked', 'bent', 'pitted', 'flaked', 'blocked', 'loose', 'particles', 'leaking'].map(
    (id) => `sight-${id}`,
  ),
);

/** Does a pattern need no place to be understood? Those of what the oil carries, which the engine has but once. */
function standsAlone(id: string): boolean {
  return pattern(id)?.parts.every((p) => p === 'debris' || p === 'filter' || p === 'pickup' || p === 'gallery') ?? false;
}

function edgeOf(text: ReadText, clause: Clause): 'front' | 'rear' | null {
  const words = clauseText(text, clause);
  const front = /\b(?:front|nose|timing)\b(?: \w+)? edge|edge (?:at|toward|to) the (?:front|nose)\b/.test(words);
  const rear = /\b(?:rear|flywheel|back|drive)\b(?: \w+)? edge|edge (?:at|toward|to) the (?:rear|back|flywheel)\b/.test(words);
  return front === rear ? null : front ? 'front' : 'rear';
}

/** `grade 3`, `g3`, `(3)` at the end. */
function gradeStated(text: ReadText): { grade: Grade; from: number; to: number } | null {
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

/** Clauses that carry something, and those of them of which nothing was understood. */
function tally(
  text: ReadText,
  clauses: readonly Clause[],
  role: ReadonlyArray<ChipRole | null>,
  notExamined: boolean,
  colon: number,
): { count: number; left: Array<{ from: number; to: number }> } {
  let count = 0;
  const left: Array<{ from: number; to: number }> = [];
  for (const c of clauses) {
    const words = text.words.slice(c.from, c.to);
    // What stands before a colon says what the line is about; it is understood with what follows.
    if (c.to <= colon || words.every((w, i) => role[c.from + i] === 'place' || FILLER.test(w.text))) continue;
    count++;
    const said = role.slice(c.from, c.to);
    if (!notExamined && !said.some((r) => r !== null && r !== 'place' && r !== 'not understood'))
      left.push({ from: words[0]!.from, to: words[words.length - 1]!.to });
  }
  return { count, left };
}

function chipsOf(text: ReadText, role: ReadonlyArray<ChipRole | null>, says: readonly string[]): LineChip[] {
  const chips: LineChip[] = [];
  let open = -1;
  text.words.forEach((w, i) => {
    const r = role[i];
    if (!r) {
      open = -1;
      return;
    }
    const last = chips[open];
    if (last && last.role === r && last.says === says[i]) chips[open] = { ...last, to: w.to };
    else open = chips.push({ from: w.from, to: w.to, role: r, says: says[i]! }) - 1;
  });
  return chips;
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
function merged(findings: readonly NotedFinding[]): NotedFinding[] {
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
