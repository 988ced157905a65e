import { Alert, Button, Input } from 'antd';
import { Dialog } from '../../app/Dialog.js';
import type { LedgerEntry } from '@true-ledger/core/ledger';
import { entryDefinition, entryWords } from '@true-ledger/core/entries';
import { useState, type ReactNode } from 'react';
import { useDraft } from '../../app/drafts.js';
import { useRedactMutation } from '../../app/api.js';
import { asProblem } from '../../app/server.js';

/** Strikes the content of an entry for good; for the owner. */
export function Strike({ entry, caseId, signed }: { entry: LedgerEntry; caseId: string; signed: number }): ReactNode {
  const [open, setOpen] = useState(false);
  const [reason, setReason] = useDraft('Reason for striking');
  const [redact, { isLoading, error, reset }] = useRedactMutation();
  if (entry.body === null || entryDefinition(entry.kind)?.stays) return null;
  const close = (): void => {
    setOpen(false);
    setReason('');
    reset();
  };
  return (
    <>
      <Button size="small" type="text" aria-label={`Strike entry ${entry.seq}`} onClick={() => setOpen(true)}>
        Strike
      </Button>
      <Dialog
        open={open}
        title={`Strike the content of entry ${entry.seq}`}
        okText="Strike for good"
        okButtonProps={{ danger: true, loading: isLoading, disabled: reason.trim().length < 3 }}
        onCancel={close}
        onOk={() =>
          void redact({ caseId, entry: entry.id, reason: reason.trim() })
            .unwrap()
            .then(close)
            .catch(() => undefined)
        }
      >
        <p>{entryWords(entry.kind, entry.body)}</p>
        <p>
          The content{entry.kind === 'photo-added' || entry.kind === 'clip-added' ? ' and the file' : ''} will be gone from this server;
          that there was an entry, by whom and when, stays, and the chain still holds. It cannot be taken back.
          {signed > 0 ? ' Signed accounts and bundles given out before keep what they hold.' : ''}
        </p>
        <Input.TextArea
          rows={2}
          value={reason}
          aria-label="Why it has to go"
          placeholder="Why it has to go"
          maxLength={500}
          onChange={(e) => setReason(e.target.value)}
        />
        {error && <Alert type="error" role="alert" title={asProblem(error).sentence} />}
      </Dialog>
    </>
  );
}
