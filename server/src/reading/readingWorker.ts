import {
  findOutline,
  onFrame,
  readSurface,
  sizeFromFrame,
  type Point,
  type Problem,
  type ReadPart,
  type Result,
  type ShellConstruction,
  type SurfaceFrame,
  type SurfaceRead,
  type Turn,
} from '@true-ledger/core';
import { parentPort } from 'node:worker_threads';
import sharp from 'sharp';

/** One picture to be read, away from the thread that answers requests. */
export interface ReadingTask {
  readonly id: string;
  readonly bytes: Uint8Array;
  readonly sha256: string;
  /** In pixels of the upright original; null lets them be found. */
  readonly corners: readonly Point[] | null;
  readonly original: { readonly width: number; readonly height: number };
  readonly part: ReadPart;
  readonly frame: SurfaceFrame;
  readonly turn: Turn;
  readonly construction: ShellConstruction;
}

export interface ReadingAnswer {
  readonly id: string;
  readonly result: Result<{ readonly read: SurfaceRead; readonly corners: readonly Point[]; readonly found: boolean }>;
}

async function read(task: ReadingTask): Promise<ReadingAnswer['result']> {
  const { data, info } = await sharp(task.bytes, { limitInputPixels: 60_000_000 })
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  const picture = { width: info.width, height: info.height, data: new Uint8ClampedArray(data.buffer, data.byteOffset, data.length) };
  const scale = info.width / task.original.width;
  let corners = task.corners?.map(([x, y]): Point => [x * scale, y * scale]);
  if (!corners) {
    const found = findOutline(task.part, picture);
    if (!found.ok) return found;
    corners = [...found.value];
  }
  const reading = readSurface(task.part, picture, corners, sizeFromFrame(task.part, task.frame, task.turn), {
    construction: task.construction,
    cornersProposed: task.corners === null,
  });
  if (!reading.ok) return reading;
  return {
    ok: true,
    value: {
      read: onFrame(reading.value, task.part, task.frame, task.turn, task.sha256),
      corners: corners.map(([x, y]): Point => [Math.round((x / scale) * 10) / 10, Math.round((y / scale) * 10) / 10]),
      found: task.corners === null,
    },
  };
}

parentPort?.on('message', (task: ReadingTask) => {
  const answer = (result: ReadingAnswer['result']): void => parentPort?.postMessage({ id: task.id, result } satisfies ReadingAnswer);
  const fault: Problem = { code: 'picture', sentence: 'The picture could not be unpacked. It is stored as it is; nothing was graded.' };
  read(task).then(answer, () => answer({ ok: false, problem: fault }));
});
