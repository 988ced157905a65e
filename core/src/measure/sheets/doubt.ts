/** Why a reading is held for a second press. */
export interface ReadingDoubt {
  readonly reason: string;
}

/**
 * Should a reading be held for a second press? Held when it looks like a decimal slip (ten or a hundred times off the expected size), is more than 5 % off it (a part ground to its last size is within 3 %), or lies more than
 * three times the neighbours' spread away from them (spread not less than 0.02 mm). `expectedMm` is the specification middle when known.
 */
export function doubtReading(mm: number, neighboursMm: readonly number[], expectedMm?: number): ReadingDoubt | null {
  const mean = neighboursMm.length > 0 ? neighboursMm.reduce((a, b) => a + b, 0) / neighboursMm.length : undefined;
  const reference = expectedMm ?? mean;
  if (reference === undefined || reference <= 0) return null;
  for (const factor of [10, 100, 0.1, 0.01]) {
    if (Math.abs(mm / factor - reference) < reference * 0.02)
      return { reason: `${mm} mm looks like a slipped decimal point: about ${(mm / factor).toFixed(3)} mm is expected here.` };
  }
  if (Math.abs(mm - reference) > reference * 0.05) return { reason: `${mm} mm is far from the ${reference.toFixed(3)} mm expected here.` };
  if (neighboursMm.length < 2 || mean === undefined) return null;
  const spread = Math.max(0.02, Math.max(...neighboursMm) - Math.min(...neighboursMm));
  if (Math.abs(mm - mean) > 3 * spread)
    return {
      reason: `${mm.toFixed(3)} mm is out of family: the other readings lie around ${mean.toFixed(3)} mm within ${spread.toFixed(3)} mm.`,
    };
  return null;
}
