import { Button } from 'antd';
import { pattern, positionOf, school, schoolsAt } from '@true-ledger/core/damage';
import { percentText } from '@true-ledger/core/cause';
import { matchFinding, type StationView } from '@true-ledger/core/case';
import { useMemo, type ReactNode } from 'react';
import { Link } from 'react-router';
import { useCase, useRecord } from '../../app/caseContext.js';
import './station.css';

/** Patterns that fit what is drawn or read here, with why, and the question that decides between the two that fit best. */
export function MatchPanel({ station }: { station: StationView }): ReactNode {
  const { readOnly } = useCase();
  const record = useRecord();
  const match = useMemo(() => matchFinding(station), [station]);
  if (!match) return null;
  const named = new Map(station.patterns.map((p) => [p.value.pattern, p.value.present]));
  const set = (id: string, present: boolean): void =>
    record({ kind: 'pattern-set', station: station.station.id, body: { pattern: id, present } });
  const { decides } = match;
  return (
    <details className="match" open={named.size === 0}>
      <summary>
        Match this finding: <b>{match.ranked[0]?.pattern.name}</b> <span className="figure">{percentText(match.ranked[0]?.fit ?? 0)}</span>
      </summary>
      <ol>
        {match.ranked.slice(0, 4).map((m) => (
          <li key={m.pattern.id}>
            <div>
              <Link to={`/patterns?pattern=${m.pattern.id}`}>{m.pattern.name}</Link> <span className="figure">{percentText(m.fit)}</span>
              <div className="quiet">{m.why.join(', ') || 'by its place alone'}</div>
            </div>
            {!readOnly && !named.has(m.pattern.id) && (
              <span className="row">
                <Button size="small" onClick={() => set(m.pattern.id, true)}>
                  It is this
                </Button>
                <Button size="small" type="text" onClick={() => set(m.pattern.id, false)}>
                  Not there
                </Button>
              </span>
            )}
          </li>
        ))}
      </ol>
      {decides && (
        <p className="apart">
          <b>
            {pattern(decides.a)?.name} or {pattern(decides.b)?.name.toLowerCase()}?
          </b>{' '}
          {decides.observation}
        </p>
      )}
    </details>
  );
}

/** Where builders disagree about what is named here: the position this case goes by, and why. */
export function SchoolNotes({ station }: { station: StationView }): ReactNode {
  const { view, readOnly } = useCase();
  const record = useRecord();
  const chosen = new Map([...view.schools].map(([id, s]) => [id, s.value.position]));
  const bite = schoolsAt(
    station.station.part,
    station.patterns.filter((p) => p.value.present).map((p) => p.value.pattern),
  );
  if (bite.length === 0) return null;
  return (
    <>
      {bite.map((s) => {
        const now = positionOf(s.id, chosen);
        const held = view.schools.get(s.id)?.value;
        return (
          <p key={s.id} className="school">
            <b>{s.question}:</b> {s.positions.find((p) => p.id === now)?.text}.{' '}
            <span className="quiet">{held ? held.reason || 'taken in this case' : s.why}</span>
            {!readOnly &&
              school(s.id)!
                .positions.filter((p) => p.id !== now)
                .map((p) => (
                  <Button
                    key={p.id}
                    size="small"
                    type="link"
                    onClick={() =>
                      record({ kind: 'school-set', station: null, body: { question: s.id, position: p.id, reason: 'taken in this case' } })
                    }
                  >
                    Instead: {p.text}
                  </Button>
                ))}
          </p>
        );
      })}
    </>
  );
}
