import type { Outcome } from '@true-ledger/contract';
import { readPicture, type PictureTask, type ReadPicture } from '@true-ledger/core/photo';
import sharp from 'sharp';
import { answerTasks } from '../threads/taskThread.js';

/** One picture to be read, away from the thread that answers requests. */
export interface ReadingTask extends PictureTask {
  readonly bytes: Uint8Array;
}

async function read(task: ReadingTask): Promise<Outcome<ReadPicture>> {
  const { data, info } = await sharp(task.bytes, { limitInputPixels: 60_000_000 })
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  return readPicture(
    { width: info.width, height: info.height, data: new Uint8ClampedArray(data.buffer, data.byteOffset, data.length) },
    task,
  );
}

answerTasks(read, { code: 'picture', sentence: 'The picture could not be unpacked. It is stored as it is; nothing was graded.' });
