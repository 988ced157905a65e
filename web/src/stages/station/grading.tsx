import { Select } from 'antd';
import { Dialog } from '../../app/Dialog.js';
import { gradeText, type Grade } from '@true-ledger/core/damage';
import type { StationView } from '@true-ledger/core/case';
import { useState, type ReactNode } from 'react';
import { useCase, useRecord } from '../../app/caseContext.js';

const REASONS = [
  'the picture misleads',
  'felt by hand',
  'seen on the part, not drawn',
  'the grade book is too strict here',
  'the grade book is too mild here',
];

export interface Grading {
  /** Confirms a grade; asks for a reason first where it differs from the proposed one. */
  readonly grade: (view: StationView, grade: Grade) => void;
  /** The question; must be on the page. */
  readonly dialog: ReactNode;
}

/** Confirming grades, the same on the bench, at a place, by key and by pointer. */
export function useGrading(): Grading {
  const record = useRecord();
  const { view: open } = useCase();
  const [asking, setAsking] = useState<{ view: StationView; grade: Grade } | null>(null);
  const [reason, setReason] = useState(REASONS[0] ?? '');
  const confirm = (view: StationView, grade: Grade, why: string): void =>
    record({
      kind: 'grade-confirmed',
      station: view.station.id,
      body: { grade, proposed: view.proposal?.grade ?? null, reason: why, book: open.book.version },
    });
  const grade = (view: StationView, g: Grade): void => {
    if (view.proposal && view.proposal.grade !== g) setAsking({ view, grade: g });
    else confirm(view, g, '');
  };
  const proposal = asking?.view.proposal;
  return {
    grade,
    dialog: (
      <Dialog
        open={asking !== null}
        title={
          asking && proposal ? `${asking.view.station.name}: ${gradeText(asking.grade)}, not the proposed ${gradeText(proposal.grade)}` : ''
        }
        okText="Confirm grade"
        onCancel={() => setAsking(null)}
        onOk={() => {
          if (asking) confirm(asking.view, asking.grade, reason);
          setAsking(null);
        }}
      >
        <p>{proposal?.reason}</p>
        <Select
          value={reason}
          onChange={setReason}
          options={REASONS.map((r) => ({ value: r, label: r }))}
          aria-label="Reason"
          style={{ width: '100%' }}
        />
      </Dialog>
    ),
  };
}
