import type { CaseView } from '../../ledger/views.js';
import { standingDispositions } from '../../salvage/dispositions.js';
import { machineSheet } from '../../salvage/machineSheet.js';
import { OPERATION_NAMES } from '../../salvage/operations.js';
import type { ReportBlock, ReportSection } from '../blocks.js';

/** What becomes of the parts and what goes to the machine shop. */
export function decided(view: CaseView): ReportSection[] {
  const dispositions = standingDispositions(view);
  const confirmed = dispositions.filter((x) => x.confirmed);
  if (confirmed.length === 0) return [];
  const blocks: ReportBlock[] = [
    {
      kind: 'table',
      head: ['Part', 'What becomes of it', 'Size', 'Reason'],
      rows: confirmed.map((x) => [x.name, OPERATION_NAMES[x.operation], x.size, x.reason]),
    },
  ];
  const sheet = machineSheet(view, confirmed);
  if (sheet.length > 0)
    blocks.push(
      { kind: 'text', text: 'Machine shop', strong: true },
      {
        kind: 'table',
        head: ['Part', 'Work', 'Size to, mm', 'Finish and limits', 'Qty'],
        rows: sheet.map((l) => [
          l.part,
          l.operation,
          l.sizeMm ? `${l.sizeMm[0].toFixed(3)} to ${l.sizeMm[1].toFixed(3)}` : '–',
          [l.finish, l.limits].filter(Boolean).join('; '),
          String(l.quantity),
        ]),
        figures: [4],
      },
    );
  return [{ id: 'decided', heading: 'What is to be done', blocks }];
}
