import type { CameraModel } from '../cameraModel.js';
import type { Pixels } from '../flatten.js';
import { bilinear } from '../image/bilinear.js';
import { boxMean, type Field } from '../reading/field.js';
import type { FoundLine } from '../reading/lines.js';
import { LEAST_FRAMES, type LampSurface } from './lampFilm.js';

/** Relief of a developed surface from the shading of a wandering lamp; row 0 is the rear edge. */
export interface Relief {
  /** Slope along the axis by pixel; which way it goes down is not known, nor is its unit. */
  readonly slope: Field;
  /** Height over the mean of what lies round it along the axis, or depth: no unit and no sign. */
  readonly height: Field;
  /** 1 where a place was seen in frames enough. */
  readonly seen: Uint8Array;
  readonly pxPerMm: number;
  /** Pixels of the film a millimetre along the axis, in the middle of the face. */
  readonly filmPxPerMm: number;
}

/** Half length over which a height is taken against what lies round it, mm. */
const AROUND_MM = 1.2;
/** The lamp must have wandered so far along the axis before it tells walls: standard deviation of how much lighter the rear half is, logarithm. */
const LEAST_WANDERED = 0.02;
/** A line has walls when they stand out so many times what rows without lines do. */
const CLEAR = 3;
/** Walls make a profile that is so many times odder than even. */
const ODD = 1.3;
/** A line must be so many pixels of the film wide to show two walls. */
const LEAST_FILM_PX = 5;
/** Rows beside a line that belong to its walls, mm, and half its width at least. */
const WALL_MM = 0.2;

/** The relief on a developed surface of `width` pixels. */
export function reliefOf(lamp: LampSurface, camera: CameraModel, width: number): Relief {
  const height = Math.max(40, Math.round((width * camera.heightMm) / camera.widthMm));
  const [left, top, right, bottom] = lamp.box;
  const wide = right - left;
  const slope: Field = { width, height, data: new Float32Array(width * height) };
  const seen = new Uint8Array(width * height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const [px, py] = camera.project((x + 0.5) / width, 1 - (y + 0.5) / height);
      const [bx, by] = [px - left - 0.5, py - top - 0.5];
      const [x0, y0] = [Math.floor(bx), Math.floor(by)];
      if (x0 < 0 || y0 < 0 || x0 >= wide - 1 || y0 >= bottom - top - 1) continue;
      const [fx, fy] = [bx - x0, by - y0];
      const k = y0 * wide + x0;
      if (lamp.frames[k]! < LEAST_FRAMES) continue;
      const i = y * width + x;
      slope.data[i] = bilinear(lamp.alongAxis, k, 1, wide, fx, fy);
      seen[i] = 1;
    }
  // A score is long and runs round: what is alike along the run is kept, grain of the camera is not.
  const pxPerMm = width / camera.widthMm;
  const calm = boxMean(slope, Math.round(0.4 * pxPerMm), 0);
  const raw: Field = { width, height, data: new Float32Array(width * height) };
  for (let x = 0; x < width; x++) {
    let z = 0;
    for (let y = 0; y < height; y++) {
      z += calm.data[y * width + x]!;
      raw.data[y * width + x] = z;
    }
  }
  const around = boxMean(raw, 0, Math.max(2, Math.round(AROUND_MM * pxPerMm)));
  for (let i = 0; i < raw.data.length; i++) raw.data[i]! -= around.data[i]!;
  const [a, b] = [camera.project(0.5, 0.45), camera.project(0.5, 0.55)];
  return { slope, height: raw, seen, pxPerMm, filmPxPerMm: Math.hypot(b[0] - a[0], b[1] - a[1]) / (0.1 * camera.heightMm) };
}

/**
 * Has a line walls? As the lamp wanders along the axis the two walls of a score grow lighter by turns, so that what they do is odd about its middle; what is only darker, or duller, does the same on both sides. Null where the
 * lamp did not wander that way, the line was seen in too few frames, or is too narrow in the film to have two sides.
 * Which wall faces which end is not told: between the sides of a hollow half light runs the other way as well.
 */
export function hasWalls(relief: Relief, lamp: LampSurface, line: FoundLine, spanDeg: number): boolean | null {
  const { width, height } = relief.slope;
  const half = Math.round((line.widthMm / 2 + WALL_MM) * relief.pxPerMm);
  if (lamp.wandered.along < LEAST_WANDERED || line.widthMm * relief.filmPxPerMm < LEAST_FILM_PX) return null;
  const [from, to] = [(line.fromDeg / spanDeg) * width, (line.toDeg / spanDeg) * width].map(Math.round) as [number, number];
  const row = (1 - line.axial) * height;
  // A line may lie a pixel or two beside where it was found: its middle is where its profile is most nearly odd or even.
  const near = [-2, -1, 0, 1, 2].flatMap((d) => parityAt(relief, Math.round(row) + d, half, from, to) ?? []);
  if (near.length === 0) return null;
  const own = near.reduce((a, b) => (Math.abs(a.odd - a.even) > Math.abs(b.odd - b.even) ? a : b));
  const others: number[] = [];
  for (let y = 2 * half + 1; y < height - 2 * half - 1; y += half) {
    if (Math.abs(y - row) < 4 * half) continue;
    const there = parityAt(relief, y, half, from, to);
    if (there) others.push(there.odd);
  }
  if (others.length < 5) return null;
  others.sort((a, b) => a - b);
  return own.odd > CLEAR * others[others.length >> 1]! && own.odd > ODD * own.even;
}

/** How odd and how even the profile of the slope is about a row, over a stretch of the run: root mean squares, its drift taken out. Null where too little was seen. */
function parityAt(
  { slope, seen }: Relief,
  row: number,
  half: number,
  from: number,
  to: number,
): { readonly odd: number; readonly even: number } | null {
  const { width, height, data } = slope;
  const reach = 2 * half;
  if (row - reach < 0 || row + reach >= height) return null;
  const profile = new Float32Array(2 * reach + 1);
  for (let d = -reach; d <= reach; d++) {
    let [sum, n] = [0, 0];
    for (let x = Math.max(0, from); x < Math.min(width, to); x++) {
      const i = (row + d) * width + x;
      if (!seen[i]) continue;
      sum += data[i]!;
      n++;
    }
    if (n < 0.3 * (to - from)) return null;
    profile[d + reach] = sum / n;
  }
  // What lies beyond the walls on either side, and between them a straight line.
  const [rear, front] = [0, 1].map((side) => {
    const far = Array.from({ length: half }, (_, k) => profile[side === 0 ? k : 2 * reach - k]!);
    return far.reduce((a, b) => a + b, 0) / half;
  }) as [number, number];
  let [odd, even] = [0, 0];
  for (let d = 0; d <= half; d++) {
    const at = (k: number): number => profile[k + reach]! - (rear + ((front - rear) * (k + 1.5 * half)) / (3 * half));
    odd += ((at(d) - at(-d)) / 2) ** 2;
    even += ((at(d) + at(-d)) / 2) ** 2;
  }
  return { odd: Math.sqrt(odd / (half + 1)), even: Math.sqrt(even / (half + 1)) };
}

/** Share of a developed surface that was seen in frames enough. */
export const shareSeen = ({ seen }: Relief): number => seen.reduce((s, v) => s + v, 0) / seen.length;

/** The relief as a picture: middle grey is level. */
export function reliefPicture({ height: { width, height, data }, seen }: Relief): Pixels {
  const sizes = data
    .filter((_, i) => i % 11 === 0)
    .map(Math.abs)
    .sort();
  const most = 2.5 * (sizes[Math.floor(0.9 * sizes.length)] ?? 1) || 1;
  const out = new Uint8ClampedArray(4 * width * height);
  for (let i = 0; i < data.length; i++) {
    out.fill(128 + (127 * data[i]!) / most, 4 * i, 4 * i + 3);
    out[4 * i + 3] = seen[i] ? 255 : 0;
  }
  return { width, height, data: out };
}
