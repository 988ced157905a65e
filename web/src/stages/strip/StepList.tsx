import { App, Button } from 'antd';
import { moveStep } from '@true-ledger/core/strip';
import { stripStanding, type StepStanding, type StripStanding } from '@true-ledger/core/case';
import { useEffect, useRef, type ReactNode } from 'react';
import { Link } from 'react-router';
import { useCase, useNow, useRecord } from '../../app/caseContext.js';
import './strip.css';

export function StepList({ standing, current }: { standing: StripStanding; current: StepStanding }): ReactNode {
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
    const at = plan.steps.findIndex((s) => s.id === id);
    // Beyond either end there is nowhere to go.
    if (!plan.steps[at + by]) return;
    const moved = moveStep(plan, id, at + by);
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
