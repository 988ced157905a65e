import { Button } from 'antd';
import { unproved, type AssemblyStanding } from '@true-ledger/core/salvage';
import { tighteningDrawing } from '@true-ledger/core/report';
import { useEffect, useRef, useState, type ReactNode } from 'react';
import { useCase, useRecord } from '../../app/caseContext.js';
import { Dialog } from '../../app/Dialog.js';
import { useDraft } from '../../app/drafts.js';
import { useKeys } from '../../app/keys.js';
import { ReasonField } from '../../fields/ReasonField.js';
import { ShapesSvg } from '../../surface/ShapesSvg.js';
import { AssemblyProof } from './AssemblyProof.js';
import { Fasteners } from './Fasteners.js';
import './decide.css';

/** One step of the assembly: how it came apart, what goes in, how tight, and what is proved before the next. */
export function AssemblyDetail({
  current,
  before,
  onDone,
}: {
  current: AssemblyStanding;
  before: readonly AssemblyStanding[];
  onDone: () => void;
}): ReactNode {
  const { caseId, readOnly } = useCase();
  const record = useRecord();
  const { step, done } = current;
  const [asking, setAsking] = useState(false);
  const [reason, setReason] = useDraft('Reason');
  const doubts = [
    ...before.filter((s) => !s.done).map((s) => `${s.step.name}: not done`),
    ...current.parts.filter((p) => p.how === 'open').map((p) => `${p.name}: ${p.words}`),
    ...unproved(current).map(
      (p) => `${p.proof.name}: ${p.state === 'open' ? 'not proved' : p.state === 'no' ? 'answered no' : 'outside its limits'}`,
    ),
  ];
  const set = (state: 'done' | 'open', note: string): void =>
    record({ kind: 'assembly-set', station: null, body: { step: step.id, state, note } });
  // Pressed twice before the page has moved on, it is done once.
  const finished = useRef(false);
  useEffect(() => {
    finished.current = false;
  }, [done]);
  const finish = (note: string): void => {
    if (finished.current) return;
    finished.current = true;
    set('done', note);
    setAsking(false);
    setReason('');
    onDone();
  };
  const press = (): void => {
    if (readOnly || done || asking) return;
    if (doubts.length > 0) setAsking(true);
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
            <span className="quiet">
              by {done.version.author.name}
              {done.value.note && `: ${done.value.note}`}
            </span>
            {!readOnly && (
              <Button size="small" onClick={() => set('open', 'not done after all')}>
                Not done after all
              </Button>
            )}
          </>
        ) : (
          !readOnly && (
            <Button type={doubts.length > 0 ? 'default' : 'primary'} onClick={press}>
              Step done (d)
            </Button>
          )
        )}
      </div>
      <section className="pane step-text put-together">
        <div>
          <p>{step.how}</p>
          {step.tools && <p className="quiet">Tools: {step.tools}.</p>}
          {step.cautions.map((c) => (
            <p key={c} className="caution">
              {c}
            </p>
          ))}
          {current.cap !== null && <p>As it came apart: {current.cap}.</p>}
          {current.start.length > 0 && (
            <ol>
              {current.start.map((s) => (
                <li key={s.what}>
                  {s.what}
                  {s.caution && <span className="caution"> {s.caution}</span>}
                </li>
              ))}
            </ol>
          )}
        </div>
        {current.pictures.length > 0 && (
          <div className="came-apart-pictures">
            {current.pictures.map((p) => (
              <a key={p.sha256} href={`/api/cases/${caseId}/photos/${p.sha256}/work`} target="_blank" rel="noreferrer">
                <img
                  src={`/api/cases/${caseId}/photos/${p.sha256}/work`}
                  alt={`As it came apart: ${p.what}`}
                  loading="lazy"
                  decoding="async"
                />
                <span className="quiet">
                  {p.what}
                  {p.standIn && ' (rendered stand-in)'}
                </span>
              </a>
            ))}
          </div>
        )}
      </section>
      {current.parts.length > 0 && (
        <section className="pane" aria-label="Parts that go in">
          <table className="lines">
            <tbody>
              {current.parts.map((p) => (
                <tr key={p.station} className={`part-in ${p.how}`}>
                  <td>{p.name}</td>
                  <td>{p.words}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
      )}
      {current.fasteners.length > 0 && (
        <section className="pane" aria-label="Fasteners">
          {current.fasteners.map((f) => (
            <Fasteners key={f.bag.id} fasteners={f} />
          ))}
          {step.pattern && step.pattern.positions.length > 2 && <Tightening pattern={step.pattern} order={step.tightening} />}
        </section>
      )}
      {current.proofs.length > 0 && (
        <section className="pane" aria-label="Proved before the next step">
          <h3>Proved before the next step</h3>
          {current.proofs.map((p) => (
            <AssemblyProof key={p.proof.id} standing={p} />
          ))}
        </section>
      )}
      <Dialog
        open={asking}
        title={`${step.name}: going on over this`}
        okText="It is done"
        okButtonProps={{ disabled: reason.trim() === '' }}
        cancelText="Back to prove it"
        onCancel={() => setAsking(false)}
        onOk={() => finish(reason.trim())}
      >
        <ul className="doubts">
          {doubts.map((d) => (
            <li key={d}>{d}</li>
          ))}
        </ul>
        <p>The book keeps your reason beside the step.</p>
        <ReasonField value={reason} onChange={setReason} most={1000} />
      </Dialog>
    </div>
  );
}

function Tightening({
  pattern,
  order,
}: {
  pattern: NonNullable<AssemblyStanding['step']['pattern']>;
  order: readonly string[];
}): ReactNode {
  const drawing = tighteningDrawing(pattern, order);
  return (
    <figure className="tightening">
      <ShapesSvg shapes={drawing.shapes} width={drawing.width} height={drawing.height} label={drawing.caption} />
      <figcaption className="quiet">{drawing.caption}</figcaption>
    </figure>
  );
}
