import { Button, Input, Segmented } from 'antd';
import type { EntryBodies } from '@true-ledger/core/entries';
import { useState, type ReactNode } from 'react';
import { Dialog } from '../app/Dialog.js';
import { useCase, useRecord } from '../app/caseContext.js';
import { useDraft } from '../app/drafts.js';

type As = EntryBodies['case-shelved']['as'];

/** Says over every page of a case that it was put away, by whom and why. */
export function ShelvedNote(): ReactNode {
  const { view, readOnly } = useCase();
  const record = useRecord();
  const held = view.shelved;
  if (!held || held.value.as === 'in-hand') return null;
  return (
    <div className="reader-note" role="status">
      {held.value.as === 'withdrawn' ? 'Withdrawn' : 'Archived'} by {held.version.author.name} on {held.version.time.slice(0, 10)}
      {held.value.reason && `: ${held.value.reason}`}.{' '}
      {!readOnly && (
        <Button size="small" onClick={() => record({ kind: 'case-shelved', station: null, body: { as: 'in-hand', reason: '' } })}>
          Take in hand again
        </Button>
      )}
    </div>
  );
}

/** Puts a case away: archived when the work is over, withdrawn with a reason when it should not have been opened. Nothing in it is lost. */
export function PutAway(): ReactNode {
  const { view, readOnly } = useCase();
  const record = useRecord();
  const [open, setOpen] = useState(false);
  const [as, setAs] = useState<Exclude<As, 'in-hand'>>('archived');
  const [reason, setReason] = useDraft('Reason for putting away');
  if (readOnly || (view.shelved && view.shelved.value.as !== 'in-hand')) return null;
  return (
    <>
      <Button onClick={() => setOpen(true)}>Put away …</Button>
      <Dialog
        open={open}
        title="Put the case away"
        okText={as === 'withdrawn' ? 'Withdraw it' : 'Archive it'}
        okButtonProps={{ disabled: as === 'withdrawn' && reason.trim().length < 3 }}
        onCancel={() => setOpen(false)}
        onOk={() => {
          record({ kind: 'case-shelved', station: null, body: { as, reason: reason.trim() } });
          setReason('');
          setOpen(false);
        }}
      >
        <p>It leaves the Shelf and is found there again under “put away”. Its ledger stays whole and can be gone on with.</p>
        <Segmented
          value={as}
          onChange={setAs}
          aria-label="Why it is put away"
          options={[
            { value: 'archived', label: 'The work is over' },
            { value: 'withdrawn', label: 'It is withdrawn' },
          ]}
        />
        <Input
          style={{ marginTop: 10 }}
          value={reason}
          maxLength={1000}
          onChange={(e) => setReason(e.target.value)}
          aria-label="Reason"
          placeholder={as === 'withdrawn' ? 'Why: opened twice, client withdrew' : 'Remark (may stay empty)'}
        />
      </Dialog>
    </>
  );
}
