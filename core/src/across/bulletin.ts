import { cause } from '../cause/data/causes.js';
import { feature } from '../cause/data/features.js';
import { percentText } from '../cause/percent.js';
import { STRENGTH } from '../cause/types.js';
import { PART_NAMES } from '../engine/stations.js';
import { ENOUGH, type FamilyStatistics } from './statistics.js';

/** A look that is worth its minutes in this kind of engine. */
interface FirstLook {
  /** What is looked for, and how. */
  readonly sign: string;
  readonly step: string;
  readonly minutes: number;
  /** Cause it tells of. */
  readonly cause: string;
}

/** What to look at first in a kind of engine, made from its cases; they are named by number and nothing else. */
export interface Bulletin {
  readonly title: string;
  readonly lines: readonly string[];
  readonly looks: readonly FirstLook[];
}

/** Causes a bulletin tells of, and looks to each. */
const TOLD = 4;
const LOOKS_EACH = 3;
/** Parts it names. */
const PARTS = 5;

/** Null where too few cases have a cause: nothing is made of nothing. */
export function bulletinOf(family: FamilyStatistics, numberOf: (id: string) => string): Bulletin | null {
  if (family.judged < ENOUGH) return null;
  // What came once is no habit.
  const often = family.causes.filter((c) => c.k >= 2).slice(0, TOLD);
  const numbers = (ids: readonly string[]): string => ids.map(numberOf).sort().join(', ');
  const seen = new Set<string>();
  const looks = often.flatMap(({ key }) =>
    (cause(key)?.links ?? [])
      .flatMap((l) => {
        const f = feature(l.feature);
        return f && !l.prevents && !f.likened && STRENGTH[l.strength] >= STRENGTH.usually
          ? [{ f, worth: STRENGTH[l.strength] / f.check.minutes }]
          : [];
      })
      .sort((a, b) => b.worth - a.worth)
      .filter(({ f }) => !seen.has(f.check.step) && seen.add(f.check.step))
      .slice(0, LOOKS_EACH)
      .map(({ f }): FirstLook => ({ sign: f.name, step: f.check.step, minutes: f.check.minutes, cause: cause(key)!.name })),
  );
  return {
    title: `${family.name}: what to look at first`,
    looks,
    lines: [
      `Made from ${family.judged} cases with a cause, of ${family.cases}.`,
      ...often.map(
        (c) =>
          `${cause(c.key)?.name ?? c.key}: ${c.k} of ${c.n} (${percentText(c.low)} to ${percentText(c.high)}); cases ${numbers(c.cases)}.`,
      ),
      ...(often.length === 0 ? ['No cause came twice: there is no habit to speak of.'] : []),
      ...family.parts
        .slice(0, PARTS)
        .map((p) => `${PART_NAMES[p.key as keyof typeof PART_NAMES] ?? p.key}: of grade 2 or more in ${p.k} of ${p.n}.`),
      'It says where to begin, and is no evidence in any case.',
    ],
  };
}
