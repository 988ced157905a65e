import { fail, ok, type Result } from '../kit/result.js';
import { homography, type Matrix3, type Point } from './homography.js';
import type { Pixels } from './flatten.js';

/** The printed part tag, mm from its top left corner: a code, a 20 mm bar and four patches in a row. */
export const PART_TAG = {
  widthMm: 76,
  heightMm: 34,
  code: { x: 4, y: 4, size: 26 },
  bar: { x: 36, y: 16, length: 20, thick: 2 },
  patchSize: 8,
  patches: [
    { name: 'light grey', x: 36, y: 4, rgb: [198, 198, 198] },
    { name: 'mid grey', x: 45, y: 4, rgb: [118, 118, 118] },
    { name: 'violet', x: 54, y: 4, rgb: [49, 65, 140] },
    { name: 'copper', x: 63, y: 4, rgb: [184, 115, 70] },
  ],
} as const;

/** What the code of a part tag says. */
export interface TagText {
  readonly caseId: string;
  readonly station: string;
}

/** What the code on a tag says: `TL1:` case id without dashes `:` station. */
export function tagText({ caseId, station }: TagText): string {
  return `TL1:${caseId.replaceAll('-', '')}:${station}`;
}

const TAG = /^TL1:([0-9a-f]{8})([0-9a-f]{4})([0-9a-f]{4})([0-9a-f]{4})([0-9a-f]{12}):([a-z0-9.-]{1,60})$/;

/** Reads the text of a code; null when it is not one of our tags, whatever it says. */
export function parseTagText(text: string): TagText | null {
  const m = TAG.exec(text);
  return m ? { caseId: `${m[1]}-${m[2]}-${m[3]}-${m[4]}-${m[5]}`, station: m[6] ?? '' } : null;
}

const toLinear = (v: number): number => {
  const s = v / 255;
  return s <= 0.04045 ? s / 12.92 : ((s + 0.055) / 1.055) ** 2.4;
};
const fromLinear = (v: number): number => {
  const s = v <= 0.0031308 ? v * 12.92 : 1.055 * Math.max(0, v) ** (1 / 2.4) - 0.055;
  return Math.max(0, Math.min(255, s * 255));
};

/** sRGB 0–255 after the tag's gains, which act in linear light (IEC 61966-2-1). */
export function corrected(rgb: readonly [number, number, number], gains: readonly [number, number, number]): [number, number, number] {
  return [0, 1, 2].map((k) => fromLinear(toLinear(rgb[k]!) * gains[k]!)) as [number, number, number];
}

/** From millimetres on the tag to pixels, from the four corners of its code (top left, top right, bottom right, bottom left). */
export function tagHomography(corners: readonly Point[], codeMm: number = PART_TAG.code.size): Result<Matrix3> {
  const { x, y } = PART_TAG.code;
  return homography(
    [
      [x, y],
      [x + codeMm, y],
      [x + codeMm, y + codeMm],
      [x, y + codeMm],
    ],
    corners,
  );
}

/** A point through a homography (3 × 3, row by row): where it lies in the other plane. */
export function project(h: Matrix3, [x, y]: Point): Point {
  const w = h[6] * x + h[7] * y + h[8];
  return [(h[0] * x + h[1] * y + h[2]) / w, (h[3] * x + h[4] * y + h[5]) / w];
}

/** Distance in the plane of the tag between two picture points, mm. A face lying above the tag measures too large by its height over the distance to the lens. */
export function tagDistanceMm(corners: readonly Point[], a: Point, b: Point, codeMm: number = PART_TAG.code.size): number | null {
  const { x, y } = PART_TAG.code;
  const back = homography(corners, [
    [x, y],
    [x + codeMm, y],
    [x + codeMm, y + codeMm],
    [x, y + codeMm],
  ]);
  if (!back.ok) return null;
  const p = project(back.value, a);
  const q = project(back.value, b);
  return Math.hypot(p[0] - q[0], p[1] - q[1]);
}

/** Mean linear colour of the middle of a patch. */
function patchMean(pixels: Pixels, h: Matrix3, patch: { readonly x: number; readonly y: number }): [number, number, number] | null {
  const sum: [number, number, number] = [0, 0, 0];
  let n = 0;
  for (let i = 0; i < 12; i++)
    for (let j = 0; j < 12; j++) {
      const share = (k: number): number => 0.25 + (0.5 * (k + 0.5)) / 12;
      const [px, py] = project(h, [patch.x + PART_TAG.patchSize * share(i), patch.y + PART_TAG.patchSize * share(j)]);
      const x = Math.round(px - 0.5);
      const y = Math.round(py - 0.5);
      if (x < 0 || y < 0 || x >= pixels.width || y >= pixels.height) continue;
      const at = (y * pixels.width + x) * 4;
      for (let k = 0; k < 3; k++) sum[k]! += toLinear(pixels.data[at + k]!);
      n++;
    }
  return n < 72 ? null : (sum.map((v) => v / n) as [number, number, number]);
}

/** A part tag found in a picture. */
export interface TagReading {
  /** Factors on linear red, green and blue that bring the two greys to what was printed. */
  readonly gains: readonly [number, number, number];
  readonly pixelsPerMm: number;
}

/** White balance, exposure and scale from a tag whose code was found at `corners`. Fails when the patches are not where they should be. */
export function readTag(pixels: Pixels, corners: readonly Point[]): Result<TagReading> {
  const h = tagHomography(corners);
  if (!h.ok) return h;
  const [light, mid] = PART_TAG.patches;
  const a = patchMean(pixels, h.value, light);
  const b = patchMean(pixels, h.value, mid);
  const hidden = fail(
    'tag-patches',
    'The grey patches of the tag are covered or cut off: the place is read, colours are left as they are.',
    'tag',
  );
  if (!a || !b) return hidden;
  const gains = [0, 1, 2].map((k) => {
    const ta = toLinear(light.rgb[k]!);
    const tb = toLinear(mid.rgb[k]!);
    return (ta * a[k]! + tb * b[k]!) / (a[k]! * a[k]! + b[k]! * b[k]!);
  }) as [number, number, number];
  const brighter = a.every((v, k) => v > b[k]! * 1.25);
  if (!brighter || gains.some((g) => !(g > 0.2 && g < 5))) return hidden;
  const { x, y, size } = PART_TAG.code;
  const p = project(h.value, [x + size * 0.4, y + size * 0.5]);
  const q = project(h.value, [x + size * 0.6, y + size * 0.5]);
  return ok({ gains, pixelsPerMm: Math.hypot(p[0] - q[0], p[1] - q[1]) / (size * 0.2) });
}

/**
 * Draws a tag flat, `scale` pixels a millimetre, from the modules of its code (row by row, true is dark). Used for demonstration pictures and tests;
 * the printed sheet is drawn from the same measures.
 */
export function renderTag(modules: ReadonlyArray<readonly boolean[]>, scale: number): Pixels {
  const width = Math.round(PART_TAG.widthMm * scale);
  const height = Math.round(PART_TAG.heightMm * scale);
  const data = new Uint8ClampedArray(width * height * 4).fill(255);
  const paint = (x0: number, y0: number, w: number, h: number, rgb: readonly number[]): void => {
    for (let y = Math.round(y0 * scale); y < Math.round((y0 + h) * scale); y++)
      for (let x = Math.round(x0 * scale); x < Math.round((x0 + w) * scale); x++) data.set(rgb, (y * width + x) * 4);
  };
  const { code, bar, patches, patchSize } = PART_TAG;
  const m = code.size / modules.length;
  modules.forEach((row, j) => row.forEach((dark, i) => dark && paint(code.x + i * m, code.y + j * m, m, m, [16, 16, 16])));
  paint(bar.x, bar.y, bar.length, bar.thick, [16, 16, 16]);
  for (const p of patches) paint(p.x, p.y, patchSize, patchSize, p.rgb);
  return { width, height, data };
}
