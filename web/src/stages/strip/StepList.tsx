import { App, Button } from 'antd';
import { moveStep } from '@true-ledger/core/strip';
import { stripStanding, type StepStanding, type StripStanding } from '@true-ledger/core/case';
import type { ReactNode } from 'react';
import { useCase, useNow, useRecord } from '../../app/caseContext.js';
import { StepNav } from '../../steps/StepNav.js';
import './strip.css';

export function StepList({ standing, current }: { standing: StripStanding; current: StepStanding }): ReactNode {
  const { caseId, readOnly } = useCase();
  const now = useNow();
  const record = useRecord();
  const { message } = App.useApp();
  const move = (id: string, by: number): void => {
    const { plan } = stripStanding(now());
    const at = plan.steps.findIndex((s) => s.id === id);
    // Beyond either end there is nowhere to go.
    if (!plan.steps[at + by]) return;
    const moved = moveStep(plan, id, at + by);
    if (!moved.ok) void message.warning(moved.problem.sentence);
    else record({ kind: 'step-order', station: null, body: { order: moved.value } });
  };
  const { id, name } = current.step;
  return (
    <StepNav
      here={id}
      to={(step) => `/case/${caseId}/strip/${step}`}
      steps={standing.steps.map((s) => {
        const risk = s.holds.filter((h) => h.state === 'open').length;
        const waits = s.waitsFor.length > 0;
        return {
          id: s.step.id,
          name: s.step.name,
          phase: s.step.phase,
          done: s.done,
          waits,
          more: !s.done && risk > 0 && (
            <span className={waits ? 'figure quiet' : 'risk figure'} title={`${risk} to record first`}>
              {risk}
            </span>
          ),
        };
      })}
      movers={
        !readOnly &&
        !current.done && (
          <span className="movers">
            <Button size="small" type="text" aria-label={`${name} earlier`} title="Earlier" onClick={() => move(id, -1)}>
              ↑
            </Button>
            <Button size="small" type="text" aria-label={`${name} later`} title="Later" onClick={() => move(id, 1)}>
              ↓
            </Button>
          </span>
        )
      }
    />
  );
}
