/** A share with its interval. */
export interface Share {
  readonly k: number;
  readonly n: number;
  readonly share: number;
  readonly low: number;
  readonly high: number;
}

/** Two-sided 90 %. */
const Z = 1.6448536269514722;

/** A share of n and its 90 % interval (Wilson, Journal of the American Statistical Association 22, 1927): it stays within 0 and 1 and says little of few. Of none nothing is known: 0 to 1. */
export function wilson(k: number, n: number): Share {
  if (n === 0) return { k, n, share: 0, low: 0, high: 1 };
  const p = k / n;
  const centre = p + (Z * Z) / (2 * n);
  const half = Z * Math.sqrt((p * (1 - p)) / n + (Z * Z) / (4 * n * n));
  const whole = 1 + (Z * Z) / n;
  return { k, n, share: p, low: Math.max(0, (centre - half) / whole), high: Math.min(1, (centre + half) / whole) };
}
