/** −1 to 1 at a lattice point, the same for the same seed. */
export function lattice(x: number, y: number, seed: number): number {
  let h = (Math.imul(x, 374761393) + Math.imul(y, 668265263) + Math.imul(seed, 974634101)) | 0;
  h = Math.imul(h ^ (h >>> 13), 1274126177);
  h ^= h >>> 16;
  return (h >>> 0) / 2147483648 - 1;
}

/** Smooth noise, −1 to 1, one feature a unit. */
export function smoothNoise(x: number, y: number, seed: number): number {
  const x0 = Math.floor(x);
  const y0 = Math.floor(y);
  const u = x - x0;
  const v = y - y0;
  const su = u * u * (3 - 2 * u);
  const sv = v * v * (3 - 2 * v);
  const a = lattice(x0, y0, seed) * (1 - su) + lattice(x0 + 1, y0, seed) * su;
  const b = lattice(x0, y0 + 1, seed) * (1 - su) + lattice(x0 + 1, y0 + 1, seed) * su;
  return a * (1 - sv) + b * sv;
}

/** Octaves of smooth noise, about −1 to 1. */
export function fractal(x: number, y: number, seed: number, octaves = 4): number {
  let sum = 0;
  let weight = 1;
  let total = 0;
  for (let k = 0, fine = 1; k < octaves; k++, fine *= 2) {
    sum += weight * smoothNoise(x * fine, y * fine, seed + k * 101);
    total += weight;
    weight *= 0.55;
  }
  return sum / total;
}

export const smoothstep = (from: number, to: number, x: number): number => {
  const t = Math.max(0, Math.min(1, (x - from) / (to - from)));
  return t * t * (3 - 2 * t);
};
