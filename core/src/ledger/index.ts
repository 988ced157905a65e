export {
  type Author,
  type ChainVerdict,
  type EntryDraft,
  FIRST_PREV,
  GAP_REASON,
  type KeptEntry,
  type LedgerEntry,
  authorOf,
  chainLine,
  entryFault,
  sealEntry,
  unexplainedGap,
  verifyChain,
} from './entry.js';
export { type StateDelta, applyDelta, stateDelta } from './delta.js';
export { type CaseState, type SlotConflict, type Sourced, currentVersion, emptyCase } from './state.js';
