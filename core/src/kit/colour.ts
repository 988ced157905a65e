/** A colour between two (`#rrggbb`): `share` of the second, 0 to 1. */
export function mixedColour(first: string, second: string, share: number): string {
  const of = (hex: string): number[] => [1, 3, 5].map((i) => parseInt(hex.slice(i, i + 2), 16));
  const to = of(second);
  const part = Math.min(1, Math.max(0, share));
  return `#${of(first)
    .map((v, i) =>
      Math.round(v + (to[i]! - v) * part)
        .toString(16)
        .padStart(2, '0'),
    )
    .join('')}`;
}
