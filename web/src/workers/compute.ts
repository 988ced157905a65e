import type { CaseState, Diagnosis } from '@true-ledger/core';
import { wrap, type Remote } from 'comlink';
import { useEffect, useRef, useState } from 'react';
import type { Compute } from './compute.worker.js';

let remote: Remote<Compute> | null = null;

/** The shared compute worker, started on first use. */
export function compute(): Remote<Compute> {
  remote ??= wrap<Compute>(new Worker(new URL('./compute.worker.ts', import.meta.url), { type: 'module' }));
  return remote;
}

/** Differential of the state, computed in the worker; always the newest, older answers are dropped. */
export function useDiagnosis(state: CaseState | undefined): Diagnosis | null {
  const [diagnosis, setDiagnosis] = useState<Diagnosis | null>(null);
  const busy = useRef(false);
  const wanted = useRef<CaseState | undefined>(undefined);
  useEffect(() => {
    wanted.current = state;
    if (!state || busy.current) return;
    const next = async (): Promise<void> => {
      busy.current = true;
      while (wanted.current) {
        const current = wanted.current;
        const result = await compute().diagnose(current);
        if (wanted.current === current) {
          wanted.current = undefined;
          setDiagnosis(result);
        }
      }
      busy.current = false;
    };
    void next();
  }, [state]);
  return diagnosis;
}
