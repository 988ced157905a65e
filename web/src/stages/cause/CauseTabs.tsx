import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { useCase } from '../../app/caseContext.js';

/** The pages of the cause stage, with what this one says of itself. */
export function CauseTabs({ children }: { children?: ReactNode }): ReactNode {
  const { caseId, lastKnown } = useCase();
  const at = (path: string): string => `/case/${caseId}/cause${path}`;
  const inside = window.location.pathname.replace(/^.*\/cause\/?/, '').split('/')[0] ?? '';
  const here = ['sequence', 'pair', 'answers'].includes(inside) ? inside : '';
  const tabs: ReadonlyArray<readonly [string, string]> = [
    ['', 'Weighing'],
    ['sequence', 'Order of events'],
    ['pair', 'Hard pair'],
    ['answers', 'Answers'],
  ];
  return (
    <div className="page-head">
      <h1>Cause</h1>
      <nav className="cause-tabs" aria-label="Pages of the cause stage">
        {tabs.map(([path, name]) => (
          <Link
            key={path}
            to={at(path && `/${path}`)}
            className={here === path ? 'active' : ''}
            aria-current={here === path ? 'page' : undefined}
          >
            {name}
          </Link>
        ))}
      </nav>
      {lastKnown && (
        <span className="quiet" role="status">
          as last computed; being computed anew
        </span>
      )}
      {children && <span className="quiet">{children}</span>}
    </div>
  );
}
