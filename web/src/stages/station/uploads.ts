import type { ApiError, UploadResponse } from '@true-ledger/contract';
import { LIMITS } from '@true-ledger/contract';
import { useCallback, useRef, useState } from 'react';
import { asProblem } from '../../app/api.js';

export interface Upload {
  readonly key: string;
  readonly name: string;
  readonly share: number;
  readonly status: 'waiting' | 'sending' | 'done' | 'already' | 'failed' | 'stopped';
  readonly problem: ApiError | null;
  readonly file: File;
  readonly entryId: string;
}

const AT_ONCE = 2;

function send(
  url: string,
  upload: Upload,
  station: string,
  onShare: (share: number) => void,
  signal: AbortSignal,
): Promise<UploadResponse> {
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest();
    request.open('POST', url);
    request.responseType = 'json';
    request.upload.onprogress = (e) => onShare(e.lengthComputable ? e.loaded / e.total : 0);
    request.onload = () =>
      request.status < 300 && request.response
        ? resolve(request.response as UploadResponse)
        : reject(asProblem({ data: request.response as unknown }));
    request.onerror = () =>
      reject({
        code: 'unreachable',
        sentence:
          'The picture was not stored: the server went away while it was being sent. It is still here in this page. Send it again when the server answers.',
      } satisfies ApiError);
    request.onabort = () => reject({ code: 'stopped', sentence: 'Stopped before it was stored.' } satisfies ApiError);
    signal.addEventListener('abort', () => request.abort());
    const form = new FormData();
    form.set('entryId', upload.entryId);
    form.set('station', station);
    form.set('file', upload.file, upload.name);
    request.send(form);
  });
}

/** Sends pictures two at a time with progress; a failed one stays in the list to be sent again, a sent one is never sent twice. */
export function useUploads(
  caseId: string,
  station: string,
): {
  uploads: readonly Upload[];
  add: (files: readonly File[]) => void;
  again: (key: string) => void;
  stop: (key: string) => void;
  clear: () => void;
} {
  const [uploads, setUploads] = useState<readonly Upload[]>([]);
  const held = useRef<readonly Upload[]>([]);
  const running = useRef(new Map<string, AbortController>());

  const put = useCallback((next: readonly Upload[]): void => {
    held.current = next;
    setUploads(next);
  }, []);
  const change = useCallback(
    (key: string, part: Partial<Upload>): void => put(held.current.map((u) => (u.key === key ? { ...u, ...part } : u))),
    [put],
  );

  const pump = useCallback((): void => {
    for (const upload of held.current) {
      if (running.current.size >= AT_ONCE) return;
      if (upload.status !== 'waiting' || running.current.has(upload.key)) continue;
      const abort = new AbortController();
      running.current.set(upload.key, abort);
      change(upload.key, { status: 'sending', share: 0, problem: null });
      send(`/api/cases/${caseId}/photos`, upload, station, (share) => change(upload.key, { share }), abort.signal)
        .then(
          (answer) => change(upload.key, { status: answer.already ? 'already' : 'done', share: 1 }),
          (problem: ApiError) => change(upload.key, { status: problem.code === 'stopped' ? 'stopped' : 'failed', problem }),
        )
        .finally(() => {
          running.current.delete(upload.key);
          pump();
        });
    }
  }, [caseId, station, change]);

  const add = useCallback(
    (files: readonly File[]): void => {
      const fresh = files.map((file): Upload => {
        const large = file.size > LIMITS.uploadBytes;
        const problem = large
          ? {
              code: 'file-too-large',
              sentence: `The picture was not sent: it has ${Math.round(file.size / 1e6)} MB, more than the 40 MB that are taken. Nothing else was lost. Send a smaller picture.`,
            }
          : null;
        return {
          key: crypto.randomUUID(),
          name: file.name,
          share: 0,
          status: large ? 'failed' : 'waiting',
          problem,
          file,
          entryId: crypto.randomUUID(),
        };
      });
      put([...held.current.filter((u) => u.status !== 'done' && u.status !== 'already'), ...fresh]);
      pump();
    },
    [put, pump],
  );
  const again = useCallback(
    (key: string): void => {
      change(key, { status: 'waiting', problem: null });
      pump();
    },
    [change, pump],
  );
  const stop = useCallback((key: string): void => running.current.get(key)?.abort(), []);
  const clear = useCallback((): void => put(held.current.filter((u) => u.status === 'waiting' || u.status === 'sending')), [put]);
  return { uploads, add, again, stop, clear };
}
