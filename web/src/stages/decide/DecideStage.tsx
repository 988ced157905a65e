import type { ReactNode } from 'react';
import { Link, useParams } from 'react-router';
import { useCase } from '../../app/caseContext.js';
import { Assembly } from './Assembly.js';
import { Parts } from './Parts.js';
import { Routes } from './Routes.js';
import { Schedule } from './Schedule.js';

const PAGES = [
  ['parts', 'Parts'],
  ['routes', 'Routes'],
  ['schedule', 'Schedule'],
  ['assembly', 'Assembly'],
] as const;

/** What to do: with each part, by which route, by when, and how it goes together again. */
export function DecideStage(): ReactNode {
  const { caseId } = useCase();
  const { page = 'parts' } = useParams();
  return (
    <div className="page decide">
      <div className="page-head">
        <h1>Decide</h1>
        <nav className="cause-tabs" aria-label="Pages of deciding">
          {PAGES.map(([id, name]) => (
            <Link
              key={id}
              to={`/case/${caseId}/decide/${id}`}
              className={page === id ? 'active' : ''}
              aria-current={page === id ? 'page' : undefined}
            >
              {name}
            </Link>
          ))}
        </nav>
      </div>
      {page === 'routes' ? <Routes /> : page === 'schedule' ? <Schedule /> : page === 'assembly' ? <Assembly /> : <Parts />}
    </div>
  );
}
