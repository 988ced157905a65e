import { boxMean, field, quantile, type Field } from './field.js';

/**
 * Limits of the finder of scores. Lengths in mm, depths in the logarithm of light. Set on the pictures of the other renderer and the studio's tuning set.
 * - `mean`: half length along the run over which light and colour are taken together; machining marks and grain are shorter.
 * - `cores`: half widths across the run at which a valley is looked for, from a hair to the widest score.
 * - `lip`, `shoulder`: what lies between a valley and its shoulders, and how wide a shoulder is.
 * - `seen`, `tinged`, `clear`: least depth of a valley, least rise of colour, and how many times its noise either must be, to be looked at.
 * - `deep`, `overNoise`: a dark line is a score from this mean depth on, or this many times the noise where that is more. What turning leaves came to 0.15, scores to 0.17 and more.
 * - `steep`: share of its depth that a flank rises over a tenth of a millimetre.
 * - `gap`: pieces of one line may lie so far apart; `long`: a line is longer than this.
 * - `rim`: what is warm this near to an edge is the chamfer.
 */
export const LINE_LIMITS = {
  mean: 1.6,
  cores: [0.05, 0.14, 0.34],
  lip: 0.1,
  shoulder: 0.28,
  seen: 0.055,
  tinged: 0.1,
  clear: 3,
  deep: 0.165,
  overNoise: 5,
  steep: 0.42,
  gap: 9,
  long: { dark: 9, warm: 11 },
  piece: 1.5,
  widest: 1.5,
  rim: 0.6,
} as const;
/** Mean along the run of what counts; 0 where hardly anything does. */
export function meanOf(p: Field, weight: Field, known: Field, run: number): Field {
  const product = field(p.width, p.height);
  for (let i = 0; i < product.data.length; i++) product.data[i] = p.data[i]! * weight.data[i]!;
  const sum = boxMean(product, run, 0);
  for (let i = 0; i < sum.data.length; i++) sum.data[i] = known.data[i]! > 0.05 ? sum.data[i]! / known.data[i]! : 0;
  return sum;
}

/** Sums down each column, so that any stretch of it is one difference. */
function sums({ width, height, data }: Field): Float64Array {
  const out = new Float64Array((height + 1) * width);
  for (let y = 0; y < height; y++) for (let x = 0; x < width; x++) out[(y + 1) * width + x] = out[y * width + x]! + data[y * width + x]!;
  return out;
}

/** How far a place lies below (`sign` −1) or above (1) the nearer of its two shoulders, at the width at which that is most. */
export function deepest(p: Field, known: Field, pxPerMm: number, sign: 1 | -1): Field {
  const { width, height } = p;
  const total = sums(p);
  const depth = field(width, height);
  depth.data.fill(-1);
  const side = Math.max(2, Math.round(LINE_LIMITS.shoulder * pxPerMm));
  for (const coreMm of LINE_LIMITS.cores) {
    const core = Math.round(coreMm * pxPerMm);
    const lip = core + Math.max(1, Math.round(LINE_LIMITS.lip * pxPerMm));
    for (let y = lip + side; y < height - lip - side; y++) {
      const row = (k: number): number => (y + k) * width;
      const [c0, c1, a0, a1, b0, b1] = [row(-core), row(core + 1), row(-lip - side), row(-lip), row(lip + 1), row(lip + side + 1)];
      for (let x = 0; x < width; x++) {
        const i = y * width + x;
        if (known.data[i]! < 0.25) continue;
        const here = (total[c1 + x]! - total[c0 + x]!) / (2 * core + 1);
        const above = (total[a1 + x]! - total[a0 + x]!) / side;
        const below = (total[b1 + x]! - total[b0 + x]!) / side;
        const d = sign > 0 ? here - Math.max(above, below) : Math.min(above, below) - here;
        if (d > depth.data[i]!) depth.data[i] = d;
      }
    }
  }
  return depth;
}

/** Scatter of a depth by column: of what a row differs from itself one mean farther along the run, over 6 mm of the arc. */
export function noiseOf({ width, height, data }: Field, known: Field, run: number): Float32Array {
  const step = 2 * run + 1;
  const raw = new Float32Array(width).fill(NaN);
  const values = new Float32Array(height);
  for (let x = 0; x + step < width; x += Math.max(1, run >> 1)) {
    let n = 0;
    for (let y = 2; y < height - 2; y += 2) {
      const i = y * width + x;
      if (known.data[i]! > 0.5 && known.data[i + step]! > 0.5) values[n++] = Math.abs(data[i]! - data[i + step]!);
    }
    if (n > 20) raw[x + run] = quantile(values.subarray(0, n), 0.5) / 0.6745 / Math.SQRT2;
  }
  const found = [...raw.keys()].filter((x) => !Number.isNaN(raw[x]!));
  const usual =
    found.length === 0
      ? 0.05
      : quantile(
          Float32Array.from(found, (x) => raw[x]!),
          0.5,
        );
  return Float32Array.from(raw, (_, x) => {
    let [sum, n] = [0, 0];
    for (const at of found)
      if (Math.abs(at - x) < 2 * run) {
        sum += raw[at]!;
        n++;
      }
    return Math.max(0.012, n > 0 ? sum / n : usual);
  });
}

/** 1 on the crests of a field across the run, over the limit. */
export function crests({ width, height, data }: Field, reach: number): Uint8Array {
  const mask = new Uint8Array(data.length);
  for (let y = 1; y < height - 1; y++)
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      const v = data[i]!;
      if (v < LINE_LIMITS.clear) continue;
      let most = true;
      for (let k = 1; k <= reach && most; k++) most = v >= (data[i - k * width] ?? 0) && v >= (data[i + k * width] ?? 0);
      if (!most) continue;
      mask[i] = 1;
      // The crest may step by a pixel from column to column.
      if (data[i - width]! > LINE_LIMITS.clear) mask[i - width] = 1;
    }
  return mask;
}

/** Width at half depth across the run, median over the crest, pixels. */
export function widthOf({ width, height, data }: Field, pixels: readonly number[], pxPerMm: number, sign: 1 | -1): number {
  const reach = Math.round(0.9 * pxPerMm);
  const found: number[] = [];
  for (let k = 0; k < pixels.length; k += 7) {
    const at = pixels[k]!;
    const x = at % width;
    const y = (at - x) / width;
    let best = y;
    for (let d = -2; d <= 2; d++) {
      const v = data[Math.min(height - 1, Math.max(0, y + d)) * width + x]!;
      if (sign * v > sign * data[best * width + x]!) best = Math.min(height - 1, Math.max(0, y + d));
    }
    const top = sign * data[best * width + x]!;
    const base = (step: 1 | -1): number => {
      let least = top;
      for (let d = 1; d <= reach; d++) {
        const yy = best + step * d;
        if (yy < 0 || yy >= height) break;
        least = Math.min(least, sign * data[yy * width + x]!);
        if (d > 0.35 * pxPerMm && least < top - 0.05) break;
      }
      return least;
    };
    const half = (top + Math.max(base(1), base(-1))) / 2;
    let [up, down] = [0, 0];
    while (up < reach && best - up - 1 >= 0 && sign * data[(best - up - 1) * width + x]! > half) up++;
    while (down < reach && best + down + 1 < height && sign * data[(best + down + 1) * width + x]! > half) down++;
    found.push(up + down + 1);
  }
  return found.length === 0 ? 0 : quantile(Float32Array.from(found), 0.5);
}

/** Rise of the steeper of its flanks over a tenth of a millimetre, mean over the crest. */
export function steepest({ width, height, data }: Field, pixels: readonly number[], pxPerMm: number): number {
  const over = Math.max(1, Math.round(0.1 * pxPerMm));
  const reach = Math.round(0.6 * pxPerMm);
  let [sum, n] = [0, 0];
  for (let k = 0; k < pixels.length; k += 5) {
    const i = pixels[k]!;
    let most = 0;
    for (const step of [width, -width])
      for (let d = 0; d <= reach; d++) {
        const [near, far] = [i + step * d, i + step * (d + over)];
        if (far < 0 || far >= width * height) break;
        most = Math.max(most, data[far]! - data[near]!);
      }
    sum += most;
    n++;
  }
  return n === 0 ? 0 : sum / n;
}
