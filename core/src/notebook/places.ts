import { cylinderPlaces, pinNumber, type EngineLayout } from '../engine/layout.js';
import { matchesStation, stationsOf, type Side, type Station } from '../engine/stations.js';
import { LETTER_PARTS, middleNumbers, numbersOf, PART_WORDS, partWord, type PartWord } from './lexicon/parts.js';
import { NUMBER_WORDS } from '../units/numberWords.js';
import { matches, wordAt, type ReadText } from './words.js';

/** A place as a line names it: the part, the numbers given, and the stations these come to. */
export interface NamedPlace {
  readonly part: PartWord;
  readonly numbers: readonly number[];
  readonly stations: readonly string[];
  /** At how many of them; null: at every one. */
  readonly of: number | null;
  /** Words of the line that name it, as ranges of word indices, ends apart. */
  readonly spans: ReadonlyArray<readonly [number, number]>;
  /** It only says where something else is: "over main 6", "down to the pump". */
  readonly aside: boolean;
  /** The half of a shell that is named with it. */
  readonly half: Half;
  readonly side: Side | null;
}

type Half = 'upper' | 'lower' | null;

/** What a line may leave unsaid. */
export interface NotebookContext {
  /** Numbers that earlier lines named, by part and by how parts are numbered, so that "the others" has a meaning. */
  readonly named?: ReadonlyMap<string, ReadonlySet<number>>;
  /** Station whose page is open: a line that names no place is of it. */
  readonly here?: string | undefined;
}

/** Under what the numbers of a part are remembered for later lines: the part itself first, then what is numbered like it. */
export const namedKeys = (part: PartWord): readonly string[] => [`part ${part.id}`, part.numbered];

/** The place a line is written at, for one that names none. */
export function placeHere(station: string): NamedPlace {
  return {
    part: { id: 'here', says: /$^/, numbered: 'none', stations: [] },
    numbers: [],
    stations: [station],
    of: null,
    spans: [],
    aside: false,
    half: null,
    side: null,
  };
}

const ORDINALS = ['first', 'second', 'third', 'fourth', 'fifth', 'sixth', 'seventh', 'eighth', 'ninth', 'tenth', 'eleventh', 'twelfth'];
const UNIT =
  /^(?:mm|cm|m|bar|psi|kpa|mpa|thou|in|inch|inches|nm|n|lb|ft|kg|g|h|hours?|km|miles?|litres?|liters?|l|ml|cst|ppm|degrees?|deg|c|f|rpm|years?|days?|weeks?|months?|times?|teeth|tooth|bits?|pieces?|strips?|%|per|percent|minutes?|seconds?|fingers?|thirds?|quarters?|halves|of)$/;
/** Words that may stand between a part and its number. */
const BETWEEN =
  /^(?:no|nos|number|numbers|num|nr|#|\.|,|and|&|\+|\/|upper|lower|top|bottom|half|halves|cap|rod|block|side|the|both|in|at|of|over|on|exhaust|inlet|intake|only|also|plus|wear)$/;

interface PartHit {
  readonly part: PartWord;
  readonly from: number;
  readonly to: number;
}

/** Part words of a line, none inside another. */
function partHits(text: ReadText): PartHit[] {
  const hits: PartHit[] = [];
  const taken = new Uint8Array(text.words.length);
  const take = (part: PartWord, from: number, to: number): void => {
    for (let i = from; i < to; i++) if (taken[i]) return;
    taken.fill(1, from, to);
    hits.push({ part, from, to });
  };
  const said = PART_WORDS.flatMap((part) => matches(part.says, text.text).map((m) => ({ part, from: m.index, length: m.text.length })));
  // The longer wording is the more particular: a relief valve is no valve of a cylinder.
  for (const { part, from, length } of said.sort((a, b) => b.length - a.length || PART_WORDS.indexOf(a.part) - PART_WORDS.indexOf(b.part)))
    take(part, wordAt(text, from), wordAt(text, from + length - 1) + 1);
  text.words.forEach((w, i) => {
    const next = text.words[i + 1];
    const letter = LETTER_PARTS[w.text];
    if (letter && next && next.from === w.to && /^\d{1,2}$/.test(next.text)) take(partWord(letter), i, i + 1);
  });
  return hits.sort((a, b) => a.from - b.from);
}

/** A shell whose half is the rod's or the block's is a shell of theirs. */
function partMeant(text: ReadText, hit: PartHit, end: number): PartWord {
  if (hit.part.id !== 'shells') return hit.part;
  const behind = text.words
    .slice(hit.to, Math.min(end, hit.to + 8))
    .map((w) => w.text)
    .join(' ');
  if (/\brod (?:half|halves|side)\b/.test(behind)) return partWord('rod-shell');
  return /\bblock (?:half|halves|side)\b/.test(behind) ? partWord('main-shell') : hit.part;
}

/** Numbers that start at a word: `1`, `1 , 3 and 4`, `1 to 6`, `2 - 4`; with the word after them. Figures with units are none. */
function numbersFrom(text: ReadText, at: number, most: number): { numbers: number[]; to: number } {
  const numbers: number[] = [];
  let i = at;
  let to = at;
  const word = (k: number): string => text.words[k]?.text ?? '';
  const isNumber = (k: number): boolean =>
    /^\d{1,2}$/.test(word(k)) && Number(word(k)) >= 1 && Number(word(k)) <= most && !UNIT.test(word(k + 1));
  while (isNumber(i)) {
    const value = Number(word(i));
    if (/^(?:to|-|–|through)$/.test(word(i + 1)) && isNumber(i + 2) && Number(word(i + 2)) > value) {
      for (let k = value; k <= Number(word(i + 2)); k++) numbers.push(k);
      i += 3;
    } else {
      numbers.push(value);
      i += 1;
    }
    to = i;
    // "1, 2 and no. 4": signs and the words for a number may stand between.
    let next = i;
    while (next < i + 4 && /^(?:,|and|&|\+|\/|with|no|nos|number|\.)$/.test(word(next))) next++;
    if (next > i && /^(?:,|and|&|\+|\/|with)$/.test(word(i)) && isNumber(next)) i = next;
  }
  return { numbers, to };
}

/** Ordinals that start at a word: `second`, `second and fourth`, `second from the rear`; with the word after them. */
function ordinalsFrom(text: ReadText, at: number, most: number): { numbers: number[]; to: number } | null {
  const word = (k: number): string => text.words[k]?.text ?? '';
  const ordinal = (k: number): number => ORDINALS.indexOf(word(k)) + 1;
  const fits = (n: number): boolean => n > 0 && n <= most;
  if (!fits(ordinal(at)) || !/^(?:from|main|one|and|,|:|$)/.test(word(at + 1))) return null;
  const numbers = [ordinal(at)];
  let to = at + 1;
  if (word(to) === 'and' && fits(ordinal(to + 1))) {
    numbers.push(ordinal(to + 1));
    to += 2;
  }
  const far = /^from$/.test(word(to)) && /^the$/.test(word(to + 1)) ? to + 3 : to;
  const fromRear = far > to && /^(?:rear|back|flywheel)$/.test(word(far - 1));
  return { numbers: fromRear ? numbers.map((x) => most + 1 - x) : numbers, to: far };
}

/** Places a line names, in the order they stand. A number alone ("no. 3") belongs to the part before it, else to the one after it. */
export function namedPlaces(text: ReadText, layout: EngineLayout, colon: number, context?: NotebookContext): NamedPlace[] {
  const hits = partHits(text);
  const all = stationsOf(layout);
  const word = (k: number): string => text.words[k]?.text ?? '';
  const places: NamedPlace[] = [];
  const used = new Uint8Array(text.words.length);
  for (const h of hits) used.fill(1, h.from, h.to);
  hits.forEach((said, k) => {
    const hit = { ...said, part: partMeant(text, said, hits[k + 1]?.from ?? text.words.length) };
    const most = numbersOf(layout, hit.part.numbered);
    const spans: Array<readonly [number, number]> = [[hit.from, hit.to]];
    let numbers: number[] = [];
    let of: number | null = null;
    const take = (from: number, to: number): void => {
      spans.push([from, to]);
      used.fill(1, from, to);
    };
    if (most > 0) {
      // After the part, words in between let pass; never past the next part.
      const end = hits[k + 1]?.from ?? text.words.length;
      let i = hit.to;
      while (i < end && i < hit.to + 9 && numbers.length === 0) {
        const got = numbersFrom(text, i, most);
        if (got.numbers.length > 0) {
          numbers = got.numbers;
          take(i, got.to);
          break;
        }
        const ordinal = ordinalsFrom(text, i, most);
        if (ordinal) {
          numbers = ordinal.numbers;
          take(i, ordinal.to);
          break;
        }
        if (!BETWEEN.test(word(i))) break;
        i++;
      }
      // In the head of a line ("liner, water side, 2, thrust side: …") any words may stand between, parts without numbers too.
      const numberedNext = hits.slice(k + 1).find((h) => h.part.numbered !== 'none')?.from ?? text.words.length;
      if (numbers.length === 0 && hit.to <= colon)
        for (let k = hit.to; k < Math.min(numberedNext, colon) && numbers.length === 0; k++) {
          if (used[k]) continue;
          const figures = numbersFrom(text, k, most);
          const got = figures.numbers.length > 0 ? figures : ordinalsFrom(text, k, most);
          if (!got) continue;
          numbers = got.numbers;
          take(k, got.to);
        }
      // Before the part: "no. 2 exhaust valve", "2 and 4 big ends", "second main".
      if (numbers.length === 0) {
        for (let back = hit.from - 1; back >= Math.max(0, hit.from - 7) && !used[back]; back--) {
          const got = numbersFrom(text, back, most);
          if (got.numbers.length > 0 && got.to <= hit.from && text.words.slice(got.to, hit.from).every((w) => BETWEEN.test(w.text))) {
            // The longest run that ends here.
            let first = back;
            while (first > 0 && !used[first - 1] && /^(?:\d{1,2}|,|and|&|to|-|no|nos|\.)$/.test(word(first - 1))) first--;
            while (first < back && !/^\d/.test(word(first))) first++;
            const whole = numbersFrom(text, first, most);
            numbers = whole.to >= got.to ? whole.numbers : got.numbers;
            take(whole.to >= got.to ? first : back, hit.from);
            break;
          }
          const ordinal = ORDINALS.indexOf(word(back)) + 1;
          if (ordinal > 0 && ordinal <= most && back === hit.from - 1) {
            numbers = [ordinal];
            take(back, hit.from);
            break;
          }
          if (!BETWEEN.test(word(back))) break;
        }
      }
      // "No. 2: crown all dents": a number that stands by itself before the part.
      if (numbers.length === 0 && hit.part.numbered === 'cylinder')
        for (let k = hit.from - 1; k > 0 && numbers.length === 0 && !HARD.test(word(k)); k--) {
          if (used[k] || !/^(?:\.|no|nos)$/.test(word(k - 1))) continue;
          const got = numbersFrom(text, k, most);
          if (got.numbers.length > 0) {
            numbers = got.numbers;
            spans.push([k, got.to]);
          }
        }
      const near = text.words
        .slice(Math.max(0, hit.from - 5), Math.min(end, hit.to + 9))
        .map((w) => w.text)
        .join(' ');
      if (numbers.length === 0) {
        const middle = /\b(?:cent(?:re|er)|middle)\b/.exec(near);
        if (middle && hit.part.numbered !== 'cylinder')
          numbers = middleNumbers(
            layout,
            hit.part.numbered,
            /\b(?:mains|ones|bearings|shells)\b/.test(near) && !/\b(?:centre|center|middle) (?:main|one|bearing)\b/.test(near),
          );
        else if (
          hit.part.numbered === 'main' &&
          /\b(?:front|nose) main\b|\bmain (?:journal |shells? )?(?:at the )?(?:front|nose)\b/.test(near)
        )
          numbers = [1];
        else if (hit.part.numbered === 'main' && /\b(?:rear|back) main\b/.test(near)) numbers = [most];
        else if (most === 2) numbers = ofTwo(text, hit);
      }
      const rest = /\b(?:the )?(?:others?|rest|remaining)\b/.test(near) && numbers.length === 0;
      if (rest) {
        const before = new Set([
          ...(namedKeys(hit.part).flatMap((key) => context?.named?.get(key) ?? [])[0] ?? []),
          ...places.filter((p) => p.part.numbered === hit.part.numbered).flatMap((p) => p.numbers),
        ]);
        numbers = Array.from({ length: most }, (_, i) => i + 1).filter((x) => !before.has(x));
      }
      const few =
        /\b(?:(one|two|three|four|five|six|seven|eight|some|several|most|a few|a couple) of (?:the |them\b|my |its |\w+\b)?|(several|some|two|three)\b(?=[^.;:]*\b(?:not written down|not noted|no numbers|which not|dont remember|cant remember)\b)|(several)\b)/.exec(
          near,
        );
      const open = /\b(?:not written (?:down|which)|numbers? (?:not|un)|cannot say which|dont know which|which one)\b/.test(near);
      if (few && numbers.length === 0) {
        const said = few[1] ?? few[2] ?? few[3] ?? '';
        of = NUMBER_WORDS[said] ?? (said === 'most' ? Math.ceil(most * 0.7) : 2);
      } else if (few?.[1] && NUMBER_WORDS[few[1]] && numbers.length > NUMBER_WORDS[few[1]]!) of = NUMBER_WORDS[few[1]]!;
      else if (open && numbers.length === 0) of = 1;
      // "A piston" of several is one, which one is open; "pistons" are all.
      if (of === null && numbers.length === 0 && most > 1 && isSingular(text, hit) && !/\b(?:all|both|each|every|any)\b/.test(near)) of = 1;
      if (of !== null && of >= most) of = null;
    }
    // "One of the centre" belongs to the place it narrows.
    let narrowed = hit.from;
    while (narrowed > 0 && !used[narrowed - 1] && NARROWS.test(word(narrowed - 1))) narrowed--;
    while (narrowed < hit.from && /^(?:of|the)$/.test(word(narrowed))) narrowed++;
    if (narrowed < hit.from) take(narrowed, hit.from);
    const half = halfOf(text, hit, hits[k + 1]?.from ?? text.words.length);
    const end = hits[k + 1]?.from ?? text.words.length;
    const side = sideOf(text, hit, end);
    if (side) take(side.from, side.to);
    const stations = atSide(stationsAt(all, layout, hit.part, numbers, half), side?.side ?? null, all);
    const aside = ASIDE.test(word(hit.from - 1)) || (/^(?:the|a|its)$/.test(word(hit.from - 1)) && ASIDE.test(word(hit.from - 2)));
    places.push({
      part: hit.part,
      numbers,
      stations,
      of: of === null ? null : Math.min(of, stations.length),
      spans,
      aside,
      half,
      side: side?.side ?? null,
    });
  });
  return places;
}

/** Words before a part that is only where something else lies. */
const ASIDE =
  /^(?:over|under|behind|above|below|beside|near|against|to|toward|towards|into|by|from|facing|opposite|between|round|around|through|of)$/;

/** A part of a part: where the whole was named first, the part of it is what was looked at, under the numbers of the whole. */
const PARTS_OF: Readonly<Record<string, readonly string[]>> = {
  piston: ['crown', 'skirt', 'rings', 'lands', 'underside', 'small-end'],
  crank: ['pin', 'main-journal', 'crank-bolts', 'damper'],
  rod: ['rod-bolts', 'rod-housing', 'small-end', 'rod-shell', 'underside'],
  cylinder: [
    'small-end',
    'rod',
    'rod-shell',
    'pin',
    'guide',
    'cam',
    'jet',
    'lands',
    'bore',
    'piston',
    'crown',
    'skirt',
    'rings',
    'chamber',
    'valve',
  ],
  chamber: ['valve', 'guide', 'gasket'],
  valve: ['guide'],
  timing: ['seal'],
  pan: ['seal'],
  'rod-shell': ['rod-rollers'],
  'main-shell': ['main-rollers', 'main-cap', 'thrust'],
};

/** What a word for many parts is of where one of them is named beside it: "rod bolts whole, nuts tight", "shells, left rod". */
const MEANT_BY: Readonly<Record<string, Readonly<Record<string, string>>>> = {
  shells: {
    'rod-shell': 'rod-shell',
    'main-shell': 'main-shell',
    rod: 'rod-shell',
    'rod-housing': 'rod-shell',
    'main-cap': 'main-shell',
    thrust: 'thrust',
  },
  bolts: { 'rod-bolts': 'rod-bolts', 'main-bolts': 'main-bolts', 'head-bolts': 'head-bolts', 'crank-bolts': 'crank-bolts' },
};

/** Are these only words for many parts, one of which the subject is already? */
export const saysNoOther = (places: readonly NamedPlace[], subject: readonly NamedPlace[]): boolean =>
  places.every((p) => subject.some((s) => MEANT_BY[p.part.id]?.[s.part.id] === s.part.id));

/**
 * Places as one subject: asides fall away, a part of the part before it takes its place. Others stand side by side where they are a list (`listed`); else they only say where the first is.
 */
export function subjectOf(places: readonly NamedPlace[], layout: EngineLayout, listed = true): NamedPlace[] {
  const out: NamedPlace[] = [];
  for (const place of places) {
    const before = out[out.length - 1];
    if (place.aside && out.length > 0) continue;
    if (!before) out.push(place);
    else if (before.part.id === place.part.id && place.numbers.length === 0) continue;
    else if (before.part.id === place.part.id && before.numbers.length === 0)
      out[out.length - 1] = { ...place, spans: [...before.spans, ...place.spans] };
    else if (place.part.id === 'pin' && place.numbers.length > 0 && before.numbers.length === 0 && ON_PINS.has(before.part.id))
      out[out.length - 1] = onPins(before, place, layout);
    else if (MEANT_BY[place.part.id]?.[before.part.id]) continue;
    else if (MEANT_BY[before.part.id]?.[place.part.id])
      out[out.length - 1] = meantBy(before, place, partWord(MEANT_BY[before.part.id]![place.part.id]!), layout);
    else if (PARTS_OF[before.part.id]?.includes(place.part.id)) out[out.length - 1] = numbered(place, before, layout);
    else if (PARTS_OF[place.part.id]?.includes(before.part.id)) out[out.length - 1] = numbered(before, place, layout);
    else if (listed && !(before.part.id === 'elsewhere' && place.numbers.length === 0)) {
      // "Piston 5, crown and skirt": both parts are of the whole.
      const whole = places.find(
        (p) => p.numbers.length > 0 && PARTS_OF[p.part.id]?.includes(before.part.id) && PARTS_OF[p.part.id]?.includes(place.part.id),
      );
      out.push(whole && place.numbers.length === 0 ? numbered(place, whole, layout) : place);
    }
  }
  return out;
}

/** What runs on a crankpin, each of its own where a pin is shared. */
const ON_PINS: ReadonlySet<string> = new Set(['rod', 'rod-shell', 'rod-housing', 'rod-rollers']);

/** "Both rods on pin 2": the parts of the cylinders whose rods that pin carries. */
function onPins(rods: NamedPlace, pin: NamedPlace, layout: EngineLayout): NamedPlace {
  const numbers = cylinderPlaces(layout).flatMap((p) => (pin.numbers.includes(pinNumber(layout, p)) ? [p.cylinder] : []));
  const stations = stationsAt(stationsOf(layout), layout, rods.part, numbers, rods.half);
  const of = rods.of !== null && numbers.length > rods.of ? rods.of : null;
  return { ...rods, numbers, stations, of, spans: [...rods.spans, ...pin.spans] };
}

/** A word for many parts, as the one of them that is named beside it. */
function meantBy(many: NamedPlace, one: NamedPlace, part: PartWord, layout: EngineLayout): NamedPlace {
  return {
    ...one,
    part,
    stations: stationsAt(stationsOf(layout), layout, part, one.numbers, many.half ?? one.half),
    half: many.half ?? one.half,
    spans: [...many.spans, ...one.spans],
  };
}

/** A place under the numbers of another where it has none of its own. */
function numbered(place: NamedPlace, from: NamedPlace, layout: EngineLayout): NamedPlace {
  if (place.numbers.length > 0 || from.numbers.length === 0 || place.part.numbered === 'none')
    return { ...place, of: from.numbers.length > 0 ? from.of : (place.of ?? from.of), spans: [...from.spans, ...place.spans] };
  return {
    ...place,
    numbers: from.numbers,
    stations: atSide(stationsAt(stationsOf(layout), layout, place.part, from.numbers, null), place.side ?? from.side, stationsOf(layout)),
    of: from.of,
    spans: [...from.spans, ...place.spans],
  };
}

/** Of two: "left rod", "rod, left:"; the right of "gaps right" is no side. */
function ofTwo(text: ReadText, hit: PartHit): number[] {
  const word = (k: number): string => text.words[k]?.text ?? '';
  const behind = word(hit.to) === ',' ? hit.to + 1 : hit.to;
  const side = /^(?:left|right)$/.test(word(hit.from - 1))
    ? word(hit.from - 1)
    : /^(?:left|right)$/.test(word(behind)) &&
        (word(behind + 1) === ':' || word(behind + 1) === ',' || /^(?:side|hand|bank)$/.test(word(behind + 1)))
      ? word(behind)
      : '';
  return side === '' ? [] : [side === 'left' ? 1 : 2];
}

/** Words before a part that say which, or how many, of its places. */
const NARROWS =
  /^(?:one|two|three|four|five|six|some|several|most|few|couple|a|of|the|my|centre|center|middle|front|rear|left|right|upper|lower|other|others|rest|remaining|all|both|each|every)$/;

/** A sentence ends here; the point of "no." ends none. */
const HARD = /^;$/;

/** Is one of several meant? Words for parts that have one form, and what is spoken of as a kind, are not. */
function isSingular(text: ReadText, hit: PartHit): boolean {
  const last = text.words[hit.to - 1]!.text;
  return (
    !/s$/.test(last) &&
    !/^(?:hatch|honing|hone|pattern|crosshatch|pack|deck|crank|crankshaft|camshaft|cam|metal)$/.test(last) &&
    hit.part.id !== 'gasket'
  );
}

/** The half of a shell that is named about a part: the rod's or the block's half is the upper, the cap's the lower. */
function halfOf(text: ReadText, hit: PartHit, end: number): Half {
  const near = text.words
    .slice(Math.max(0, hit.from - 4), Math.min(end, hit.to + 12))
    .map((w) => w.text)
    .join(' ');
  if (/\b(?:both halves|both shells|upper and lower|uppers? and lowers?|top and bottom)\b/.test(near)) return null;
  const upper = /\b(?:uppers?|top half|rod (?:half|halves|side)|block (?:half|halves|side)|upper halves|case half)\b/.test(near);
  const lower = /\b(?:lowers?|bottom half|cap (?:half|halves|side)|lower halves)\b/.test(near);
  return upper === lower ? null : upper ? 'upper' : 'lower';
}

/** Sides as they are called, the longer before the shorter. */
const SIDES_SAID: ReadonlyArray<readonly [RegExp, Side]> = [
  [/^(?:anti ?thrust|non ?thrust|minor thrust)(?: side| face| corner)?/, 'antithrust'],
  [/^(?:major )?thrust (?:side|face|corner)/, 'thrust'],
  [/^(?:exhaust|ex) (?:side|port side|corner)/, 'exhaust'],
  [/^(?:inlet|intake) (?:side|port side|corner)/, 'inlet'],
  [/^front corner/, 'front'],
  [/^(?:rear|back) corner/, 'rear'],
];

/** The side of a piston or of its rings that is named beside it. */
function sideOf(text: ReadText, hit: PartHit, end: number): { side: Side; from: number; to: number } | null {
  if (!/^(?:skirt|piston|rings)$/.test(hit.part.id)) return null;
  for (let i = Math.max(0, hit.from - 3); i < Math.min(end, hit.to + 6); i++) {
    if (i >= hit.from && i < hit.to) continue;
    const words = text.words.slice(i, Math.min(i + 3, i < hit.from ? hit.from : end)).map((w) => w.text);
    for (const [says, side] of SIDES_SAID) {
      const said = says.exec(words.join(' '))?.[0];
      if (said) return { side, from: i, to: i + said.split(' ').length };
    }
  }
  return null;
}

/** Stations narrowed to a side: the skirt's or the corner of the rings where this engine has it, else as they are. */
function atSide(stations: readonly string[], side: Side | null, all: readonly Station[]): string[] {
  if (side === null) return [...stations];
  const units = new Set(all.filter((s) => stations.includes(s.id)).map((s) => s.unit));
  const own = all.filter((s) => units.has(s.unit) && s.side === side && (s.part === 'skirt' || s.part === 'rings')).map((s) => s.id);
  return own.length > 0 ? own : [...stations];
}

function stationsAt(all: readonly Station[], layout: EngineLayout, part: PartWord, numbers: readonly number[], half: Half): string[] {
  const most = Math.max(layout.mains, numbersOf(layout, 'pin'), layout.cylinders);
  const every = Array.from({ length: most }, (_, i) => i + 1);
  const globs = part.stations.flatMap((glob) => {
    const at = glob.replace('.T.', `.${layout.thrustMain}.`);
    return at.includes('#') ? (numbers.length > 0 ? numbers : every).map((n) => at.replace('#', String(n))) : [at];
  });
  return all
    .filter((s) => globs.some((g) => matchesStation(g, s.id)) && (half === null || s.half === null || s.half === half))
    .map((s) => s.id);
}
