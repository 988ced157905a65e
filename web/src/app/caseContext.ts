import { createContext, useCallback, useContext } from 'react';
import type { Me } from '@true-ledger/contract';
import type { CaseState, CaseView, Diagnosis, StationView } from '@true-ledger/core';
import { record, type Observation } from './outbox.js';
import { useAppDispatch } from './store.js';

export interface OpenCase {
  readonly caseId: string;
  readonly view: CaseView;
  readonly state: CaseState;
  readonly me: Me;
  /** Null until the first differential is computed. */
  readonly diagnosis: Diagnosis | null;
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

export function useStation(id: string): StationView | undefined {
  return useCase().view.byId.get(id);
}
