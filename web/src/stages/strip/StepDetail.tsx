import { Button } from 'antd';
import { Dialog } from '../../app/Dialog.js';
import { lostBySteps, type StepStanding, type StripStanding } from '@true-ledger/core/case';
import { useEffect, useRef, useState, type ReactNode } from 'react';
import { useDraft } from '../../app/drafts.js';
import { useCase, useRecord } from '../../app/caseContext.js';
import { useKeys } from '../../app/keys.js';
import { Reason } from './CameApart.js';
import { EasingSheet } from './EasingSheet.js';
import { FastenerSheet } from './FastenerSheet.js';
import { HoldPanel } from './HoldPanel.js';
import './strip.css';
import { CapCheck } from './CapCheck.js';
import { Bag } from './Bag.js';
import { Shots } from './Shots.js';
import { Expectations } from './Expectations.js';

export function StepDetail({
  standing,
  current,
  onDone,
}: {
  standing: StripStanding;
  current: StepStanding;
  onDone: () => void;
}): ReactNode {
  const { readOnly } = useCase();
  const record = useRecord();
  const [asking, setAsking] = useState(false);
  const [reason, setReason] = useDraft('Reason');
  const { step, done, waitsFor } = current;
  const losing = lostBySteps(standing, [step.id]);
  const easing = step.holds.some((h) => h.by.kind === 'easing') || step.id === 'play';
  // Pressed twice before the page has moved on, it is done once.
  const finished = useRef(false);
  useEffect(() => {
    finished.current = false;
  }, [done]);
  const finish = (note: string): void => {
    if (finished.current) return;
    finished.current = true;
    record(
      ...losing.map((item) => ({ kind: 'hold-set' as const, station: null, body: { item: item.id, outcome: 'lost' as const, note } })),
      { kind: 'step-set' as const, station: null, body: { step: step.id, state: 'done' as const, note } },
    );
    setAsking(false);
    setReason('');
    onDone();
  };
  const press = (): void => {
    if (readOnly || done) return;
    if (losing.length > 0 || waitsFor.length > 0) setAsking(true);
    else finish('');
  };
  useKeys([{ keys: 'd', what: 'Step done', run: press }]);
  return (
    <div className="stack">
      <div className="step-head" data-step={step.id}>
        <h2>{step.name}</h2>
        {done ? (
          <>
            <b className="verdict-word within">done</b>
            {!readOnly && (
              <Button
                size="small"
                onClick={() =>
                  record({ kind: 'step-set', station: null, body: { step: step.id, state: 'open', note: 'not done after all' } })
                }
              >
                Not done after all
              </Button>
            )}
          </>
        ) : (
          !readOnly && (
            <Button type={losing.length > 0 ? 'default' : 'primary'} onClick={press}>
              Step done (d)
            </Button>
          )
        )}
        {waitsFor.length > 0 && !done && (
          <span className="quiet">usually after {waitsFor.map((s) => s.name.toLowerCase()).join(', ')}</span>
        )}
      </div>
      <HoldPanel standing={current} />
      {(step.pattern || step.cap || easing) && (
        <section className="pane step-figures">
          {step.cap && <CapCheck cap={step.cap} />}
          {step.pattern && <FastenerSheet key={step.pattern.id} pattern={step.pattern} />}
          {easing && <EasingSheet plan={standing.plan} />}
        </section>
      )}
      <section className="pane step-text">
        <p>{step.how}</p>
        {step.tools && <p className="quiet">Tools: {step.tools}.</p>}
        {step.cautions.map((c) => (
          <p key={c} className="caution">
            {c}
          </p>
        ))}
        {step.craft.length > 0 && (
          <ul>
            {step.craft.map((c) => (
              <li key={c}>{c}</li>
            ))}
          </ul>
        )}
        {step.bags.map((b) => (
          <Bag key={b.id} bag={b} />
        ))}
        <Shots current={current} />
        <Expectations stepId={step.id} />
      </section>
      <Dialog
        open={asking}
        title={losing.length > 0 ? `${step.name}: this will be lost` : `${step.name}: out of order`}
        okText={losing.length > 0 ? 'Go on, it is lost' : 'It is done'}
        okButtonProps={{ disabled: reason.trim() === '', danger: losing.length > 0 }}
        cancelText="Back to record it"
        onCancel={() => setAsking(false)}
        onOk={() => finish(reason.trim())}
      >
        {losing.length > 0 && (
          <ul>
            {losing.map((i) => (
              <li key={i.id}>{i.name}</li>
            ))}
          </ul>
        )}
        {waitsFor.length > 0 && <p>Usually done first: {waitsFor.map((s) => s.name).join(', ')}.</p>}
        {losing.length > 0 && <p>The causes will not ask for it again, and the account will say that it was not recorded.</p>}
        <Reason value={reason} onChange={setReason} placeholder="Why: came without oil, taken off before us, client in a hurry" />
      </Dialog>
    </div>
  );
}
