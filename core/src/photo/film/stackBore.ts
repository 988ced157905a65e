import type { Pixels } from '../flatten.js';
import { bilinear } from '../image/bilinear.js';
import { field, quantile, type Field } from '../reading/field.js';
import { endRound } from './boreEnds.js';
import { LEAST_ALIKE, type ScopeTracker, type TrackedScope } from './scopeTracker.js';
import { wallPlace } from './boreView.js';

/** The wall of a bore as a film of a scope drawn through it shows it: the whole turn from 0° at the left to 360°, clockwise as the scope sees it; the end at which the scope came out at the top. */
export interface StackedBore {
  readonly pixels: Pixels;
  readonly pxPerMm: number;
  /** Circumference and length along the bore, mm. */
  readonly widthMm: number;
  readonly heightMm: number;
  readonly seenShare: number;
  /** Whether the wall was seen to end where the scope came out, and where it began. */
  readonly ends: { readonly near: boolean; readonly far: boolean };
  readonly framesUsed: number;
}

/** Pixels round the bore. */
const AROUND = 1800;
/** What of a picture serves: rings from here outwards, shares of half its short side. Further in the wall is seen at a sliver. */
const SERVES = 0.55;
/** A frame is taken when the scope has moved by this since the last one taken, radii. */
const TAKE = 0.05;
/** Of a channel from here on: it says little. */
const CLIPPED = 250;
const CLIPPED_WEIGHT = 0.02;
const LIFT = 4;
/** Weight from which a place counts as seen. */
const SEEN = 1e-4;
/** As bright as a picture well exposed. */
const BRIGHT = 165;
/** A row counts where so much of its turn was seen. */
const ROW_SEEN = 0.3;
/** Further ahead than so many times the nearest that is seen, nothing is taken. */
const FAR = 3.2;

/** Stacks the wall of a bore from the frames in which a scope was followed. */
export interface BoreStacker {
  /** Frames that are wanted, by their times. */
  readonly wanted: readonly number[];
  readonly take: (frame: Pixels, timeS: number) => void;
  readonly finish: () => StackedBore;
}

/** Frames to stack: those that were followed, each a little further than the last. */
function wantedOf(frames: readonly TrackedScope[]): readonly TrackedScope[] {
  const out: TrackedScope[] = [];
  for (const f of frames)
    if (f.alike >= LEAST_ALIKE && (out.length === 0 || Math.abs(f.pose.depth - out.at(-1)!.pose.depth) >= TAKE)) out.push(f);
  return out;
}

/** Begins to stack a film that was followed; `topDeg` is the arc that lies at the top of its first frame. Null where no frame was seen. */
export function boreStacker(tracker: ScopeTracker, radiusMm: number, topDeg: number): BoreStacker | null {
  const [lens, lamp] = [tracker.lens(), tracker.lamp()];
  if (!lens || !lamp) return null;
  const used = wantedOf(tracker.frames);
  const level = quantile(Float32Array.from(lamp.data), 0.5);
  const half = Math.min(lens.width, lens.height) / 2;
  const near = lens.focalPx / Math.hypot(lens.width / 2, lens.height / 2);
  const far = Math.min(FAR * near, lens.focalPx / (SERVES * half));
  const depths = used.map((f) => f.pose.depth);
  const [from, to] = [Math.min(...depths) + near, Math.max(...depths) + far];
  const perRadius = AROUND / (2 * Math.PI);
  const height = Math.max(1, Math.round((to - from) * perRadius));
  const size = AROUND * height;
  const sums = [0, 1, 2].map(() => new Float32Array(size));
  const weights = new Float32Array(size);
  const turns = Float64Array.from({ length: 2 * AROUND }, (_, k) => {
    const arc = (2 * Math.PI * ((k >> 1) + 0.5)) / AROUND - Math.PI / 2 - (topDeg * Math.PI) / 180;
    return k % 2 === 0 ? Math.cos(arc) : Math.sin(arc);
  });
  const [red, green, blue] = sums as [Float32Array, Float32Array, Float32Array];
  const at = new Float64Array(2);
  const value = new Float64Array(3);
  let framesUsed = 0;

  return {
    wanted: used.map((f) => f.timeS),
    take: (frame, timeS) => {
      const own = used.find((f) => Math.abs(f.timeS - timeS) < 1e-4);
      if (!own) return;
      framesUsed++;
      const scale = frame.width / lens.width;
      const place = wallPlace(own.pose, lens);
      const { width, data } = frame;
      const tooNear = (SERVES * half) ** 2;
      const rows = (depth: number): number => Math.round((depth - from) * perRadius);
      const [first, last] = [Math.max(0, rows(own.pose.depth + near * 0.8)), Math.min(height, rows(own.pose.depth + far * 1.15))];
      for (let y = first; y < last; y++) {
        const depth = from + (y + 0.5) / perRadius;
        // A place counts by how many pixels it takes along the bore.
        const fine = (near / (depth - own.pose.depth)) ** 3;
        for (let x = 0; x < AROUND; x++) {
          if (!place(turns[2 * x]!, turns[2 * x + 1]!, depth, at)) continue;
          const cx = at[0]! - lens.width / 2;
          const cy = at[1]! - lens.height / 2;
          if (cx * cx + cy * cy < tooNear) continue;
          const px = at[0]! * scale - 0.5;
          const py = at[1]! * scale - 0.5;
          if (!(px >= 0 && py >= 0 && px < width - 1 && py < frame.height - 1)) continue;
          const x0 = Math.floor(px);
          const y0 = Math.floor(py);
          const k = 4 * (y0 * width + x0);
          const shade = lampAt(lamp, at[0]!, at[1]!) - level;
          const i = y * AROUND + x;
          let most = 0;
          for (let c = 0; c < 3; c++) {
            const v = bilinear(data, k + c, 4, 4 * width, px - x0, py - y0);
            if (v > most) most = v;
            value[c] = toLinear(v) - shade;
          }
          const w = fine * (most >= CLIPPED ? CLIPPED_WEIGHT : 1);
          weights[i]! += w;
          red[i]! += w * value[0]!;
          green[i]! += w * value[1]!;
          blue[i]! += w * value[2]!;
        }
      }
    },
    finish: () => finished({ sums, weights, height }, radiusMm, framesUsed),
  };
}

/** Sums by place: rows from where the scope came out into the bore. */
interface Stacked {
  readonly sums: readonly Float32Array[];
  readonly weights: Float32Array;
  readonly height: number;
}

/** The picture of what was stacked: cut where the wall ends, each end made level. */
function finished({ sums, weights, height }: Stacked, radiusMm: number, framesUsed: number): StackedBore {
  const light = field(AROUND, height);
  for (let i = 0; i < weights.length; i++) light.data[i] = weights[i]! < SEEN ? NaN : sums[1]![i]! / weights[i]!;
  const [first, end] = rowsSeen(weights, height);
  const middle = (first + end) >> 1;
  const near = endRound(light, first, middle);
  const far = endRound(light, middle, end);
  const [low, high] = [near ?? new Float32Array(AROUND).fill(first), far ?? new Float32Array(AROUND).fill(end)];
  const mean = (rows: Float32Array): number => rows.reduce((s, v) => s + v, 0) / AROUND;
  const rows = Math.max(1, Math.round(mean(high) - mean(low)));
  const bright = quantile(
    light.data.filter((v, i) => i % 7 === 0 && !Number.isNaN(v)),
    0.85,
  );
  const gain = toLinear(BRIGHT) - (Number.isNaN(bright) ? 0 : bright);
  const data = new Uint8ClampedArray(4 * AROUND * rows);
  let seen = 0;
  for (let x = 0; x < AROUND; x++)
    for (let y = 0; y < rows; y++) {
      const own = Math.round(low[x]! + ((y + 0.5) / rows) * (high[x]! - low[x]!) - 0.5);
      const i = own * AROUND + x;
      if (own < 0 || own >= height || weights[i]! < SEEN) continue;
      seen++;
      const at = 4 * (y * AROUND + x);
      for (let c = 0; c < 3; c++) data[at + c] = toByte(sums[c]![i]! / weights[i]! + gain);
      data[at + 3] = 255;
    }
  const pxPerMm = AROUND / (2 * Math.PI * radiusMm);
  return {
    pixels: { width: AROUND, height: rows, data },
    pxPerMm,
    widthMm: 2 * Math.PI * radiusMm,
    heightMm: rows / pxPerMm,
    seenShare: seen / (AROUND * rows),
    ends: { near: near !== null, far: far !== null },
    framesUsed,
  };
}

/** First row and end of those of which enough was seen. */
function rowsSeen(weights: Float32Array, height: number): readonly [number, number] {
  const counts = (y: number): boolean => {
    let n = 0;
    for (let x = 0; x < AROUND; x++) if (weights[y * AROUND + x]! >= SEEN) n++;
    return n >= ROW_SEEN * AROUND;
  };
  let [first, end] = [0, height];
  while (first < end - 1 && !counts(first)) first++;
  while (end > first + 1 && !counts(end - 1)) end--;
  return [first, end];
}

function lampAt({ width, height, data }: Field, x: number, y: number): number {
  return data[Math.min(height - 1, Math.max(0, Math.floor(y))) * width + Math.min(width - 1, Math.max(0, Math.floor(x)))]!;
}

/** Logarithm of linear light of a byte that need not be whole, and back; sRGB by its power of 2.2. */
const toLinear = (v: number): number => 2.2 * Math.log((v + LIFT) / 255);
const toByte = (light: number): number => 255 * Math.exp(light / 2.2) - LIFT;
