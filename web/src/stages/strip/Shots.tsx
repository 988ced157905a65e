import type { StepStanding } from '@true-ledger/core/case';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { useCase } from '../../app/caseContext.js';
import './strip.css';

export function Shots({ current }: { current: StepStanding }): ReactNode {
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
