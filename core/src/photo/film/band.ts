import type { CameraModel } from '../cameraModel.js';
import type { Pixels } from '../flatten.js';
import type { Point } from '../homography.js';
import { bilinear } from '../image/bilinear.js';

/** Where in a frame every pixel of the developed half turn lies; found once, as the camera stays. Row 0 is the rear edge. */
export interface BandMap {
  readonly width: number;
  readonly height: number;
  /** x and y by turns, in pixels of the frame; NaN where the surface is not seen. */
  readonly places: Float32Array;
}

/** Least cosine of the angle of view at which a place is followed. */
const LEAST_COSINE = 0.2;
/** Share of the width at either end that is left out: fillets and what they mirror. */
const END = 0.04;

/** The developed band of a round part, `width` pixels over its half turn. */
export function bandMap(camera: CameraModel, width: number, height: number): BandMap {
  const places = new Float32Array(2 * width * height).fill(NaN);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const [u, v] = [(x + 0.5) / width, END + (1 - 2 * END) * (1 - (y + 0.5) / height)];
      if (camera.cosine(u, v) < LEAST_COSINE) continue;
      places.set(camera.project(u, v), 2 * (y * width + x));
    }
  return { width, height, places };
}

/** Planes of a band: light, and how much green there is over blue (stains are pale, and yellow). */
export const PLANES = 2;

/** Light by pixel of the band and below it colour, logarithms, from a frame that strayed so far; NaN where it is not seen. */
export function lightOf({ width, height, places }: BandMap, frame: Pixels, [dx, dy]: Point): Float32Array {
  const size = width * height;
  const out = new Float32Array(PLANES * size);
  const { data } = frame;
  for (let i = 0; i < size; i++) {
    const [x, y] = [places[2 * i]! + dx - 0.5, places[2 * i + 1]! + dy - 0.5];
    if (!(x >= 0 && y >= 0 && x < frame.width - 1 && y < frame.height - 1)) {
      out[i] = out[size + i] = NaN;
      continue;
    }
    const [x0, y0] = [Math.floor(x), Math.floor(y)];
    const [fx, fy] = [x - x0, y - y0];
    const k = 4 * (y0 * frame.width + x0);
    const at = (c: number): number => bilinear(data, k + c, 4, 4 * frame.width, fx, fy);
    const [r, g, b] = [at(0), at(1), at(2)];
    out[i] = Math.log(16 + r + 2 * g + b);
    out[size + i] = Math.log((g + 12) / (b + 12));
  }
  return out;
}

/** Cells along the arc and along the axis in which lamp and shade are kept by channel. */
export const SHADE = { columns: 120, rows: 6 } as const;

/** Logarithm of each channel by coarse cell of the half turn, channel after channel; NaN where nothing is seen. */
export function shadeOf({ width, height, places }: BandMap, frame: Pixels, [dx, dy]: Point): Float32Array {
  const size = SHADE.columns * SHADE.rows;
  const out = new Float32Array(3 * size);
  const n = new Uint16Array(size);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      const [px, py] = [Math.round(places[2 * i]! + dx - 0.5), Math.round(places[2 * i + 1]! + dy - 0.5)];
      if (!(px >= 0 && py >= 0 && px < frame.width && py < frame.height)) continue;
      const cell = Math.floor((y / height) * SHADE.rows) * SHADE.columns + Math.floor((x / width) * SHADE.columns);
      const at = 4 * (py * frame.width + px);
      n[cell]!++;
      for (let c = 0; c < 3; c++) out[c * size + cell]! += Math.log(LIFT + frame.data[at + c]!);
    }
  return out.map((v, k) => (n[k % size] === 0 ? NaN : v / n[k % size]!));
}

/** Added to a channel before its logarithm, so that noise in the dark does not count for more than it is. */
export const LIFT = 6;
