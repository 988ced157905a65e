import type { Problem } from '../../kit/result.js';
import { NOT_SEEN_COSINE, type Developed, type Pixels } from '../flatten.js';
import { isConvex, type Point } from '../homography.js';

/** Stands against the corners as given, before anything is computed. */
export function checkFrame(picture: Pixels, corners: readonly Point[]): Problem | null {
  if (picture.width < 64 || picture.height < 64)
    return {
      code: 'picture-small',
      sentence: `The picture is ${picture.width} × ${picture.height} pixels: too small to read. Take the original file.`,
      field: 'picture',
    };
  if (corners.length !== 4 || corners.some((p) => !p.every(Number.isFinite)))
    return { code: 'corners-missing', sentence: 'Four corners are needed, each with x and y in pixels.', field: 'corners' };
  if (!isConvex(corners))
    return {
      code: 'corners-crossed',
      sentence: 'The corners cross or lie on one line. Go round the face: left-front, left-rear, right-rear, right-front.',
      field: 'corners',
    };
  const out = corners.filter(
    ([x, y]) => x < -0.02 * picture.width || y < -0.02 * picture.height || x > 1.02 * picture.width || y > 1.02 * picture.height,
  );
  if (out.length > 0)
    return {
      code: 'corners-outside',
      sentence: `${out.length === 1 ? 'A corner lies' : `${out.length} corners lie`} outside the picture: part of the face is not in it. Take it again with the whole half in view.`,
      field: 'corners',
    };
  return null;
}

/** Places that are seen at a sliver count as not seen. */
export function hideOblique(there: Uint8Array, flat: Developed): void {
  const { width, height } = flat.pixels;
  for (let y = 0; y < height; y++) {
    const row = Math.min(flat.rows - 1, Math.floor((1 - (y + 0.5) / height) * flat.rows));
    for (let x = 0; x < width; x++) {
      // Between the middles of the cells.
      const c = Math.min(flat.columns - 1.001, Math.max(0, ((x + 0.5) / width) * flat.columns - 0.5));
      const a = Math.floor(c);
      const cosine =
        flat.cosine[row * flat.columns + a]! * (1 - c + a) + flat.cosine[row * flat.columns + Math.min(flat.columns - 1, a + 1)]! * (c - a);
      if (cosine < NOT_SEEN_COSINE) there[y * width + x] = 0;
    }
  }
}

/** Share of the face along a border that was found without help, which is not read. */
export const BORDER = 0.05;

/** `allRound` where the surface is a whole turn: its two sides are one place and no border. */
export function hideBorder(there: Uint8Array, width: number, height: number, allRound: boolean): void {
  const [bx, by] = [allRound ? 0 : Math.round(BORDER * width * 0.7), Math.round(BORDER * height)];
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) if (x < bx || y < by || x >= width - bx || y >= height - by) there[y * width + x] = 0;
}

export function isGrey({ data }: Pixels): boolean {
  let coloured = 0;
  let n = 0;
  for (let i = 0; i < data.length; i += 4 * 37) {
    if (data[i + 3] === 0) continue;
    n++;
    if (Math.max(data[i]!, data[i + 1]!, data[i + 2]!) - Math.min(data[i]!, data[i + 1]!, data[i + 2]!) > 2) coloured++;
  }
  return n > 0 && coloured < n * 0.01;
}

export const share = (mask: Uint8Array): number => mask.reduce((s, v) => s + v, 0) / Math.max(1, mask.length);

export function darkShare(light: Float32Array, there: Uint8Array): number {
  let dark = 0;
  let n = 0;
  for (let i = 0; i < light.length; i += 5) {
    if (!there[i]) continue;
    n++;
    if (light[i]! < -4) dark++;
  }
  return n === 0 ? 1 : dark / n;
}
