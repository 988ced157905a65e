import { checksFor, fieldKeys, openingResults, type OpeningCheck } from '@true-ledger/core/opening';
import { notDone } from '@true-ledger/core/case';
import { answersOf, limitSource } from '@true-ledger/core/diagnosis';
import { useMemo, type ReactNode } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { useCase } from '../../app/caseContext.js';
import { useKeys } from '../../app/keys.js';
import './opening.css';
import { useAnswer } from './useAnswer.js';
import { Field, NotDone } from './Field.js';
import { Picture, Told } from './Findings.js';

/** How many of a check's places are answered. */
function answered(check: OpeningCheck, view: ReturnType<typeof useCase>['view']): { done: number; of: number } {
  const keys = check.fields.flatMap((f) => fieldKeys(f, view.layout));
  if (notDone(view, check.id) !== null) return { done: keys.length, of: keys.length };
  return { done: keys.filter((k) => (view.checks.get(`${check.id}:${k}`)?.value.text ?? '') !== '').length, of: keys.length };
}

/** Everything that can be known before anything is opened, each check with its form and drawing. */
export function Opening(): ReactNode {
  const { view, caseId, readOnly } = useCase();
  const navigate = useNavigate();
  const { checkId } = useParams();
  const checks = checksFor(view.layout);
  const at = Math.max(
    0,
    checks.findIndex((c) => c.id === checkId),
  );
  const check = checks[at]!;
  const results = useMemo(() => openingResults(view.layout, answersOf(view), limitSource(view)), [view]);
  const go = (i: number): void => {
    const next = checks[Math.min(checks.length - 1, Math.max(0, i))];
    if (next) void navigate(`/case/${caseId}/opening/${next.id}`, { replace: true });
  };
  useKeys([
    { keys: 'ArrowDown', what: 'Next check', run: () => go(at + 1) },
    { keys: 'ArrowUp', what: 'Check before', run: () => go(at - 1) },
  ]);
  const answer = useAnswer();
  return (
    <div className="page opening">
      <div className="page-head">
        <h1>Before opening</h1>
        <span className="quiet">Nothing here takes the engine apart. What is not looked at now is mostly gone later.</span>
      </div>
      <div className="opening-grid">
        <nav className="pane check-list" aria-label="Checks">
          {checks.map((c) => {
            const n = answered(c, view);
            return (
              <Link
                key={c.id}
                to={`/case/${caseId}/opening/${c.id}`}
                className={c === check ? 'here' : ''}
                aria-current={c === check}
                replace
              >
                <i className={n.done === 0 ? 'dot hatch' : n.done >= n.of ? 'dot within' : 'dot too'} aria-hidden="true" />
                <span>{c.name}</span>
                <span className="quiet figure">
                  {notDone(view, c.id) !== null ? 'not done' : n.done > 0 ? `${n.done}/${n.of}` : `${c.minutes} min`}
                </span>
              </Link>
            );
          })}
        </nav>
        <section className="pane check-form" aria-label={check.name}>
          <h2>
            {check.name} <span className="quiet">about {check.minutes} min</span>
          </h2>
          <p>{check.how}</p>
          {check.caution && <p className="caution">{check.caution}</p>}
          <div className="check-body">
            <div className="check-fields">
              {check.fields.map((f) => (
                <Field key={`${check.id}-${f.id}`} check={check} field={f} readOnly={readOnly} answer={answer} />
              ))}
            </div>
            <div className="check-picture">
              <Picture check={check} results={results} />
            </div>
          </div>
          <NotDone key={check.id} check={check} readOnly={readOnly} answer={answer} />
          <Told check={check} results={results} />
          {(check.id === 'arrival' || check.id === 'borescope') && (
            <p>
              <Link to={`/case/${caseId}/pictures`}>Pictures of the whole engine</Link>
              {check.id === 'borescope' && (
                <>
                  {' '}
                  · add pictures at{' '}
                  {view.stations
                    .filter((s) => s.station.part === 'bore')
                    .map((s) => (
                      <Link key={s.station.id} to={`/case/${caseId}/station/${s.station.id}`}>
                        {s.station.name}{' '}
                      </Link>
                    ))}
                </>
              )}
            </p>
          )}
        </section>
      </div>
    </div>
  );
}
