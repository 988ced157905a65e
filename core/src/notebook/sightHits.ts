import { pattern } from '../damage/patterns.js';
import { neutralSight, sightPatterns } from '../damage/sights.js';
import type { PartClass } from '../engine/stations.js';
import { isNegated, sentenceText, type Clause } from './clauses.js';
import { NEUTRAL_SAYINGS, ORDINARY, PATTERN_SAYINGS, SOUND_SAYINGS, type SightWord } from './lexicon/sights.js';
import { matches, type ReadText } from './words.js';

/** A sight that a clause names, as a range of words. */
export interface Hit {
  readonly from: number;
  readonly to: number;
  readonly sight: string;
  readonly grade: SightWord['grade'];
  readonly negated: boolean;
}

/** Can a part of this class show the pattern, or one the neutral sight stands for? */
export function canShow(id: string, part: PartClass): boolean {
  const record = pattern(id);
  return record ? record.parts.includes(part) : sightPatterns(id, part).length > 0;
}

/** Sights of one clause: patterns its parts can show first, then neutral sights; a neutral one that can be but one pattern there is that pattern. */
export function sightHits(
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
  /** Words that say once more what is said already: they are no other sight. */
  const covered: Array<Pick<Hit, 'from' | 'to'>> = [];
  const sentence = sentenceText(text, clause);
  const sound = SOUND_SAYINGS.some((s) => !s.denies && s.says.test(words));
  const ordinary = matches(ORDINARY, words).map((m) => ({ from: wordAt(m.index), to: wordAt(m.index + m.text.length - 1) + 1 }));
  const take = (saying: SightWord, accept: (id: string, from: number, to: number) => string | null): void => {
    for (const m of matches(saying.says, words)) {
      const from = wordAt(m.index);
      const to = wordAt(m.index + m.text.length - 1) + 1;
      if ([...hits, ...covered].some((h) => h.from < to && from < h.to)) continue;
      const sight = accept(saying.sight, from, to);
      if (sight === null) continue;
      if (hits.some((h) => h.sight === sight)) {
        covered.push({ from, to });
        continue;
      }
      if (saying.beside && !saying.beside.test(sentence)) continue;
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
        return possible.size === 1 && PLAIN.has(id) && !parts.has('housing') ? [...possible][0]! : id;
      });
  // A neutral sight beside one of its own patterns says nothing more.
  const named = hits.filter((h) => pattern(h.sight)).map((h) => h.sight);
  return hits.filter((h) => !neutralSight(h.sight)?.patterns.some((p) => named.includes(p)));
}

/** Neutral sights that, where a part can show but one of their patterns, are that pattern (a housing may be of a main or of a rod); colour, dryness and wear may always be something else. */
const PLAIN = new Set(
  ['scored', 'scuffed', 'broken', 'cracked', 'bent', 'pitted', 'flaked', 'blocked', 'loose', 'particles', 'leaking'].map(
    (id) => `sight-${id}`,
  ),
);

/** Does a pattern need no place to be understood? Those of what the oil carries, which the engine has but once. */
function standsAlone(id: string): boolean {
  return pattern(id)?.parts.every((p) => p === 'debris' || p === 'filter' || p === 'pickup' || p === 'gallery') ?? false;
}
