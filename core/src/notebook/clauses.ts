import { NEUTRAL_SAYINGS, PATTERN_SAYINGS, SOUND_SAYINGS } from './lexicon/sights.js';
import type { ReadText } from './words.js';

/** What ends a sentence, and what parts it within. */
const HARD_STOP = /^(?:;|\.|but|however|though|while|whereas)$/;
const SOFT_STOP = /^(?:,|:|\(|\))$/;
const NEGATOR = /^(?:no|not|without|none|never|nothing|neither|nor|nobody|cannot|isnt|arent|wasnt|didnt|doesnt)$/;
/** Words that carry no finding of their own: a clause of nothing else needs no understanding. */
export const FILLER =
  /^(?:the|a|an|and|or|of|in|on|at|to|by|with|for|from|it|its|is|are|was|were|be|been|as|has|have|had|there|that|this|these|those|they|them|you|i|we|he|she|his|her|my|same|also|again|still|all|both|each|every|other|others|rest|only|one|two|three|four|five|six|seven|eight|no|nos|number|side|sides|old|new|story|here|where|what|which|can|could|would|then|so|very|quite|rather|than|too|out|up|down|over|under|about|round|off|away|back|just|most|more|less|much|many|some|several|any|when|if|into|onto|through|toward|towards|between|above|below|near|mm|cm|inch|thou|deg|bar|psi|nm|left|right|front|rear|top|bottom|upper|lower|middle|outer|inner|half|halves|end|ends|part|place|places|long|wide|high|deep|thick|seen|felt|measured|told|grade|found|[-–—.,;:()'"%°/+=?!]|\d[\d.,/]*)$/;
/** A stretch of a line between stops, as a range of words. */
export interface Clause {
  readonly from: number;
  readonly to: number;
  /** A stop within the sentence: places before it still hold. */
  readonly soft: boolean;
}

/** The clauses of a line, in order. */
export function clausesOf(text: ReadText): Clause[] {
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

/** Where a clause begins in the joined text, and its words. */
export const clauseStart = (text: ReadText, c: Clause): number => text.starts[c.from] ?? 0;
export const clauseText = (text: ReadText, c: Clause): string =>
  text.words
    .slice(c.from, c.to)
    .map((w) => w.text)
    .join(' ');

/** The words of the sentence a clause stands in. */
export function sentenceText(text: ReadText, c: Clause): string {
  let from = c.from;
  let to = c.to;
  while (from > 0 && !HARD_STOP.test(text.words[from - 1]!.text)) from--;
  while (to < text.words.length && !HARD_STOP.test(text.words[to]!.text)) to++;
  return clauseText(text, { from, to, soft: false });
}

/** Does the stretch between the last stop and this one say anything of the places before it? */
export function clauseSays(text: ReadText, clauses: readonly Clause[], clause: Clause): boolean {
  const before = clauses[clauses.indexOf(clause) - 1];
  if (!before) return false;
  const words = clauseText(text, before);
  return [...PATTERN_SAYINGS, ...NEUTRAL_SAYINGS].some((s) => s.says.test(words)) || SOUND_SAYINGS.some((s) => s.says.test(words));
}

/** Is what starts at a word denied, by a word before it in its clause or at the head of its list? */
export function isNegated(text: ReadText, from: number, clause: Clause): boolean {
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
