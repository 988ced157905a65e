import type { EntryBodies } from '../entries/entries.js';
import type { Sourced } from '../ledger/state.js';
import { NUMBER_WORDS } from '../units/numberWords.js';
import type { ReportBlock, ReportSection } from './blocks.js';

/** A figure in words: number, and the unit or the word that makes it one kind of figure. */
export interface Figure {
  readonly text: string;
  readonly value: number;
  readonly unit: string;
}

const FIGURE =
  /(?:(?<before>grade|cylinder|rod|main|pin|bore|piston|cap|version|stage)\s+)?(?<![\w.,-])(?<number>[-−]?\d+(?:[  ]\d{3})*(?:[.,]\d+)?)(?:\s?(?<unit>%|mm|µm|um|N·m|Nm|bar|kPa|°C|°|decibans?|hours?|h|days?|min|km|EUR|entries|places)(?![A-Za-z]))?/giu;
const UNITS: Readonly<Record<string, string>> = {
  um: 'µm',
  nm: 'N·m',
  'n·m': 'N·m',
  '°c': '°C',
  kpa: 'kPa',
  eur: 'EUR',
  hour: 'h',
  hours: 'h',
  day: 'days',
  deciban: 'decibans',
};

/** Figures named in a sentence, dates left whole. */
export function figuresIn(sentence: string): Figure[] {
  const bare = sentence.replace(/\b\d{4}-\d{2}(?:-\d{2})?\b/g, (date) => `“${date.replace(/\d/g, 'd')}”`);
  const found: Figure[] = [];
  for (const m of bare.matchAll(FIGURE)) {
    const { before, number, unit } = m.groups as { before?: string; number: string; unit?: string };
    const raw = (unit ?? before ?? '').toLowerCase();
    const value = Number(number.replace('−', '-').replace(/[  ]/g, '').replace(',', '.'));
    if (Number.isFinite(value)) found.push({ text: m[0].trim(), value, unit: UNITS[raw] ?? raw });
  }
  for (const m of bare.matchAll(/\b(one|two|three|four|five|six|seven|eight|nine|ten)\b/gi))
    found.push({ text: m[0], value: NUMBER_WORDS[m[0].toLowerCase()]!, unit: '' });
  return found;
}

const same = (a: Figure, b: Figure): boolean =>
  Math.abs(a.value - b.value) <= 1e-9 && (a.unit === b.unit || a.unit === '' || b.unit === '');

const VERDICTS = ['too close to call', 'out of limit', 'in limit', 'not known'] as const;
/** Words for confidence with how far each reaches, in the order a builder would rank them. */
const CONFIDENCE: ReadonlyArray<readonly [RegExp, number, string]> = [
  [/\b(?:proves?|proven|certainly|definitely|undoubtedly|without (?:a )?doubt|beyond doubt|must have been)\b/i, 5, ''],
  [/\bpractically certain\b/i, 4, 'practically certain'],
  [/\bprobabl[ey]\b|\blikely\b(?<!less likely)(?<!unlikely)/i, 3, 'probable'],
  [/\bpossibl[ey]\b/i, 2, 'possible'],
  [/\bless likely\b/i, 1, 'less likely'],
  [/\bunlikely\b/i, 0, 'unlikely'],
];
const BLAME =
  /\b(?:fault of|at fault|blame[sd]?|negligen\w*|careless\w*|incompeten\w*|guilty|liable|ought to have|should have|sloppy|botched)\b/i;
const NOT_SEEN = /\b(?:not (?:examined|read|measured|known|determined|explained|written)|no check|nothing was|unexplained|no history)\b/i;

function strongest(sentence: string): { level: number; word: string } | null {
  for (const [pattern, level] of CONFIDENCE) {
    const m = pattern.exec(sentence);
    if (m) return { level, word: m[0] };
  }
  return null;
}

/** Words that no account uses, whoever wrote them. */
function wordFlags(sentence: string): string[] {
  const blame = BLAME.exec(sentence);
  return blame ? [`“${blame[0]}” lays blame; an account says what was found`] : [];
}

/**
 * What an edited sentence says that the figures do not. `known` are the figures of the whole account, so that one may be quoted from another
 * place. Empty when the two agree as far as can be told: figures, verdicts, confidence, what was not seen, blame.
 */
export function sentenceFlags(edited: string, generated: string, known: readonly Figure[]): string[] {
  const flags: string[] = [];
  const was = figuresIn(generated);
  const now = figuresIn(edited);
  const dropped = was.filter((f) => !now.some((g) => same(f, g)));
  for (const f of now) {
    if (was.some((g) => same(f, g))) continue;
    const instead = f.unit === '' ? undefined : dropped.find((g) => g.unit === f.unit);
    if (instead) flags.push(`“${f.text}” stands where the ledger gives ${instead.text}`);
    else if (!known.some((g) => same(f, g))) flags.push(`“${f.text}” follows from nothing that was recorded`);
  }
  for (const verdict of VERDICTS)
    if (edited.toLowerCase().includes(verdict) && !generated.toLowerCase().includes(verdict))
      flags.push(`“${verdict}” is not the verdict of the figures`);
  const said = strongest(edited);
  const carried = strongest(generated);
  if (said && said.level > (carried?.level ?? (said.level >= 5 ? 4 : said.level)))
    flags.push(`“${said.word}” is stronger than the figures${carried ? `: ${carried.word}` : ''}`);
  if (NOT_SEEN.test(generated) && !/\b(?:not|no|nothing|without|un\w+)\b/i.test(edited))
    flags.push('leaves out what was not seen or not known');
  return [...flags, ...wordFlags(edited)];
}

/** Words written by hand beside no generated sentence: every figure must occur in the account. */
export function ownWordFlags(words: string, known: readonly Figure[]): string[] {
  const strange = figuresIn(words).filter((f) => !known.some((g) => same(f, g)));
  return [...strange.filter((f) => f.unit !== '').map((f) => `“${f.text}” follows from nothing that was recorded`), ...wordFlags(words)];
}

function textsOf(block: ReportBlock): readonly string[] {
  switch (block.kind) {
    case 'text':
      return [block.text];
    case 'list':
      return block.items;
    case 'table':
      // A column's unit stands in its head: "Bore, mm" makes the figures under it millimetres.
      return block.rows.flat();
    case 'photo':
    case 'wear':
    case 'drawing':
      return [block.caption];
    case 'plan':
      return [];
  }
}

/** All figures of an account as generated. */
export function figuresOf(sections: readonly ReportSection[]): Figure[] {
  return sections.flatMap((s) => s.blocks.flatMap(textsOf).flatMap(figuresIn));
}

/** Puts edited sentences in place and holds each against the figures. */
export function withEdited(
  sections: readonly ReportSection[],
  sentences: ReadonlyMap<string, Sourced<EntryBodies['sentence-set']>>,
  known: readonly Figure[],
): ReportSection[] {
  if (sentences.size === 0) return [...sections];
  return sections.map((s) => ({
    ...s,
    blocks: s.blocks.map((b): ReportBlock => {
      if (b.kind !== 'text' || b.key === undefined) return b;
      const held = sentences.get(b.key);
      if (!held || held.value.text.trim() === '' || held.value.text === b.text) return b;
      const moved = held.value.generated !== b.text;
      return {
        ...b,
        text: held.value.text,
        edited: {
          generated: b.text,
          flags: [
            ...(moved ? ['the ledger has moved on since it was put in these words'] : []),
            ...sentenceFlags(held.value.text, b.text, known),
          ],
        },
      };
    }),
  }));
}
