/** Where a row of figures changes its level. */
export interface ChangePoint {
  /** Figures before the change. */
  readonly after: number;
  /** Chance of as large a change in a row that does not change. */
  readonly p: number;
}

/**
 * The one change of level in a row of figures that shows most (Pettitt, Applied Statistics 28, 1979): by ranks alone, so that no form of scatter is assumed. p ≈ 2 exp(−6 K² / (n³ + n²)). Null where p is above `most`.
 */
export function changePoint(values: readonly number[], most = 0.05): ChangePoint | null {
  const n = values.length;
  let [u, best, after] = [0, 0, 0];
  for (let t = 0; t < n - 1; t++) {
    for (const v of values) u += Math.sign(values[t]! - v);
    if (Math.abs(u) > Math.abs(best)) [best, after] = [u, t + 1];
  }
  const p = Math.min(1, 2 * Math.exp((-6 * best * best) / (n ** 3 + n ** 2)));
  return n < 4 || p > most ? null : { after, p };
}
