import type { Result } from '../../kit/result.js';
import type { StackedBore } from '../film/stackBore.js';
import type { Point } from '../homography.js';
import { readSurface, type ReadOptions } from './readSurface.js';
import type { SurfaceReading } from './surfaceReading.js';

/** Corners of a surface that fills its picture, front edge at the bottom. */
export const wholePicture = ({ width, height }: { readonly width: number; readonly height: number }): readonly Point[] => [
  [0, height],
  [0, 0],
  [width, 0],
  [width, height],
];

/** Reads the wall of a bore that was stacked from a film; `lengthMm` is its length between its ends where that is known better than from the lens. */
export function readBore(bore: StackedBore, lengthMm: number | null = null, options: ReadOptions = {}): Result<SurfaceReading> {
  const size = { radiusMm: bore.widthMm / (2 * Math.PI), widthMm: lengthMm ?? bore.heightMm, arcDeg: 360 };
  return readSurface('bore', bore.pixels, wholePicture(bore.pixels), size, options);
}
