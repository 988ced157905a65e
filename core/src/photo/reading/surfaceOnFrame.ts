import type { SurfaceFrame } from '../../engine/stations.js';
import type { WearMap } from '../../damage/wearMap.js';
import { ok, type Result } from '../../kit/result.js';
import { develop, type Developed, type Pixels } from '../flatten.js';
import type { Point } from '../homography.js';
import { cameraModelOf } from './cameraModelOf.js';
import { evenLight } from './evenLight.js';
import { fromPicture, inPicture, sizeFromFrame, WHOLE_TURN, type Turn } from './onFrame.js';
import type { FlattenedPart } from './readParts.js';

/** A picture of a surface, with where the surface lies in it. */
export interface SurfacePiece {
  readonly picture: Pixels;
  /** Left-front, left-rear, right-rear, right-front, in pixels of `picture`. */
  readonly corners: readonly Point[];
  readonly turn: Turn;
}

/** Finest scale a surface is laid out at, pixels a millimetre: no picture that fills its frame holds more. */
const MOST_PX_PER_MM = 24;

/** A surface that is looked at is posed by a coarser search than one that is read. */
const FINENESS = 0.5;
/** How much coarser the light is judged. */
const GUIDE = 4;

/** Rows of the frame run down from its rear edge, as on the station: a frame that begins at the front edge has it at the bottom. */
const frontDown = (frame: SurfaceFrame): boolean => frame.vFrom === 'front edge';

interface Laid {
  readonly flat: Developed;
  readonly even: Pixels;
  readonly turn: Turn;
}

/**
 * One picture of a whole surface on the frame of its place, from all pictures of it: each is developed, its light is taken out, and every place is taken from the picture that saw it most squarely.
 * `read` is what was read of it, if it was. At most `mostWidth` pixels across; transparent where no picture shows it. Fails with the sentence of the first picture where none can be developed.
 */
export function surfaceOnFrame(
  part: FlattenedPart,
  frame: SurfaceFrame,
  pieces: readonly SurfacePiece[],
  mostWidth: number,
  read: WearMap | null = null,
): Result<Pixels> {
  const laid: Laid[] = [];
  let refused: Result<Pixels> | null = null;
  for (const { picture, corners, turn } of pieces) {
    const camera = cameraModelOf(part, picture, corners, sizeFromFrame(part, frame, turn), FINENESS);
    if (!camera.ok) {
      refused ??= camera;
      continue;
    }
    const scale = Math.min(MOST_PX_PER_MM, mostWidth / frame.widthMm);
    const wide = Math.max(64, Math.round(scale * camera.value.widthMm));
    const flat = develop(camera.value, picture, wide);
    const guide = develop(camera.value, picture, Math.max(64, Math.round(wide / GUIDE)));
    const made = part === 'journal' && turn.arcDeg === WHOLE_TURN.arcDeg;
    laid.push({ flat, even: evenLight(part, flat, guide, { made, soundAt: read && soundIn(read, part, frame, turn) }), turn });
  }
  if (laid.length === 0 && refused) return refused;
  const width = Math.min(mostWidth, Math.max(64, Math.round(MOST_PX_PER_MM * frame.widthMm)));
  const height = Math.max(8, Math.round((width * frame.heightMm) / frame.widthMm));
  const data = new Uint8ClampedArray(width * height * 4);
  const best = new Float32Array(width * height);
  for (const piece of laid) lay(part, frame, piece, { width, height, data }, best);
  if (frame.uSpanDeg === 0) roundOff({ width, height, data });
  return ok({ width, height, data });
}

/** Share of a cell that must have been read as sound for its pixels to count as such. */
const SOUND = 0.8;

/** Whether a place of a picture was read as sound metal. */
function soundIn(read: WearMap, part: FlattenedPart, frame: SurfaceFrame, turn: Turn): (u: number, v: number) => boolean {
  return (u, v) => {
    const [x, y] = fromPicture(part, frame, turn, u, v);
    const cell =
      Math.min(read.rows - 1, Math.floor(y * read.rows)) * read.columns + Math.min(read.columns - 1, Math.floor(x * read.columns));
    return read.seen[cell]! > 0.5 && read.shares.sound[cell]! + read.shares.polished[cell]! >= SOUND;
  };
}

/** Lays one piece where it saw the surface more squarely than those before. */
function lay(part: FlattenedPart, frame: SurfaceFrame, { flat, even, turn }: Laid, out: Pixels, best: Float32Array): void {
  const down = frontDown(frame);
  for (let y = 0; y < out.height; y++) {
    const v = (y + 0.5) / out.height;
    for (let x = 0; x < out.width; x++) {
      const place = inPicture(part, frame, turn, (x + 0.5) / out.width, down ? 1 - v : v);
      if (!place) continue;
      const [u, w] = place;
      const own =
        (Math.min(even.height - 1, Math.floor((1 - w) * even.height)) * even.width + Math.min(even.width - 1, Math.floor(u * even.width))) *
        4;
      if (even.data[own + 3] === 0) continue;
      const cell =
        Math.min(flat.rows - 1, Math.floor(w * flat.rows)) * flat.columns + Math.min(flat.columns - 1, Math.floor(u * flat.columns));
      const squarely = flat.cosine[cell]!;
      const i = y * out.width + x;
      if (squarely <= best[i]!) continue;
      best[i] = squarely;
      out.data.set(even.data.subarray(own, own + 4), 4 * i);
    }
  }
}

/** Of a round flat face nothing outside its circle is the face. */
function roundOff({ width, height, data }: Pixels): void {
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      if (Math.hypot((x + 0.5) / width - 0.5, (y + 0.5) / height - 0.5) > 0.5) data[4 * (y * width + x) + 3] = 0;
}
