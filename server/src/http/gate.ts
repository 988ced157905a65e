import type { NextFunction, Request, Response } from 'express';
import { ProblemError } from './problem.js';

/** How deep a request may be nested; a case file is eight deep. */
const DEEPEST = 40;
/** Names every object has without being given them: as keys of a request they are an attempt. */
const INHERITED: ReadonlySet<string> = new Set(['__proto__', 'constructor', 'prototype']);
const UNKEEPABLE = /[\0\p{Cs}]/u;

/** What cannot be kept in any text of the database, or would be taken for something else when it is looked up; null when there is nothing. */
function fault(value: unknown, depth = 0): string | null {
  if (typeof value === 'string') return UNKEEPABLE.test(value) ? 'a character that cannot be kept (NUL, or half of one)' : null;
  if (typeof value === 'number') return Number.isFinite(value) ? null : 'a figure beyond all measure';
  if (typeof value !== 'object' || value === null) return null;
  if (depth > DEEPEST) return 'things within things beyond what any request here has';
  for (const [key, held] of Object.entries(value)) {
    if (INHERITED.has(key)) return `a field called "${key}"`;
    const found = fault(key) ?? fault(held, depth + 1);
    if (found) return found;
  }
  return null;
}

/** The first gate every request passes, whatever it is for. */
export function gate(request: Request, _response: Response, next: NextFunction): void {
  let path: string;
  try {
    path = decodeURIComponent(request.path);
  } catch {
    // An address that is no address leads nowhere.
    path = '\0';
  }
  const found = fault(path) ?? fault(request.query) ?? fault(request.body as unknown);
  if (!found) return next();
  next(new ProblemError({ code: 'request', sentence: `The request was refused: it holds ${found}. Nothing was changed.` }));
}
