import type { Outcome, Refusal } from '@true-ledger/contract';
import { readPicture, type PictureTask, type ReadPicture, type StagePicture } from '@true-ledger/core/photo';

export interface ReadingJob extends PictureTask {
  readonly file: Blob;
  /** The picture of every stage is wanted as well. */
  readonly explain: boolean;
}

export type ReadingMessage =
  | { readonly kind: 'progress'; readonly done: number; readonly what: string }
  | { readonly kind: 'done'; readonly result: Outcome<ReadPicture>; readonly stages: readonly StagePicture[] };

const say = (message: ReadingMessage): void => self.postMessage(message);
const fault = (problem: Refusal): void => say({ kind: 'done', result: { ok: false, problem }, stages: [] });

/** Reads one picture and ends; a page that no longer wants it ends the worker. */
async function work(job: ReadingJob): Promise<void> {
  say({ kind: 'progress', done: 0.02, what: 'unpacking the picture' });
  const bitmap = await createImageBitmap(job.file);
  const { width, height } = bitmap;
  const context = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true });
  if (!context) return fault({ code: 'no-canvas', sentence: 'This browser cannot read the pixels of the picture.' });
  context.drawImage(bitmap, 0, 0);
  bitmap.close();
  const picture = { width, height, data: context.getImageData(0, 0, width, height).data };
  const stages: StagePicture[] = [];
  const result = readPicture(
    picture,
    job,
    (done, what) => say({ kind: 'progress', done: 0.1 + 0.9 * done, what }),
    job.explain ? (stage) => stages.push(stage) : undefined,
  );
  say({ kind: 'done', result, stages });
}

self.onmessage = (event: MessageEvent<ReadingJob>) =>
  void work(event.data)
    .catch(() =>
      fault({
        code: 'picture',
        sentence:
          'The picture could not be unpacked here. It is stored as it is; nothing was graded. Try another browser, or grade it by eye.',
      }),
    )
    .finally(() => self.close());
