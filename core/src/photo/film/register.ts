import type { CameraModel } from '../cameraModel.js';
import { boxMean } from '../reading/field.js';
import type { Pixels } from '../flatten.js';
import type { Point } from '../homography.js';
import { bilinear } from '../image/bilinear.js';
import { solved } from '../image/solved.js';
import { slopes } from './steady.js';

/** Long side of the pictures that are laid over each other, pixels. */
const SIDE = 480;
/** How far a hand strays over a film, in those pixels: looked for in whole pixels before the fine search. */
const REACH = 14;
const ROUNDS = 12;
/** Share of the face along its border that is looked at all the same: its outline stays. */
const BORDER = 0.08;
/** A step of light that differs by more than this comes of the lamp and not of the part. */
const STRANGE = 0.12;

/** How a frame lies over the first: turned about the middle of the picture, then moved. */
export interface Registered {
  readonly moved: Point;
  readonly turnRad: number;
  /** Correlation of its steps of light with those of the first frame, −1 to 1. */
  readonly alike: number;
}

/** Place in a registered frame of a place of the first one. */
export function placeIn(
  { moved, turnRad }: Registered,
  { width, height }: { readonly width: number; readonly height: number },
): (x: number, y: number) => Point {
  const [c, s] = [Math.cos(turnRad), Math.sin(turnRad)];
  const [mx, my] = [width / 2, height / 2];
  return (x, y) => [mx + c * (x - mx) - s * (y - my) + moved[0], my + s * (x - mx) + c * (y - my) + moved[1]];
}

/**
 * Lays the frames of a film over its first one where part and phone stay and only the lamp moves. Steps of light are compared, not light: outlines, marks and the grain of the bench stay where they are when the lamp
 * moves, and glare has soft edges. The face itself is left out, as glare wanders over it. Whole pixels by correlation, then moved and turned by Gauss–Newton (Lucas & Kanade 1981) in which what differs strangely counts little.
 */
export function registrar(first: Pixels, camera: CameraModel): (frame: Pixels) => Registered {
  const step = Math.max(1, Math.max(first.width, first.height) / SIDE);
  const [width, height] = [Math.floor(first.width / step), Math.floor(first.height / step)];
  const soft = (frame: Pixels): Float32Array => boxMean({ width, height, data: slopes(frame, step, width, height) }, 1, 1).data;
  const reference = soft(first);
  const face = faceIn(camera, step, width, height);
  let last: readonly [number, number, number] = [0, 0, 0];
  return (frame) => {
    const own = soft(frame);
    const whole = nearest(reference, own, width, height, Math.round(last[0]), Math.round(last[1]));
    const start = Math.hypot(whole[0] - last[0], whole[1] - last[1]) < 1.5 ? last : ([whole[0], whole[1], last[2]] as const);
    const fit = fine(reference, own, face, width, height, start);
    last = fit.at;
    return { moved: [fit.at[0] * step, fit.at[1] * step], turnRad: fit.at[2], alike: fit.alike };
  };
}

/** 1 inside a face, some way in from its border. */
function faceIn(camera: CameraModel, step: number, width: number, height: number): Uint8Array {
  const out = new Uint8Array(width * height);
  const [across, along] = [400, 160];
  for (let b = 0; b < along; b++)
    for (let a = 0; a < across; a++) {
      const [u, v] = [BORDER + ((1 - 2 * BORDER) * (a + 0.5)) / across, BORDER + ((1 - 2 * BORDER) * (b + 0.5)) / along];
      const [x, y] = camera.project(u, v);
      const [i, j] = [Math.floor(x / step), Math.floor(y / step)];
      if (i >= 0 && j >= 0 && i < width && j < height) out[j * width + i] = 1;
    }
  return out;
}

/** The shift in whole pixels at which two planes are most alike, on every third pixel. */
function nearest(a: Float32Array, b: Float32Array, width: number, height: number, aboutX: number, aboutY: number): Point {
  let best: Point = [aboutX, aboutY];
  let most = -Infinity;
  const margin = 3 * REACH;
  // Twice: coarse over the reach, then every pixel round the best.
  for (const [reach, gap] of [
    [REACH, 3],
    [2, 1],
  ] as const) {
    const [cx, cy] = best;
    for (let dy = cy - reach; dy <= cy + reach; dy += gap)
      for (let dx = cx - reach; dx <= cx + reach; dx += gap) {
        let [sum, square] = [0, 1e-9];
        for (let y = margin; y < height - margin; y += 3)
          for (let x = margin; x < width - margin; x += 3) {
            const j = (y + dy) * width + x + dx;
            const q = j >= 0 && j < b.length ? b[j]! : 0;
            sum += a[y * width + x]! * q;
            square += q * q;
          }
        const worth = sum / Math.sqrt(square);
        if (worth > most) [most, best] = [worth, [dx, dy]];
      }
  }
  return best;
}

function fine(
  a: Float32Array,
  b: Float32Array,
  leftOut: Uint8Array,
  width: number,
  height: number,
  start: readonly [number, number, number],
): { readonly at: readonly [number, number, number]; readonly alike: number } {
  let [dx, dy, turn] = start;
  let alike = 0;
  const [mx, my] = [width / 2, height / 2];
  for (let round = 0; round < ROUNDS; round++) {
    const [c, s] = [Math.cos(turn), Math.sin(turn)];
    const n = [0, 1, 2].map(() => [0, 0, 0]);
    const r = [0, 0, 0];
    let [sa, sb, saa, sbb, sab, count] = [0, 0, 0, 0, 0, 0];
    for (let y = 2; y < height - 2; y += 2)
      for (let x = 2; x < width - 2; x += 2) {
        if (leftOut[y * width + x]) continue;
        const [px, py] = [mx + c * (x - mx) - s * (y - my) + dx, my + s * (x - mx) + c * (y - my) + dy];
        const [x0, y0] = [Math.floor(px), Math.floor(py)];
        if (x0 < 1 || y0 < 1 || x0 >= width - 2 || y0 >= height - 2) continue;
        const i = y0 * width + x0;
        const [fx, fy] = [px - x0, py - y0];
        const [p00, p10, p01, p11] = [b[i]!, b[i + 1]!, b[i + width]!, b[i + width + 1]!];
        const value = bilinear(b, i, 1, width, fx, fy);
        const gx = (p10 - p00) * (1 - fy) + (p11 - p01) * fy;
        const gy = (p01 - p00) * (1 - fx) + (p11 - p10) * fx;
        const here = a[y * width + x]!;
        const off = value - here;
        const weight = 1 / (1 + (off / STRANGE) ** 2);
        const gt = gx * (-s * (x - mx) - c * (y - my)) + gy * (c * (x - mx) - s * (y - my));
        const g = [gx, gy, gt];
        for (let k = 0; k < 3; k++) {
          r[k]! += weight * g[k]! * off;
          for (let l = 0; l < 3; l++) n[k]![l]! += weight * g[k]! * g[l]!;
        }
        sa += here;
        sb += value;
        saa += here * here;
        sbb += value * value;
        sab += here * value;
        count++;
      }
    const spread = Math.sqrt((saa - (sa * sa) / count) * (sbb - (sb * sb) / count));
    alike = count > 0 && spread > 0 ? (sab - (sa * sb) / count) / spread : 0;
    const by = solved(n, r) as [number, number, number] | null;
    if (!by) break;
    dx -= by[0];
    dy -= by[1];
    turn -= by[2];
    if (Math.abs(by[0]) + Math.abs(by[1]) + Math.abs(by[2]) * width < 0.01) break;
  }
  return { at: [dx, dy, turn], alike };
}
