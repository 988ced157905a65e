import { pattern, decidingObservation } from '../damage/patterns.js';
import { seeded } from '../kit/seeded.js';
import { RECIPES, SEVERITIES, SEVERITY_WORDS, type Recipe, type Severity } from '../specimen/recipes.js';

/** What a drill asks of a specimen: what it is, which of two that are mistaken for each other, how far it has gone. */
type DrillKind = 'name' | 'which' | 'far';

/** A question that comes again until it sits. */
export interface DrillCard {
  readonly id: string;
  readonly kind: DrillKind;
  readonly pattern: string;
  /** What it is mistaken for; of `which` only. */
  readonly rival: string | null;
  /** When it is first asked: patterns that are met daily before rare ones, look-alikes once both are known by name. */
  readonly level: number;
}

/** A specimen with its question. */
export interface Drill {
  readonly card: DrillCard;
  readonly seed: number;
  readonly shown: Recipe;
  readonly severity: Severity;
  readonly question: string;
  readonly options: ReadonlyArray<{ readonly id: string; readonly label: string }>;
  readonly right: string;
}

const painted = new Map(RECIPES.filter((r) => pattern(r.pattern)).map((r) => [r.pattern, r]));
/** Pairs that are mistaken for each other and can both be painted on one form of part. */
const pairs = [...painted.values()].flatMap((r) =>
  pattern(r.pattern)!.lookAlikes.flatMap((l) => {
    const other = painted.get(l.pattern);
    return other && other.form === r.form && r.pattern < other.pattern ? [[r.pattern, other.pattern] as const] : [];
  }),
);

/** How many cards a level holds. */
const PER_LEVEL = 12;

/** Every card there is, in the order they are met. */
export const DRILL_CARDS: readonly DrillCard[] = orderedCards();

function orderedCards(): DrillCard[] {
  // Shells first, then what turns in them, then the rest: as an apprentice meets them.
  const order = [...painted.values()];
  // A name is asked where there is another to take it for.
  const names = order
    .filter((r) => order.some((o) => o !== r && o.form === r.form))
    .map((r): Omit<DrillCard, 'level'> => ({ id: `name:${r.pattern}`, kind: 'name', pattern: r.pattern, rival: null }));
  const far = order
    .filter((r) => !r.debris && names.some((n) => n.pattern === r.pattern) && JSON.stringify(r.damages(1)) !== JSON.stringify(r.damages(3)))
    .map((r): Omit<DrillCard, 'level'> => ({ id: `far:${r.pattern}`, kind: 'far', pattern: r.pattern, rival: null }));
  const both = pairs.flatMap(([a, b]): Array<Omit<DrillCard, 'level'>> => [
    { id: `which:${a}~${b}`, kind: 'which', pattern: a, rival: b },
    { id: `which:${b}~${a}`, kind: 'which', pattern: b, rival: a },
  ]);
  const cards: Array<Omit<DrillCard, 'level'>> = [];
  const known = new Set<string>();
  for (const card of names) {
    cards.push(card);
    known.add(card.pattern);
    cards.push(
      ...both.filter((w) => known.has(w.pattern) && known.has(w.rival!) && (w.pattern === card.pattern || w.rival === card.pattern)),
    );
    cards.push(...far.filter((f) => f.pattern === card.pattern));
  }
  return cards.map((card, i) => ({ ...card, level: 1 + Math.floor(i / PER_LEVEL) }));
}

const BY_ID: ReadonlyMap<string, DrillCard> = new Map(DRILL_CARDS.map((c) => [c.id, c]));

export const drillCard = (id: string): DrillCard | undefined => BY_ID.get(id);

/** Names offered beside the right one. */
const OFFERED = 4;

/** The drill of a card for a seed: the same seed makes the same drill for two people. */
export function drillOf(card: DrillCard, seed: number): Drill {
  const random = seeded(seed);
  const shown = painted.get(card.pattern)!;
  const severity = SEVERITIES[Math.floor(random() * SEVERITIES.length)]!;
  const named = (id: string): { id: string; label: string } => ({ id, label: pattern(id)!.name });
  const base = { card, seed, shown, severity };
  if (card.kind === 'far')
    return {
      ...base,
      question: `${shown.name}: how far has it gone?`,
      options: SEVERITIES.map((s) => ({ id: String(s), label: SEVERITY_WORDS[s] })),
      right: String(severity),
    };
  if (card.kind === 'which')
    return {
      ...base,
      question: 'Which of the two is it?',
      options: shuffled([card.pattern, card.rival!], random).map(named),
      right: card.pattern,
    };
  const alike = pattern(card.pattern)!.lookAlikes.flatMap((l) => (painted.get(l.pattern)?.form === shown.form ? [l.pattern] : []));
  const rest = shuffled(
    [...painted.values()].flatMap((r) =>
      r.form === shown.form && r.pattern !== card.pattern && !alike.includes(r.pattern) ? [r.pattern] : [],
    ),
    random,
  );
  const others = [...shuffled(alike, random), ...rest].slice(0, OFFERED - 1);
  return { ...base, question: 'What is it?', options: shuffled([card.pattern, ...others], random).map(named), right: card.pattern };
}

/** Fisher and Yates. */
function shuffled<T>(all: readonly T[], random: () => number): T[] {
  const out = [...all];
  for (let i = out.length - 1; i > 0; i--) {
    const j = Math.floor(random() * (i + 1));
    [out[i], out[j]] = [out[j]!, out[i]!];
  }
  return out;
}

/** What is to be learnt from an answer: what it looks like and what decides. */
export function drillReason(drill: Drill, given: string): string {
  const record = pattern(drill.card.pattern)!;
  if (drill.card.kind === 'far') return `It is ${SEVERITY_WORDS[drill.severity]}.`;
  const taken = given === drill.right ? (drill.card.rival ?? null) : given;
  const decides = taken ? decidingObservation(drill.right, taken) : null;
  const apart = decides && taken ? ` From ${pattern(taken)!.name.toLowerCase()}: ${decides}` : '';
  return `${record.look}${apart}`;
}
