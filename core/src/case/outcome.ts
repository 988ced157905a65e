import type { CaseView } from './views.js';

/** Causes the builder confirmed. */
export const confirmedCauses = (view: CaseView): string[] =>
  view.decisions.filter((d) => d.value.decision === 'confirmed').map((d) => d.value.cause);

/** Causes that were proved since: those confirmed where they were proved, that which it was instead where they were disproved; null while nobody knows. */
export function provenCauses(view: CaseView): readonly string[] | null {
  const last = view.outcomes.findLast(({ value: o }) => o.outcome === 'proved' || o.outcome === 'disproved')?.value;
  if (!last) return null;
  if (last.outcome === 'proved') return confirmedCauses(view);
  return last.cause === null ? null : [last.cause];
}

/** What an outcome says against the account as it was signed; null where nothing does. The account stays as it was signed: it is amended. */
export function outcomeAgainstAccount(view: CaseView): string | null {
  const signed = view.signed.at(-1);
  const last = view.outcomes.at(-1)?.value;
  if (!signed || !last || last.outcome !== 'disproved') return null;
  const since = signed.version.time.slice(0, 10) > last.on;
  return since
    ? null
    : `Version ${signed.value.version} of the account was signed before the outcome of ${last.on} disproved its cause. It stays as it was signed; sign an amendment that says so.`;
}
