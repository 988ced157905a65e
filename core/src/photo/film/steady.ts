import type { CameraModel } from '../cameraModel.js';
import type { Pixels } from '../flatten.js';
import { eachShrunk } from '../image/shrink.js';
import type { Point } from '../homography.js';

/** Long side of the pictures in which the hand's straying is looked for. */
const SIDE = 360;
/** How far from the outline of the part a pixel still tells where it lies, and how far a hand strays from one frame to the next, in those pixels. */
const NEAR = 5;
const REACH = 5;

/**
 * Tells how far the outline of a part has strayed in each frame from where it lay in the first, in pixels of the frame: slopes of light along the outline are laid over those of the first frame (normalised cross-correlation, to a
 * fraction of a pixel by a parabola). The part may turn under its outline.
 */
export function steadier(camera: CameraModel, first: Pixels): (frame: Pixels) => { readonly strayed: Point; readonly alike: number } {
  const step = Math.max(1, Math.max(first.width, first.height) / SIDE);
  const [width, height] = [Math.floor(first.width / step), Math.floor(first.height / step)];
  const near = new Uint8Array(width * height);
  const mark = ([x, y]: Point): void => {
    const [cx, cy] = [Math.round(x / step), Math.round(y / step)];
    for (let j = Math.max(0, cy - NEAR); j <= Math.min(height - 1, cy + NEAR); j++)
      for (let i = Math.max(0, cx - NEAR); i <= Math.min(width - 1, cx + NEAR); i++) near[j * width + i] = 1;
  };
  for (let k = 0; k <= 100; k++) {
    mark(camera.project(k / 100, 0));
    mark(camera.project(k / 100, 1));
    mark(camera.project(0, k / 100));
    mark(camera.project(1, k / 100));
  }
  const outline: number[] = [];
  const margin = 2 * REACH + 2;
  for (let y = margin; y < height - margin; y++)
    for (let x = margin; x < width - margin; x++) if (near[y * width + x] && (x + y) % 2 === 0) outline.push(y * width + x);
  const pixels = Int32Array.from(outline);
  const reference = slopes(first, step, width, height);
  let [lastX, lastY] = [0, 0];
  return (frame) => {
    const own = slopes(frame, step, width, height);
    const at = (dx: number, dy: number): number => alike(reference, own, pixels, dy * width + dx, width * height);
    let [bestX, bestY, most] = [lastX, lastY, -1];
    for (let dy = lastY - REACH; dy <= lastY + REACH; dy++)
      for (let dx = lastX - REACH; dx <= lastX + REACH; dx++) {
        const value = at(dx, dy);
        if (value > most) [bestX, bestY, most] = [dx, dy, value];
      }
    [lastX, lastY] = [bestX, bestY];
    const x = bestX + summit(at(bestX - 1, bestY), most, at(bestX + 1, bestY));
    const y = bestY + summit(at(bestX, bestY - 1), most, at(bestX, bestY + 1));
    return { strayed: [x * step, y * step], alike: most };
  };
}

/** Where between −½ and ½ a parabola through three values at −1, 0 and 1 is highest. */
export function summit(before: number, here: number, after: number): number {
  const bend = before - 2 * here + after;
  return bend < 0 ? Math.max(-0.5, Math.min(0.5, (before - after) / (2 * bend))) : 0;
}

/** Steepness of light by pixel of a picture made smaller by `step`. */
export function slopes(picture: Pixels, step: number, w: number, h: number): Float32Array {
  const light = new Float32Array(w * h);
  eachShrunk(picture, step, (i, r, g, b) => (light[i] = Math.log(16 + r + 2 * g + b)));
  const out = new Float32Array(w * h);
  for (let y = 1; y < h - 1; y++)
    for (let x = 1; x < w - 1; x++) {
      const i = y * w + x;
      out[i] = Math.min(0.5, Math.hypot(light[i + 1]! - light[i - 1]!, light[i + w]! - light[i - w]!));
    }
  return out;
}

function alike(a: Float32Array, b: Float32Array, pixels: Int32Array, shift: number, size: number): number {
  let [n, sa, sb, saa, sbb, sab] = [0, 0, 0, 0, 0, 0];
  for (let k = 0; k < pixels.length; k++) {
    const i = pixels[k]!;
    const j = i + shift;
    if (j < 0 || j >= size) continue;
    const [p, q] = [a[i]!, b[j]!];
    n++;
    sa += p;
    sb += q;
    saa += p * p;
    sbb += q * q;
    sab += p * q;
  }
  const spread = Math.sqrt((saa - (sa * sa) / n) * (sbb - (sb * sb) / n));
  return n > 0 && spread > 0 ? (sab - (sa * sb) / n) / spread : -1;
}
