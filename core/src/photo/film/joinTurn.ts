import type { CameraModel } from '../cameraModel.js';
import type { Pixels } from '../flatten.js';
import { bilinear } from '../image/bilinear.js';
import { quantile } from '../reading/field.js';

import { LIFT, SHADE } from './band.js';
import type { SettledTurn } from './closing.js';
import { SERVES_DEG, type TrackedFrame } from './turnTracker.js';

/** The surface of a whole turn, joined from the frames of a film. */
export interface JoinedTurn {
  /** From arc 0 to 360°, front edge at the bottom; transparent where no frame saw it. */
  readonly pixels: Pixels;
  readonly pxPerMm: number;
  readonly widthMm: number;
  readonly heightMm: number;
  /** Share of the full turn that was seen. */
  readonly seenShare: number;
  readonly framesUsed: number;
}

/** Takes the frames that are joined, one after the other in any order. */
export interface TurnJoiner {
  /** Is the frame of this time one that is joined? */
  readonly wants: (timeS: number) => boolean;
  readonly take: (frame: Pixels, timeS: number) => void;
  readonly finish: () => JoinedTurn;
}

const MOST_PX_PER_MM = 18;
const MOST_PIXELS = 1_400_000;
/** A frame shows no more than its own pixels: the surface is made this much finer, no more. */
const FINER = 1.25;
/** The bright part of the joined surface, 0–255. */
const BRIGHT = 190;
/** A channel is over-exposed from here. */
const CLIPPED = 250;
/** What is over-exposed counts so little: it is used where nothing else was seen. */
const CLIPPED_WEIGHT = 0.01;
/** From this on, log of light above the middle of the band, a place lies under the lamp's mirror image, where colour pales. */
const GLARE = 0.5;

/** Prepares the joining. `facingDeg` is the arc that faced the camera in the first frame; `scale` is how many pixels of the frames to come a pixel of the tracked frames is. */
export function turnJoiner(camera: CameraModel, settled: SettledTurn, facingDeg: number, scale: number): TurnJoiner {
  const circumference = 2 * camera.widthMm;
  const pxPerMm = Math.min(MOST_PX_PER_MM, Math.sqrt(MOST_PIXELS / (circumference * camera.heightMm)), FINER * scale * acrossPx(camera));
  const width = Math.round(circumference * pxPerMm);
  const height = Math.round(camera.heightMm * pxPerMm);
  const perDeg = width / 360;
  const half = Math.floor(SERVES_DEG * perDeg);
  const band = 2 * half + 1;
  const { places, weight } = bandPlaces(camera, band, height, perDeg, half);
  const shade = evenShade(settled.followed);
  const sums = [0, 1, 2].map(() => new Float32Array(width * height));
  const weights = new Float32Array(width * height);
  const byTime = new Map(settled.frames.map((f) => [f.timeS, f]));
  let framesUsed = 0;
  return {
    wants: (timeS) => byTime.has(timeS),
    take: (frame, timeS) => {
      const own = byTime.get(timeS);
      if (!own) return;
      framesUsed++;
      const first = Math.round((facingDeg + own.turnedDeg) * perDeg) - half;
      const [dx, dy] = [own.strayed[0] * scale - 0.5, own.strayed[1] * scale - 0.5];
      for (let y = 0; y < height; y++)
        for (let x = 0; x < band; x++) {
          const i = y * band + x;
          const w = weight[i]!;
          if (w === 0) continue;
          const [px, py] = [places[2 * i]! * scale + dx, places[2 * i + 1]! * scale + dy];
          if (!(px >= 0 && py >= 0 && px < frame.width - 1 && py < frame.height - 1)) continue;
          const at = y * width + ((((first + x) % width) + width) % width);
          const [x0, y0] = [Math.floor(px), Math.floor(py)];
          const [fx, fy] = [px - x0, py - y0];
          const k = 4 * (y0 * frame.width + x0);
          const cell = shade.cell((x - half) / perDeg, y / height);
          let most = 0;
          const value = [0, 1, 2].map((c) => {
            const v = bilinear(frame.data, k + c, 4, 4 * frame.width, fx, fy);
            most = Math.max(most, v);
            return Math.log(LIFT + v) - shade.off[c]![cell]!;
          });
          const counts = w * shade.weight[cell]! * (most >= CLIPPED ? CLIPPED_WEIGHT : 1);
          weights[at]! += counts;
          for (let c = 0; c < 3; c++) sums[c]![at]! += counts * value[c]!;
        }
    },
    finish: () => {
      const data = new Uint8ClampedArray(4 * width * height);
      let seen = 0;
      for (let i = 0; i < weights.length; i++) {
        if (weights[i]! < 1e-4) continue;
        seen++;
        for (let c = 0; c < 3; c++) sums[c]![i] = Math.exp(sums[c]![i]! / weights[i]!) - LIFT;
        data[4 * i + 3] = 255;
      }
      // As bright as a picture well exposed.
      const lit = sums[1]!.filter((_, i) => data[4 * i + 3] === 255 && i % 7 === 0);
      const gain = lit.length === 0 ? 1 : BRIGHT / Math.max(8, quantile(lit, 0.9));
      for (let i = 0; i < weights.length; i++)
        if (data[4 * i + 3] === 255) for (let c = 0; c < 3; c++) data[4 * i + c] = gain * sums[c]![i]!;
      return {
        pixels: { width, height, data },
        pxPerMm: width / circumference,
        widthMm: circumference,
        heightMm: camera.heightMm,
        seenShare: seen / weights.length,
        framesUsed,
      };
    },
  };
}

/** Pixels of the tracked frames a millimetre across, in the middle. */
function acrossPx(camera: CameraModel): number {
  const [ax, ay] = camera.project(0.49, 0.5);
  const [bx, by] = camera.project(0.51, 0.5);
  return Math.hypot(bx - ax, by - ay) / (0.02 * camera.widthMm);
}

function bandPlaces(
  camera: CameraModel,
  band: number,
  height: number,
  perDeg: number,
  half: number,
): { places: Float32Array; weight: Float32Array } {
  const places = new Float32Array(2 * band * height);
  const weight = new Float32Array(band * height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < band; x++) {
      const [u, v] = [(x - half) / perDeg / 180 + 0.5, 1 - (y + 0.5) / height];
      const i = y * band + x;
      places.set(camera.project(u, v), 2 * i);
      weight[i] = camera.cosine(u, v) ** 3;
    }
  return { places, weight };
}

/** What lamp and bench do to each channel over the band beyond what they do on the whole, and how little a place under glare counts. */
function evenShade(frames: readonly TrackedFrame[]): {
  readonly off: readonly Float32Array[];
  readonly weight: Float32Array;
  readonly cell: (phiDeg: number, down: number) => number;
} {
  const { columns, rows } = SHADE;
  const size = columns * rows;
  const mean = new Float64Array(3 * size);
  const n = new Float64Array(3 * size);
  frames.forEach((f, k) => {
    const w = 0.05 + Math.min(20, Math.abs(f.turnedDeg - (frames[k - 1] ?? f).turnedDeg));
    f.shade.forEach((v, i) => {
      if (Number.isNaN(v)) return;
      mean[i]! += w * v;
      n[i]! += w;
    });
  });
  const serves = Math.round((SERVES_DEG / 180) * columns);
  const [from, to] = [columns / 2 - serves, columns / 2 + serves];
  const off = [0, 1, 2].map(() => new Float32Array(size));
  const weight = new Float32Array(size);
  for (let r = 0; r < rows; r++) {
    const at = (c: number, x: number): number =>
      n[c * size + r * columns + x]! > 0 ? mean[c * size + r * columns + x]! / n[c * size + r * columns + x]! : NaN;
    const served = Array.from({ length: to - from }, (_, k) => from + k).filter((x) => !Number.isNaN(at(1, x)));
    const green = served.map((x) => at(1, x)).sort((a, b) => a - b);
    const middle = green[Math.floor(green.length / 2)] ?? 0;
    const counts = (x: number): number => 1 / (1 + Math.exp((at(1, x) - middle - GLARE) / 0.12));
    for (const x of served) weight[r * columns + x] = counts(x);
    for (let c = 0; c < 3; c++) {
      const all = served.reduce((s, x) => s + counts(x), 0);
      const level = served.reduce((s, x) => s + counts(x) * at(c, x), 0) / Math.max(1e-6, all);
      for (const x of served) off[c]![r * columns + x] = at(c, x) - level;
    }
  }
  return {
    off,
    weight,
    cell: (phi, down) =>
      Math.min(rows - 1, Math.floor(down * rows)) * columns + Math.min(columns - 1, Math.max(0, Math.floor((phi / 180 + 0.5) * columns))),
  };
}
