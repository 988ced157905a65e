import { ok, type Result } from '../../kit/result.js';
import type { Pixels } from '../flatten.js';
import type { Point } from '../homography.js';
import { discCamera, flatCamera, ringCamera, roundCamera, shellCamera, type CameraModel } from '../cameraModel.js';
import { roundPoseByRun, shellPoseByRun } from './focal.js';
import type { FlattenedPart } from './readParts.js';

/**
 * Size of a surface, mm. Round parts: radius of the running face and its length along the axis. Thrust face: outer radius and the width of the ring. Crown: radius.
 * A width that is not known follows from the picture of a shell or round part; elsewhere it is needed.
 */
export interface SurfaceSize {
  readonly radiusMm: number;
  readonly widthMm: number | null;
  /** Arc that a developed strip covers, degrees: of a bore, or 360 of a journal unrolled from a film. */
  readonly arcDeg?: number;
}

/**
 * How a part lies in a picture, from its corners (left-front, left-rear, right-rear, right-front; of rings and crowns those of the square about their circle). `fineness` under 1 is quicker and
 * coarser, for drawing.
 */
export function cameraModelOf(
  part: FlattenedPart,
  picture: Pixels,
  corners: readonly Point[],
  size: SurfaceSize,
  fineness = 1,
): Result<CameraModel> {
  const { radiusMm } = size;
  const width = size.widthMm ?? radiusMm * 0.8;
  switch (part) {
    case 'shell': {
      const pose = shellPoseByRun(corners, picture, radiusMm, size.widthMm, fineness);
      return pose.ok ? ok(shellCamera(pose.value)) : pose;
    }
    case 'journal':
    case 'skirt': {
      // A surface that was made of a film is developed already.
      if (size.arcDeg === 360) return flatCamera(corners, 2 * Math.PI * radiusMm, size.widthMm ?? stripWidth(corners, radiusMm), 360);
      const pose = roundPoseByRun(corners, picture, radiusMm, fineness);
      if (!pose.ok) return pose;
      const camera = roundCamera(pose.value);
      // A length that is known is the scale along the axis; how the part lies follows from its corners all the same.
      return ok(size.widthMm === null ? camera : { ...camera, heightMm: size.widthMm });
    }
    case 'bore': {
      const arc = size.arcDeg ?? 90;
      return flatCamera(corners, (Math.PI * radiusMm * arc) / 180, size.widthMm ?? radiusMm, arc);
    }
    case 'thrust':
      return ringCamera(corners, radiusMm, radiusMm - Math.min(width, 0.9 * radiusMm));
    case 'crown':
      return discCamera(corners, 2 * radiusMm);
  }
}

/** Width along the axis of a strip of a whole turn, by its own proportions. */
function stripWidth(corners: readonly Point[], radiusMm: number): number {
  const between = (a: number, b: number): number => Math.hypot(corners[a]![0] - corners[b]![0], corners[a]![1] - corners[b]![1]);
  return (2 * Math.PI * radiusMm * between(0, 1)) / Math.max(1, between(0, 3));
}
