import type { ProblemCode } from './problems.js';

/** What went wrong, for a person: a stable code, one sentence, and the field it belongs to when there is one. Who stands above core has codes of its own beside core's. */
export interface Problem<C extends string = ProblemCode> {
  readonly code: C;
  /** What happened, what is safe, what to do. */
  readonly sentence: string;
  readonly field?: string;
}

export type Result<T, C extends string = ProblemCode> =
  { readonly ok: true; readonly value: T } | { readonly ok: false; readonly problem: Problem<C> };

export function ok<T>(value: T): { readonly ok: true; readonly value: T } {
  return { ok: true, value };
}

export function fail<C extends string = ProblemCode>(
  code: C,
  sentence: string,
  field?: string,
): { readonly ok: false; readonly problem: Problem<C> } {
  return { ok: false, problem: field === undefined ? { code, sentence } : { code, sentence, field } };
}
