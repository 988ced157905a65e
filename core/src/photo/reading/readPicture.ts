import type { SurfaceRead } from '../../damage/surfaceRead.js';
import type { ShellConstruction } from '../../engine/layout.js';
import type { SurfaceFrame } from '../../engine/stations.js';
import { ok, type Result } from '../../kit/result.js';
import { develop, type Pixels } from '../flatten.js';
import type { Point } from '../homography.js';
import { findOutline } from './findOutline.js';
import type { Guess } from './outlineSteps.js';
import { cameraModelOf, type SurfaceSize } from './cameraModelOf.js';
import { readTurn } from './readTurn.js';
import { MAP_COLUMNS, MAP_ROWS } from './surfaceReading.js';
import { onFrame, showsPieceOfTurn, sizeFromFrame, USUAL_TURN, WHOLE_TURN, type Turn } from './onFrame.js';
import { readSurface } from './readSurface.js';
import type { ReadPart } from './readParts.js';
import { seenOf } from './light.js';
import { explainLayers, explainLines, explainSeen, type Explain } from './stagePictures.js';

/** A picture of a place that is to be read, without its pixels. */
export interface PictureTask {
  readonly sha256: string;
  /** In pixels of the upright original; null lets them be found. */
  readonly corners: readonly Point[] | null;
  /** Which guess is wanted where they are found. */
  readonly guess?: Guess;
  readonly original: { readonly width: number; readonly height: number };
  readonly part: ReadPart;
  readonly frame: SurfaceFrame;
  /** Which arc of a full turn it shows; null where nobody said. */
  readonly turn: Turn | null;
  readonly construction: ShellConstruction;
}

/** What was read in a picture, and the corners it was read between. */
export interface ReadPicture {
  readonly read: SurfaceRead;
  /** As used, in pixels of the original. */
  readonly corners: readonly Point[];
  readonly cornersFound: boolean;
}

/** From pixels (of the original or smaller) to what the ledger keeps: the same in the page's worker and on the server. `progress` is called with 0–1 and what is done, `explain` with the picture of every stage. */
export function readPicture(
  picture: Pixels,
  task: PictureTask,
  progress: (done: number, what: string) => void = () => undefined,
  explain?: Explain,
): Result<ReadPicture> {
  const scale = picture.width / task.original.width;
  let corners = task.corners?.map(([x, y]): Point => [x * scale, y * scale]);
  if (!corners) {
    progress(0, 'looking for the part');
    const found = findOutline(task.part, picture, task.guess);
    if (!found.ok) return found;
    corners = [...found.value];
  }
  const turn = task.turn ?? USUAL_TURN;
  const size = sizeFromFrame(task.part, task.frame, turn);
  if (task.part === 'journal' && size.arcDeg !== undefined) return readMade(picture, corners, task, size, explain);
  const reading = readSurface(task.part, picture, corners, size, {
    construction: task.construction,
    cornersProposed: task.corners === null,
    progress: (done) => progress(0.1 + 0.9 * done, 'reading the surface'),
    ...(explain ? { explain } : {}),
  });
  if (!reading.ok) return reading;
  const found = task.corners === null;
  const doubts = task.turn === null && showsPieceOfTurn(task.part) ? [...reading.value.doubts, ARC_UNKNOWN] : reading.value.doubts;
  return ok({
    read: onFrame({ ...reading.value, doubts }, task.part, task.frame, turn, task.sha256),
    corners: corners.map(([x, y]): Point => [Math.round((x / scale) * 10) / 10, Math.round((y / scale) * 10) / 10]),
    cornersFound: found,
  });
}

const ARC_UNKNOWN = `Which arc faces the camera nobody said: ${USUAL_TURN.facingDeg}° is taken. Move the corners to say it.`;

/** Reads a surface that was made of a film once more. */
function readMade(
  picture: Pixels,
  corners: readonly Point[],
  task: PictureTask,
  size: SurfaceSize,
  explain?: Explain,
): Result<ReadPicture> {
  const camera = cameraModelOf('journal', picture, corners, size);
  if (!camera.ok) return camera;
  const { widthMm, heightMm } = camera.value;
  const flat = develop(camera.value, picture, Math.min(2800, picture.width), MAP_COLUMNS, MAP_ROWS);
  const { pixels } = flat;
  let seen = 0;
  for (let i = 3; i < pixels.data.length; i += 4) if (pixels.data[i]! > 0) seen++;
  const reading = readTurn(
    'journal',
    {
      pixels,
      pxPerMm: pixels.width / widthMm,
      widthMm,
      heightMm,
      seenShare: seen / (pixels.width * pixels.height),
      framesUsed: 0,
    },
    null,
  );
  if (!reading.ok) return reading;
  if (explain) {
    const { layered, lines } = reading.value;
    explainSeen(explain, pixels, seenOf(pixels));
    // Lamp and bench were taken out when the film was joined.
    explainLayers(explain, layered, pixels.width, pixels.height);
    explainLines(explain, pixels, lines, 360);
  }
  return ok({ read: onFrame(reading.value, 'journal', task.frame, WHOLE_TURN, task.sha256), corners: task.corners!, cornersFound: false });
}
