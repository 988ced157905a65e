import { readPicture, type PictureTask, type Problem, type ReadPicture, type Result } from '@true-ledger/core';
import { parentPort } from 'node:worker_threads';
import sharp from 'sharp';

/** One picture to be read, away from the thread that answers requests. */
export interface ReadingTask extends PictureTask {
  readonly id: string;
  readonly bytes: Uint8Array;
}

export interface ReadingAnswer {
  readonly id: string;
  readonly result: Result<ReadPicture>;
}

async function read(task: ReadingTask): Promise<Result<ReadPicture>> {
  const { data, info } = await sharp(task.bytes, { limitInputPixels: 60_000_000 })
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  return readPicture(
    { width: info.width, height: info.height, data: new Uint8ClampedArray(data.buffer, data.byteOffset, data.length) },
    task,
  );
}

parentPort?.on('message', (task: ReadingTask) => {
  const answer = (result: Result<ReadPicture>): void => parentPort?.postMessage({ id: task.id, result } satisfies ReadingAnswer);
  const fault: Problem = { code: 'picture', sentence: 'The picture could not be unpacked. It is stored as it is; nothing was graded.' };
  read(task).then(answer, () => answer({ ok: false, problem: fault }));
});
