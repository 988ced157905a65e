/** What went wrong, for a person: a stable code, one sentence, and the field it belongs to when there is one. */
export interface Problem {
  readonly code: string;
  /** What happened, what is safe, what to do. */
  readonly sentence: string;
  readonly field?: string;
}

export type Result<T> = { readonly ok: true; readonly value: T } | { readonly ok: false; readonly problem: Problem };

export function ok<T>(value: T): Result<T> {
  return { ok: true, value };
}

export function fail<T = never>(code: string, sentence: string, field?: string): Result<T> {
  return { ok: false, problem: field === undefined ? { code, sentence } : { code, sentence, field } };
}
