import { lostBySteps, reasonsGiven, type StripStanding } from '@true-ledger/core/case';
import { Button, Checkbox } from 'antd';
import { useState, type ReactNode } from 'react';
import { Dialog } from '../../app/Dialog.js';
import { useCase, useRecord } from '../../app/caseContext.js';
import { useDraft } from '../../app/drafts.js';
import { WithSuggestions } from '../../fields/WithSuggestions.js';
import './strip.css';

/** A reason, with those given in this case before to choose from. */
export function Reason({
  value,
  onChange,
  placeholder,
}: {
  value: string;
  onChange: (text: string) => void;
  placeholder: string;
}): ReactNode {
  const { view } = useCase();
  return (
    <WithSuggestions
      value={value}
      suggestions={reasonsGiven(view).slice(0, 8)}
      onChange={(e) => onChange(e.target.value)}
      placeholder={placeholder}
      aria-label="Reason"
      maxLength={1000}
    />
  );
}

/** An engine that came in pieces, or was stripped by others: many steps answered at once, with one reason. */
export function CameApart({ standing }: { standing: StripStanding }): ReactNode {
  const record = useRecord();
  const [open, setOpen] = useState(false);
  const [reason, setReason] = useDraft('Reason for many steps');
  const left = standing.steps.filter((s) => !s.done);
  const [off, setOff] = useState<ReadonlySet<string>>(new Set());
  const chosen = left.filter((s) => !off.has(s.step.id)).map((s) => s.step.id);
  const losing = lostBySteps(standing, chosen);
  const finish = (): void => {
    const note = reason.trim();
    record(
      ...losing.map((item) => ({ kind: 'hold-set' as const, station: null, body: { item: item.id, outcome: 'lost' as const, note } })),
      ...chosen.map((step) => ({ kind: 'step-set' as const, station: null, body: { step, state: 'done' as const, note } })),
    );
    setOpen(false);
    setReason('');
    setOff(new Set());
  };
  const upTo = (at: number): void => setOff(new Set(left.slice(at + 1).map((s) => s.step.id)));
  return (
    <>
      <Button onClick={() => setOpen(true)}>It came apart …</Button>
      <Dialog
        open={open}
        title="Steps that were done before it came, or by others"
        okText={`${chosen.length} step${chosen.length === 1 ? '' : 's'} done`}
        okButtonProps={{ disabled: chosen.length === 0 || reason.trim() === '' }}
        onCancel={() => setOpen(false)}
        onOk={finish}
      >
        <Reason value={reason} onChange={setReason} placeholder="Came in boxes; stripped by the yard" />
        <div className="came-apart">
          {left.map((s, i) => (
            <div key={s.step.id}>
              <Checkbox
                checked={!off.has(s.step.id)}
                onChange={(e) => {
                  const next = new Set(off);
                  if (e.target.checked) next.delete(s.step.id);
                  else next.add(s.step.id);
                  setOff(next);
                }}
              >
                {s.step.name}
              </Checkbox>
              <Button size="small" type="text" onClick={() => upTo(i)} aria-label={`Up to ${s.step.name}`}>
                up to here
              </Button>
            </div>
          ))}
        </div>
        {losing.length > 0 && (
          <details>
            <summary>
              {losing.length} {losing.length === 1 ? 'thing was' : 'things were'} not recorded and {losing.length === 1 ? 'is' : 'are'} lost
              with them. The causes will not ask for {losing.length === 1 ? 'it' : 'them'}; the account will say so with this reason.
            </summary>
            <p className="lost-list">{losing.map((i) => i.name.toLowerCase()).join(', ')}</p>
          </details>
        )}
      </Dialog>
    </>
  );
}
