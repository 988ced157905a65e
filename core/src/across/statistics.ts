import { agreement, type Agreement } from '../damage/agreement.js';
import type { Grade } from '../damage/classes.js';
import { wilson, type Share } from '../statistics/wilson.js';
import type { CaseFacts } from './facts.js';

/** A case among others. */
export interface CountedCase {
  readonly id: string;
  readonly number: string;
  readonly title: string;
  /** The engine it hangs on; null: none with a record. */
  readonly engine: string | null;
  readonly facts: CaseFacts;
}

/** A share with the cases behind it. */
export interface CountedShare extends Share {
  readonly key: string;
  readonly cases: readonly string[];
}

/** Fewer cases than this make no statistics: they are listed, and nothing is divided by them. */
export const ENOUGH = 5;

/** A kind of engine: what failed in it, and where. */
export interface FamilyStatistics {
  readonly family: string;
  readonly name: string;
  readonly cases: number;
  /** With a cause proved or, while nobody knows better, confirmed. */
  readonly judged: number;
  readonly causes: readonly CountedShare[];
  /** Parts of grade 2 and more, by kind of part. */
  readonly parts: readonly CountedShare[];
}

/** How right a probability was: of cases it was given to, how many were so. */
interface ReliabilityBin extends Share {
  readonly from: number;
  readonly to: number;
  readonly said: number;
}

export interface AcrossStatistics {
  readonly cases: number;
  readonly proven: number;
  readonly families: readonly FamilyStatistics[];
  /** Engines that failed again of the same cause. */
  readonly repeats: ReadonlyArray<{ readonly engine: string; readonly cause: string; readonly cases: readonly string[] }>;
  readonly hands: Agreement;
  readonly reader: Agreement;
  /** Logarithms of what came over what was promised; null under `ENOUGH`. */
  readonly cost: PromiseKept | null;
  readonly days: PromiseKept | null;
  /** Of cases whose cause was proved: how often what was confirmed was so, and how often the program's first. */
  readonly builder: Share;
  readonly program: Share;
  /** Mean logarithm (base 2) of what the program gave to what was proved, bits: 0 is perfect. Null where nothing was proved. */
  readonly logScore: number | null;
  readonly reliability: readonly ReliabilityBin[];
}

/** How estimates were kept: median of what came over what was promised, and the middle four fifths. */
interface PromiseKept {
  readonly n: number;
  readonly median: number;
  readonly low: number;
  readonly high: number;
}

const judged = (f: CaseFacts): readonly string[] => f.proven ?? f.confirmed;

/** Shares of the cases by a key each case may have several of, the commonest first. */
function sharesOf(cases: readonly CountedCase[], keysOf: (c: CountedCase) => readonly string[]): CountedShare[] {
  const by = new Map<string, string[]>();
  for (const c of cases) for (const key of new Set(keysOf(c))) by.set(key, [...(by.get(key) ?? []), c.id]);
  return [...by]
    .map(([key, ids]) => ({ key, cases: ids, ...wilson(ids.length, cases.length) }))
    .sort((a, b) => b.k - a.k || a.key.localeCompare(b.key));
}

const BINS = [0, 0.1, 0.3, 0.5, 0.7, 0.9, 1] as const;
/** A cause the program did not name at all had at most this. */
const UNNAMED = 0.01;

/** Everything that is counted across cases, each figure with its interval and the cases behind it. */
export function acrossStatistics(cases: readonly CountedCase[]): AcrossStatistics {
  const byFamily = groupBy(cases, (c) => c.facts.family);
  const families = [...byFamily].map(([family, all]): FamilyStatistics => {
    const known = all.filter((c) => judged(c.facts).length > 0);
    return {
      family,
      name: all[0]!.facts.familyName,
      cases: all.length,
      judged: known.length,
      causes: sharesOf(known, (c) => judged(c.facts)),
      parts: sharesOf(all, (c) => c.facts.places.map(([, part]) => part)),
    };
  });
  const proven = cases.filter((c) => c.facts.proven !== null);
  const chance = (c: CountedCase, id: string): number => c.facts.program.find(([p]) => p === id)?.[1] ?? UNNAMED;
  const said = proven.flatMap((c) => c.facts.program.map(([id, p]) => ({ p, right: c.facts.proven!.includes(id) })));
  const scores = proven.flatMap((c) => c.facts.proven!.map((id) => Math.log2(chance(c, id))));
  return {
    cases: cases.length,
    proven: proven.length,
    families: families.sort((a, b) => b.cases - a.cases || a.name.localeCompare(b.name)),
    repeats: repeatsOf(cases),
    hands: agreement(cases.flatMap((c) => c.facts.hands as ReadonlyArray<readonly [Grade, Grade]>)),
    reader: agreement(cases.flatMap((c) => c.facts.reader as ReadonlyArray<readonly [Grade, Grade]>)),
    cost: kept(cases.flatMap((c) => (c.facts.cost ? [c.facts.cost] : []))),
    days: kept(cases.flatMap((c) => (c.facts.days ? [c.facts.days] : []))),
    builder: wilson(
      proven.filter((c) => c.facts.confirmed.length > 0 && c.facts.confirmed.every((id) => c.facts.proven!.includes(id))).length,
      proven.filter((c) => c.facts.confirmed.length > 0).length,
    ),
    program: wilson(proven.filter((c) => c.facts.program[0] && c.facts.proven!.includes(c.facts.program[0][0])).length, proven.length),
    logScore: scores.length === 0 ? null : scores.reduce((a, b) => a + b, 0) / scores.length,
    reliability: BINS.slice(0, -1).flatMap((from, i): ReliabilityBin[] => {
      const to = BINS[i + 1]!;
      const own = said.filter((s) => s.p >= from && (s.p < to || to === 1));
      return own.length === 0
        ? []
        : [
            {
              from,
              to,
              said: own.reduce((sum, s) => sum + s.p, 0) / own.length,
              ...wilson(own.filter((s) => s.right).length, own.length),
            },
          ];
    }),
  };
}

function groupBy<T>(all: readonly T[], keyOf: (one: T) => string): Map<string, T[]> {
  const groups = new Map<string, T[]>();
  for (const one of all) groups.set(keyOf(one), [...(groups.get(keyOf(one)) ?? []), one]);
  return groups;
}

function repeatsOf(cases: readonly CountedCase[]): AcrossStatistics['repeats'] {
  const byEngine = groupBy(
    cases.filter((c) => c.engine !== null),
    (c) => c.engine!,
  );
  return [...byEngine].flatMap(([engine, all]) =>
    sharesOf(all, (c) => judged(c.facts))
      .filter((s) => s.k > 1)
      .map((s) => ({ engine, cause: s.key, cases: s.cases })),
  );
}

function kept(pairs: ReadonlyArray<readonly [promised: number, came: number]>): PromiseKept | null {
  const ratios = pairs.flatMap(([promised, came]) => (promised > 0 ? [came / promised] : [])).sort((a, b) => a - b);
  if (ratios.length < ENOUGH) return null;
  const at = (q: number): number => ratios[Math.round(q * (ratios.length - 1))]!;
  return { n: ratios.length, median: at(0.5), low: at(0.1), high: at(0.9) };
}
