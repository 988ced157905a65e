import type { ThunkAction, UnknownAction } from '@reduxjs/toolkit';
import type { ApiError } from '@true-ledger/contract';
import { currentVersion, type Author, type CaseState, type EntryDraft } from '@true-ledger/core/ledger';
import { slotOf } from '@true-ledger/core/entries';
import { api } from './api.js';
import { foldNew } from './foldNew.js';
import { outboxStore } from './localStore.js';
import { outboxActions, type Observation, type OutboxItem } from './outboxState.js';
import { selectCaseState } from './selectors.js';
import type { RootState } from './store.js';
import { asProblem, patience } from './server.js';

type Thunk<T = void> = ThunkAction<T, RootState, unknown, UnknownAction>;

let order = Date.now();

/** Records observations: shown at once, kept in the browser, sent in order. */
export function record(caseId: string, author: Author, observations: readonly Observation[], mode: 'new' | 'redo' | 'undo' = 'new'): Thunk {
  return (dispatch, getState) => {
    const time = new Date().toISOString();
    const items: OutboxItem[] = [];
    const seen = new Map<string, string>();
    const was = new Map<string, Observation>();
    for (const o of observations) {
      const slot = slotOf(o.kind, o.body);
      const key = `${o.station ?? ''}|${slot}`;
      const state = selectCaseState(getState(), caseId);
      const current = state ? currentVersion(state, o.station, slot) : undefined;
      const basedOn = seen.get(key) ?? current?.entry ?? null;
      const draft: EntryDraft = { id: crypto.randomUUID(), kind: o.kind, station: o.station, body: o.body, basedOn };
      if (o.kind === 'retracted' && current)
        was.set(draft.id, { kind: current.kind, station: o.station, body: current.body } as Observation);
      seen.set(key, draft.id);
      items.push({ caseId, draft, author, time, order: ++order, status: 'waiting' });
    }
    dispatch(outboxActions.queued(items));
    if (mode !== 'undo')
      dispatch(
        outboxActions.wrote({ written: items.map(({ draft }) => ({ caseId, draft, was: was.get(draft.id) })), keepRedo: mode === 'redo' }),
      );
    void outboxStore.put(items).catch(() => undefined);
    void dispatch(flush(caseId));
  };
}

/** Takes the last act of this session back by superseding entries. Returns what was taken back, or null. */
export function undo(caseId: string, author: Author): Thunk<string | null> {
  return (dispatch, getState) => {
    const last = getState().outbox.done.at(-1);
    const state = selectCaseState(getState(), caseId);
    if (!last || !state || last[0]?.caseId !== caseId) return null;
    const back = last.flatMap(({ draft, was }): Observation[] => {
      if (was) return [was];
      const slot = slotOf(draft.kind, draft.body);
      const stands = currentVersion(state, draft.station, slot)?.entry === draft.id;
      return stands ? [{ kind: 'retracted', station: draft.station, body: { target: draft.id, slot, reason: 'taken back' } }] : [];
    });
    dispatch(outboxActions.tookBack(last));
    if (back.length === 0) return null;
    dispatch(record(caseId, author, back, 'undo'));
    return back[0]?.kind ?? null;
  };
}

/** The same observation once more; a take-back aims at what the field holds by now. */
function again(draft: EntryDraft, state: CaseState | undefined): Observation {
  const observation = { kind: draft.kind, station: draft.station, body: draft.body } as Observation;
  const now = state ? currentVersion(state, draft.station, slotOf(draft.kind, draft.body)) : undefined;
  return observation.kind === 'retracted' && now ? { ...observation, body: { ...observation.body, target: now.entry } } : observation;
}

/** Writes again what the last undo took back. */
export function redo(caseId: string, author: Author): Thunk<boolean> {
  return (dispatch, getState) => {
    const last = getState().outbox.undone.at(-1);
    if (!last || last[0]?.caseId !== caseId) return false;
    dispatch(outboxActions.redid());
    dispatch(
      record(
        caseId,
        author,
        last.map(({ draft, was }) => again(draft, was ? selectCaseState(getState(), caseId) : undefined)),
        'redo',
      ),
    );
    return true;
  };
}

const sending = new Set<string>();
const timers = new Map<string, ReturnType<typeof setTimeout>>();
const wait = patience(1000, 15_000);

/** Sends what waits for a case, in order; comes back by itself when the server does not answer. */
function flush(caseId: string): Thunk<Promise<void>> {
  return async (dispatch, getState) => {
    if (sending.has(caseId)) return;
    sending.add(caseId);
    clearTimeout(timers.get(caseId));
    let size = 100;
    try {
      for (;;) {
        const batch = getState()
          .outbox.items.filter((i) => i.caseId === caseId && i.status === 'waiting')
          .slice(0, size);
        if (batch.length === 0) break;
        const result = await dispatch(api.endpoints.append.initiate({ caseId, entries: batch.map((i) => i.draft) }));
        if (result.data) {
          const { entries } = result.data;
          const held = api.endpoints.getCase.select(caseId)(getState()).data;
          const next = held ? foldNew(held.state, entries) : undefined;
          if (held && next) dispatch(api.util.updateQueryData('getCase', caseId, () => ({ ...held, state: next })));
          else if (next === null) await dispatch(api.endpoints.getCase.initiate(caseId, { forceRefetch: true, subscribe: false }));
          const ids = batch.map((i) => i.draft.id);
          dispatch(outboxActions.settled(ids));
          void outboxStore.remove(ids).catch(() => undefined);
          dispatch(outboxActions.linkChanged('up'));
          wait.calm();
          continue;
        }
        const problem = asProblem(result.error);
        // An append is all or nothing: when one entry of many is refused, the rest go singly so that only that one is held back.
        if (batch.length > 1 && !LATER.has(problem.code)) {
          size = 1;
          continue;
        }
        if (!settleRefusal(dispatch, batch[0]!, problem)) {
          timers.set(
            caseId,
            setTimeout(() => void dispatch(flush(caseId)), wait.next()),
          );
          break;
        }
      }
    } finally {
      sending.delete(caseId);
    }
  };
}

const LATER: ReadonlySet<string> = new Set(['unreachable', 'store-unavailable', 'unexpected', 'signed-out', 'not-found']);

/** Marks what the server would not take; false when it should be tried again later. */
function settleRefusal(dispatch: (action: UnknownAction) => void, item: OutboxItem, problem: ApiError): boolean {
  if (LATER.has(problem.code)) {
    dispatch(outboxActions.linkChanged(problem.code === 'signed-out' ? 'signed-out' : 'down'));
    return false;
  }
  dispatch(outboxActions.marked({ ids: [item.draft.id], status: problem.code === 'entry-conflict' ? 'conflict' : 'refused', problem }));
  return true;
}

/** Settles a conflict: drops our version, or writes it again on top of what the field holds now. */
export function resolveConflict(caseId: string, id: string, keep: 'mine' | 'theirs'): Thunk {
  return (dispatch, getState) => {
    const item = getState().outbox.items.find((i) => i.draft.id === id);
    dispatch(outboxActions.settled([id]));
    void outboxStore.remove([id]).catch(() => undefined);
    if (item && keep === 'mine' && item.draft.kind !== 'retracted') {
      dispatch(record(caseId, item.author, [{ kind: item.draft.kind, station: item.draft.station, body: item.draft.body } as Observation]));
    }
  };
}

/** Reads unsent entries kept from before a reload and sends them. */
export function restoreOutbox(): Thunk<Promise<void>> {
  return async (dispatch) => {
    const kept = await outboxStore.all().catch(() => []);
    if (kept.length === 0) return;
    dispatch(outboxActions.restored(kept));
    for (const caseId of new Set(kept.map((i) => i.caseId))) void dispatch(flush(caseId));
  };
}
