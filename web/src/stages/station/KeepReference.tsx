import { App, Button, Input } from 'antd';
import { Dialog } from '../../app/Dialog.js';
import type { ApiError } from '@true-ledger/contract';
import type { StationView } from '@true-ledger/core/case';
import { useState, type ReactNode } from 'react';
import { useDraft } from '../../app/drafts.js';
import { useKeepReferenceMutation, useReferencesQuery, useRemoveReferenceMutation } from '../../app/api.js';
import { useCase } from '../../app/caseContext.js';

/** Keeps the shown picture, with what was measured here, as a part as it should be: any case can be held against it. */
export function KeepReference({ station, sha256 }: { station: StationView; sha256: string }): ReactNode {
  const { caseId, readOnly, me } = useCase();
  const { message } = App.useApp();
  const { data: references = [] } = useReferencesQuery();
  const [keep, { isLoading }] = useKeepReferenceMutation();
  const [remove] = useRemoveReferenceMutation();
  const [open, setOpen] = useState(false);
  const [name, setName] = useDraft('Name of the reference');
  const [note, setNote] = useDraft('Note of the reference');
  const held = references.find((r) => r.sha256 === sha256);
  if (readOnly) return null;
  const refuse = (e: unknown): void => void message.error((e as ApiError).sentence);
  if (held)
    return (
      <span className="quiet">
        kept as “{held.name}”
        {me.account.role === 'owner' && (
          <Button size="small" type="link" onClick={() => void remove(held.id).unwrap().catch(refuse)}>
            No longer
          </Button>
        )}
      </span>
    );
  return (
    <>
      <Button size="small" onClick={() => setOpen(true)}>
        Keep as reference part
      </Button>
      <Dialog
        open={open}
        title="A part as it should be"
        okText="Keep it"
        okButtonProps={{ disabled: name.trim().length < 2, loading: isLoading }}
        onCancel={() => setOpen(false)}
        onOk={() =>
          void keep({ id: crypto.randomUUID(), name: name.trim(), note: note.trim(), caseId, station: station.station.id, sha256 })
            .unwrap()
            .then(() => {
              setOpen(false);
              for (const clear of [setName, setNote]) clear('');
            })
            .catch(refuse)
        }
      >
        <p className="quiet">
          A new part, photographed and measured once. The picture, its corners and the {station.readings.length} readings of this place are
          kept for the whole shop; it is offered wherever parts of its kind are put side by side.
        </p>
        <Input
          value={name}
          onChange={(e) => setName(e.target.value)}
          placeholder="Name, such as: new rod shell, 53 mm"
          aria-label="Name"
          maxLength={120}
        />
        <Input.TextArea
          value={note}
          onChange={(e) => setNote(e.target.value)}
          placeholder="Where it is from"
          aria-label="Note"
          maxLength={1000}
          style={{ marginTop: 8 }}
        />
      </Dialog>
    </>
  );
}
