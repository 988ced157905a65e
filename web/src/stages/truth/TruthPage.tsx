import { Alert, App, Button, Select } from 'antd';
import { CAUSES, cause, feature, isListed, percentText } from '@true-ledger/core/cause';
import { gradeText, pattern, sightName } from '@true-ledger/core/damage';
import type { EntryBodies } from '@true-ledger/core/entries';
import { useState, type ReactNode } from 'react';
import { Link, Navigate } from 'react-router';
import { useOpenPracticeMutation } from '../../app/api.js';
import { useCase } from '../../app/caseContext.js';
import { asProblem } from '../../app/server.js';
import { NumberField } from '../../fields/NumberField.js';
import './truth.css';

type Scored = EntryBodies['practice-scored'];
type Score = Scored['score'];
interface Row {
  readonly cause: string | null;
  readonly percent: number | null;
}

/** What is answered before the truth of a practice engine is opened, and then the truth beside it. */
export function TruthPage(): ReactNode {
  const { view, caseId } = useCase();
  if (!view.practice) return <Navigate to={`/case/${caseId}/bench`} replace />;
  return (
    <div className="page truth">
      <div className="page-head">
        <h1>{view.practiceScored ? 'The truth' : 'Answer, then open the truth'}</h1>
        {view.practiceScored && <Button onClick={() => window.print()}>Print the sheet</Button>}
      </div>
      {view.practiceScored ? (
        <Sheet scored={view.practiceScored.value} by={view.practiceScored.version.author.name} on={view.practiceScored.version.time} />
      ) : (
        <Answer />
      )}
    </div>
  );
}

function Answer(): ReactNode {
  const { view, caseId, readOnly } = useCase();
  const { modal } = App.useApp();
  const confirmed = view.decisions.filter((d) => d.value.decision === 'confirmed').map((d) => d.value.cause);
  const [rows, setRows] = useState<readonly Row[]>(() => [
    ...confirmed.map((c) => ({ cause: c, percent: null })),
    { cause: null, percent: null },
  ]);
  const [open, { isLoading, error }] = useOpenPracticeMutation();
  const set = (i: number, part: Partial<Row>): void =>
    setRows((all) => {
      const next = all.map((r, k) => (k === i ? { ...r, ...part } : r));
      return next.at(-1)!.cause !== null && next.length < 8 ? [...next, { cause: null, percent: null }] : next;
    });
  const named = rows.filter((r): r is Row & { cause: string } => r.cause !== null);
  const unsaid = named.some((r) => r.percent === null);
  if (readOnly) return <p className="pane">You are reading this case: the answer is given by whoever strips it.</p>;
  const send = (): void => {
    void modal.confirm({
      title: named.length === 0 ? 'Answer that nothing failed in it?' : 'Open the truth?',
      content:
        'Your answer and its score are written into the ledger of this case and stay there. Nothing more can be looked at afterwards.',
      okText: 'Open the truth',
      onOk: () => open({ caseId, answer: named.map((r) => ({ cause: r.cause, percent: Math.round(r.percent!) })) }),
    });
  };
  return (
    <section className="pane" aria-label="Answer">
      <h2>
        What failed in it{' '}
        <span className="quiet">
          name each cause you hold to be in it and how sure you are; a certainty that was not earned costs more than a doubt
        </span>
      </h2>
      <ol className="truth-rows">
        {rows.map((r, i) => (
          <li key={i} className="row">
            <Select
              aria-label={`Cause ${i + 1}`}
              className="truth-cause"
              allowClear
              showSearch={{ optionFilterProp: 'label' }}
              placeholder={i === 0 ? 'A cause, or leave empty: nothing failed' : 'Another, if there is one'}
              value={r.cause}
              onChange={(c: string | undefined) => set(i, { cause: c ?? null })}
              options={CAUSES.filter((c) => isListed(c.id) && !c.follows && !named.some((n) => n.cause === c.id && n !== r)).map((c) => ({
                value: c.id,
                label: c.name,
              }))}
            />
            {r.cause !== null && (
              <label>
                <NumberField
                  aria-label={`How sure of cause ${i + 1}, percent`}
                  min={0}
                  max={100}
                  whole
                  value={r.percent}
                  onChange={(percent) => set(i, { percent })}
                />{' '}
                %
              </label>
            )}
          </li>
        ))}
      </ol>
      {error !== undefined && <Alert type="error" role="alert" title={asProblem(error).sentence} />}
      <p className="row">
        <Button type="primary" loading={isLoading} disabled={unsaid} onClick={send}>
          Open the truth
        </Button>
        {unsaid && <span className="quiet">Say how sure you are of each.</span>}
      </p>
    </section>
  );
}

function Sheet({ scored, by, on }: { scored: Scored; by: string; on: string }): ReactNode {
  const { view, caseId } = useCase();
  const s = scored.score;
  const nameOf = (id: string): string => cause(id)?.name ?? id;
  const money = (n: number): string => `${Math.round(n).toLocaleString('en')} ${s.cost.currency}`;
  const seen = s.parts.filter((p) => p.there.length > 0 && p.there.every((t) => p.named.includes(t)));
  return (
    <>
      <section className="pane" aria-label="What was in it">
        <h2>
          {s.causes.length === 0 ? 'Nothing had failed in it' : s.causes.map((c) => nameOf(c.cause)).join(' and ')}
          <span className="quiet">
            {' '}
            level {scored.level}, seed {scored.seed} · answered by {by} on {on.slice(0, 10)}
          </span>
        </h2>
        <p>
          <b className={s.right ? 'truth-right' : 'fault'}>{s.right ? 'Right.' : 'Not right.'}</b> Answered:{' '}
          {scored.answer.length === 0 ? 'nothing failed' : scored.answer.map((a) => `${nameOf(a.cause)} ${a.percent} %`).join(', ')}.
        </p>
        <table className="lines">
          <thead>
            <tr>
              <th>It was</th>
              <th>At</th>
              <th>You held</th>
              <th>Your evidence carried</th>
            </tr>
          </thead>
          <tbody>
            {s.causes.map((c) => (
              <tr key={c.cause}>
                <th scope="row">{nameOf(c.cause)}</th>
                <td>{c.place?.replace('.', ' ') ?? 'the engine as a whole'}</td>
                <td>
                  <span className="figure">{percentText(c.held)}</span>
                </td>
                <td>
                  <span className="figure">{percentText(c.carried)}</span>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        <p>
          Score: yours <span className="figure">{s.own.log.toFixed(2)}</span> (Brier{' '}
          <span className="figure">{s.own.brier.toFixed(2)}</span>), by your evidence alone{' '}
          <span className="figure">{s.evidence.log.toFixed(2)}</span> (<span className="figure">{s.evidence.brier.toFixed(2)}</span>); 0 is
          best. {scoreWords(s)}
        </p>
      </section>
      <section className="pane" aria-label="What it cost">
        <h2>What it would have cost</h2>
        <p>
          <span className="figure">{s.minutes}</span> minutes at the bench, {money(s.cost.bench)}.{' '}
          {s.cost.again > 0
            ? `It comes back: ${money(s.cost.again)} for an exchange engine, because ${s.right ? 'parts went back that were gone' : 'its cause is still in it'}.`
            : 'It does not come back for this.'}
          {s.cost.goneBack.length > 0 &&
            ` Put back although gone: ${s.cost.goneBack.map((id) => view.byId.get(id)?.station.name ?? id).join(', ')}.`}
          {s.cost.goodAway.length > 0 &&
            ` Thrown away although good: ${s.cost.goodAway.map((id) => view.byId.get(id)?.station.name ?? id).join(', ')}.`}
        </p>
      </section>
      <section className="pane" aria-label="What was missed">
        <h2>What would have told</h2>
        {s.best && (
          <p>
            Most a minute: <b>{s.best.name}</b>, {s.best.minutes} min, {s.best.bits.toFixed(1)} bits.
          </p>
        )}
        {s.missed.length === 0 ? (
          <p>Everything that told of it came into the case.</p>
        ) : (
          <ul>
            {s.missed.map((m) => (
              <li key={m.feature}>
                {feature(m.feature)?.name ?? m.feature}: {m.how}
                {m.look ? ` – ${m.look}` : ''}
              </li>
            ))}
          </ul>
        )}
        {s.untrue.length > 0 && (
          <p>The owner was wrong about: {s.untrue.map((id) => (feature(id)?.name ?? id).toLowerCase()).join('; ')}.</p>
        )}
      </section>
      <section className="pane" aria-label="Part by part">
        <h2>
          Part by part{' '}
          <span className="quiet">
            {seen.length} of {s.parts.filter((p) => p.there.length > 0).length} places named rightly
          </span>
        </h2>
        <table className="lines">
          <thead>
            <tr>
              <th>Place</th>
              <th>Was there</th>
              <th>You named</th>
              <th>Grade</th>
              <th>You graded</th>
            </tr>
          </thead>
          <tbody>
            {s.parts.map((p) => (
              <tr key={p.station}>
                <th scope="row">
                  <Link to={`/case/${caseId}/station/${p.station}`}>{view.byId.get(p.station)?.station.name ?? p.station}</Link>
                </th>
                <td>{p.there.map((id) => pattern(id)?.name ?? id).join(', ') || '–'}</td>
                <td>{p.named.map(sightName).join(', ') || '–'}</td>
                <td>{gradeText(p.grade as 0)}</td>
                <td>{p.graded === null ? 'not examined' : gradeText(p.graded as 0)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </section>
    </>
  );
}

/** How what was held compares with what the evidence carried. */
function scoreWords(s: Score): string {
  const apart = s.own.log - s.evidence.log;
  if (Math.abs(apart) < 0.15) return 'You held what your evidence carried.';
  return apart > 0
    ? 'Your evidence carried more than you held of it, or you held what it did not carry.'
    : 'You were nearer the truth than your evidence alone.';
}
