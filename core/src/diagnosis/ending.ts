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

/** Thresholds of the endings, as data. Probabilities are marginals. */
const ENDING_THRESHOLDS = { found: 0.8, second: 0.6, mechanism: 0.8, likely: 0.5, leastEvidence: 4, healthyCoverage: 0.6 } as const;

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
  evidenceCount: number;
}): Ending {
  const T = ENDING_THRESHOLDS;
  const real = input.ranked.filter((c) => isListed(c.id));
  const [first, second] = real;
  const sound = !first || cause(first.id)?.ordinary || first.probability < T.found;
  if (input.worstGrade <= 1 && input.runningShare >= T.healthyCoverage && sound)
    return {
      kind: 'no failure found',
      sentence: `${percentText(input.examinedShare)} of the engine was examined and nothing of grade 2 or more was found.`,
    };
  if (!first || input.evidenceCount < T.leastEvidence)
    return {
      kind: 'not determined',
      sentence: `Only ${input.evidenceCount} pieces of evidence weigh so far; that is too few to name a cause.`,
    };
  if (first.probability >= T.found && second && second.probability >= T.second)
    return {
      kind: 'two or more independent causes',
      sentence: `${first.name} (${percentText(first.probability)}) and ${second.name.toLowerCase()} (${percentText(second.probability)}) are both needed to account for what was found.`,
    };
  if (first.probability >= T.found)
    return { kind: 'cause found', sentence: `${first.name}: ${first.range}, ${percentText(first.probability)}.` };
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
      sentence: `${first.name} is the most likely cause (${percentText(first.probability)}), not proven.`,
    };
  return {
    kind: 'not determined',
    sentence: `No cause reaches ${percentText(T.likely)}; the leading one is ${first.name.toLowerCase()} (${percentText(first.probability)}).`,
  };
}
