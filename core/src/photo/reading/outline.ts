import { fail, ok, type Result } from '../../result.js';
import type { Pixels } from '../flatten.js';
import type { Point } from '../homography.js';
import { projectShell, shellPose } from '../shellPose.js';
import { components, quantile } from './field.js';

/** Long side of the small picture in which the part is looked for. */
const SMALL = 360;
const CLUSTERS = 4;
/** Share of the arc's width that wall and parting faces take at each end (1.5 to 2 mm of a 50 mm bore). */
const WALL = 0.034;

export interface Small {
  readonly width: number;
  readonly height: number;
  /** Lightness and two opponent colours by pixel, 0–255 scaled. */
  readonly values: Float32Array;
  readonly step: number;
}

export function shrink(picture: Pixels): Small {
  const step = Math.max(1, Math.max(picture.width, picture.height) / SMALL);
  const width = Math.floor(picture.width / step);
  const height = Math.floor(picture.height / step);
  const values = new Float32Array(width * height * 3);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      let [r, g, b, n] = [0, 0, 0, 0];
      for (let py = Math.floor(y * step); py < Math.floor((y + 1) * step); py++)
        for (let px = Math.floor(x * step); px < Math.floor((x + 1) * step); px++) {
          const i = (py * picture.width + px) * 4;
          r += picture.data[i]!;
          g += picture.data[i + 1]!;
          b += picture.data[i + 2]!;
          n++;
        }
      const at = (y * width + x) * 3;
      const sum = Math.max(1, (r + g + b) / 3 / n);
      values[at] = sum;
      // Colour by ratio, so that a shadow on the bench stays the bench.
      values[at + 1] = (110 * (r - g)) / n / (sum + 20);
      values[at + 2] = (110 * (g - b)) / n / (sum + 20);
    }
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
  for (let i = 0; i < distance.length; i++)
    distance[i] = Math.min(
      ...bench.map(
        ({ mean, spread }) =>
          ((values[3 * i]! - mean[0]) / (spread[0] + 14)) ** 2 * 0.5 +
          ((values[3 * i + 1]! - mean[1]) / (spread[1] + 3)) ** 2 +
          ((values[3 * i + 2]! - mean[2]) / (spread[2] + 3)) ** 2,
      ),
      60,
    );
  return distance;
}

/**
 * Finds the four face corners of a shell half in a picture without any help: what differs from the bench along the border, taken as pieces; of each the corners along its longer axis;
 * the piece whose corners frame something that looks like a half shell is taken and its corners are moved to the strongest edges near them. A proposal, to be looked at.
 */
export function findShell(picture: Pixels): Result<readonly Point[]> {
  if (picture.width < 64 || picture.height < 64) return fail('picture-small', 'The picture is too small to find a part in it.', 'picture');
  const small = shrink(picture);
  const { width, height } = small;
  const distance = apartFromBench(small);
  const candidates: Array<{ corners: Point[]; score: number }> = [];
  for (const limit of [3, 5, 8, 13]) {
    const mask = new Uint8Array(distance.length);
    for (let i = 0; i < mask.length; i++) mask[i] = distance[i]! > limit ? 1 : 0;
    const closed = close(mask, width, height, 3);
    for (const c of components(closed, width, height, Math.round(mask.length * 0.012)).slice(0, 4)) {
      const corners = cornersOf(c.pixels, width);
      if (!corners) continue;
      const scaled = corners.map(([x, y]): Point => [(x + 0.5) * small.step, (y + 0.5) * small.step]);
      const score = shellLikeness(picture, scaled);
      if (score > 0) candidates.push({ corners: scaled, score });
    }
  }
  const best = candidates.sort((a, b) => b.score - a.score)[0];
  if (!best)
    return fail(
      'outline-not-found',
      'No half shell was found in the picture. Mark its four corners: left-front, left-rear, right-rear, right-front.',
      'corners',
    );
  return ok(refine(picture, best.corners));
}

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

/** Corners of a piece along its longer axis, left-front first; the long axis of a half shell runs left to right. */
function cornersOf(pixels: readonly number[], width: number): Point[] | null {
  const n = pixels.length;
  let [mx, my] = [0, 0];
  for (const i of pixels) {
    mx += i % width;
    my += Math.floor(i / width);
  }
  mx /= n;
  my /= n;
  let [sxx, sxy, syy] = [0, 0, 0];
  for (const i of pixels) {
    const x = (i % width) - mx;
    const y = Math.floor(i / width) - my;
    sxx += x * x;
    sxy += x * y;
    syy += y * y;
  }
  const turn = Math.atan2(2 * sxy, sxx - syy) / 2;
  // Left to right in the picture: within half a right angle of level.
  if (Math.abs(turn) > Math.PI / 3.2) return null;
  const [ux, uy] = [Math.cos(turn), Math.sin(turn)];
  const along = new Float32Array(n);
  const across = new Float32Array(n);
  pixels.forEach((i, k) => {
    const x = (i % width) - mx;
    const y = Math.floor(i / width) - my;
    along[k] = x * ux + y * uy;
    across[k] = -x * uy + y * ux;
  });
  const [left, right] = [quantile(Float32Array.from(along), 0.004), quantile(Float32Array.from(along), 0.996)];
  const length = right - left;
  const endOf = (from: number, to: number): [number, number] | null => {
    const own: number[] = [];
    for (let k = 0; k < n; k++) if (along[k]! >= from && along[k]! <= to) own.push(across[k]!);
    if (own.length < 3) return null;
    const list = Float32Array.from(own);
    return [quantile(list, 0.97), quantile(list, 0.03)];
  };
  const inset = WALL * length;
  const a = endOf(left + inset * 0.3, left + inset * 2);
  const b = endOf(right - inset * 2, right - inset * 0.3);
  if (!a || !b) return null;
  const at = (u: number, v: number): Point => [mx + u * ux - v * uy, my + u * uy + v * ux];
  return [at(left + inset, a[0]), at(left + inset, a[1]), at(right - inset, b[1]), at(right - inset, b[0])];
}

/** 0 for what cannot be a half shell; more the better its outline shows and the more its face shades along the arc as a hollow cylinder does. */
function shellLikeness(picture: Pixels, corners: readonly Point[]): number {
  const [lf, lr, rr, rf] = corners as [Point, Point, Point, Point];
  const side = (p: Point, q: Point): number => Math.hypot(p[0] - q[0], p[1] - q[1]);
  const long = (side(lf, rf) + side(lr, rr)) / 2;
  const short = (side(lf, lr) + side(rf, rr)) / 2;
  if (short / long < 0.18 || short / long > 0.85 || long < 40) return 0;
  const edges = edgeStrength(picture, corners);
  if (edges === null) return 0;
  // A card is white and flat; a half shell shades by more than a third of its light from place to place along the arc.
  const light: number[] = [];
  for (let k = 1; k < 24; k++)
    for (const v of [0.3, 0.5, 0.7]) {
      const u = k / 24;
      const x = (lf[0] * (1 - u) + rf[0] * u) * (1 - v) + (lr[0] * (1 - u) + rr[0] * u) * v;
      const y = (lf[1] * (1 - u) + rf[1] * u) * (1 - v) + (lr[1] * (1 - u) + rr[1] * u) * v;
      const i =
        (Math.min(picture.height - 1, Math.max(0, Math.round(y))) * picture.width +
          Math.min(picture.width - 1, Math.max(0, Math.round(x)))) *
        4;
      light.push((picture.data[i]! + picture.data[i + 1]! + picture.data[i + 2]!) / 3);
    }
  light.sort((a, b) => a - b);
  const median = light[Math.floor(light.length / 2)]!;
  const swing = (light[Math.floor(light.length * 0.92)]! - light[Math.floor(light.length * 0.08)]!) / Math.max(20, median);
  const card = light[Math.floor(light.length * 0.4)]! > 205 ? 0.2 : 1;
  return edges * Math.min(1, swing / 0.3) * card * Math.sqrt(long / Math.max(picture.width, picture.height));
}

/** Mean step of the picture across rims and parting lines, just inside to just outside. */
function edgeStrength(picture: Pixels, corners: readonly Point[]): number | null {
  const pose = shellPose(corners, picture, 1, ratioOf(corners), 1.6 * Math.max(picture.width, picture.height));
  if (!pose.ok) return null;
  let sum = 0;
  let n = 0;
  const step = (a: Point, b: Point): void => {
    const i = pixel(picture, a);
    const j = pixel(picture, b);
    if (i < 0 || j < 0) return;
    sum += Math.min(
      90,
      Math.hypot(
        picture.data[i]! - picture.data[j]!,
        picture.data[i + 1]! - picture.data[j + 1]!,
        picture.data[i + 2]! - picture.data[j + 2]!,
      ),
    );
    n++;
  };
  for (let arc = 6; arc <= 174; arc += 4)
    for (const [inside, outside] of [
      [0.03, -0.03],
      [0.97, 1.03],
    ] as const)
      step(projectShell(pose.value, arc, inside), projectShell(pose.value, arc, outside));
  const rims = n === 0 ? 0 : sum / n;
  const [lf, lr, rr, rf] = corners as [Point, Point, Point, Point];
  sum = 0;
  n = 0;
  for (let k = 1; k < 12; k++)
    for (const [front, rear, sign] of [
      [lf, lr, -1],
      [rf, rr, 1],
    ] as const) {
      const t = k / 12;
      const x = front[0] * (1 - t) + rear[0] * t;
      const y = front[1] * (1 - t) + rear[1] * t;
      const [dx, dy] = [(rf[0] - lf[0]) * 0.008 * sign, (rf[1] - lf[1]) * 0.008 * sign];
      step([x - dx, y - dy], [x + dx, y + dy]);
    }
  const ends = n === 0 ? 0 : sum / n;
  return (rims + 0.5 * ends) / 1.5;
}

function ratioOf(corners: readonly Point[]): number {
  const [lf, lr, rr, rf] = corners as [Point, Point, Point, Point];
  const side = (p: Point, q: Point): number => Math.hypot(p[0] - q[0], p[1] - q[1]);
  return (side(lf, lr) + side(rf, rr)) / ((side(lf, rf) + side(lr, rr)) / 2);
}

function pixel(picture: Pixels, [x, y]: Point): number {
  const px = Math.round(x - 0.5);
  const py = Math.round(y - 0.5);
  return px < 0 || py < 0 || px >= picture.width || py >= picture.height ? -1 : (py * picture.width + px) * 4;
}

/** Moves one corner at a time to where the edges are strongest, in steps that grow smaller. */
function refine(picture: Pixels, start: readonly Point[]): Point[] {
  let corners = start.map((p): Point => [p[0], p[1]]);
  const long = Math.hypot(corners[0]![0] - corners[3]![0], corners[0]![1] - corners[3]![1]);
  let score = edgeStrength(picture, corners) ?? 0;
  for (const share of [0.016, 0.008, 0.004, 0.002])
    for (let turn = 0; turn < 3; turn++) {
      const before = score;
      for (let k = 0; k < 4; k++)
        for (const [dx, dy] of [
          [1, 0],
          [-1, 0],
          [0, 1],
          [0, -1],
        ] as const) {
          const moved = corners.map((p, j): Point => (j === k ? [p[0] + dx * share * long, p[1] + dy * share * long] : p));
          const value = edgeStrength(picture, moved);
          if (value !== null && value > score + 0.05) {
            score = value;
            corners = moved;
          }
        }
      if (score === before) break;
    }
  return corners;
}
