import type { Outcome } from '@true-ledger/contract';
import type { EntryBodies } from '@true-ledger/core/entries';
import type { SurfaceFrame } from '@true-ledger/core/engine';
import { sha256Hex } from '@true-ledger/core/kit';
import {
  cameraModelOf,
  checkTurn,
  missingDeg,
  onFrame,
  readTurn,
  settleTurn,
  turnJoiner,
  turnTracker,
  WHOLE_TURN,
  type Pixels,
  type Point,
} from '@true-ledger/core/photo';
import { expose } from 'comlink';

/** How the part lies in the first frame. */
export interface FilmTask {
  readonly corners: readonly Point[];
  readonly radiusMm: number;
  readonly facingDeg: number;
}

/** How far the part was followed. */
export interface FilmProgress {
  readonly turnedDeg: number;
  readonly missingDeg: number;
  readonly followed: boolean;
}

/** The surface that was made of a film, and what was read on it. */
export interface MadeSurface {
  readonly png: Blob;
  readonly sha256: string;
  readonly width: number;
  readonly height: number;
  readonly read: EntryBodies['surface-read'];
  readonly closingErrorDeg: number | null;
  readonly seenDeg: number;
}

/** Below this agreement a frame counts as not followed. */
const FOLLOWED = 0.1;

let camera: ReturnType<typeof cameraModelOf> | null = null;
let tracker: ReturnType<typeof turnTracker> | null = null;
let joiner: ReturnType<typeof turnJoiner> | null = null;
let settled: ReturnType<typeof settleTurn> | null = null;
let task: FilmTask | null = null;
let surface: OffscreenCanvas | null = null;

function pixelsOf(bitmap: ImageBitmap): Pixels {
  const { width, height } = bitmap;
  if (surface?.width !== width || surface.height !== height) surface = new OffscreenCanvas(width, height);
  const context = surface.getContext('2d', { willReadFrequently: true });
  if (!context) throw new Error('no canvas');
  context.drawImage(bitmap, 0, 0);
  bitmap.close();
  return { width, height, data: context.getImageData(0, 0, width, height).data };
}

/** Takes a film in, frame by frame, in a thread of its own. One film a worker; a page that no longer wants it ends the worker. */
const film = {
  begin(given: FilmTask): void {
    task = given;
    [camera, tracker, joiner, settled] = [null, null, null, null];
  },

  /** Follows the part in one more frame. */
  follow(bitmap: ImageBitmap, timeS: number): Outcome<FilmProgress> {
    const frame = pixelsOf(bitmap);
    if (!tracker) {
      camera = cameraModelOf('journal', frame, task!.corners, { radiusMm: task!.radiusMm, widthMm: null });
      if (!camera.ok) return camera;
      tracker = turnTracker(camera.value);
    }
    const so = tracker.take(frame, timeS);
    return {
      ok: true,
      value: { turnedDeg: so.turnedDeg, missingDeg: missingDeg(so.turnedDeg), followed: so.alike >= FOLLOWED },
    };
  },

  /** Settles the turn; gives the times of the frames that are wanted for the surface. `scale` is how much larger those will be. */
  settle(scale: number): Outcome<readonly number[]> {
    if (!tracker || !camera?.ok)
      return { ok: false, problem: { code: 'film-short', sentence: 'No frame of the film was seen. It is kept; nothing was read.' } };
    settled = settleTurn(tracker.seen, tracker.map);
    const problem = checkTurn(settled);
    if (problem) return { ok: false, problem: { ...problem, sentence: `${problem.sentence} The film is kept; nothing was read.` } };
    joiner = turnJoiner(camera.value, settled, task!.facingDeg, scale);
    return { ok: true, value: settled.frames.map((f) => f.timeS) };
  },

  join(bitmap: ImageBitmap, timeS: number): void {
    joiner?.take(pixelsOf(bitmap), timeS);
  },

  /** The joined surface as a picture, and its reading on the grid of its place. */
  async finish(frame: SurfaceFrame): Promise<Outcome<MadeSurface>> {
    const joined = joiner!.finish();
    const reading = readTurn('journal', joined, settled!);
    if (!reading.ok) return reading;
    const { width, height, data } = joined.pixels;
    const canvas = new OffscreenCanvas(width, height);
    canvas.getContext('2d')!.putImageData(new ImageData(new Uint8ClampedArray(data), width, height), 0, 0);
    const png = await canvas.convertToBlob({ type: 'image/png' });
    const sha256 = sha256Hex(new Uint8Array(await png.arrayBuffer()));
    return {
      ok: true,
      value: {
        png,
        sha256,
        width,
        height,
        read: onFrame(reading.value, 'journal', frame, WHOLE_TURN, sha256),
        closingErrorDeg: settled!.closingErrorDeg,
        seenDeg: joined.seenShare * 360,
      },
    };
  },
};

export type FilmWorker = typeof film;
expose(film);
