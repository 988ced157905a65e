import type { ProblemCode } from './problems.js';

/** What went wrong, for a person: a stable code, one sentence, and the field it belongs to when there is one. Who stands above core has codes of its own beside core's. */
export interface Problem<C extends string = ProblemCode> {
  readonly code: C;
  /** What happened, what is safe, what to do. */
  readonly sentence: string;
  readonly field?: string;
}

/** A value, or why there is none. */
export type Result<T, C extends string = ProblemCode> =
  { readonly ok: true; readonly value: T } | { readonly ok: false; readonly problem: Problem<C> };

/** A value. */
export function ok<T>(value: T): { readonly ok: true; readonly value: T } {
  return { ok: true, value };
}

/** A refusal: its code, its sentence, and the field at fault. */
export function fail<C extends string = ProblemCode>(
  code: C,
  sentence: string,
  field?: string,
): { readonly ok: false; readonly problem: Problem<C> } {
  return { ok: false, problem: field === undefined ? { code, sentence } : { code, sentence, field } };
}
