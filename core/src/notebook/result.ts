import type { EngineLayout } from '../engine/layout.js';
import { QUANTITY_WORDS, type QuantityWord } from './lexicon/quantities.js';
import { numbersOf } from './lexicon/parts.js';
import type { ReadText } from './words.js';

/** What a stated result shows: features found or not there, and the words it was judged by. */
export interface NotedResult {
  readonly name: string;
  readonly shows: ReadonlyArray<{ readonly feature: string; readonly present: boolean }>;
  /** Range of word indices of the quantity and its figures. */
  readonly span: readonly [number, number];
  /** True where figures stand and nothing says what they should be: kept, and judged by nobody. */
  readonly unjudged: boolean;
}

const FIGURE = /[-+]? ?\d+(?:[.,]\d+)*(?:\/\d+)?/g;

const figure = (text: string): number => {
  const [a, b] = text.replace(/ /g, '').replace(',', '.').split('/');
  return b === undefined ? Number(a) : Number(a) / Number(b);
};

/** Figures of a text that state a result; a number of a cylinder ("1 : 24 bar") and how many there are of something are none. */
function figuresOf(text: string): number[] {
  return [...text.matchAll(FIGURE)].flatMap((m) => {
    const after = text.slice(m.index + m[0].length);
    const before = text.slice(0, m.index);
    if (/^ ?:/.test(after) || /^ ?(?:rpm|r\/min|bolts?|places?|h\b|hours?|km\b|miles|degrees c\b)/.test(after)) return [];
    if (
      /(?:\bno|\bnos|\bat|\bmains?|\bpins?|\bpin no|\bnumber|\bto) (?:\d+ (?:,|and|to) )*$/.test(before) &&
      /^ ?(?:,|and|:|rpm)/.test(after)
    )
      return [];
    const value = /^ ?(?:mm )?below\b/.test(after) ? -Math.abs(figure(m[0])) : figure(m[0]);
    return Number.isFinite(value) ? [value] : [];
  });
}

interface Limit {
  readonly lower?: number;
  readonly upper?: number;
}

/** `0.08 to 0.16`, `3.0 min`, `0.20 max`, `under 0.2`, or one figure that is the side this quantity has. */
function limitOf(text: string, quantity: QuantityWord): Limit | null {
  const spelt = text.replace(/(\d) - (\d)/g, '$1 to $2');
  const figures = figuresOf(spelt);
  if (figures.length === 0) return null;
  if (figures.length >= 2 && /\bto\b|\band\b/.test(spelt)) return { lower: Math.min(...figures), upper: Math.max(...figures) };
  const [value] = figures as [number];
  if (/\b(?:min|least|minimum|over|above|at least)\b/.test(text)) return { lower: value };
  if (/\b(?:max|most|maximum|under|below|at most|up to)\b/.test(text)) return { upper: value };
  return quantity.high || quantity.single === 'upper' ? { upper: value } : { lower: value };
}

const UNIT = /\d ?(?:mm|thou|in\b|inch|bar|psi|nm|%|per cent|cst|ppm|degrees|litres?|l\b|ml)/;
const LIMIT_SIGN =
  /\b(?:limits?|should be|book(?: says)?|spec(?:ification)?|allowed|max(?:imum)?|min(?:imum)?|new (?:is |was )?|is right|against)\b/;

/** Results a line states: a quantity, its figures, and the limit where one stands behind them. */
export function notedResult(text: ReadText, layout: EngineLayout): NotedResult | null {
  const joined = text.text.replace(/\( ?(?:grade |g ?)?[0-4] ?\) ?$/, (m) => ' '.repeat(m.length));
  const found = QUANTITY_WORDS.map((q) => ({ q, m: q.says.exec(joined) }))
    .filter((x) => x.m !== null && x.m[0] !== '')
    // A journal is named by its size where nothing else of it was measured.
    .filter((x, _, all) => x.q.name !== 'journal size' || all.every((y) => y.q.name === 'journal size' || y.q.name === 'out of round'))
    // What stands first is what was measured; of two that begin alike the longer.
    .sort(
      (a, b) => a.m!.index - b.m!.index || b.m![0].length - a.m![0].length || QUANTITY_WORDS.indexOf(a.q) - QUANTITY_WORDS.indexOf(b.q),
    )[0];
  if (!found?.m) return null;
  const { q } = found;
  const from = found.m.index;
  const tail = joined.slice(from + found.m[0].length);
  const head = joined.slice(0, from);
  const sign = LIMIT_SIGN.exec(tail);
  const colon = tail.indexOf(':');
  const stated = (sign ? tail.slice(0, sign.index) : tail).slice(colon >= 0 && (!sign || colon < sign.index) ? colon + 1 : 0);
  // Figures that stand before the quantity ("0.31 end float") count where none stand behind it.
  const behind = figuresOf(stated.replace(/\bothers?\b.*$/, ''));
  const values = behind.length > 0 || colon >= 0 || head.includes(':') ? behind : figuresOf(head);
  const words = colon >= 0 || sign ? wordsOf(stated) : null;
  if (values.length === 0 && words === null) return null;
  // A bare small number is a place or a count, not a result.
  const measured = words !== null || sign !== null || q.byCylinder || values.some((v) => !Number.isInteger(v)) || UNIT.test(tail);
  if (!measured) return null;
  const limit = sign ? limitOf(tail.slice(sign.index), q) : null;
  const at = (position: number): number => {
    let k = 0;
    while (k + 1 < text.starts.length && text.starts[k + 1]! <= position) k++;
    return k;
  };
  const span: readonly [number, number] = [at(behind.length > 0 || words ? from : 0), text.words.length];
  const shows: Array<{ feature: string; present: boolean }> = [];
  const show = (feature: string | undefined, present: boolean): void => {
    if (feature && !shows.some((s) => s.feature === feature)) shows.push({ feature, present });
  };
  if (q.byCylinder)
    return { name: q.name, shows: byCylinder(q, stated, values, limit, numbersOf(layout, 'cylinder')), span, unjudged: false };
  const judged = limit !== null && values.length > 0;
  if (!judged && words === 'over') show(q.high ?? q.low, true);
  else if (!judged && words === 'under') show(q.low ?? q.high, true);
  else if (!judged && words === 'within') {
    show(q.high, false);
    show(q.low, false);
  } else if (limit && q.name === 'journal size' && values[0]! < 5) {
    // What is worn off, not the size itself.
    show(q.low, values[0]! > (limit.upper ?? limit.lower ?? Infinity));
  } else if (limit) {
    const beyond = values.some((v) => limit.upper !== undefined && v > limit.upper * 1.0001);
    // A fastener comes undone at somewhat less than it was tightened to.
    const least = q.name === 'break-loose torque' ? 0.65 : 0.9999;
    const short = values.some((v) => limit.lower !== undefined && v < limit.lower * least);
    if (limit.upper !== undefined) show(q.high, beyond);
    if (limit.lower !== undefined) show(q.low, short);
    if (!beyond && !short && limit.upper !== undefined && limit.lower === undefined && !q.high) show(q.low, false);
  }
  // "Top / middle / bottom: 0.080 / 0.078 / 0.028": a bore that is narrow at one height, whatever its limit.
  if (q.name === 'piston clearance' && /\b(?:top|upper)\b.*\b(?:bottom|lower)\b/.test(head + tail) && values.length >= 3)
    show('measured.bore-oval', Math.min(...values) < NARROWED * Math.max(...values));
  return { name: q.name, shows, span, unjudged: shows.length === 0 };
}

/** A bore whose clearance at one height is less than this share of that at another is out of form. Judgement. */
const NARROWED = 0.6;

/** A result in words: over, under, or within what it should be. */
function wordsOf(text: string): 'over' | 'under' | 'within' | null {
  if (
    /\b(?:within|inside (?:the )?(?:figures|limits?)|in limits|on size|good(?! ones)|standard|book length|right length|no offset|none or less than)\b/.test(
      text,
    )
  )
    return /none or less/.test(text) ? 'under' : 'within';
  if (
    /\b(?:over(?: the)?(?: top)?(?: limit)?|too (?:big|large|much|wide)|out of limits?|past (?:the )?limit|late|worn past)\b/.test(text) &&
    !/over (?:nine|\d)/.test(text)
  )
    return 'over';
  if (
    /\b(?:under ?size|under(?= ?(?:$|[;,.)]|\d|limit|nominal|new|spec|the (?:limit|figure|spec)))|below(?! (?:the )?(?:top|deck|ridge|marks?|edge))|too (?:small|little|tight|low)|short)\b/.test(
      text,
    )
  )
    return 'under';
  return null;
}

/** Compression and leak-down a cylinder: which are far from the best. */
function byCylinder(
  q: QuantityWord,
  text: string,
  values: readonly number[],
  limit: Limit | null,
  cylinders: number,
): Array<{ feature: string; present: boolean }> {
  const series = new Map<number, number>();
  for (const m of text.matchAll(/((?:\d+ ?(?:,|and|to|&) ?)*\d+) ?: ?(\d+(?:\.\d+)?)(?: to (\d+(?:\.\d+)?))?/g)) {
    const value = m[3] === undefined ? Number(m[2]) : (Number(m[2]) + Number(m[3])) / 2;
    const range = /^(\d+) to (\d+)$/.exec(m[1]!.trim());
    const numbers = range
      ? Array.from({ length: Number(range[2]) - Number(range[1]) + 1 }, (_, i) => Number(range[1]) + i)
      : [...m[1]!.matchAll(/\d+/g)].map((d) => Number(d[0]));
    for (const n of numbers) if (n >= 1 && n <= cylinders) series.set(n, value);
  }
  if (series.size === 0 && values.length === cylinders) values.forEach((v, i) => series.set(i + 1, v));
  const alike = /\b(?:all (?:four|six|eight|alike|five|three)|fair all|even)\b/.test(text);
  if (series.size < 2) {
    if (!alike) return [];
    const low = limit?.lower ?? limit?.upper;
    return [
      { feature: 'measured.compression-one-low', present: false },
      ...(low !== undefined && values.length > 0
        ? [{ feature: 'measured.compression-all-low', present: Math.max(...values) < low * 0.88 }]
        : []),
    ];
  }
  const leak = q.name === 'leak-down';
  const all = [...series.values()];
  const best = leak ? Math.min(...all) : Math.max(...all);
  const bad = [...series].filter(([, v]) => (leak ? v >= 20 && v > best * 1.7 : v < best * 0.8)).map(([n]) => n);
  const shows: Array<{ feature: string; present: boolean }> = [];
  if (bad.length === 0 || bad.length === series.size) shows.push({ feature: 'measured.compression-one-low', present: false });
  else if (bad.length === 1) shows.push({ feature: 'measured.compression-one-low', present: true });
  else if (bad.length === 2 && Math.abs(bad[0]! - bad[1]!) === 1)
    shows.push({ feature: 'measured.compression-adjacent-low', present: true });
  else shows.push({ feature: 'measured.compression-one-low', present: true });
  const low = limit?.lower ?? limit?.upper;
  if (!leak && low !== undefined) shows.push({ feature: 'measured.compression-all-low', present: Math.max(...all) < low * 0.88 });
  return shows;
}
