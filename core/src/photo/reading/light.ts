import type { Pixels } from '../flatten.js';
import type { Point } from '../homography.js';
import { boxMean, field, quantile, type Field } from './field.js';

/** sRGB (IEC 61966-2-1) to linear light, by byte. */
export const LINEAR = Float32Array.from({ length: 256 }, (_, i) => {
  const c = i / 255;
  return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
});
/** Floor added before a logarithm, so that noise in the dark makes no colour. */
const FLOOR = 0.006;

/** Log of luminance (linear light, BT.709) of a pixel of a picture. */
export function lightOf({ width, data }: Pixels, x: number, y: number): number {
  const i = (y * width + x) * 4;
  return Math.log(0.2126 * LINEAR[data[i]!]! + 0.7152 * LINEAR[data[i + 1]!]! + 0.0722 * LINEAR[data[i + 2]!]! + FLOOR);
}

/** Log red over green, log green over blue and log of luminance of a colour in bytes (linear light). */
export function colourOf(r: number, g: number, b: number): [redness: number, yellowness: number, light: number] {
  const [lr, lg, lb] = [LINEAR[r]! + FLOOR, LINEAR[g]! + FLOOR, LINEAR[b]! + FLOOR];
  return [Math.log(lr / lg), Math.log(lg / lb), Math.log(0.2126 * lr + 0.7152 * lg + 0.0722 * lb)];
}

/** What is seen of a developed surface, in logarithms of linear light. */
export interface Seen {
  /** Log of luminance. */
  readonly light: Field;
  /** Log of red over green, and of green over blue: neutral metal is 0, 0; copper about 0.75, 0.75. */
  readonly redness: Field;
  readonly yellowness: Field;
  /** 1 where the picture shows the surface. */
  readonly there: Uint8Array;
  /** 1 where a channel is at its end: the colour there says little. */
  readonly clipped: Uint8Array;
  /** 1 where red and green are at their end and blue is not: metal is at least as yellow there as it looks. */
  readonly blown: Uint8Array;
  /** 1 where green and blue are at their end and red is not: metal is at least as blue there as it looks. */
  readonly frosted: Uint8Array;
  /** 1 where two channels are at their end and the third nearly: nothing but glare. */
  readonly glare: Uint8Array;
}

/** Light and colour of every pixel of a developed surface, and whether it is there, clipped or blown. */
export function seenOf(pixels: Pixels): Seen {
  const { width, height, data } = pixels;
  const light = field(width, height);
  const redness = field(width, height);
  const yellowness = field(width, height);
  const there = new Uint8Array(width * height);
  const clipped = new Uint8Array(width * height);
  const blown = new Uint8Array(width * height);
  const frosted = new Uint8Array(width * height);
  const glare = new Uint8Array(width * height);
  for (let i = 0; i < there.length; i++) {
    if (data[4 * i + 3] === 0) continue;
    there[i] = 1;
    const [r, g, b] = [data[4 * i]!, data[4 * i + 1]!, data[4 * i + 2]!];
    if (Math.max(r, g, b) >= 250) clipped[i] = 1;
    if (Math.min(r, g) >= 250 && b < 247) blown[i] = 1;
    if (Math.min(g, b) >= 250 && r < 247) frosted[i] = 1;
    if (Math.min(r, g) >= 247 && b >= 215) glare[i] = 1;
    const [lr, lg, lb] = [LINEAR[r]! + FLOOR, LINEAR[g]! + FLOOR, LINEAR[b]! + FLOOR];
    light.data[i] = Math.log(0.2126 * lr + 0.7152 * lg + 0.0722 * lb);
    redness.data[i] = Math.log(lr / lg);
    yellowness.data[i] = Math.log(lg / lb);
  }
  return { light, redness, yellowness, there, clipped, blown, frosted, glare };
}

/** Colour of bare metal under the light of the picture: log red over green, log green over blue. */
export interface Neutral {
  readonly redness: number;
  readonly yellowness: number;
}

/** Widest cast of the light and camera that neutral metal is looked for in (15 % a channel and what the surroundings reflect). */
const CAST = { redness: 0.42, yellowness: 0.5 } as const;
const BINS = 40;

/**
 * Colour of the metal that is not worn through: the strongest mode of colour near neutral. When copper covers most of a face its mode is stronger, so a mode nearer
 * neutral is taken if it holds at least a sixth as many pixels.
 */
export function neutralColour(seen: Seen): { readonly redness: number; readonly yellowness: number; readonly share: number } | null {
  const counts = new Float32Array(BINS * BINS);
  let total = 0;
  const bin = (v: number, most: number): number => Math.floor(((v + most) / (2 * most)) * BINS);
  for (let i = 0; i < seen.there.length; i += 3) {
    if (!seen.there[i] || seen.clipped[i] || seen.light.data[i]! < -3.6) continue;
    total++;
    const x = bin(seen.redness.data[i]!, CAST.redness);
    const y = bin(seen.yellowness.data[i]!, CAST.yellowness);
    if (x >= 0 && y >= 0 && x < BINS && y < BINS) counts[y * BINS + x]!++;
  }
  if (total === 0) return null;
  const smooth = boxMean({ width: BINS, height: BINS, data: counts }, 2, 2).data;
  let best = -1;
  let worth = 0;
  for (let k = 0; k < smooth.length; k++) {
    const dx = ((k % BINS) + 0.5) / BINS - 0.5;
    const dy = (Math.floor(k / BINS) + 0.5) / BINS - 0.5;
    const nearness = Math.exp(-(dx * dx + dy * dy) * 4);
    if (smooth[k]! * nearness > worth) {
      worth = smooth[k]! * nearness;
      best = k;
    }
  }
  if (best < 0) return null;
  return {
    redness: (((best % BINS) + 0.5) / BINS - 0.5) * 2 * CAST.redness,
    yellowness: ((Math.floor(best / BINS) + 0.5) / BINS - 0.5) * 2 * CAST.yellowness,
    share: (smooth[best]! * 25) / total,
  };
}

/** Colour of the white of a card that lies in the picture: of its brighter part, inside its four corners. Null when the corners hold nothing to go by. */
export function cardColour(picture: Pixels, corners: readonly Point[]): { readonly redness: number; readonly yellowness: number } | null {
  const xs = corners.map((p) => p[0]);
  const ys = corners.map((p) => p[1]);
  const inside = (x: number, y: number): boolean =>
    corners.every((p, k) => {
      const q = corners[(k + 1) % corners.length]!;
      const turn =
        (corners[1]![0] - corners[0]![0]) * (corners[2]![1] - corners[1]![1]) -
        (corners[1]![1] - corners[0]![1]) * (corners[2]![0] - corners[1]![0]);
      return ((q[0] - p[0]) * (y - p[1]) - (q[1] - p[1]) * (x - p[0])) * Math.sign(turn) >= 0;
    });
  const found: Array<[light: number, redness: number, yellowness: number]> = [];
  for (let y = Math.max(0, Math.floor(Math.min(...ys))); y < Math.min(picture.height, Math.max(...ys)); y += 3)
    for (let x = Math.max(0, Math.floor(Math.min(...xs))); x < Math.min(picture.width, Math.max(...xs)); x += 3) {
      if (!inside(x, y)) continue;
      const i = (y * picture.width + x) * 4;
      const [r, g, b] = [picture.data[i]!, picture.data[i + 1]!, picture.data[i + 2]!];
      if (Math.max(r, g, b) >= 250) continue;
      const [lr, lg, lb] = [LINEAR[r]! + FLOOR, LINEAR[g]! + FLOOR, LINEAR[b]! + FLOOR];
      found.push([lr + lg + lb, Math.log(lr / lg), Math.log(lg / lb)]);
    }
  if (found.length < 30) return null;
  found.sort((a, b) => b[0] - a[0]);
  const white = found.slice(0, Math.ceil(found.length * 0.3));
  const middle = (k: 1 | 2): number => quantile(Float32Array.from(white.map((w) => w[k])), 0.5);
  return { redness: middle(1), yellowness: middle(2) };
}
