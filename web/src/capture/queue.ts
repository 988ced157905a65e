import type { ThunkAction, UnknownAction } from '@reduxjs/toolkit';
import { LIMITS, type ApiError, type ErrorCode, type Me, type UploadResponse } from '@true-ledger/contract';
import { stationsOf } from '@true-ledger/core/engine';
import { PART_TAG } from '@true-ledger/core/photo';

import { fileStore } from '../app/localStore.js';
import { record } from '../app/outbox.js';
import { selectCaseView } from '../app/selectors.js';
import type { RootState } from '../app/store.js';
import { proxy } from 'comlink';
import { filing } from '../workers/filing.js';
import { uploadActions, type QueuedFile } from './queueState.js';
import { asProblem, patience } from '../app/server.js';

type Thunk<T = void> = ThunkAction<T, RootState, unknown, UnknownAction>;

/** Bytes the browser had no room for; they live as long as this page. */
const memory = new Map<string, Blob>();
const running = new Map<string, AbortController>();
let order = Date.now();
let busy = false;
const wait = patience(800, 10_000, 1.5);
let timer: ReturnType<typeof setTimeout> | undefined;

export interface NewFile {
  readonly blob: Blob;
  readonly name: string;
  readonly station: string | null;
  readonly kind: 'photo' | 'clip';
  readonly shot?: string;
  readonly seconds?: number | null;
}

/** Takes files into the queue: kept in the browser first, then sent in order. */
export function addFiles(caseId: string, files: readonly NewFile[], me: Me): Thunk<Promise<void>> {
  return async (dispatch) => {
    for (const file of files) {
      const most = file.kind === 'photo' ? LIMITS.uploadBytes : LIMITS.clipBytes;
      const large = file.blob.size > most;
      const item: QueuedFile = {
        id: crypto.randomUUID(),
        caseId,
        station: file.station,
        shot: file.shot ?? '',
        kind: file.kind,
        name: file.name,
        type: file.blob.type,
        bytes: file.blob.size,
        seconds: file.seconds ?? null,
        order: ++order,
        status: large ? 'refused' : 'waiting',
        share: 0,
        problem: large ? tooLarge(file.blob.size, most, file.kind) : null,
        sha256: null,
        tag: null,
        settled: false,
        kept: true,
      };
      let kept = !large;
      if (!large) {
        try {
          await fileStore.put({ id: item.id, item, blob: file.blob });
        } catch {
          kept = false;
          memory.set(item.id, file.blob);
        }
      }
      dispatch(uploadActions.added([{ ...item, kept }]));
    }
    void dispatch(sendAll(me));
  };
}

const tooLarge = (size: number, most: number, kind: 'photo' | 'clip'): ApiError => ({
  code: 'file-too-large',
  sentence: `The ${kind === 'photo' ? 'picture' : 'clip'} was not sent: it has ${Math.round(size / 1e6)} MB, more than the ${Math.round(most / 1048576)} MB that are taken. Nothing else was lost. Send a smaller one.`,
});

/** Reads what waited before a reload. */
export function restoreFiles(me: Me): Thunk<Promise<void>> {
  return async (dispatch) => {
    const kept = await fileStore.all().catch(() => []);
    if (kept.length === 0) return;
    dispatch(uploadActions.added(kept.map((f) => (f.status === 'sending' ? { ...f, status: 'waiting', share: 0 } : f))));
    void dispatch(sendAll(me));
  };
}

/** Sends what waits, one after the other so that the order is kept; only one page of a browser sends at a time. */
function sendAll(me: Me): Thunk<Promise<void>> {
  return async (dispatch, getState) => {
    if (busy || me.account.role === 'reader') return;
    busy = true;
    clearTimeout(timer);
    const work = async (): Promise<void> => {
      for (;;) {
        const next = [...getState().uploads.files].sort((a, b) => a.order - b.order).find((f) => f.status === 'waiting');
        if (!next) return;
        if (!(await dispatch(sendOne(next, me)))) {
          dispatch(uploadActions.awayChanged(true));
          timer = setTimeout(() => void dispatch(sendAll(me)), wait.next());
          return;
        }
        wait.calm();
        if (getState().uploads.away) dispatch(uploadActions.awayChanged(false));
      }
    };
    try {
      if (navigator.locks) await navigator.locks.request('true-ledger-uploads', work);
      else await work();
    } finally {
      busy = false;
    }
  };
}

const LATER: ReadonlySet<string> = new Set([
  'unreachable',
  'store-unavailable',
  'unexpected',
  'signed-out',
  'damaged-on-the-way',
  'cut-off',
]);

/** True when the file is settled (stored, refused or set aside), false when it is to be tried again later. */
function sendOne(file: QueuedFile, me: Me): Thunk<Promise<boolean>> {
  return async (dispatch, getState) => {
    const change = (part: Partial<QueuedFile>): void => {
      dispatch(uploadActions.changed({ id: file.id, ...part }));
      const now = getState().uploads.files.find((f) => f.id === file.id);
      if (now && part.status !== 'sending' && part.share === undefined) void fileStore.update(now).catch(() => undefined);
    };
    const blob = memory.get(file.id) ?? (await fileStore.blob(file.id).catch(() => null));
    if (!blob) {
      change({
        status: 'refused',
        problem: { code: 'bytes-gone', sentence: 'The browser no longer holds this file. Choose it again; nothing else was lost.' },
      });
      return true;
    }
    dispatch(uploadActions.changed({ id: file.id, status: 'sending', share: 0, problem: null }));
    let current = file;
    if (!current.sha256) {
      // What is told on the way comes by another road than the answer, and may come after it.
      let looking = true;
      const prepared = await filing().prepare(
        blob,
        { picture: file.kind === 'photo', placed: file.station !== null },
        proxy((looked: number) => void (looking && dispatch(uploadActions.changed({ id: file.id, looked })))),
      );
      looking = false;
      dispatch(uploadActions.changed({ id: file.id, looked: null }));
      current = { ...current, ...prepared };
      change(prepared);
    }
    const aside = current.kind === 'photo' && !current.settled ? placeOf(current, getState()) : { station: current.station };
    if ('problem' in aside) {
      change({ status: 'tray', problem: aside.problem });
      return true;
    }
    const station = aside.station ?? '';
    const abort = new AbortController();
    running.set(file.id, abort);
    try {
      const answer = await send(
        blob,
        { ...current, station },
        (share) => dispatch(uploadActions.changed({ id: file.id, share })),
        abort.signal,
      );
      dispatch(uploadActions.changed({ id: file.id, station, status: answer.already ? 'already' : 'done', share: 1 }));
      memory.delete(file.id);
      await fileStore.remove(file.id).catch(() => undefined);
      if (!answer.already && current.tag?.kind === 'tag' && current.tag.gains) dispatch(keepTag(current, station, me));
      return true;
    } catch (error) {
      const problem = error as ApiError;
      if (problem.code === 'stopped') change({ status: 'refused', problem, share: 0 });
      else if (LATER.has(problem.code)) {
        change({ status: 'waiting', problem, share: 0 });
        return false;
      } else change({ status: 'refused', problem, share: 0 });
      return true;
    } finally {
      running.delete(file.id);
    }
  };
}

/** Records the white balance and scale a tag gave, beside the picture it lies in. */
function keepTag(file: QueuedFile, station: string, me: Me): Thunk {
  return (dispatch) => {
    const { tag, sha256 } = file;
    if (tag?.kind !== 'tag' || !tag.gains || !sha256) return;
    dispatch(
      record(file.caseId, me.author, [
        {
          kind: 'tag-read',
          station: station || null,
          body: { sha256, station: tag.station, corners: tag.corners, codeMm: PART_TAG.code.size, gains: tag.gains },
        },
      ]),
    );
  };
}

/** Where a picture belongs, or why it is set aside. A tag is never followed silently where it contradicts what was chosen. */
function placeOf(file: QueuedFile, state: RootState): { readonly station: string } | { readonly problem: ApiError } {
  const view = selectCaseView(state, file.caseId);
  const places = view ? stationsOf(view.layout) : [];
  const name = (id: string): string => places.find((s) => s.id === id)?.name ?? (id === '' ? 'the whole engine' : id);
  const problem = (code: ErrorCode, sentence: string): { problem: ApiError } => ({ problem: { code, sentence } });
  const { tag, station } = file;
  if (!tag || tag.kind === 'none')
    return station !== null ? { station } : problem('tag-none', 'No part tag was found in it. It is kept here: choose the place it shows.');
  if (tag.kind === 'foreign')
    return station !== null
      ? { station }
      : problem('tag-foreign', 'The code in it is not one of our part tags. It is kept here: choose the place it shows.');
  if (tag.caseId !== file.caseId)
    return problem(
      'tag-other-case',
      'The tag in it belongs to another case, or to one that is not here any more. It is kept here: choose the place it shows, or take it away.',
    );
  if (!places.some((s) => s.id === tag.station))
    return problem(
      'tag-no-place',
      `The tag names a place this engine does not have (${tag.station.slice(0, 40)}). It is kept here: choose the place it shows.`,
    );
  if (station !== null && station !== tag.station)
    return problem(
      'tag-contradicts',
      `It was taken for ${name(station)}, the tag in it says ${name(tag.station)}. It is kept here: choose which.`,
    );
  return { station: tag.station };
}

function send(blob: Blob, file: QueuedFile, onShare: (share: number) => void, signal: AbortSignal): Promise<UploadResponse> {
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest();
    request.open('POST', `/api/cases/${file.caseId}/${file.kind === 'photo' ? 'photos' : 'clips'}`);
    request.responseType = 'json';
    request.upload.onprogress = (e) => onShare(e.lengthComputable ? e.loaded / e.total : 0);
    request.onload = () =>
      request.status < 300 && request.response
        ? resolve(request.response as UploadResponse)
        : reject(asProblem({ data: request.response as unknown }));
    request.onerror = () =>
      reject({
        code: 'unreachable',
        sentence: 'The server went away while it was being sent. It is kept in this browser and goes by itself when the server answers.',
      } satisfies ApiError);
    request.onabort = () => reject({ code: 'stopped', sentence: 'Stopped before it was stored. It is still here.' } satisfies ApiError);
    signal.addEventListener('abort', () => request.abort());
    const form = new FormData();
    form.set('entryId', file.id);
    form.set('station', file.station ?? '');
    if (file.sha256) form.set('sha256', file.sha256);
    if (file.kind === 'photo' && file.shot) form.set('shot', file.shot);
    if (file.kind === 'clip' && file.seconds !== null) form.set('seconds', file.seconds.toFixed(1));
    form.set('file', blob, file.name);
    request.send(form);
  });
}

/** Files a set-aside picture to the place the builder names, or sends a refused one again. */
export function settle(id: string, me: Me, station?: string): Thunk {
  return (dispatch, getState) => {
    const file = getState().uploads.files.find((f) => f.id === id);
    if (!file) return;
    const part = { status: 'waiting' as const, problem: null, share: 0, ...(station === undefined ? {} : { station, settled: true }) };
    dispatch(uploadActions.changed({ id, ...part }));
    void fileStore.update({ ...file, ...part }).catch(() => undefined);
    void dispatch(sendAll(me));
  };
}

export function stopFile(id: string): void {
  running.get(id)?.abort();
}

/** Takes files off the list; what was not stored is given up. */
export function dropFiles(ids: readonly string[]): Thunk {
  return (dispatch) => {
    dispatch(uploadActions.dropped(ids));
    for (const id of ids) {
      memory.delete(id);
      void fileStore.remove(id).catch(() => undefined);
    }
  };
}
