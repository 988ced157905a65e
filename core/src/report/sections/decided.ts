import type { CaseView } from '../../case/views.js';
import { standingDispositions } from '../../salvage/dispositions.js';
import { machineSheet } from '../../salvage/machineSheet.js';
import { OPERATION_NAMES, type StandingDisposition } from '../../workshop/operations.js';
import type { ReportBlock, ReportSection } from '../blocks.js';
import { machineDrawing } from '../machineDrawing.js';

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
  const shop = machineBlocks(view, confirmed);
  if (shop.length > 0) blocks.push({ kind: 'text', text: 'Machine shop', strong: true }, ...shop);
  return [{ id: 'decided', heading: 'What is to be done', blocks }];
}

/** Work for the machine shop: lines with sizes from the readings, and where they are. Empty when there is none. */
export function machineBlocks(view: CaseView, dispositions: readonly StandingDisposition[]): ReportBlock[] {
  const sheet = machineSheet(view, dispositions);
  if (sheet.length === 0) return [];
  return [
    {
      kind: 'table',
      head: ['No.', 'Part', 'Work', 'Size to, mm', 'Finish and limits', 'Qty'],
      rows: sheet.map((l, i) => [
        String(i + 1),
        l.part,
        l.operation,
        l.sizeMm ? `${l.sizeMm[0].toFixed(3)} to ${l.sizeMm[1].toFixed(3)}` : '–',
        [l.finish, l.limits, l.notes].filter(Boolean).join('; '),
        String(l.quantity),
      ]),
      figures: [0, 5],
    },
    machineDrawing(view.layout, sheet),
  ];
}
