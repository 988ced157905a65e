import type { CameraModel } from '../cameraModel.js';
import type { Pixels } from '../flatten.js';
import type { Point } from '../homography.js';
import { boxMean, field, type Field } from '../reading/field.js';
import { LINEAR } from '../reading/light.js';
import { lampAt, type Lamp } from './lampAt.js';
import { placeIn, registrar } from './register.js';

/** What a film whose lamp moved says of a part that stays. All of the made picture lies over the first frame. */
export interface LampSurface {
  /** The picture without glare, as large as a frame: colour is that of the metal in the frames in which the lamp did not blind it. */
  readonly picture: Pixels;
  /** What was looked at of it: left, top, right, bottom in pixels. */
  readonly box: readonly [number, number, number, number];
  /** How the light of a place goes up (positive) or down with that of the rear half, as the lamp moves along the axis, by pixel of the box; in logarithms over those of the lamp. */
  readonly alongAxis: Float32Array;
  /** Frames in which a place was seen neither blinded nor dark, by pixel of the box. */
  readonly frames: Uint16Array;
  readonly framesUsed: number;
  readonly framesLost: number;
  /** How far the lamp wandered over the face: standard deviations across and along. */
  readonly wandered: Lamp;
}

/** Share of the face that is looked at beyond its corners. */
const MARGIN = 0.08;
/** Frames less alike to the first than this are left out: the phone moved, or something came before it. */
const LEAST_ALIKE = 0.35;
/** Half width over which light counts as lamp and not as surface, share of the box. */
const LAMP_WIDE = 1 / 24;
/** Of a channel: from here on it is blinded, and at this much below it counts wholly; below `DARK` it says nothing. */
const BLIND = 250;
const TAPER = 30;
const DARK = 10;
/** Floor added before a logarithm. */
const FLOOR = 0.006;
/** Times that a place must be seen at least for what the lamp tells of its slope. */
export const LEAST_FRAMES = 5;

/** Gathers the frames of a film whose lamp moves while part and phone stay, one by one, without keeping them. */
export interface LampGatherer {
  /** Takes a frame; false when it could not be laid over the first. */
  readonly take: (frame: Pixels) => boolean;
  readonly finish: () => LampSurface;
}

/** Sums by pixel of the box, for what follows from all frames at once. */
const SUMS = [
  'n',
  'across',
  'along',
  'acrossSquare',
  'alongSquare',
  'both',
  'detail',
  'detailAcross',
  'detailAlong',
  'low',
  'red',
  'green',
  'blue',
] as const;
type Sum = (typeof SUMS)[number];

/** Begins a film with its first frame, in which the part lies as `camera` says. */
export function lampGatherer(camera: CameraModel, first: Pixels): LampGatherer {
  const register = registrar(first, camera);
  const box = boxOf(camera, first);
  const [left, top, right, bottom] = box;
  const [width, height] = [right - left, bottom - top];
  const size = width * height;
  const sums = Object.fromEntries(SUMS.map((name) => [name, new Float32Array(size)])) as Record<Sum, Float32Array>;
  const lampOf = lampAt(camera);
  const lamps: Lamp[] = [];
  let lost = 0;
  const half = Math.max(4, Math.round(LAMP_WIDE * Math.max(width, height)));

  const take = (frame: Pixels): boolean => {
    const so = register(frame);
    if (so.alike < LEAST_ALIKE) {
      lost++;
      return false;
    }
    const place = placeIn(so, first);
    const lamp = lampOf(frame, place);
    if (!lamp) {
      lost++;
      return false;
    }
    lamps.push(lamp);
    const { light, linear, weight } = laidOver(frame, place, box);
    const low = boxMean(boxMean(light, half, half), half, half).data;
    for (let i = 0; i < size; i++) {
      const w = weight[i]!;
      sums.low[i]! += low[i]!;
      if (w <= 0) continue;
      const detail = Math.max(-1.2, Math.min(1.2, light.data[i]! - low[i]!));
      sums.n[i]! += w;
      sums.across[i]! += w * lamp.across;
      sums.along[i]! += w * lamp.along;
      sums.acrossSquare[i]! += w * lamp.across ** 2;
      sums.alongSquare[i]! += w * lamp.along ** 2;
      sums.both[i]! += w * lamp.across * lamp.along;
      sums.detail[i]! += w * detail;
      sums.detailAcross[i]! += w * detail * lamp.across;
      sums.detailAlong[i]! += w * detail * lamp.along;
      sums.red[i]! += w * linear[3 * i]!;
      sums.green[i]! += w * linear[3 * i + 1]!;
      sums.blue[i]! += w * linear[3 * i + 2]!;
    }
    return true;
  };

  const finish = (): LampSurface => {
    const data = Uint8ClampedArray.from(first.data);
    const alongAxis = new Float32Array(size);
    const frames = new Uint16Array(size);
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) {
        const i = y * width + x;
        const n = sums.n[i]!;
        frames[i] = Math.round(n);
        if (n < 0.5) continue;
        const light = Math.exp(sums.low[i]! / Math.max(1, lamps.length) + sums.detail[i]! / n);
        const [r, g, b] = [sums.red[i]!, sums.green[i]!, sums.blue[i]!];
        const own = 0.2126 * r + 0.7152 * g + 0.0722 * b;
        const at = 4 * ((top + y) * first.width + left + x);
        for (const [k, v] of [r, g, b].entries()) data[at + k] = byteOf((v / Math.max(1e-6, own)) * light);
        if (n < LEAST_FRAMES) continue;
        alongAxis[i] = slopeAlong(sums, i);
      }
    const detail = Float32Array.from(sums.detail, (d, i) => (sums.n[i]! > 0 ? d / sums.n[i]! : 0));
    withoutStraying(alongAxis, detail, frames, width, height);
    return {
      picture: { width: first.width, height: first.height, data },
      box,
      alongAxis,
      frames,
      framesUsed: lamps.length,
      framesLost: lost,
      wandered: { across: spread(lamps.map((l) => l.across)), along: spread(lamps.map((l) => l.along)) },
    };
  };
  return { take, finish };
}

/** A frame as it lies over the box of the first one. */
interface LaidFrame {
  /** Logarithm of luminance. */
  readonly light: Field;
  /** Linear light, three channels a pixel. */
  readonly linear: Float32Array;
  /** 1 seen well, 0 blinded, dark or beyond the frame. */
  readonly weight: Float32Array;
}

function laidOver(frame: Pixels, place: (x: number, y: number) => Point, [left, top, right, bottom]: LampSurface['box']): LaidFrame {
  const [width, height] = [right - left, bottom - top];
  const light = field(width, height);
  const linear = new Float32Array(3 * width * height);
  const weight = new Float32Array(width * height);
  const { data } = frame;
  light.data.fill(Math.log(FLOOR));
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      const [px, py] = place(left + x + 0.5, top + y + 0.5);
      const [x0, y0] = [Math.floor(px - 0.5), Math.floor(py - 0.5)];
      if (x0 < 0 || y0 < 0 || x0 >= frame.width - 1 || y0 >= frame.height - 1) continue;
      const [fx, fy] = [px - 0.5 - x0, py - 0.5 - y0];
      const k = 4 * (y0 * frame.width + x0);
      const below = k + 4 * frame.width;
      let brightest = 0;
      for (let c = 0; c < 3; c++) {
        const [a, b, d, e] = [data[k + c]!, data[k + 4 + c]!, data[below + c]!, data[below + 4 + c]!];
        brightest = Math.max(brightest, a, b, d, e);
        linear[3 * i + c] = (LINEAR[a]! * (1 - fx) + LINEAR[b]! * fx) * (1 - fy) + (LINEAR[d]! * (1 - fx) + LINEAR[e]! * fx) * fy;
      }
      light.data[i] = Math.log(0.2126 * linear[3 * i]! + 0.7152 * linear[3 * i + 1]! + 0.0722 * linear[3 * i + 2]! + FLOOR);
      weight[i] = brightest < DARK ? 0 : Math.max(0, Math.min(1, (BLIND - brightest) / TAPER));
    }
  return { light, linear, weight };
}

/** How the detail of a pixel goes with where the lamp stood along the axis: regression on both its places, held a little towards nothing. */
function slopeAlong(sums: Record<Sum, Float32Array>, i: number): number {
  const n = sums.n[i]!;
  const [a, b, d] = [sums.across[i]! / n, sums.along[i]! / n, sums.detail[i]! / n];
  const hold = 0.01;
  const saa = sums.acrossSquare[i]! / n - a * a + hold;
  const sbb = sums.alongSquare[i]! / n - b * b + hold;
  const sab = sums.both[i]! / n - a * b;
  const sad = sums.detailAcross[i]! / n - a * d;
  const sbd = sums.detailAlong[i]! / n - b * d;
  const det = saa * sbb - sab * sab;
  return det < 1e-9 ? 0 : (saa * sbd - sab * sad) / det;
}

/**
 * Takes out of a plane what comes of frames that lie a fraction of a pixel off: where they stray with the lamp, every mark grows lighter on one side and darker on the other, as if it had walls. How far, is one pair of
 * figures for the whole picture, by least squares over the slopes of its marks and outlines.
 */
function withoutStraying(plane: Float32Array, detail: Float32Array, frames: Uint16Array, width: number, height: number): void {
  const [gx, gy] = [new Float32Array(plane.length), new Float32Array(plane.length)];
  let [xx, xy, yy, xp, yp] = [1e-6, 0, 1e-6, 0, 0];
  for (let y = 1; y < height - 1; y++)
    for (let x = 1; x < width - 1; x++) {
      const i = y * width + x;
      if ([i, i - 1, i + 1, i - width, i + width].some((k) => frames[k]! < LEAST_FRAMES)) continue;
      const [a, b] = [(detail[i + 1]! - detail[i - 1]!) / 2, (detail[i + width]! - detail[i - width]!) / 2];
      gx[i] = a;
      gy[i] = b;
      xx += a * a;
      xy += a * b;
      yy += b * b;
      xp += a * plane[i]!;
      yp += b * plane[i]!;
    }
  const det = xx * yy - xy * xy;
  if (det < 1e-12) return;
  const [kx, ky] = [(yy * xp - xy * yp) / det, (xx * yp - xy * xp) / det];
  for (let i = 0; i < plane.length; i++) plane[i]! -= kx * gx[i]! + ky * gy[i]!;
}

const spread = (values: readonly number[]): number => {
  const mean = values.reduce((s, v) => s + v, 0) / Math.max(1, values.length);
  return Math.sqrt(values.reduce((s, v) => s + (v - mean) ** 2, 0) / Math.max(1, values.length));
};

/** sRGB (IEC 61966-2-1) of linear light. */
function byteOf(v: number): number {
  const c = Math.max(0, Math.min(1, v));
  return 255 * (c <= 0.0031308 ? 12.92 * c : 1.055 * c ** (1 / 2.4) - 0.055);
}

/** The part of a picture in which a surface lies, with a margin. */
function boxOf(camera: CameraModel, { width, height }: Pixels): readonly [number, number, number, number] {
  const points: Point[] = [];
  for (let k = 0; k <= 40; k++) for (const v of [0, 0.5, 1]) points.push(camera.project(k / 40, v));
  const [xs, ys] = [points.map((p) => p[0]), points.map((p) => p[1])];
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const gap = MARGIN * (x1 - x0 + (y1 - y0));
  const within = (v: number, most: number): number => Math.max(0, Math.min(most, Math.round(v)));
  return [within(x0 - gap, width), within(y0 - gap, height), within(x1 + gap, width), within(y1 + gap, height)];
}
