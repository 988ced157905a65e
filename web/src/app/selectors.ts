import { createSelector } from '@reduxjs/toolkit';
import { currentVersion, type CaseState } from '@true-ledger/core/ledger';
import { applyDraft, slotOf } from '@true-ledger/core/entries';
import { caseView, type CaseView } from '@true-ledger/core/case';
import { api } from './api.js';
import type { RootState } from './store.js';

const serverState = (root: RootState, caseId: string): CaseState | undefined => api.endpoints.getCase.select(caseId)(root).data?.state;

/** State of a case as this hand sees it: the server's fold with the unsent entries folded on by the same reducer. */
export const selectCaseState: (root: RootState, caseId: string) => CaseState | undefined = createSelector(
  [serverState, (root: RootState) => root.outbox.items, (_: RootState, caseId: string) => caseId],
  (server, items, caseId) => {
    if (!server) return undefined;
    let state = server;
    for (const item of items) {
      if (item.caseId !== caseId || item.status !== 'waiting') continue;
      if (currentVersion(state, item.draft.station, slotOf(item.draft.kind, item.draft.body))?.entry === item.draft.id) continue;
      state = applyDraft(state, item.draft, item.author, item.time);
    }
    return state;
  },
);

/** Whether this hand sees a state of the case that the server does not hold yet. */
export function hasUnsent(root: RootState, caseId: string): boolean {
  return selectCaseState(root, caseId) !== serverState(root, caseId);
}

export function selectCaseView(root: RootState, caseId: string): CaseView | null {
  const state = selectCaseState(root, caseId);
  return state ? caseView(state) : null;
}
