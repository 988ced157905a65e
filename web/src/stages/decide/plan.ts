import type { CaseView, EntryBodies } from '@true-ledger/core';

/** The plan of the case, or one to begin with: from tomorrow, six bench hours on weekdays. */
export function planOf(view: CaseView): EntryBodies['plan-set'] {
  if (view.plan) return view.plan;
  const tomorrow = new Date(Date.now() + 86_400_000).toISOString().slice(0, 10);
  return { route: null, deadline: null, from: tomorrow, hoursPerDay: 6, workdays: [1, 2, 3, 4, 5], budget: null };
}

/** Days from the start to the end of the deadline's day; null without a deadline. */
export function daysUntil(from: string, deadline: string | null): number | null {
  if (deadline === null) return null;
  const days = (Date.parse(deadline) - Date.parse(from)) / 86_400_000;
  return days < 0 ? days : days + 1;
}
