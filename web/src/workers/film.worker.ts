import type { Outcome, Refusal } from '@true-ledger/contract';
import type { EntryBodies } from '@true-ledger/core/entries';
import type { ShellConstruction, SurfaceFrame } from '@true-ledger/core/engine';
import { sha256Hex } from '@true-ledger/core/kit';
import {
  boreStacker,
  cameraModelOf,
  checkLamp,
  checkScope,
  checkTurn,
  findOutline,
  lampGatherer,
  missingDeg,
  onFrame,
  readBore,
  readLamp,
  readTurn,
  reliefPicture,
  scopeTracker,
  settleTurn,
  turnJoiner,
  turnTracker,
  WHOLE_TURN,
  wholePicture,
  type Pixels,
  type Point,
  type ReadPart,
  type StackedBore,
  type SurfaceSize,
  type Turn,
} from '@true-ledger/core/photo';
import { expose } from 'comlink';

/** How a film was taken, and how the part lies in its first frame: a journal that is turned, a bore out of which a scope is drawn, or any part over which a lamp is led. */
export type FilmTask =
  | {
      readonly kind: 'drawn';
      readonly radiusMm: number;
      readonly topDeg: number;
      readonly viewDeg: number;
      readonly lengthMm: number | null;
    }
  | { readonly kind: 'turn'; readonly corners: readonly Point[]; readonly radiusMm: number; readonly facingDeg: number }
  | {
      readonly kind: 'lamp';
      readonly corners: readonly Point[];
      readonly part: ReadPart;
      readonly size: SurfaceSize;
      readonly turn: Turn;
      readonly construction: ShellConstruction;
    };

/** How far the part or the scope was followed, or how many frames lay over the first. */
export type FilmProgress =
  | { readonly kind: 'drawn'; readonly byMm: number; readonly followed: boolean }
  | { readonly kind: 'turn'; readonly turnedDeg: number; readonly missingDeg: number; readonly followed: boolean }
  | { readonly kind: 'lamp'; readonly laid: number; readonly lost: number };

/** The surface that was made of a film, and what was read on it. */
export interface MadeSurface {
  readonly png: Blob;
  readonly sha256: string;
  readonly width: number;
  readonly height: number;
  /** Corners of the surface in the picture that was made, and the arc it shows. */
  readonly corners: readonly Point[];
  readonly turn: Turn;
  readonly read: EntryBodies['surface-read'];
  readonly told:
    | { readonly kind: 'turn'; readonly closingErrorDeg: number | null; readonly seenDeg: number }
    | { readonly kind: 'drawn'; readonly seenPercent: number; readonly longMm: number; readonly ends: StackedBore['ends'] }
    | {
        readonly kind: 'lamp';
        readonly seenPercent: number;
        readonly framesUsed: number;
        /** Lines that have walls as scores have, that have none, and of which the film does not tell. */
        readonly walls: { readonly with: number; readonly without: number; readonly unknown: number };
        readonly relief: Blob;
      };
}

const NO_FRAME: Refusal = { code: 'film-short', sentence: 'No frame of the film was seen. It is kept; nothing was read.' };

/** Below this agreement a frame counts as not followed. */
const FOLLOWED = 0.1;

let camera: ReturnType<typeof cameraModelOf> | null = null;
let tracker: ReturnType<typeof turnTracker> | null = null;
let joiner: ReturnType<typeof turnJoiner> | null = null;
let settled: ReturnType<typeof settleTurn> | null = null;
let gatherer: ReturnType<typeof lampGatherer> | null = null;
let scope: ReturnType<typeof scopeTracker> | null = null;
let stacker: ReturnType<typeof boreStacker> = null;
let laid = { laid: 0, lost: 0 };
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
  /** Corners of a part in the first frame, where it is found without help; a proposal. */
  find(bitmap: ImageBitmap, part: ReadPart): readonly Point[] | null {
    const found = findOutline(part, pixelsOf(bitmap));
    return found.ok ? found.value : null;
  },

  begin(given: FilmTask): void {
    task = given;
    [camera, tracker, joiner, settled, gatherer, scope, stacker] = [null, null, null, null, null, null, null];
    laid = { laid: 0, lost: 0 };
  },

  /** Follows the part in one more frame, or lays it over the first. */
  follow(bitmap: ImageBitmap, timeS: number): Outcome<FilmProgress> {
    const frame = pixelsOf(bitmap);
    const how = task!;
    if (how.kind === 'lamp') return lit(frame, how);
    if (how.kind === 'drawn') {
      scope ??= scopeTracker(how.viewDeg);
      const { pose, alike } = scope.take(frame, timeS);
      return { ok: true, value: { kind: 'drawn', byMm: Math.abs(pose.depth) * how.radiusMm, followed: alike >= FOLLOWED } };
    }
    if (!tracker) {
      camera = cameraModelOf('journal', frame, how.corners, { radiusMm: how.radiusMm, widthMm: null });
      if (!camera.ok) return camera;
      tracker = turnTracker(camera.value);
    }
    const so = tracker.take(frame, timeS);
    return {
      ok: true,
      value: { kind: 'turn', turnedDeg: so.turnedDeg, missingDeg: missingDeg(so.turnedDeg), followed: so.alike >= FOLLOWED },
    };
  },

  /** Settles the turn or the way of the scope; gives the times of the frames that are wanted for the surface. `scale` is how much larger those will be. */
  settle(scale: number): Outcome<readonly number[]> {
    if (task?.kind === 'drawn') {
      const problem = scope && checkScope(scope);
      stacker = scope && boreStacker(scope, task.radiusMm, task.topDeg);
      if (problem || !stacker)
        return {
          ok: false,
          problem: { ...NO_FRAME, ...problem, sentence: `${problem?.sentence ?? ''} The film is kept; nothing was read.` },
        };
      return { ok: true, value: stacker.wanted };
    }
    if (task?.kind !== 'turn' || !tracker || !camera?.ok) return { ok: false, problem: NO_FRAME };
    settled = settleTurn(tracker.seen, tracker.map);
    const problem = checkTurn(settled);
    if (problem) return { ok: false, problem: { ...problem, sentence: `${problem.sentence} The film is kept; nothing was read.` } };
    joiner = turnJoiner(camera.value, settled, task.facingDeg, scale);
    return { ok: true, value: settled.frames.map((f) => f.timeS) };
  },

  join(bitmap: ImageBitmap, timeS: number): void {
    const frame = pixelsOf(bitmap);
    joiner?.take(frame, timeS);
    stacker?.take(frame, timeS);
  },

  /** The joined surface as a picture, and its reading on the grid of its place. */
  async finish(frame: SurfaceFrame): Promise<Outcome<MadeSurface>> {
    if (task?.kind === 'drawn') return drawn(frame, task.lengthMm);
    const joined = joiner!.finish();
    const reading = readTurn('journal', joined, settled!);
    if (!reading.ok) return reading;
    const file = await fileOf(joined.pixels);
    return {
      ok: true,
      value: {
        ...file,
        corners: wholePicture(joined.pixels),
        turn: WHOLE_TURN,
        read: onFrame(reading.value, 'journal', frame, WHOLE_TURN, file.sha256),
        told: { kind: 'turn', closingErrorDeg: settled!.closingErrorDeg, seenDeg: joined.seenShare * 360 },
      },
    };
  },

  /** The picture without glare that a lamp film makes, its relief, and its reading on the grid of its place. */
  async finishLamp(frame: SurfaceFrame): Promise<Outcome<MadeSurface>> {
    if (task?.kind !== 'lamp' || !gatherer || !camera?.ok) return { ok: false, problem: NO_FRAME };
    const lamp = gatherer.finish();
    const problem = checkLamp(lamp);
    if (problem) return { ok: false, problem: { ...problem, sentence: `${problem.sentence} The film is kept; nothing was read.` } };
    const { part, corners, size, turn, construction } = task;
    const reading = readLamp(part, lamp, camera.value, corners, size, { construction });
    if (!reading.ok) return reading;
    const file = await fileOf(lamp.picture);
    const { walls, relief, seenShare } = reading.value;
    const count = (w: boolean | null): number => walls.filter((v) => v === w).length;
    return {
      ok: true,
      value: {
        ...file,
        corners,
        turn,
        read: onFrame(reading.value, part, frame, turn, file.sha256),
        told: {
          kind: 'lamp',
          seenPercent: 100 * seenShare,
          framesUsed: lamp.framesUsed,
          walls: { with: count(true), without: count(false), unknown: count(null) },
          relief: await pngOf(reliefPicture(relief)),
        },
      },
    };
  },
};

/** The wall of a bore that was stacked, and its reading on the grid of its place. */
async function drawn(frame: SurfaceFrame, lengthMm: number | null): Promise<Outcome<MadeSurface>> {
  const bore = stacker!.finish();
  const reading = readBore(bore, bore.ends.near && bore.ends.far ? lengthMm : null);
  if (!reading.ok) return reading;
  const file = await fileOf(bore.pixels);
  return {
    ok: true,
    value: {
      ...file,
      corners: wholePicture(bore.pixels),
      turn: WHOLE_TURN,
      read: onFrame(reading.value, 'bore', frame, WHOLE_TURN, file.sha256),
      told: { kind: 'drawn', seenPercent: 100 * bore.seenShare, longMm: reading.value.size.widthMm, ends: bore.ends },
    },
  };
}

/** Lays a frame of a lamp film over its first one. */
function lit(frame: Pixels, { part, corners, size }: Extract<FilmTask, { kind: 'lamp' }>): Outcome<FilmProgress> {
  if (!gatherer) {
    camera = cameraModelOf(part, frame, corners, size);
    if (!camera.ok) return camera;
    gatherer = lampGatherer(camera.value, frame);
  }
  if (gatherer.take(frame)) laid.laid++;
  else laid.lost++;
  return { ok: true, value: { kind: 'lamp', ...laid } };
}

/** A made picture as the file it is kept as. */
async function fileOf(pixels: Pixels): Promise<Pick<MadeSurface, 'png' | 'sha256' | 'width' | 'height'>> {
  const png = await pngOf(pixels);
  return { png, sha256: sha256Hex(new Uint8Array(await png.arrayBuffer())), width: pixels.width, height: pixels.height };
}

async function pngOf({ width, height, data }: Pixels): Promise<Blob> {
  const canvas = new OffscreenCanvas(width, height);
  canvas.getContext('2d')!.putImageData(new ImageData(new Uint8ClampedArray(data), width, height), 0, 0);
  return canvas.convertToBlob({ type: 'image/png' });
}

export type FilmWorker = typeof film;
expose(film);
