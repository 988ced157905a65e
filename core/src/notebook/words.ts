import { distance } from 'fastest-levenshtein';

/** A word, figure or sign of a line with where it stands in it. */
interface Word {
  /** As it is read: lower case, mended where it was mistyped. */
  readonly text: string;
  readonly from: number;
  readonly to: number;
  /** True where a typing mistake was mended. */
  readonly mended: boolean;
}

/** A line as it is read: its words, and the words joined by single blanks with where each begins in that text. */
export interface ReadText {
  readonly words: readonly Word[];
  readonly text: string;
  readonly starts: readonly number[];
}

const PIECE = /\d+(?:[.,]\d+)*(?:\/\d+)?|[\p{L}]+(?:['’][\p{L}]+)?|[^\s\p{L}\d]/gu;

/** Splits a line into words, figures and signs; hyphens between words fall away. `vocabulary` holds the words typing mistakes are mended to. */
export function readText(line: string, vocabulary: ReadonlySet<string>): ReadText {
  const words: Word[] = [];
  for (const piece of line.matchAll(PIECE)) {
    const from = piece.index;
    const raw = piece[0].toLowerCase().replace(/[’]/g, "'");
    if (/^[-–—]$/.test(raw) && /[\p{L}]/u.test(line[from - 1] ?? '') && /[\p{L}]/u.test(line[from + 1] ?? '')) continue;
    const text = mended(raw.replace(/'/g, ''), vocabulary);
    words.push({ text, from, to: from + piece[0].length, mended: text !== raw.replace(/'/g, '') });
  }
  const starts: number[] = [];
  let text = '';
  for (const word of words) {
    if (text !== '') text += ' ';
    starts.push(text.length);
    text += word.text;
  }
  return { words, text, starts };
}

/** Index of the word at which a position of the joined text lies. */
export function wordAt(text: ReadText, position: number): number {
  let low = 0;
  let high = text.starts.length - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (text.starts[middle]! <= position) low = middle;
    else high = middle - 1;
  }
  return low;
}

const lists = new WeakMap<ReadonlySet<string>, ReadonlyMap<number, readonly string[]>>();
const answers = new WeakMap<ReadonlySet<string>, Map<string, string>>();

function byLength(vocabulary: ReadonlySet<string>): ReadonlyMap<number, readonly string[]> {
  const held = lists.get(vocabulary);
  if (held) return held;
  const made = new Map<number, string[]>();
  for (const word of vocabulary) made.set(word.length, [...(made.get(word.length) ?? []), word]);
  lists.set(vocabulary, made);
  return made;
}

/** Letters at which a slip of one letter is mended, and at which two letters changed over are: shorter words are too often other words. */
const LONG = 7;
const MIDDLING = 5;

/**
 * The word that was meant, for the slips that typing makes: two letters changed over, and in longer words one letter too many, missing, or a vowel for another. The word itself where it
 * is known, or another form of a known word, or where none is so near.
 */
function mended(word: string, vocabulary: ReadonlySet<string>): string {
  if (word.length < MIDDLING || !/^[a-z]+$/.test(word) || vocabulary.has(word)) return word;
  const stem = word.replace(/(ing|ed|es|s|ly|er|est|y|e)$/, '');
  if ([stem, `${stem}e`, `${stem}s`, `${stem}ed`, `${word}s`, `${word}ed`].some((form) => vocabulary.has(form))) return word;
  const known = answers.get(vocabulary) ?? new Map<string, string>();
  answers.set(vocabulary, known);
  const held = known.get(word);
  if (held !== undefined) return held;
  const near = [-1, 0, 1].flatMap((d) => byLength(vocabulary).get(word.length + d) ?? []).filter((v) => v[0] === word[0]);
  const answer = near.find((v) => changedOver(word, v)) ?? (word.length >= LONG ? near.find((v) => oneSlip(word, v)) : undefined) ?? word;
  known.set(word, answer);
  return answer;
}

/** Two neighbouring letters changed over (Damerau 1964). */
function changedOver(word: string, other: string): boolean {
  if (word.length !== other.length) return false;
  const at = [...word].findIndex((letter, i) => letter !== other[i]);
  return at >= 0 && word[at] === other[at + 1] && word[at + 1] === other[at] && word.slice(at + 2) === other.slice(at + 2);
}

/** One letter too many or missing within the word, or one vowel for another (Levenshtein 1966); endings are no slips. */
function oneSlip(word: string, other: string): boolean {
  if (word.slice(-2) !== other.slice(-2) || distance(word, other) !== 1) return false;
  const at = [...word].findIndex((letter, i) => letter !== other[i]);
  return word.length !== other.length || (/[aeiou]/.test(word[at]!) && /[aeiou]/.test(other[at]!));
}

const global = new WeakMap<RegExp, RegExp>();

/** Every match of a wording in a text, from left to right. */
export function matches(says: RegExp, text: string): Array<{ readonly index: number; readonly text: string }> {
  let all = global.get(says);
  if (!all) global.set(says, (all = new RegExp(says.source, 'g')));
  const found: Array<{ index: number; text: string }> = [];
  all.lastIndex = 0;
  for (let m = all.exec(text); m; m = all.exec(text)) {
    if (m[0] === '') all.lastIndex++;
    else found.push({ index: m.index, text: m[0] });
  }
  return found;
}
