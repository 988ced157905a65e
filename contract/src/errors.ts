import type { SlotConflict } from '@true-ledger/core';

/** The one shape of every refusal over HTTP. */
export interface ApiError {
  readonly code: string;
  /** What happened, what is safe, what to do. */
  readonly sentence: string;
  readonly field?: string;
  /** Present with `entry-conflict`: what the field holds now. */
  readonly conflict?: SlotConflict;
}

export const STATUS_OF: Readonly<Record<string, number>> = {
  'signed-out': 401,
  'sign-in-failed': 401,
  forbidden: 403,
  origin: 403,
  'not-found': 404,
  'entry-conflict': 409,
  'sheet-conflict': 409,
  'book-conflict': 409,
  'batch-running': 409,
  'account-moved': 409,
  'bundle-parted': 409,
  'bundle-oversteps': 403,
  'taken-meanwhile': 409,
  'request-encoding': 415,
  'disk-full': 507,
  busy: 503,
  'link-dead': 404,
  'file-too-large': 413,
  'image-too-large': 413,
  'too-many-attempts': 429,
  'store-unavailable': 503,
  'witness-away': 503,
};
