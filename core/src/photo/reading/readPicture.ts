import type { SurfaceRead } from '../../damage/surfaceRead.js';
import type { ShellConstruction } from '../../engine/layout.js';
import type { SurfaceFrame } from '../../engine/stations.js';
import { ok, type Result } from '../../kit/result.js';
import type { Pixels } from '../flatten.js';
import type { Point } from '../homography.js';
import { findOutline } from './findOutline.js';
import { onFrame, sizeFromFrame, type Turn } from './onFrame.js';
import { readSurface } from './readSurface.js';
import type { ReadPart } from './readParts.js';

/** A picture of a place that is to be read, without its pixels. */
export interface PictureTask {
  readonly sha256: string;
  /** In pixels of the upright original; null lets them be found. */
  readonly corners: readonly Point[] | null;
  readonly original: { readonly width: number; readonly height: number };
  readonly part: ReadPart;
  readonly frame: SurfaceFrame;
  readonly turn: Turn;
  readonly construction: ShellConstruction;
}

/** What was read in a picture, and the corners it was read between. */
export interface ReadPicture {
  readonly read: SurfaceRead;
  /** As used, in pixels of the original. */
  readonly corners: readonly Point[];
  readonly cornersFound: boolean;
}

/** From pixels (of the original or smaller) to what the ledger keeps: the same in the page's worker and on the server. `progress` is called with 0–1 and what is done. */
export function readPicture(
  picture: Pixels,
  task: PictureTask,
  progress: (done: number, what: string) => void = () => undefined,
): Result<ReadPicture> {
  const scale = picture.width / task.original.width;
  let corners = task.corners?.map(([x, y]): Point => [x * scale, y * scale]);
  if (!corners) {
    progress(0, 'looking for the part');
    const found = findOutline(task.part, picture);
    if (!found.ok) return found;
    corners = [...found.value];
  }
  const reading = readSurface(task.part, picture, corners, sizeFromFrame(task.part, task.frame, task.turn), {
    construction: task.construction,
    cornersProposed: task.corners === null,
    progress: (done) => progress(0.1 + 0.9 * done, 'reading the surface'),
  });
  if (!reading.ok) return reading;
  return ok({
    read: onFrame(reading.value, task.part, task.frame, task.turn, task.sha256),
    corners: corners.map(([x, y]): Point => [Math.round((x / scale) * 10) / 10, Math.round((y / scale) * 10) / 10]),
    cornersFound: task.corners === null,
  });
}
