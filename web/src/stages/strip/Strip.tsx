import { App, Button, Checkbox, Input, Radio } from 'antd';
import { Dialog } from '../../app/Dialog.js';
import { moveStep, REUSE_WORDS, type FastenerBag } from '@true-ledger/core/strip';
import { lostBySteps, stripStanding, type StepStanding, type StripStanding } from '@true-ledger/core/case';
import { useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import { Choice } from '../../fields/Choice.js';
import { useDraft } from '../../app/drafts.js';
import { NumberField } from '../../fields/NumberField.js';
import { Link, useNavigate, useParams } from 'react-router';
import { useCase, useNow, useRecord } from '../../app/caseContext.js';
import { useKeys } from '../../app/keys.js';
import { CameApart, Reason } from './CameApart.js';
import { EasingSheet } from './EasingSheet.js';
import { FastenerSheet } from './FastenerSheet.js';
import { HoldPanel } from './HoldPanel.js';
import './strip.css';

/** The strip of this engine: steps in order at the left, the step in hand at the right. */
export function Strip(): ReactNode {
  const { view, caseId, readOnly } = useCase();
  const { stepId } = useParams();
  const navigate = useNavigate();
  const standing = useMemo(() => stripStanding(view), [view]);
  const free = standing.steps.find((s) => !s.done && s.waitsFor.length === 0);
  const current = standing.steps.find((s) => s.step.id === stepId) ?? free ?? standing.steps[0]!;
  const at = standing.steps.indexOf(current);
  const go = (i: number): void => {
    const next = standing.steps[Math.min(standing.steps.length - 1, Math.max(0, i))];
    if (next) void navigate(`/case/${caseId}/strip/${next.step.id}`, { replace: true });
  };
  useKeys([
    { keys: 'ArrowDown', what: 'Next step', run: () => go(at + 1) },
    { keys: 'ArrowUp', what: 'Step before', run: () => go(at - 1) },
  ]);
  return (
    <div className="page strip-page">
      <div className="page-head">
        <h1>Strip</h1>
        <span className="quiet">
          <span className="figure">
            {standing.steps.filter((s) => s.done).length} of {standing.steps.length}
          </span>{' '}
          steps done; made from this engine’s layout
        </span>
        {!readOnly && standing.steps.some((s) => !s.done) && <CameApart standing={standing} />}
        {standing.lost.length > 0 && (
          <span className="fault" title={standing.lost.map((i) => i.name).join(', ')}>
            lost: {standing.lost.length} (
            {standing.lost
              .slice(0, 3)
              .map((i) => i.name.toLowerCase())
              .join(', ')}
            {standing.lost.length > 3 ? ', …' : ''})
          </span>
        )}
      </div>
      <div className="strip-grid">
        <StepList standing={standing} current={current} />
        <StepDetail key={current.step.id} standing={standing} current={current} onDone={() => go(at + 1)} />
      </div>
    </div>
  );
}

function StepList({ standing, current }: { standing: StripStanding; current: StepStanding }): ReactNode {
  const { caseId, readOnly } = useCase();
  const now = useNow();
  const record = useRecord();
  const { message } = App.useApp();
  const list = useRef<HTMLElement>(null);
  useEffect(() => {
    // Only the list scrolls; the page stays where it is.
    const box = list.current;
    const here = box?.querySelector<HTMLElement>('.here');
    if (!box || !here) return;
    const top = here.offsetTop - box.offsetTop;
    if (top < box.scrollTop || top + here.offsetHeight > box.scrollTop + box.clientHeight) box.scrollTop = top - box.clientHeight / 3;
  }, [current]);
  const move = (id: string, by: number): void => {
    const { plan } = stripStanding(now());
    const moved = moveStep(plan, id, plan.steps.findIndex((s) => s.id === id) + by);
    if (!moved.ok) void message.warning(moved.problem.sentence);
    else record({ kind: 'step-order', station: null, body: { order: moved.value } });
  };
  let phase = '';
  return (
    <nav className="pane step-list" aria-label="Steps" ref={list}>
      {standing.steps.map((s) => {
        const heading = s.step.phase === phase ? null : (phase = s.step.phase);
        const risk = s.holds.filter((h) => h.state === 'open').length;
        const here = s === current;
        return (
          <div key={s.step.id}>
            {heading && <h3>{heading}</h3>}
            <div className={`step${here ? ' here' : ''}${s.done ? ' done' : s.waitsFor.length > 0 ? ' waits' : ''}`}>
              <Link to={`/case/${caseId}/strip/${s.step.id}`} replace aria-current={here}>
                <i aria-hidden="true">{s.done ? '✓' : ''}</i>
                <span>{s.step.name}</span>
                {!s.done && risk > 0 && (
                  <span className={s.waitsFor.length === 0 ? 'risk figure' : 'figure quiet'} title={`${risk} to record first`}>
                    {risk}
                  </span>
                )}
              </Link>
              {here && !readOnly && !s.done && (
                <span className="movers">
                  <Button
                    size="small"
                    type="text"
                    aria-label={`${s.step.name} earlier`}
                    title="Earlier"
                    onClick={() => move(s.step.id, -1)}
                  >
                    ↑
                  </Button>
                  <Button size="small" type="text" aria-label={`${s.step.name} later`} title="Later" onClick={() => move(s.step.id, 1)}>
                    ↓
                  </Button>
                </span>
              )}
            </div>
          </div>
        );
      })}
    </nav>
  );
}

function StepDetail({ standing, current, onDone }: { standing: StripStanding; current: StepStanding; onDone: () => void }): ReactNode {
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

function Bag({ bag }: { bag: FastenerBag }): ReactNode {
  const { view, readOnly } = useCase();
  const record = useRecord();
  const held = view.bags.get(bag.id)?.value;
  const differs = held !== undefined && bag.count !== null && held.counted !== bag.count;
  return (
    <div className="bag-row">
      <span>
        Bag: <b>{bag.name}</b> <span className={`reuse ${bag.reuse}`}>{REUSE_WORDS[bag.reuse]}</span>
      </span>
      <label className="row">
        <span className="quiet">counted</span>
        <NumberField
          min={0}
          max={999}
          whole
          late
          disabled={readOnly}
          style={{ width: 84 }}
          value={held?.counted ?? null}
          placeholder={bag.count === null ? '' : String(bag.count)}
          aria-label={`${bag.name}, counted`}
          onChange={(v) =>
            v !== null && v !== held?.counted && record({ kind: 'bag-set', station: null, body: { bag: bag.id, counted: v, note: '' } })
          }
        />
        <span className={differs ? 'fault' : 'quiet'}>
          {bag.count === null ? '' : differs ? `${bag.count} are usual: one missing or an extra?` : `of ${bag.count} usual`}
        </span>
      </label>
    </div>
  );
}

function Shots({ current }: { current: StepStanding }): ReactNode {
  const { view, caseId } = useCase();
  if (current.step.shots.length === 0) return null;
  return (
    <div className="shots">
      <span className="quiet">Pictures:</span>
      {current.step.shots.map((s, i) => {
        const count =
          s.station === ''
            ? view.photos.filter((p) => !s.what || p.value.shot === s.what || !p.value.shot).length
            : (view.byId.get(s.station)?.photos.length ?? 0);
        return (
          <Link
            key={i}
            className={count > 0 ? 'shot taken' : 'shot'}
            to={`/capture/${caseId}?station=${s.station}&shot=${encodeURIComponent(s.what)}`}
          >
            {s.what} {count > 0 && <span className="figure">{count}</span>}
          </Link>
        );
      })}
    </div>
  );
}

/** What the builder expects to find under the next part, and whether it held: one line each. */
function Expectations({ stepId }: { stepId: string }): ReactNode {
  const { view, readOnly } = useCase();
  const record = useRecord();
  const [text, setText] = useDraft('Expectation');
  const own = view.expectations.filter((e) => e.value.step === stepId);
  const add = (): void => {
    if (text.trim() === '') return;
    record({ kind: 'expectation', station: null, body: { expectation: crypto.randomUUID(), step: stepId, text: text.trim(), held: null } });
    setText('');
  };
  return (
    <div className="expectations">
      {own.map((e) => (
        <div key={e.value.expectation} className="row">
          <span>Expected: {e.value.text}</span>
          <Choice
            size="small"
            label={`Expected: ${e.value.text}`}
            disabled={readOnly}
            value={e.value.held}
            options={[
              { value: true, label: 'held' },
              { value: false, label: 'did not hold' },
            ]}
            onAnswer={(held) => record({ kind: 'expectation', station: null, body: { ...e.value, held } })}
          />
        </div>
      ))}
      {!readOnly && (
        <Input
          size="small"
          value={text}
          maxLength={500}
          placeholder="What do you expect to find? Written before, it counts for more after"
          aria-label="Expectation"
          onChange={(e) => setText(e.target.value)}
          onPressEnter={add}
          onBlur={add}
        />
      )}
    </div>
  );
}

function CapCheck({ cap }: { cap: string }): ReactNode {
  const { view, readOnly } = useCase();
  const record = useRecord();
  const held = view.caps.get(cap)?.value;
  const [number, setNumber] = useState(held?.number ?? '');
  const [agrees, setAgrees] = useState(held?.agrees ?? true);
  const [joint, setJoint] = useState<'imperceptible' | 'step'>(held?.joint ?? 'imperceptible');
  const keep = (): void => record({ kind: 'cap-checked', station: null, body: { cap, number: number.trim(), agrees, joint, note: '' } });
  const same = held && held.number === number.trim() && held.agrees === agrees && held.joint === joint;
  return (
    <section className="cap-check" aria-label="Cap: number, direction, joint">
      <h3>Cap: number, direction, joint</h3>
      <div className="row">
        <Input
          style={{ width: 150 }}
          value={number}
          disabled={readOnly}
          maxLength={40}
          placeholder="Stamped number"
          aria-label="Number stamped on the cap"
          onChange={(e) => setNumber(e.target.value)}
          onPressEnter={keep}
        />
        <Checkbox checked={agrees} disabled={readOnly} onChange={(e) => setAgrees(e.target.checked)}>
          Number and direction agree
        </Checkbox>
        <Radio.Group
          disabled={readOnly}
          value={joint}
          options={[
            { value: 'imperceptible', label: 'Joint imperceptible' },
            { value: 'step', label: 'A step to feel' },
          ]}
          onChange={(e) => setJoint(e.target.value as 'step')}
        />
        {!readOnly && (
          <Button onClick={keep} disabled={same === true}>
            {held ? 'Correct the cap' : 'Keep the cap'}
          </Button>
        )}
      </div>
      {(joint === 'step' || !agrees) && (
        <p className="caution">A wrong cap or one turned round: look at the parting lines of its shells for contact on opposite sides.</p>
      )}
    </section>
  );
}
