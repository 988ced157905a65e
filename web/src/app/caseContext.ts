import { createContext, useCallback, useContext } from 'react';
import type { Me } from '@true-ledger/contract';
import type { CaseState } from '@true-ledger/core/ledger';
import type { CaseView } from '@true-ledger/core/case';
import type { Diagnosis } from '@true-ledger/core/diagnosis';
import { useStore } from 'react-redux';
import { record } from './outbox.js';
import type { Observation } from './outboxState.js';
import { selectCaseView } from './selectors.js';
import { useAppDispatch, type RootState } from './store.js';

export interface OpenCase {
  readonly caseId: string;
  readonly view: CaseView;
  readonly state: CaseState;
  readonly me: Me;
  /** Null until the first differential is computed. */
  readonly diagnosis: Diagnosis | null;
  /** The differential is the last one that was computed; entries have come since, and it is being computed anew. */
  readonly lastKnown: boolean;
  readonly readOnly: boolean;
}

export const CaseContext = createContext<OpenCase | null>(null);

export function useCase(): OpenCase {
  const value = useContext(CaseContext);
  if (!value) throw new Error('used outside a case');
  return value;
}

/** Records observations in the open case; does nothing for a reader. */
export function useRecord(): (...observations: Observation[]) => void {
  const dispatch = useAppDispatch();
  const { caseId, me, readOnly } = useCase();
  return useCallback(
    (...observations) => {
      if (!readOnly && observations.length > 0) dispatch(record(caseId, me.author, observations));
    },
    [dispatch, caseId, me, readOnly],
  );
}

/**
 * The case as it stands when asked. What is drawn may be a moment behind the hand (the case is drawn in slices), so an observation that
 * follows from the one before it, the next of a row, is made from this and not from what is on the screen.
 */
export function useNow(): () => CaseView {
  const store = useStore<RootState>();
  const { caseId, view } = useCase();
  return useCallback(() => selectCaseView(store.getState(), caseId) ?? view, [store, caseId, view]);
}
