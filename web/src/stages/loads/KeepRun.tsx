import { Button, Input } from 'antd';
import type { Run, RunSetting } from '@true-ledger/core/running';
import { memo, type ReactNode } from 'react';
import { useCase, useRecord } from '../../app/caseContext.js';
import { useDraft } from '../../app/drafts.js';

/** Keeps the setting for the account, with why it is shown; what is kept can be looked at again, and taken out. */
export const KeepRun = memo(function KeepRun({ run, onSet }: { run: Run; onSet: (setting: RunSetting) => void }): ReactNode {
  const { view } = useCase();
  const record = useRecord();
  const { bearing } = run.setting;
  const kept = view.runs.find((r) => r.value.bearing === bearing)?.value ?? null;
  const [note, setNote] = useDraft(`Setting of ${bearing}: why it is shown`, kept?.note ?? '');
  const keep = (setting: RunSetting | null): void =>
    record({ kind: 'run-kept', station: null, body: { bearing, setting, note: setting ? note.trim() : '' } });
  return (
    <div className="keep-run">
      <label className="wide">
        <span>Why it is shown in the account</span>
        <Input.TextArea value={note} rows={2} maxLength={600} onChange={(e) => setNote(e.target.value)} />
      </label>
      <div className="row">
        <Button onClick={() => keep(run.setting)}>Keep for the account</Button>
        {kept?.setting && (
          <>
            <Button onClick={() => onSet(kept.setting!)}>Set as kept</Button>
            <Button onClick={() => keep(null)}>Take out</Button>
          </>
        )}
      </div>
    </div>
  );
});
