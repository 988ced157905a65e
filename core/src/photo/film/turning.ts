import { solved } from '../image/solved.js';
import { PLANES } from './band.js';
import { summit } from './steady.js';

/** A band of light as it is compared: what the part itself brings, without lamp, lens and rings that run right round. Zero where nothing is seen. */
export interface Texture {
  readonly width: number;
  readonly height: number;
  /** 0 to 1 how well a place is seen. */
  readonly weight: Float32Array;
  /** What is there times its weight, and its square times its weight: so the sums over two textures need no more than a product each. */
  readonly weighed: Float32Array;
  readonly power: Float32Array;
}

/** Half width of what is taken for lamp and shade, degrees. */
const LAMP_DEG = 9;
/** Where what stands still changes by this from pixel to pixel, log of light, a hand's straying changes as much as the part does. */
const EDGE = 0.05;
/** More than this, log of light, no mark differs from what lies round it that is not glare. */
const MOST = 0.35;

/** Takes from the light of a band what stands still over the film (`still`, NaN unseen), what runs right round the part, and what changes slowly along the run. */
export function textureOf(light: Float32Array, still: Float32Array, width: number, height: number): Texture {
  const weighed = new Float32Array(light.length);
  const power = new Float32Array(light.length);
  const weight = new Float32Array(light.length);
  const own = new Float32Array(light.length);
  const plane = light.length / PLANES;
  for (let from = 0; from < light.length; from += plane)
    own.set(withoutStill(light.subarray(from, from + plane), still.subarray(from, from + plane), width), from);
  const r = Math.round((LAMP_DEG / 180) * width);
  const row = new Float32Array(width);
  const sums = new Float64Array(width + 1);
  const counts = new Float64Array(width + 1);
  for (let y = 0; y < PLANES * height; y++) {
    const at = y * width;
    for (let x = 0; x < width; x++) {
      const v = own[at + x]!;
      row[x] = v;
      const seen = Number.isNaN(v) ? 0 : 1;
      sums[x + 1] = sums[x]! + (seen ? v : 0);
      counts[x + 1] = counts[x]! + seen;
    }
    for (let x = 0; x < width; x++) {
      if (Number.isNaN(row[x]!)) continue;
      const [from, to] = [Math.max(0, x - r), Math.min(width, x + r + 1)];
      const off = row[x]! - (sums[to]! - sums[from]!) / (counts[to]! - counts[from]!);
      const own = Math.max(-MOST, Math.min(MOST, off));
      const w = Math.cos(((x + 0.5) / width - 0.5) * Math.PI) / (1 + (steepness(still, at + x, width) / EDGE) ** 2);
      weight[at + x] = w;
      weighed[at + x] = w * own;
      power[at + x] = w * own * own;
    }
  }
  return { width, height: PLANES * height, weight, weighed, power };
}

const across = (light: Float32Array, i: number): number => (light[i + 1]! - light[i - 1]!) / 2;
const along = (light: Float32Array, i: number, width: number): number => (light[i + width]! - light[i - width]!) / 2;

/** How much light changes from a place to its neighbours; 0 beside what is not seen. */
function steepness(light: Float32Array, i: number, width: number): number {
  const steep = Math.hypot(across(light, i), along(light, i, width));
  return Number.isNaN(steep) ? 0 : steep;
}

/**
 * Takes what stands still from the light of a frame, as brightly, with as much contrast and moved as far (to first order) as it lies in this frame: least squares over 1, the still light and its two slopes. What is left is the
 * part's own.
 */
function withoutStill(light: Float32Array, still: Float32Array, width: number): Float32Array {
  const N = 4;
  const normal = Array.from({ length: N }, () => new Array<number>(N).fill(0));
  const right = new Array<number>(N).fill(0);
  const row = [1, 0, 0, 0];
  const at = (i: number): boolean => {
    row[1] = still[i]!;
    row[2] = across(still, i);
    row[3] = along(still, i, width);
    return !Number.isNaN(light[i]! + row[1] + row[2] + row[3]);
  };
  for (let i = width; i < light.length - width; i++) {
    if (!at(i)) continue;
    const off = Math.max(-MOST, Math.min(MOST, light[i]! - still[i]!));
    for (let a = 0; a < N; a++) {
      right[a]! += row[a]! * off;
      for (let b = 0; b < N; b++) normal[a]![b]! += row[a]! * row[b]!;
    }
  }
  for (let a = 0; a < N; a++) normal[a]![a]! += 1e-3;
  const found = solved(normal, right) ?? right.fill(0);
  const out = new Float32Array(light.length);
  for (let i = 0; i < out.length; i++) out[i] = light[i]! - still[i]! - (at(i) ? found.reduce((sum, f, k) => sum + f * row[k]!, 0) : 0);
  return out;
}

/** Half the arc over which textures are compared, degrees; farther out a part is seen at a sliver. */
const COMPARED_DEG = 66;

/** How well two bands agree when what is at `x` in the one is at `x + shift` in the other: normalised cross-correlation, and how much of them lies over each other. */
function agreement(a: Texture, b: Texture, shift: number): number {
  const { width, height } = a;
  let [saa, sbb, sab, all] = [0, 0, 0, 0];
  const first = Math.round(width * (0.5 - COMPARED_DEG / 180));
  const [from, to] = [Math.max(first, first - shift), Math.min(width - first, width - first - shift)];
  const [aw, av, aa] = [a.weight, a.weighed, a.power];
  const [bw, bv, bb] = [b.weight, b.weighed, b.power];
  for (let y = 0; y < height; y++)
    for (let p = y * width + from, q = p + shift, end = y * width + to; p < end; p++, q++) {
      const [v, u] = [aw[p]!, bw[q]!];
      all += v * u;
      saa += aa[p]! * u;
      sbb += v * bb[q]!;
      sab += av[p]! * bv[q]!;
    }
  // A few pixels by themselves always agree somewhere.
  const trust = all / (all + 0.08 * width * height);
  return saa > 0 && sbb > 0 ? (trust * sab) / Math.sqrt(saa * sbb) : 0;
}

/** How far a texture moved along the run, pixels; how well it agrees there, and the best it agrees elsewhere. */
export interface Moved {
  readonly shift: number;
  readonly alike: number;
  readonly elsewhere: number;
}

/** So well a part that stands still agrees with itself at least, and how near that is, pixels. */
const AT_REST = 0.6;
const NEAR_REST = 2;

/** Finds how far texture `b` lies from `a` along the run, `expected` ± `reach` pixels. */
export function movedBetween(a: Texture, b: Texture, expected: number, reach: number): Moved {
  const middle = Math.round(expected);
  const values = Float32Array.from({ length: 2 * reach + 1 }, (_, k) => agreement(a, b, middle - reach + k));
  // What a lamp or a codec left of the last frame agrees where nothing moved; a part that stands still agrees better.
  const rest = reach - middle;
  if (Math.max(values[rest] ?? -1, values[rest - 1] ?? -1, values[rest + 1] ?? -1) < AT_REST)
    for (let k = Math.max(0, rest - NEAR_REST); k <= Math.min(values.length - 1, rest + NEAR_REST); k++) values[k] = -1;
  let best = 0;
  for (let k = 1; k < values.length; k++) if (values[k]! > values[best]!) best = k;
  const apart = Math.round((6 / 180) * a.width);
  let elsewhere = -1;
  values.forEach((v, k) => {
    if (Math.abs(k - best) > apart) elsewhere = Math.max(elsewhere, v);
  });
  const inside = best > 0 && best < values.length - 1 && values[best - 1]! > -1 && values[best + 1]! > -1;
  return {
    shift: middle - reach + best + (inside ? summit(values[best - 1]!, values[best]!, values[best + 1]!) : 0),
    alike: values[best]!,
    elsewhere,
  };
}
