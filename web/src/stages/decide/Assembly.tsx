import { Button } from 'antd';
import { assemblyBook } from '@true-ledger/core/salvage';
import { useMemo, type ReactNode } from 'react';
import { useNavigate, useParams } from 'react-router';
import { useCase } from '../../app/caseContext.js';
import { useKeys } from '../../app/keys.js';
import { useTakeFile } from '../../app/takeFile.js';
import { StepNav, StepsGrid } from '../../steps/StepNav.js';
import { AssemblyDetail } from './AssemblyDetail.js';
import './decide.css';

/** The assembly book: the strip backwards, step by step, for the bench and for print. */
export function Assembly(): ReactNode {
  const { view, caseId } = useCase();
  const { stepId } = useParams();
  const navigate = useNavigate();
  const { takeFile, busy } = useTakeFile(`/api/cases/${caseId}`);
  const book = useMemo(() => assemblyBook(view), [view]);
  const current = book.steps.find((s) => s.step.id === stepId) ?? book.next ?? book.steps[0]!;
  const at = book.steps.indexOf(current);
  const to = (id: string): string => `/case/${caseId}/decide/assembly/${id}`;
  const go = (i: number): void => {
    const next = book.steps[Math.min(book.steps.length - 1, Math.max(0, i))];
    if (next) void navigate(to(next.step.id), { replace: true });
  };
  useKeys([
    { keys: 'ArrowDown', what: 'Next step', run: () => go(at + 1) },
    { keys: 'ArrowUp', what: 'Step before', run: () => go(at - 1) },
  ]);
  return (
    <>
      <div className="row decide-head">
        <span className="quiet">
          <span className="figure">
            {book.done} of {book.steps.length}
          </span>{' '}
          steps done; the strip backwards
        </span>
        <Button size="small" loading={busy !== null} onClick={() => void takeFile('assembly.pdf', 'The assembly book')}>
          Take PDF
        </Button>
      </div>
      <StepsGrid>
        <StepNav
          here={current.step.id}
          to={to}
          steps={book.steps.map((s, i) => ({
            id: s.step.id,
            name: s.step.name,
            phase: s.step.phase,
            done: s.done !== null,
            waits: book.next !== null && i > book.steps.indexOf(book.next),
          }))}
        />
        <AssemblyDetail key={current.step.id} current={current} before={book.steps.slice(0, at)} onDone={() => go(at + 1)} />
      </StepsGrid>
    </>
  );
}
