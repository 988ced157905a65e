import type { CaseState } from '@true-ledger/core/ledger';
import type { SimulatedRoute } from '@true-ledger/core/salvage';
import { useEffect, useState } from 'react';
import { reckonRoutes } from '../../workers/compute.js';

/** The routes as last reckoned for a case, and whether the case has changed since: what is shown then is from before, and must say so. */
export function useRoutes(state: CaseState): { readonly routes: readonly SimulatedRoute[] | null; readonly stale: boolean } {
  const [reckoned, setReckoned] = useState<{ of: CaseState; routes: readonly SimulatedRoute[] } | null>(null);
  useEffect(() => {
    let gone = false;
    void reckonRoutes(state).then((routes) => {
      if (!gone) setReckoned({ of: state, routes });
    });
    return () => {
      gone = true;
    };
  }, [state]);
  return { routes: reckoned?.routes ?? null, stale: reckoned !== null && reckoned.of !== state };
}
