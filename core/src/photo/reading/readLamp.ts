import { ok, type Problem, type Result } from '../../kit/result.js';
import type { CameraModel } from '../cameraModel.js';
import type { LampSurface } from '../film/lampFilm.js';
import { hasWalls, reliefOf, shareSeen, type Relief } from '../film/relief.js';
import type { Point } from '../homography.js';
import type { SurfaceSize } from './cameraModelOf.js';
import type { ReadPart } from './readParts.js';
import { readSurface, type ReadOptions } from './readSurface.js';
import type { SurfaceReading } from './surfaceReading.js';

/** What was read on a surface over which a lamp was led. */
export interface LampReading extends SurfaceReading {
  /** For each line, in order: has it walls as a score has; null where the film does not tell. */
  readonly walls: readonly (boolean | null)[];
  readonly relief: Relief;
  /** Share of the face that was seen in frames enough, neither blinded nor dark. */
  readonly seenShare: number;
}

/** Frames a film needs at least. */
const LEAST_FRAMES = 10;
/** Share of the frames that must lie over the first. */
const LEAST_LAID = 0.6;
/** A lamp that wandered less than this both across and along stood still: standard deviations as in `Lamp`. */
const STILL = 0.03;
/** Pixels of the relief across the face. */
const RELIEF_WIDTH = 1400;

/** What stands against reading such a film; null for nothing. The film is kept in any case. */
export function checkLamp({ framesUsed, framesLost, wandered }: LampSurface): Problem | null {
  const all = framesUsed + framesLost;
  if (all >= LEAST_FRAMES && framesUsed < LEAST_LAID * all)
    return {
      code: 'film-moved',
      sentence: `Only ${framesUsed} of ${all} frames could be laid over the first: the phone or the part moved, or something came before it. Lay the phone on a stand, leave the part where it is, and move only the lamp.`,
      field: 'film',
    };
  if (framesUsed < LEAST_FRAMES)
    return {
      code: 'film-short',
      sentence: `The film has ${framesUsed} frames that can be used; ${LEAST_FRAMES} are needed at least. Lead the lamp over the part for about ten seconds.`,
      field: 'film',
    };
  if (wandered.across < STILL && wandered.along < STILL)
    return {
      code: 'film-still',
      sentence:
        'The light hardly changes in this film, so it shows no more than a picture. Lead the lamp slowly over the part, from side to side and from end to end; the phone stays.',
      field: 'film',
    };
  return null;
}

/** Reads a surface over which a lamp was led: the picture without glare as any picture is read, and of each line whether it has walls. */
export function readLamp(
  part: ReadPart,
  lamp: LampSurface,
  camera: CameraModel,
  corners: readonly Point[],
  size: SurfaceSize,
  options: ReadOptions = {},
): Result<LampReading> {
  const reading = readSurface(part, lamp.picture, corners, size, options);
  if (!reading.ok) return reading;
  const relief = reliefOf(lamp, camera, RELIEF_WIDTH);
  const seenShare = shareSeen(relief);
  const walls = reading.value.lines.map((line) => hasWalls(relief, lamp, line, camera.spanDeg));
  return ok({ ...reading.value, walls, relief, seenShare });
}
