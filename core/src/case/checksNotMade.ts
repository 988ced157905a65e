import { checksFor, featuresOf, NOT_DONE } from '../opening/checks.js';
import type { CaseView } from './views.js';

/** Why a check was not made, in the builder's words; null where nothing was said. */
export function notDone(view: Pick<CaseView, 'checks'>, check: string): string | null {
  return view.checks.get(`${check}:${NOT_DONE.id}`)?.value.text || null;
}

/** Features that only checks which were not made could have shown, with the reason given. */
export function featuresSetAside(view: Pick<CaseView, 'checks' | 'layout'>): ReadonlyMap<string, string> {
  const aside = new Map<string, string>();
  const open = new Set<string>();
  for (const check of checksFor(view.layout)) {
    const because = notDone(view, check.id);
    for (const f of featuresOf(check))
      if (because === null) open.add(f);
      else if (!aside.has(f)) aside.set(f, because);
  }
  for (const f of open) aside.delete(f);
  return aside;
}

/** Features whose question in a check was answered, whether or not the answer may be believed: asking again tells nothing. */
export function featuresAnswered(view: Pick<CaseView, 'checks' | 'layout'>): ReadonlySet<string> {
  const fields = checksFor(view.layout).flatMap((check) => check.fields.map((field) => ({ check, field })));
  return new Set(
    fields
      .filter(({ check, field }) => (view.checks.get(`${check.id}:${field.id}`)?.value.chosen.length ?? 0) > 0)
      .flatMap(({ field }) => (field.options ?? []).flatMap((o) => o.feature ?? [])),
  );
}
