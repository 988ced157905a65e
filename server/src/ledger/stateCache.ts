import type { CaseState, KeptEntry } from '@true-ledger/core/ledger';
import { foldEntries } from '@true-ledger/core/entries';

/** Cases kept folded; the one written to last goes first when there are more. */
const MOST = 40;

/**
 * Folded states of the cases in use, by case, so that an append to a long case does not read the whole of it again. A state is only used where the row of the
 * case says the same number and head, or where what was written since follows on it; a state of a transaction that was given up matches nothing.
 */
export class StateCache {
  private readonly states = new Map<string, CaseState>();

  keep(state: CaseState): void {
    this.states.delete(state.caseId);
    this.states.set(state.caseId, state);
    const oldest = this.states.keys().next().value;
    if (this.states.size > MOST && oldest !== undefined) this.states.delete(oldest);
  }

  drop(caseId: string): void {
    this.states.delete(caseId);
  }

  /** The state that stands for exactly this head, or one before it that entries can be folded on; null when there is none. */
  at(caseId: string, seq: number): CaseState | null {
    const held = this.states.get(caseId);
    return held && held.seq <= seq ? held : null;
  }

  /** Folds what was written since onto a held state; null when it does not follow on it. */
  static follow(held: CaseState, tail: readonly KeptEntry[], head: string): CaseState | null {
    const state = tail.length === 0 ? held : tail[0]!.prev === held.head ? foldEntries(held, tail) : null;
    return state?.head === head ? state : null;
  }
}
