import type { JournalSpec } from './journal.js';

/** Least metal taken off each side so that grinding cleans the surface up, mm. */
export const CLEAN_UP_PER_SIDE_MM = 0.025;

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
