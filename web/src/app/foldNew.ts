import type { CaseState, LedgerEntry } from '@true-ledger/core/ledger';
import { foldEntries } from '@true-ledger/core/entries';

/** Adds entries the state does not hold yet; returns null when there is a gap that must be fetched first. */
export function foldNew(state: CaseState, entries: readonly LedgerEntry[]): CaseState | null {
  const fresh = entries.filter((e) => e.seq > state.seq).sort((a, b) => a.seq - b.seq);
  if (fresh.length === 0) return state;
  return fresh[0]?.seq === state.seq + 1 ? foldEntries(state, fresh) : null;
}
