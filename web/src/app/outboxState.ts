import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { ApiError } from '@true-ledger/contract';
import type { Author, EntryDraft } from '@true-ledger/core/ledger';
import type { EntryBodies, EntryKind } from '@true-ledger/core/entries';

/** What a screen wants recorded; the outbox gives it an id and what it rests on. */
export type Observation = {
  [K in EntryKind]: { readonly kind: K; readonly station: string | null; readonly body: EntryBodies[K] };
}[EntryKind];

/** An entry written here that the server has not confirmed. */
export interface OutboxItem {
  readonly caseId: string;
  readonly draft: EntryDraft;
  readonly author: Author;
  readonly time: string;
  readonly order: number;
  readonly status: 'waiting' | 'conflict' | 'refused';
  readonly problem?: ApiError;
}

interface Written {
  readonly caseId: string;
  readonly draft: EntryDraft;
  /** What a take-back took away, so that it can be written again. */
  readonly was?: Observation;
}

interface OutboxState {
  readonly items: readonly OutboxItem[];
  readonly link: 'up' | 'down' | 'signed-out';
  /** Entries written in this session, for undo, and those taken back, for redo. */
  readonly done: readonly Written[][];
  readonly undone: readonly Written[][];
  /** Cases whose newest entries could not be fetched yet; what is shown of them may be old. */
  readonly behind: readonly string[];
}

const initialState: OutboxState = { items: [], link: 'up', done: [], undone: [], behind: [] };
const UNDO_DEPTH = 200;

const slice = createSlice({
  name: 'outbox',
  initialState,
  reducers: {
    restored: (state, { payload }: PayloadAction<OutboxItem[]>) => ({
      ...state,
      items: [...payload, ...state.items.filter((i) => !payload.some((p) => p.draft.id === i.draft.id))],
    }),
    queued: (state, { payload }: PayloadAction<OutboxItem[]>) => ({ ...state, items: [...state.items, ...payload] }),
    settled: (state, { payload }: PayloadAction<string[]>) => ({
      ...state,
      items: state.items.filter((i) => !payload.includes(i.draft.id)),
    }),
    marked: (state, { payload }: PayloadAction<{ ids: string[]; status: OutboxItem['status']; problem?: ApiError }>) => ({
      ...state,
      items: state.items.map((i) =>
        payload.ids.includes(i.draft.id) ? { ...i, status: payload.status, ...(payload.problem ? { problem: payload.problem } : {}) } : i,
      ),
    }),
    linkChanged: (state, { payload }: PayloadAction<OutboxState['link']>) => ({ ...state, link: payload }),
    wrote: (state, { payload }: PayloadAction<{ written: Written[]; keepRedo: boolean }>) => ({
      ...state,
      done: [...state.done.slice(-UNDO_DEPTH), payload.written],
      undone: payload.keepRedo ? state.undone : [],
    }),
    tookBack: (state, { payload }: PayloadAction<Written[]>) => ({
      ...state,
      done: state.done.slice(0, -1),
      undone: [...state.undone, payload],
    }),
    behindChanged: (state, { payload }: PayloadAction<{ caseId: string; behind: boolean }>) => ({
      ...state,
      behind: [...state.behind.filter((id) => id !== payload.caseId), ...(payload.behind ? [payload.caseId] : [])],
    }),
    redid: (state) => ({ ...state, undone: state.undone.slice(0, -1) }),
  },
});

export const outboxActions = slice.actions;
export const outboxReducer = slice.reducer;
