import type { Refusal } from '@true-ledger/contract';
import type { ReadPicture, StagePicture } from '@true-ledger/core/photo';
import { useEffect, useRef, useState } from 'react';
import type { ReadingJob, ReadingMessage } from './reading.worker.js';

interface ReadingState {
  /** Null while nothing is read. */
  readonly busy: { readonly done: number; readonly what: string } | null;
  readonly problem: Refusal | null;
}

export interface PictureReader extends ReadingState {
  readonly start: (
    fetchFile: () => Promise<Blob>,
    job: Omit<ReadingJob, 'file'>,
    done: (read: ReadPicture, stages: readonly StagePicture[]) => void,
  ) => void;
  readonly cancel: () => void;
}

const IDLE: ReadingState = { busy: null, problem: null };

/** Reads pictures in a worker of their own, one at a time; cancelling or leaving the page ends the worker. */
export function usePictureReader(): PictureReader {
  const [state, setState] = useState<ReadingState>(IDLE);
  const worker = useRef<Worker | null>(null);
  const turn = useRef(0);
  const stop = (): void => {
    turn.current++;
    worker.current?.terminate();
    worker.current = null;
  };
  useEffect(() => stop, []);
  return {
    ...state,
    start: (fetchFile, job, done) => {
      stop();
      const own = ++turn.current;
      setState({ busy: { done: 0, what: 'fetching the picture' }, problem: null });
      const end = (problem: Refusal | null): void => {
        stop();
        setState({ busy: null, problem });
      };
      fetchFile()
        .then((file) => {
          if (own !== turn.current) return;
          const w = new Worker(new URL('./reading.worker.ts', import.meta.url), { type: 'module' });
          worker.current = w;
          w.onmessage = ({ data }: MessageEvent<ReadingMessage>) => {
            if (own !== turn.current) return;
            if (data.kind === 'progress') return setState({ busy: data, problem: null });
            // It ends by itself: ending it from here holds the page while its pixels are freed.
            worker.current = null;
            end(data.result.ok ? null : data.result.problem);
            if (data.result.ok) done(data.result.value, data.stages);
          };
          w.onerror = () =>
            end({
              code: 'worker',
              sentence: 'The reading stopped without an answer. The picture is stored; nothing was graded. Read it again.',
            });
          w.postMessage({ ...job, file } satisfies ReadingJob);
        })
        .catch(() => {
          if (own === turn.current)
            end({
              code: 'picture',
              sentence: 'The picture could not be fetched for reading. It is stored; try again when the server answers.',
            });
        });
    },
    cancel: () => {
      stop();
      setState(IDLE);
    },
  };
}
