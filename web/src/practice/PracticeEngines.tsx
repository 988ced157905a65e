import { Alert, Button, Select } from 'antd';
import { PRACTICE_LEVELS } from '@true-ledger/core/practiceEngine';
import { useState, type ReactNode } from 'react';
import { Link, useNavigate } from 'react-router';
import { useMakePracticeEngineMutation, usePracticeEnginesQuery } from '../app/api.js';
import { asProblem } from '../app/server.js';
import { NumberField } from '../fields/NumberField.js';

/** Whole engines with a hidden cause, stripped like any other: made here, and those that were made. */
export function PracticeEngines({ mayMake }: { mayMake: boolean }): ReactNode {
  const { data, error } = usePracticeEnginesQuery();
  const [make, making] = useMakePracticeEngineMutation();
  const [level, setLevel] = useState(1);
  const [seed, setSeed] = useState<number | null>(null);
  const navigate = useNavigate();
  const start = (): void => {
    const id = crypto.randomUUID();
    void make({ id, level, seed })
      .unwrap()
      .then(() => navigate(`/case/${id}/intake`))
      .catch(() => undefined);
  };
  return (
    <section className="pane" id="whole-engine" aria-label="A whole engine">
      <h2>
        A whole engine{' '}
        <span className="quiet">something failed in it, or nothing; you strip it as you would any other, and every look costs minutes</span>
      </h2>
      {mayMake && (
        <div className="row practice-make">
          <label>
            <span>Level</span>
            <Select
              aria-label="Level"
              value={level}
              onChange={setLevel}
              options={PRACTICE_LEVELS.map((l) => ({ value: l.level, label: `${l.level} · ${l.name}` }))}
            />
          </label>
          <label>
            <span>Seed</span>
            <NumberField
              aria-label="Seed"
              whole
              min={0}
              max={2_147_483_647}
              value={seed}
              placeholder="drawn, not shown"
              onChange={setSeed}
            />
          </label>
          <Button type="primary" onClick={start} loading={making.isLoading}>
            Bring in an engine
          </Button>
          <span className="quiet">
            The same level and seed make the same engine for two people. Without a seed nobody sees it before the truth is opened.
          </span>
        </div>
      )}
      {making.error !== undefined && <Alert type="error" role="alert" title={asProblem(making.error).sentence} />}
      {error !== undefined && <Alert type="error" role="alert" title={asProblem(error).sentence} />}
      {data && data.length > 0 && (
        <table className="lines practice-engines">
          <thead>
            <tr>
              <th>Engine</th>
              <th>Level</th>
              <th>Seed</th>
              <th>Brought in</th>
              <th>Truth</th>
            </tr>
          </thead>
          <tbody>
            {data.slice(0, 12).map((e) => (
              <tr key={e.caseId}>
                <th scope="row">
                  <Link to={`/case/${e.caseId}`}>{e.number}</Link>
                </th>
                <td>
                  <span className="figure">{e.level}</span>
                </td>
                <td>
                  <span className="figure">{e.seed ?? '–'}</span>
                </td>
                <td>
                  <span className="figure">{e.time.slice(0, 10)}</span>, {e.by}
                </td>
                <td>{e.opened ? <Link to={`/case/${e.caseId}/truth`}>opened {e.opened.slice(0, 10)}</Link> : 'hidden'}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}
