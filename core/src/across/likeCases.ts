import { cause } from '../cause/data/causes.js';
import { sightName } from '../damage/sights.js';
import type { CaseFacts } from './facts.js';

/** What of a case is laid beside another: kind of engine, what was found on it, and what it was. */
export type ComparedFacts = Pick<CaseFacts, 'family' | 'patterns' | 'places' | 'confirmed' | 'proven'>;

/** A case that found much the same. */
export interface LikeCase<T> {
  readonly of: T;
  /** 0 nothing in common to 1 the same signs. */
  readonly likeness: number;
  /** Signs both show, the rarest first, in words. */
  readonly shared: readonly string[];
  readonly sameFamily: boolean;
  /** What it was: proved, else confirmed; in words. */
  readonly was: readonly string[];
  readonly proved: boolean;
}

/** Less in common than this is none worth showing; so many are shown. Judgement. */
const ALIKE = 0.12;
const SHOWN = 6;

/** Signs of a case: patterns, and kinds of places hurt to grade 2 or more, whatever their number (`rod.shell.upper`). */
function signsOf(facts: ComparedFacts): Set<string> {
  return new Set([...facts.patterns.map((p) => `pattern ${p}`), ...facts.places.map(([station]) => `place ${kindOfPlace(station)}`)]);
}

/** `rod.2.shell.upper` → `rod shell upper`; the number of a cylinder says nothing in another engine. */
const kindOfPlace = (station: string): string =>
  station
    .split('.')
    .filter((part) => !/^\d+$/.test(part))
    .join(' ');

const wordsOf = (sign: string): string => (sign.startsWith('pattern ') ? sightName(sign.slice(8)).toLowerCase() : sign.slice(6));

/**
 * Cases that found much the same as this one: share of the signs they have in common among all either shows (Jaccard 1901), each weighed by how rare it is among these cases, ln((N + 1) / n)
 * (Spärck Jones 1972), so that what every engine shows makes none alike. A case without a sign is like none.
 */
export function likeCases<T extends { readonly facts: ComparedFacts }>(own: ComparedFacts, others: readonly T[]): Array<LikeCase<T>> {
  const mine = signsOf(own);
  if (mine.size === 0) return [];
  const signs = others.map((o) => signsOf(o.facts));
  const counts = new Map<string, number>();
  for (const set of [mine, ...signs]) for (const s of set) counts.set(s, (counts.get(s) ?? 0) + 1);
  const weight = (s: string): number => Math.log((others.length + 2) / counts.get(s)!);
  const sum = (set: Iterable<string>): number => [...set].reduce((total, s) => total + weight(s), 0);
  return others
    .map((of, i): LikeCase<T> => {
      const theirs = signs[i]!;
      const shared = [...mine].filter((s) => theirs.has(s)).sort((a, b) => weight(b) - weight(a));
      const all = sum(new Set([...mine, ...theirs]));
      const { proven, confirmed, family } = of.facts;
      return {
        of,
        likeness: all > 0 ? sum(shared) / all : 0,
        shared: shared.map(wordsOf),
        sameFamily: family === own.family,
        was: (proven ?? confirmed).map((id) => cause(id)?.name ?? id),
        proved: proven !== null && proven.length > 0,
      };
    })
    .filter((l) => l.likeness >= ALIKE)
    .sort((a, b) => b.likeness - a.likeness || Number(b.sameFamily) - Number(a.sameFamily))
    .slice(0, SHOWN);
}
