import { stripStanding } from '@true-ledger/core/case';
import { useMemo, type ReactNode } from 'react';
import { useNavigate, useParams } from 'react-router';
import { useCase } from '../../app/caseContext.js';
import { useKeys } from '../../app/keys.js';
import { StepsGrid } from '../../steps/StepNav.js';
import { CameApart } from './CameApart.js';
import './strip.css';
import { StepList } from './StepList.js';
import { StepDetail } from './StepDetail.js';

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
      <StepsGrid>
        <StepList standing={standing} current={current} />
        <StepDetail key={current.step.id} standing={standing} current={current} onDone={() => go(at + 1)} />
      </StepsGrid>
    </div>
  );
}
