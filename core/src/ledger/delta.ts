import { emptyCase, type CaseState, type SlotGroup } from './state.js';

/** What one folded state of a case has that another has not; small where little was written, so that it can be sent to who holds the other. */
export interface StateDelta {
  readonly caseId: string;
  readonly seq: number;
  readonly head: string;
  /** To be put on an empty case rather than on what is held. */
  readonly whole: boolean;
  /** Groups that changed; null: gone. */
  readonly groups: Readonly<Record<string, SlotGroup | null>>;
}

/** Difference by identity of groups, which the fold keeps for every group no entry touches. `before` null, or of another case: everything. */
export function stateDelta(before: CaseState | null, after: CaseState): StateDelta {
  const base = before?.caseId === after.caseId ? before : null;
  const old = base?.groups ?? {};
  const changed: Record<string, SlotGroup | null> = {};
  for (const [key, group] of Object.entries(after.groups)) if (old[key] !== group) changed[key] = group;
  for (const key of Object.keys(old)) if (!Object.hasOwn(after.groups, key)) changed[key] = null;
  return { caseId: after.caseId, seq: after.seq, head: after.head, whole: base === null, groups: changed };
}

/** The state a delta leads to. Groups it does not name keep their identity, and so does what was derived from them. */
export function applyDelta(held: CaseState | null, delta: StateDelta): CaseState {
  const { caseId, seq, head } = delta;
  const base = delta.whole || held === null ? emptyCase(caseId) : held;
  const changed = Object.entries(delta.groups);
  if (changed.length === 0) return { caseId, seq, head, groups: base.groups };
  const groups: Record<string, SlotGroup> = { ...base.groups };
  for (const [key, group] of changed)
    if (group === null) delete groups[key];
    else groups[key] = group;
  return { caseId, seq, head, groups };
}
