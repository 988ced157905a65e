import { percentText } from '@true-ledger/core/cause';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { useLikeCasesQuery } from '../../app/api.js';
import { asProblem } from '../../app/server.js';
import { useCase } from '../../app/caseContext.js';

/** What was found here was found before: the cases most like this one, and what they were. Beside the judgement, never in it. */
export function LikeCases(): ReactNode {
  const { caseId, view } = useCase();
  const { data, error } = useLikeCasesQuery(caseId);
  // A practice engine is to be judged by itself, and stands in no statistics.
  if (view.practice || (data && data.cases.length === 0)) return null;
  return (
    <section className="pane like-cases" aria-label="Cases like this one">
      <h2>
        Cases like this one{' '}
        <span className="quiet">
          by the patterns and the kinds of places that were hurt, rare ones counting more; no evidence, and in no figure above
        </span>
      </h2>
      {error !== undefined && <p className="fault">{asProblem(error).sentence}</p>}
      <ul>
        {data?.cases.map((c) => (
          <li key={c.caseId}>
            <span className="figure">{percentText(c.likeness)}</span> <Link to={`/case/${c.caseId}`}>{c.number}</Link> {c.title}
            {c.sameFamily && <span className="quiet"> · same kind of engine</span>}
            <br />
            <span className="quiet">
              {c.was.length > 0
                ? `It was ${c.was.join(' and ').toLowerCase()}${c.proved ? ', proved' : ', as it was confirmed'}. `
                : 'What it was is not known. '}
              In common: {c.shared.slice(0, 6).join('; ')}
              {c.shared.length > 6 ? ` and ${c.shared.length - 6} more` : ''}.
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
