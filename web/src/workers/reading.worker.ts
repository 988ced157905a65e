import {
  findOutline,
  onFrame,
  readSurface,
  sizeFromFrame,
  type Point,
  type Problem,
  type Result,
  type ReadPart,
  type ShellConstruction,
  type SurfaceFrame,
  type SurfaceRead,
  type Turn,
} from '@true-ledger/core';

export interface ReadingJob {
  readonly file: Blob;
  readonly sha256: string;
  /** In pixels of the upright original; null lets them be found. */
  readonly corners: readonly Point[] | null;
  readonly original: { readonly width: number; readonly height: number };
  readonly part: ReadPart;
  readonly frame: SurfaceFrame;
  readonly turn: Turn;
  readonly construction: ShellConstruction;
}

export interface ReadPicture {
  readonly read: SurfaceRead;
  /** As used, in pixels of the original. */
  readonly corners: readonly Point[];
  readonly cornersFound: boolean;
}

export type ReadingMessage =
  | { readonly kind: 'progress'; readonly done: number; readonly what: string }
  | { readonly kind: 'done'; readonly result: Result<ReadPicture> };

const say = (message: ReadingMessage): void => self.postMessage(message);
const fault = (problem: Problem): void => say({ kind: 'done', result: { ok: false, problem } });

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
  const scale = width / job.original.width;
  let corners = job.corners?.map(([x, y]): Point => [x * scale, y * scale]);
  if (!corners) {
    say({ kind: 'progress', done: 0.1, what: 'looking for the part' });
    const found = findOutline(job.part, picture);
    if (!found.ok) return fault(found.problem);
    corners = [...found.value];
  }
  const reading = readSurface(job.part, picture, corners, sizeFromFrame(job.part, job.frame, job.turn), {
    construction: job.construction,
    cornersProposed: job.corners === null,
    progress: (done) => say({ kind: 'progress', done: 0.15 + 0.85 * done, what: 'reading the surface' }),
  });
  if (!reading.ok) return fault(reading.problem);
  say({
    kind: 'done',
    result: {
      ok: true,
      value: {
        read: onFrame(reading.value, job.part, job.frame, job.turn, job.sha256),
        corners: corners.map(([x, y]): Point => [Math.round((x / scale) * 10) / 10, Math.round((y / scale) * 10) / 10]),
        cornersFound: job.corners === null,
      },
    },
  });
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
