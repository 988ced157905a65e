import type { EntryBodies } from '../entries/entries.js';
import type { LedgerEntry } from '../ledger/entry.js';
import { fail, ok, type Result } from '../kit/result.js';
import { CASE_FILE_FORMAT, CASE_FILE_VERSION } from './caseFile/format.js';

/** Is a case file of a bundle written in a version this one reads? */
export function readableVersion(caseJson: string | null): Result<true> {
  if (caseJson === null) return fail('bundle-refused', 'The bundle was refused: case.json is missing. Nothing was changed.');
  let head: { format?: unknown; version?: unknown };
  try {
    head = JSON.parse(caseJson) as typeof head;
  } catch {
    return fail('bundle-refused', 'The bundle was refused: case.json is not readable. Nothing was changed.');
  }
  if (head?.format !== CASE_FILE_FORMAT)
    return fail('bundle-refused', 'The bundle was refused: it is not one of this application. Nothing was changed.');
  if (typeof head.version === 'number' && head.version > CASE_FILE_VERSION)
    return fail(
      'bundle-newer',
      `The bundle was made by a newer version of the application (format ${head.version}; this one reads up to ${CASE_FILE_VERSION}). Nothing was changed; bring this one up to date first.`,
    );
  return ok(true);
}

/** Checks what comes from outside, already verified line by line, before it becomes entries here: one case that is opened first, no id twice. */
export function acceptEntries(entries: readonly LedgerEntry[]): Result<{ caseId: string; number: string }> {
  const refuse = (seq: number, why: string): Result<never> =>
    fail('bundle-refused', `The bundle was refused: entry ${seq} ${why}. Nothing was changed.`);
  const first = entries[0];
  if (!first || first.kind !== 'case-opened' || !first.body)
    return fail('bundle-refused', 'The bundle was refused: its ledger does not begin with the opening of a case. Nothing was changed.');
  const seen = new Set<string>();
  for (const e of entries) {
    if (e.caseId !== first.caseId) return refuse(e.seq, 'belongs to another case');
    if (seen.has(e.id)) return refuse(e.seq, 'carries the id of an entry before it');
    seen.add(e.id);
  }
  return ok({ caseId: first.caseId, number: (first.body as EntryBodies['case-opened']).number });
}
