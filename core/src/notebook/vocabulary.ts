import { PATTERNS } from '../damage/patterns.js';
import { NEUTRAL_SIGHTS } from '../damage/sights.js';
import { PART_WORDS } from './lexicon/parts.js';
import { QUANTITY_WORDS } from './lexicon/quantities.js';
import { GRADE_SAYINGS, NEUTRAL_SAYINGS, PATTERN_SAYINGS, SOUND_SAYINGS } from './lexicon/sights.js';
import { TOLD_SAYINGS } from './lexicon/told.js';

/** Whole words that stand in a wording. */
const wordsIn = (source: string): string[] =>
  source
    .replace(/\\[bwds]\S?/g, ' ')
    .replace(/\(\?[:!=]/g, ' ')
    .match(/[a-z]{4,}/g) ?? [];

/** Words of the trade that typing mistakes are mended to: those of the lexicon, of the catalogue and of the parts. */
export const VOCABULARY: ReadonlySet<string> = new Set([
  ...[
    ...PART_WORDS,
    ...PATTERN_SAYINGS,
    ...NEUTRAL_SAYINGS,
    ...SOUND_SAYINGS,
    ...GRADE_SAYINGS,
    ...TOLD_SAYINGS,
    ...QUANTITY_WORDS,
  ].flatMap((w) => wordsIn(w.says.source)),
  ...PATTERNS.flatMap((p) => [p.name, ...p.alsoCalled]).flatMap((name) => wordsIn(name.toLowerCase())),
  ...NEUTRAL_SIGHTS.flatMap((s) => wordsIn(s.name.toLowerCase())),
]);
