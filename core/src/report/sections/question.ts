import type { CaseView } from '../../case/views.js';
import type { ReportBlock, ReportSection } from '../blocks.js';
import { inspectedText } from '../parties.js';
import { coded, orDash } from '../words.js';

/** A row that is left out when nothing was entered. */
function optionalRow(name: string, parts: readonly string[]): string[][] {
  const said = parts.filter((p) => p !== '' && p !== '–');
  return said.length > 0 ? [[name, said.join('; ')]] : [];
}

/** Who asks what of which engine, and how it came. */
export function question(view: CaseView): ReportSection {
  const l = view.layout;
  return {
    id: 'question',
    heading: 'Question and engine',
    blocks: [
      {
        kind: 'table',
        head: ['', ''],
        rows: [
          ['Question owner', coded('questionOwner', view)],
          ['Question asked', orDash(view.intake('question'))],
          ['Complaint', coded('complaint', view)],
          ['In the client’s words', orDash(view.intake('complaintWords'))],
          ...optionalRow('Where and when', [coded('complaintPlace', view), coded('complaintWhen', view)]),
          ...optionalRow('Smoke', [coded('smokeColour', view)]),
          ['Onset', coded('onset', view)],
          ['After the first sign', [coded('afterFirstSign', view), view.intake('ranOnFor')].filter((x) => x !== '').join(', ')],
          ['Received', orDash(view.intake('received'))],
          ['Inspected', orDash(inspectedText(view))],
          ...optionalRow('Opened by', [view.intake('openedBy')]),
          ...optionalRow('Evidence held by', [view.intake('evidenceHolder')]),
          ...optionalRow('Experience of this family', [coded('familyExperience', view)]),
          [
            'Engine',
            `${l.cylinders} cylinder${l.cylinders > 1 ? 's' : ''}, ${l.arrangement}, ${l.cycle}, ${l.fuel}; bore ${l.boreMm} mm, stroke ${l.strokeMm} mm, ${l.mains} mains, firing order ${l.firingOrder.join('-')}`,
          ],
        ],
      },
      { kind: 'plan' },
      ...(view.history.length > 0
        ? [
            {
              kind: 'table' as const,
              head: ['History', 'How we know', 'Date'],
              rows: view.history.map((h) => [
                h.value.text,
                { told: 'told to us', seen: 'seen by us', measured: 'measured by us' }[h.value.reliability],
                h.value.date ?? '–',
              ]),
            },
          ]
        : [{ kind: 'text' as const, key: 'question.history', text: 'No history was given.' }]),
      ...custody(view),
    ],
  };
}

function custody(view: CaseView): ReportBlock[] {
  const blocks: ReportBlock[] = [];
  if (view.received.length > 0)
    blocks.push({
      kind: 'table',
      head: ['Received', 'How it came', 'By'],
      rows: view.received.map(({ value: r }) => [r.text, r.state.replace('-', ' '), orDash(r.by)]),
    });
  if (view.buildMarks.length > 0)
    blocks.push({
      kind: 'table',
      head: ['Build marks', 'Points to'],
      rows: view.buildMarks.map(({ value: m }) => [m.text, m.pointsTo.replace('-', ' ')]),
    });
  if (view.questions.length > 0)
    blocks.push({
      kind: 'table',
      head: ['Questions', 'To', 'Answer'],
      rows: view.questions.map(({ value: q }) => [
        q.text,
        q.to.replace('-', ' '),
        q.answer === null ? 'open' : `${q.answer} (${q.answeredOn ?? ''})`,
      ]),
    });
  return blocks;
}
