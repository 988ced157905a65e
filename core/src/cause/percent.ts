/** A probability as people read it: whole percent, never 0 % or 100 % for what is not certain. */
export function percentText(p: number): string {
  if (p > 0 && p < 0.005) return '< 1 %';
  if (p < 1 && p > 0.995) return '> 99 %';
  return `${Math.round(p * 100)} %`;
}
