import type { JournalSpec } from './journal/journal.js';

/** Steps on diameter listed when nothing else is known, mm; half steps are for the maker's book. */
export const USUAL_STEPS_MM: readonly number[] = [0.25, 0.5, 0.75, 1];

/** Least metal taken off each side so that grinding cleans the surface up, mm. */
const CLEAN_UP_PER_SIDE_MM = 0.025;

/** The next size a journal is ground to, or why there is none. */
export type SizeAnswer =
  | {
      readonly kind: 'size';
      readonly undersizeMm: number;
      readonly finishMinMm: number;
      readonly finishMaxMm: number;
      readonly marginMm: number;
      readonly reason: string;
    }
  | { readonly kind: 'none-left'; readonly reason: string };

/**
 * Next undersize: the smallest step whose finished size (middle of its band) clears the worst reading by the clean-up a side and by twice the deepest
 * measured mark. The margin is what is left beyond the larger of the two, on diameter.
 */
export function nextUndersize(leastMm: number, spec: JournalSpec, deepestMarkMm = 0, cleanUpMm = CLEAN_UP_PER_SIDE_MM): SizeAnswer {
  const need = Math.max(2 * cleanUpMm, 2 * deepestMarkMm);
  const driver =
    deepestMarkMm > cleanUpMm ? `twice the deepest mark (${deepestMarkMm.toFixed(3)} mm)` : `${cleanUpMm.toFixed(3)} mm clean-up a side`;
  const steps = [...spec.undersizesMm].sort((a, b) => a - b);
  for (const step of steps) {
    const middle = (spec.minMm + spec.maxMm) / 2 - step;
    const margin = leastMm - middle - need;
    if (margin > -1e-9)
      return {
        kind: 'size',
        undersizeMm: step,
        finishMinMm: spec.minMm - step,
        finishMaxMm: spec.maxMm - step,
        marginMm: margin,
        reason: `−${step.toFixed(2)} mm finishes at ${middle.toFixed(3)} mm, ${(leastMm - middle).toFixed(3)} mm below the least reading; ${driver} needs ${need.toFixed(3)} mm, so ${margin.toFixed(3)} mm is to spare.`,
      };
  }
  const last = steps.at(-1);
  return {
    kind: 'none-left',
    reason:
      last === undefined
        ? 'No undersizes are listed in the specification.'
        : `None left: even −${last.toFixed(2)} mm leaves less than the ${need.toFixed(3)} mm that ${driver} needs.`,
  };
}

/** Next oversize: the smallest step whose finished size clears the greatest reading by the clean-up a side and by twice the deepest mark. */
export function nextOversize(
  greatestMm: number,
  newMm: { readonly min: number; readonly max: number },
  steps: readonly number[],
  deepestMarkMm = 0,
  cleanUpMm = CLEAN_UP_PER_SIDE_MM,
): { readonly step: number | null; readonly words: string } {
  const need = Math.max(2 * cleanUpMm, 2 * deepestMarkMm);
  for (const step of [...steps].sort((a, b) => a - b)) {
    const finished = (newMm.min + newMm.max) / 2 + step;
    const spare = finished - greatestMm - need;
    if (spare > -1e-9)
      return {
        step,
        words: `Next oversize +${step.toFixed(2)} mm, to ${finished.toFixed(3)} mm; ${spare.toFixed(3)} mm to spare beyond the ${need.toFixed(3)} mm needed.`,
      };
  }
  return { step: null, words: steps.length === 0 ? 'No oversizes are listed.' : 'No oversize is left: sleeve or replace.' };
}
