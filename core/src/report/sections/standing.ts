import type { Diagnosis } from '../../diagnosis/diagnose.js';
import type { CaseView } from '../../case/views.js';
import type { ReportSection } from '../blocks.js';
import { CONFIDENCE_WORDS, STANDING_STATEMENT } from '../words.js';

/** Method, words for confidence, caution and ledger head. */
export function standing(view: CaseView, d: Diagnosis, head: string, entries: number): ReportSection {
  const stand = view.stations.some((s) => s.photos.some((p) => p.value.standIn));
  return {
    id: 'standing',
    heading: 'Method and standing',
    blocks: [
      {
        kind: 'text',
        text: `Grades by grade book ${view.book.version}; causes by cause table ${d.table}, over sets of any number of causes; a range is the 10 to 90 % of draws of the table. Verdicts are guard-banded: a value nearer to its limit than its uncertainty (U, k = 2) is too close to call.`,
      },
      { kind: 'text', text: CONFIDENCE_WORDS },
      ...(stand
        ? [
            {
              kind: 'text' as const,
              text: 'Pictures marked “rendered stand-in” were drawn by the application for demonstration; they are not photographs.',
            },
          ]
        : []),
      { kind: 'text', text: STANDING_STATEMENT },
      { kind: 'text', text: `Ledger: ${entries} entries, head ${head}.` },
    ],
  };
}
