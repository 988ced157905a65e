import { readCaseFile } from '../bundle/caseFile/read.js';
import type { CaseFile } from '../bundle/caseFile/format.js';
import type { CaseView } from '../case/views.js';

/** A case as a file of a few words says it, for tests; what the file must have and does not matter here is added. */
export function caseOf(file: Partial<CaseFile> = {}, template = 'inline-4-petrol'): CaseView {
  const read = readCaseFile({ format: 'true-ledger/case', version: 1, engine: { template }, ...file });
  if (!read.ok) throw new Error(`${read.problem.sentence} (${read.problem.field})`);
  return read.value.view;
}
