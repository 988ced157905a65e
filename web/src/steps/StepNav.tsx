import { useEffect, useRef, type ReactNode } from 'react';
import { Link } from 'react-router';
import './steps.css';

/** One line of a list of steps. */
interface NavStep {
  readonly id: string;
  readonly name: string;
  readonly phase: string;
  readonly done: boolean;
  /** Others should come first. */
  readonly waits: boolean;
  /** After its name. */
  readonly more?: ReactNode;
}

/** Steps in their order under the names of their phases, with the one in hand; `movers` stand beside it. Only the list scrolls, never the page. */
export function StepNav({
  steps,
  here,
  to,
  movers = null,
}: {
  steps: readonly NavStep[];
  here: string;
  to: (id: string) => string;
  movers?: ReactNode;
}): ReactNode {
  const list = useRef<HTMLElement>(null);
  useEffect(() => {
    const box = list.current;
    const at = box?.querySelector<HTMLElement>('.here');
    if (!box || !at) return;
    const top = at.offsetTop - box.offsetTop;
    if (top < box.scrollTop || top + at.offsetHeight > box.scrollTop + box.clientHeight) box.scrollTop = top - box.clientHeight / 3;
  }, [here]);
  let phase = '';
  return (
    <nav className="pane step-list" aria-label="Steps" ref={list}>
      {steps.map((s) => {
        const heading = s.phase === phase ? null : (phase = s.phase);
        const current = s.id === here;
        return (
          <div key={s.id}>
            {heading && <h3>{heading}</h3>}
            <div className={`step${current ? ' here' : ''}${s.done ? ' done' : s.waits ? ' waits' : ''}`}>
              <Link to={to(s.id)} replace aria-current={current}>
                <i aria-hidden="true">{s.done ? '✓' : ''}</i>
                <span>{s.name}</span>
                {s.more}
              </Link>
              {current && movers}
            </div>
          </div>
        );
      })}
    </nav>
  );
}

/** The list of steps at the left, the step in hand at the right; one under the other where there is no room. */
export function StepsGrid({ children }: { children: ReactNode }): ReactNode {
  return <div className="steps-grid">{children}</div>;
}
