import type { CaseView } from '../../case/views.js';
import type { ReportBlock, ReportSection } from '../blocks.js';
import { inspectedText } from '../parties.js';
import {
  AFTER_SIGNS,
  coded,
  COMPLAINT_PLACES,
  COMPLAINT_WHENS,
  COMPLAINTS,
  FAMILY_EXPERIENCE,
  ONSETS,
  orDash,
  QUESTION_OWNERS,
  SMOKES,
} from '../words.js';

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
          ['Question owner', coded(QUESTION_OWNERS, view.intake('questionOwner'))],
          ['Question asked', orDash(view.intake('question'))],
          ['Complaint', coded(COMPLAINTS, view.intake('complaint'))],
          ['In the client’s words', orDash(view.intake('complaintWords'))],
          ...optionalRow('Where and when', [
            coded(COMPLAINT_PLACES, view.intake('complaintPlace')),
            coded(COMPLAINT_WHENS, view.intake('complaintWhen')),
          ]),
          ...optionalRow('Smoke', [coded(SMOKES, view.intake('smokeColour'))]),
          ['Onset', coded(ONSETS, view.intake('onset'))],
          [
            'After the first sign',
            [coded(AFTER_SIGNS, view.intake('afterFirstSign')), view.intake('ranOnFor')].filter((x) => x !== '').join(', '),
          ],
          ['Received', orDash(view.intake('received'))],
          ['Inspected', orDash(inspectedText(view))],
          ...optionalRow('Opened by', [view.intake('openedBy')]),
          ...optionalRow('Evidence held by', [view.intake('evidenceHolder')]),
          ...optionalRow('Experience of this family', [coded(FAMILY_EXPERIENCE, view.intake('familyExperience'))]),
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
