import type { Outcome } from '@true-ledger/contract';
import type { WearMap } from '@true-ledger/core/damage';
import type { SurfaceFrame } from '@true-ledger/core/engine';
import { surfaceOnFrame, type FlattenedPart, type Point, type Turn } from '@true-ledger/core/photo';
import sharp from 'sharp';
import { answerTasks } from '../threads/taskThread.js';

/** A surface that is to be laid out, from all pictures of it. */
export interface SurfaceTask {
  readonly part: FlattenedPart;
  readonly frame: SurfaceFrame;
  readonly pieces: ReadonlyArray<{
    readonly bytes: Uint8Array;
    /** Corners in pixels of the original, and its width. */
    readonly corners: readonly Point[];
    readonly originalWidth: number;
    readonly turn: Turn;
  }>;
  /** What was read of it; null where nothing was. */
  readonly read: WearMap | null;
  /** Widths it is wanted in, the largest first. */
  readonly widths: readonly number[];
}

const QUALITY = 84;

async function layOut(task: SurfaceTask): Promise<Outcome<Buffer[]>> {
  const pieces = await Promise.all(
    task.pieces.map(async ({ bytes, corners, originalWidth, turn }) => {
      const { data, info } = await sharp(bytes, { limitInputPixels: 60_000_000 }).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
      const scale = info.width / originalWidth;
      return {
        picture: { width: info.width, height: info.height, data: new Uint8ClampedArray(data.buffer, data.byteOffset, data.length) },
        corners: corners.map(([x, y]): Point => [x * scale, y * scale]),
        turn,
      };
    }),
  );
  const laid = surfaceOnFrame(task.part, task.frame, pieces, task.widths[0]!, task.read);
  if (!laid.ok) return laid;
  const { width, height, data } = laid.value;
  const whole = sharp(Buffer.from(data.buffer, data.byteOffset, data.length), { raw: { width, height, channels: 4 } });
  return {
    ok: true,
    value: await Promise.all(
      task.widths.map((wide) => whole.clone().resize({ width: wide, withoutEnlargement: true }).webp({ quality: QUALITY }).toBuffer()),
    ),
  };
}

answerTasks(layOut, {
  code: 'picture',
  sentence: 'The surface could not be laid out: a picture of it could not be unpacked. The picture is stored as it is.',
});
