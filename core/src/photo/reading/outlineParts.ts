import type { Pixels } from '../flatten.js';
import { eachShrunk, shrunkSize } from '../image/shrink.js';

/** Long side of the small picture in which pieces are looked for. */
const SMALL = 360;
const CLUSTERS = 4;

export interface Small {
  readonly width: number;
  readonly height: number;
  /** Lightness and two opponent colours by pixel, 0–255 scaled. */
  readonly values: Float32Array;
  readonly step: number;
}

/** A picture brought down to a long side of at most `side` pixels. */
export function shrink(picture: Pixels, side = SMALL): Small {
  const step = Math.max(1, Math.max(picture.width, picture.height) / side);
  const [width, height] = shrunkSize(picture, step);
  const values = new Float32Array(width * height * 3);
  eachShrunk(picture, step, (i, r, g, b) => {
    const light = Math.max(1, (r + g + b) / 3);
    values[3 * i] = light;
    // Colour by ratio, so that a shadow on the bench stays the bench.
    values[3 * i + 1] = (110 * (r - g)) / (light + 20);
    values[3 * i + 2] = (110 * (g - b)) / (light + 20);
  });
  return { width, height, values, step };
}

interface Cluster {
  readonly mean: readonly [number, number, number];
  readonly spread: readonly [number, number, number];
}

/** What the bench looks like: clusters of what lies along the border of the picture. */
function benchOf({ width, height, values }: Small): Cluster[] {
  const ring: number[] = [];
  const border = Math.round(Math.min(width, height) * 0.07);
  for (let y = 0; y < height; y += 2)
    for (let x = 0; x < width; x += 2)
      if (x < border || y < border || x >= width - border || y >= height - border) ring.push((y * width + x) * 3);
  let means = Array.from({ length: CLUSTERS }, (_, k) => {
    const i = ring[Math.floor(((k + 0.5) / CLUSTERS) * ring.length)]!;
    return [values[i]!, values[i + 1]!, values[i + 2]!] as [number, number, number];
  });
  let own: number[][] = [];
  for (let turn = 0; turn < 8; turn++) {
    own = means.map(() => []);
    for (const i of ring) {
      let best = 0;
      let least = Infinity;
      means.forEach((m, k) => {
        const d = ((values[i]! - m[0]) / 2) ** 2 + (values[i + 1]! - m[1]) ** 2 + (values[i + 2]! - m[2]) ** 2;
        if (d < least) [least, best] = [d, k];
      });
      own[best]!.push(i);
    }
    means = means.map((m, k) =>
      own[k]!.length === 0
        ? m
        : ([0, 1, 2].map((c) => own[k]!.reduce((s, i) => s + values[i + c]!, 0) / own[k]!.length) as [number, number, number]),
    );
  }
  return means.flatMap((mean, k) => {
    const list = own[k]!;
    // A part or card that reaches into the border is not the bench.
    if (list.length < ring.length * 0.06) return [];
    const spread = [0, 1, 2].map((c) => Math.sqrt(list.reduce((s, i) => s + (values[i + c]! - mean[c]!) ** 2, 0) / list.length)) as [
      number,
      number,
      number,
    ];
    return [{ mean, spread }];
  });
}

/** How far every pixel lies from what the bench looks like along the border, in its own scatter (squared), at most 60. */
export function apartFromBench(small: Small): Float32Array {
  const { width, height, values } = small;
  const bench = benchOf(small);
  const distance = new Float32Array(width * height);
  for (let i = 0; i < distance.length; i++) {
    let least = 60;
    for (const { mean, spread } of bench) {
      const light = (values[3 * i]! - mean[0]) / (spread[0] + 14);
      const red = (values[3 * i + 1]! - mean[1]) / (spread[1] + 3);
      const blue = (values[3 * i + 2]! - mean[2]) / (spread[2] + 3);
      const d = 0.5 * light * light + red * red + blue * blue;
      if (d < least) least = d;
    }
    distance[i] = least;
  }
  return distance;
}

/** Fills gaps of a mask up to `r` pixels across. */
export function close(mask: Uint8Array, width: number, height: number, r: number): Uint8Array {
  const grow = (from: Uint8Array, value: 0 | 1): Uint8Array => {
    const out = Uint8Array.from(from);
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) {
        if (from[y * width + x] !== value) continue;
        for (let k = -r; k <= r; k++) {
          if (x + k >= 0 && x + k < width) out[y * width + x + k] = value;
          if (y + k >= 0 && y + k < height) out[(y + k) * width + x] = value;
        }
      }
    return out;
  };
  return grow(grow(mask, 1), 0);
}
