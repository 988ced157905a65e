import { cause, isListed } from '../cause/data/causes.js';
import type { RankedCause } from './diagnose.js';
import { percentText } from '../cause/percent.js';
import type { Mechanism } from '../cause/types.js';

type EndingKind =
  | 'cause found'
  | 'two or more independent causes'
  | 'mechanism known, origin not'
  | 'most likely, not proven'
  | 'not determined'
  | 'no failure found';

export interface Ending {
  readonly kind: EndingKind;
  readonly sentence: string;
}

/**
 * Thresholds of the endings, as data. Probabilities are means over the draws of the table; `foundLow` is the 10 % quantile that a found cause must hold, so that one author's figures alone never
 * make a certainty.
 */
const ENDING_THRESHOLDS = {
  found: 0.75,
  foundLow: 0.5,
  second: 0.45,
  several: 0.6,
  mechanism: 0.8,
  likely: 0.4,
  leastEvidence: 4,
  /** Share of the engine, or of its running surfaces, below which nothing is found, however likely. Judgement. */
  leastExamined: 0.15,
  /** Share of the engine from which on a found cause needs no word on how little it rests on. Judgement. */
  mostlyExamined: 0.5,
  healthyCoverage: 0.6,
} as const;

/** Mechanisms that describe the wreck and not how it came about. */
const SAYS_LITTLE: readonly Mechanism[] = ['unknown', 'ordinary wear', 'part broken and flailing'];

/** The honest ending of a case as it stands. */
export function endingOf(input: {
  ranked: readonly RankedCause[];
  sets: ReadonlyArray<{ readonly causes: readonly string[]; readonly probability: number }>;
  mechanisms: ReadonlyArray<{ readonly mechanism: Mechanism; readonly probability: number }>;
  examinedShare: number;
  /** Share of the running surfaces that was examined. */
  runningShare: number;
  worstGrade: number;
  /** Findings of grade 3 or more that no believed cause accounts for. */
  unexplained: number;
  /** Names of findings that would tell the leading cause and whose places are gone. */
  gone: readonly string[];
  evidenceCount: number;
}): Ending {
  const T = ENDING_THRESHOLDS;
  const real = input.ranked.filter((c) => isListed(c.id));
  const [first] = real;
  const ordinary = first !== undefined && cause(first.id)?.ordinary === true;
  if (input.worstGrade <= 1 && input.runningShare >= T.healthyCoverage && (!first || ordinary || first.probability < T.found))
    return {
      kind: 'no failure found',
      sentence: `${percentText(input.examinedShare)} of the engine was examined and nothing of grade 2 or more was found.`,
    };
  if (!first || input.evidenceCount < T.leastEvidence)
    return {
      kind: 'not determined',
      sentence: `Only ${input.evidenceCount} pieces of evidence weigh so far; that is too few to name a cause.`,
    };
  const likely = first.probability >= T.found && first.low >= T.foundLow;
  const examined = Math.max(input.examinedShare, input.runningShare);
  const firm = likely && examined >= T.leastExamined;
  const beside = foundBeside(real).filter((c) => !cause(c.id)?.ordinary && !cause(c.id)?.follows);
  if (first.probability >= T.several && cause(first.id)?.several)
    return {
      kind: 'two or more independent causes',
      sentence: `${first.name}: ${rangeText(first)}. They have nothing to do with each other.`,
    };
  if (firm && beside[0])
    return {
      kind: 'two or more independent causes',
      sentence: `${first.name} (${rangeText(first)}) and ${beside.map((c) => `${c.name.toLowerCase()} (${rangeText(c)})`).join(', ')} are needed to account for what was found.`,
    };
  if (firm && input.unexplained === 0 && input.gone.length === 0)
    return {
      kind: 'cause found',
      sentence: `${first.name}: ${first.range}, ${rangeText(first)}${input.examinedShare < T.mostlyExamined ? `; it rests on the ${percentText(input.examinedShare)} of the engine that was examined` : ''}.`,
    };
  const mechanism = input.mechanisms.find((m) => !SAYS_LITTLE.includes(m.mechanism));
  if (mechanism && mechanism.probability >= T.mechanism && first.probability < T.likely)
    return {
      kind: 'mechanism known, origin not',
      sentence: `What happened is known (${mechanism.mechanism}, ${percentText(mechanism.probability)}); why it happened is open between ${real
        .slice(0, 3)
        .map((c) => c.name.toLowerCase())
        .join(', ')}.`,
    };
  if (first.probability >= T.likely)
    return {
      kind: 'most likely, not proven',
      sentence: `${first.name} is the most likely cause (${rangeText(first)}), not proven${likely ? `: ${whyNotProven({ ...input, examined: firm ? null : examined })}` : ''}.`,
    };
  return {
    kind: 'not determined',
    sentence: `No cause reaches ${percentText(T.likely)}; the leading one is ${first.name.toLowerCase()} (${rangeText(first)}).`,
  };
}

function whyNotProven({ unexplained, gone, examined }: { unexplained: number; gone: readonly string[]; examined: number | null }): string {
  return [
    ...(examined !== null ? [`only ${percentText(examined)} was examined`] : []),
    ...(unexplained > 0 ? [`${unexplained} finding${unexplained === 1 ? ' is' : 's are'} not accounted for`] : []),
    ...(gone.length > 0 ? [`what would tell is gone (${gone.map((name) => name.toLowerCase()).join(', ')})`] : []),
  ].join('; ');
}

/** The 10–90 % range of a probability in whole percent, as "38–81"; empty where both ends are the same. */
export function drawnRangeText(c: Pick<RankedCause, 'low' | 'high'>): string {
  const end = (p: number): string => (p > 0.995 ? '>99' : p < 0.005 ? '<1' : String(Math.round(p * 100)));
  return end(c.low) === end(c.high) ? '' : `${end(c.low)}–${end(c.high)}`;
}

/** A probability with its 10–90 % range, as "62 %, 38–81". */
export function rangeText(c: Pick<RankedCause, 'probability' | 'low' | 'high'>): string {
  return [percentText(c.probability), drawnRangeText(c)].filter(Boolean).join(', ');
}

/** Causes likely enough to be at work beside the first of the list, in its order. */
export function foundBeside(ranked: readonly RankedCause[]): RankedCause[] {
  const [first, ...rest] = ranked.filter((c) => isListed(c.id));
  return first ? rest.filter((c) => c.probability >= ENDING_THRESHOLDS.second) : [];
}
