import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { ApiError } from '@true-ledger/contract';
import type { FoundTag } from '../workers/filing.worker.js';

/** A picture or clip on its way to the server. Its bytes are in the browser's store until it has arrived. */
export interface QueuedFile {
  readonly id: string;
  readonly caseId: string;
  /** Station, '' for the engine as a whole, null when the tag in the picture is to say it. */
  readonly station: string | null;
  readonly shot: string;
  readonly kind: 'photo' | 'clip';
  readonly name: string;
  readonly type: string;
  readonly bytes: number;
  readonly seconds: number | null;
  readonly order: number;
  readonly status: 'waiting' | 'sending' | 'done' | 'already' | 'refused' | 'tray';
  readonly share: number;
  /** How far its tag is looked for, 0 to 1; null or absent when it is not. */
  readonly looked?: number | null;
  readonly problem: ApiError | null;
  readonly sha256: string | null;
  readonly tag: FoundTag | null;
  /** The builder chose the place after the tag was questioned: ask no more. */
  readonly settled: boolean;
  /** False when the browser had no room and only this page holds the bytes. */
  readonly kept: boolean;
}

interface UploadState {
  readonly files: readonly QueuedFile[];
  readonly away: boolean;
}

const slice = createSlice({
  name: 'uploads',
  initialState: { files: [], away: false } as UploadState,
  reducers: {
    added: (state, { payload }: PayloadAction<readonly QueuedFile[]>) => ({
      ...state,
      files: [...state.files, ...payload.filter((p) => !state.files.some((f) => f.id === p.id))],
    }),
    changed: (state, { payload }: PayloadAction<Partial<QueuedFile> & { id: string }>) => ({
      ...state,
      files: state.files.map((f) => (f.id === payload.id ? { ...f, ...payload } : f)),
    }),
    dropped: (state, { payload }: PayloadAction<readonly string[]>) => ({
      ...state,
      files: state.files.filter((f) => !payload.includes(f.id)),
    }),
    awayChanged: (state, { payload }: PayloadAction<boolean>) => ({ ...state, away: payload }),
  },
});

export const uploadActions = slice.actions;
export const uploadReducer = slice.reducer;
