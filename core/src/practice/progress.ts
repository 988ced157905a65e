import { createEmptyCard, fsrs, Rating, State, type Card } from 'ts-fsrs';
import { wilson, type Share } from '../statistics/wilson.js';
import { DRILL_CARDS, drillCard, type DrillCard } from './drills.js';

/** An answer to a drill, as it was given. */
export interface DrillAnswer {
  readonly card: string;
  readonly seed: number;
  readonly given: string;
  readonly right: boolean;
  /** Thinking, ms. */
  readonly tookMs: number;
  /** ISO 8601. */
  readonly time: string;
}

/** Longer than this over an answer is hard, ms. Judgement. */
const HARD_MS = 30_000;
/** New cards in a day, and minutes of a day's practice. */
export const NEW_A_DAY = 8;
export const MINUTES_A_DAY = 10;
/** Over one answer nobody thinks longer: the rest of the time he was away, ms. */
const MOST_MS = 120_000;

const schedule = fsrs({ enable_fuzz: false });

/** How a card stands. */
interface Standing {
  readonly card: DrillCard;
  readonly due: string;
  readonly isLearnt: boolean;
  readonly answers: number;
  readonly right: number;
}

/** What somebody has practised. */
export interface DrillProgress {
  readonly standing: ReadonlyMap<string, Standing>;
  /** Card that comes next; null when today's are done. */
  readonly next: DrillCard | null;
  /** Cards due by now and new ones that are still for today. */
  readonly waiting: number;
  readonly answeredToday: number;
  readonly minutesToday: number;
  /** The level the next new card is of. */
  readonly level: number;
  readonly byPattern: ReadonlyArray<Share & { readonly pattern: string }>;
}

/**
 * How somebody stands by all answers he gave, oldest first: when every card comes again follows from its answers alone (FSRS, Ye 2022, by ts-fsrs: wrong is *again*, right after long thinking *hard*, else *good*). Due cards come
 * first, the longest due before; then new ones, a few a day.
 */
export function drillProgress(answers: readonly DrillAnswer[], now: string): DrillProgress {
  const cards = new Map<string, { state: Card; answers: number; right: number }>();
  const byPattern = new Map<string, { k: number; n: number }>();
  const today = now.slice(0, 10);
  const firstOn = new Map<string, string>();
  let [answeredToday, msToday] = [0, 0];
  for (const a of answers) {
    const card = drillCard(a.card);
    if (!card) continue;
    const held = cards.get(a.card) ?? { state: createEmptyCard(new Date(a.time)), answers: 0, right: 0 };
    const rating = a.right ? (a.tookMs > HARD_MS ? Rating.Hard : Rating.Good) : Rating.Again;
    const { card: state } = schedule.next(held.state, new Date(a.time), rating);
    cards.set(a.card, { state, answers: held.answers + 1, right: held.right + (a.right ? 1 : 0) });
    if (!firstOn.has(a.card)) firstOn.set(a.card, a.time.slice(0, 10));
    const p = byPattern.get(card.pattern) ?? { k: 0, n: 0 };
    byPattern.set(card.pattern, { k: p.k + (a.right ? 1 : 0), n: p.n + 1 });
    if (a.time.slice(0, 10) === today) {
      answeredToday++;
      msToday += Math.min(MOST_MS, a.tookMs);
    }
  }
  const standing = new Map(
    [...cards].map(([id, { state, answers: n, right }]): [string, Standing] => [
      id,
      { card: drillCard(id)!, due: state.due.toISOString(), isLearnt: state.state === State.Review, answers: n, right },
    ]),
  );
  const due = [...standing.values()].filter((s) => s.due <= now).sort((a, b) => a.due.localeCompare(b.due));
  const fresh = DRILL_CARDS.filter((c) => !standing.has(c.id));
  const begun = [...firstOn.values()].filter((day) => day === today).length;
  const newLeft = Math.max(0, Math.min(fresh.length, NEW_A_DAY - begun));
  return {
    standing,
    next: due[0]?.card ?? (newLeft > 0 ? fresh[0]! : null),
    waiting: due.length + newLeft,
    answeredToday,
    minutesToday: msToday / 60_000,
    level: fresh[0]?.level ?? DRILL_CARDS.at(-1)!.level,
    byPattern: [...byPattern]
      .map(([pattern, { k, n }]) => ({ pattern, ...wilson(k, n) }))
      .sort((a, b) => a.share - b.share || a.pattern.localeCompare(b.pattern)),
  };
}
