import { Alert, App, Button } from 'antd';
import { pattern } from '@true-ledger/core/damage';
import { drillOf, drillProgress, drillReason, MINUTES_A_DAY, type Drill, type DrillProgress } from '@true-ledger/core/practice';
import { recipeSpecimen } from '@true-ledger/core/specimen';
import { percentText } from '@true-ledger/core/cause';
import { useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import { useAnswerDrillMutation, useDrillAnswersQuery } from '../app/api.js';
import { useKeys } from '../app/keys.js';
import { asProblem } from '../app/server.js';
import { Waiting } from '../app/Waiting.js';
import type { Me } from '@true-ledger/contract';
import { PracticeEngines } from './PracticeEngines.js';
import { Specimen3D } from '../studio/Specimen3D.js';
import { usePainted } from '../studio/usePainted.js';
import './practice.css';

const ROOM = { table: 'oak', lamp: 'overhead', tag: true } as const;

/** Short drills on painted specimens: name it, tell it from what it is mistaken for, say how far it has gone. What was wrong comes again soon. */
export function Practice({ me }: { me: Me }): ReactNode {
  const { data, error } = useDrillAnswersQuery();
  const [now, setNow] = useState(() => new Date().toISOString());
  const [seed, setSeed] = useState(() => Math.floor(Math.random() * 2_000_000_000));
  const progress = useMemo(() => (data ? drillProgress(data.answers, now) : null), [data, now]);
  /** The drill that is shown; it stays while its answer is read, though another card is due by then. */
  const [shown, setShown] = useState<Drill | null>(null);
  if (error) return <Alert type="error" role="alert" title={asProblem(error).sentence} />;
  if (!progress) return <Waiting what="Fetching what you practised" />;
  const drill = shown ?? (progress.next ? drillOf(progress.next, seed) : null);
  return (
    <div className="page">
      <div className="page-head">
        <h1>Practice</h1>
        <span className="quiet" role="status">
          {progress.waiting} waiting · {progress.answeredToday} answered today, {progress.minutesToday.toFixed(0)} of {MINUTES_A_DAY}{' '}
          minutes · level {progress.level}
        </span>
        <a href="#whole-engine">A whole engine</a>
      </div>
      {drill ? (
        <DrillView
          key={`${drill.card.id} ${drill.seed}`}
          drill={drill}
          onAnswered={() => setShown(drill)}
          onNext={() => {
            setShown(null);
            setSeed(Math.floor(Math.random() * 2_000_000_000));
            setNow(new Date().toISOString());
          }}
        />
      ) : (
        <p className="pane">
          Today’s drills are done. What you answered comes back when it is about to be forgotten; new ones come tomorrow.
        </p>
      )}
      <PracticeEngines mayMake={me.account.role !== 'reader'} />
      <ByPattern progress={progress} />
    </div>
  );
}

function DrillView({ drill, onAnswered, onNext }: { drill: Drill; onAnswered: () => void; onNext: () => void }): ReactNode {
  const { card, shown, severity, seed } = drill;
  const specimen = useMemo(() => recipeSpecimen(shown, severity, seed % 1000), [shown, severity, seed]);
  const key = `${card.id} ${seed}`;
  const { maps, problem } = usePainted(specimen, shown.form, key);
  const [given, setGiven] = useState<string | null>(null);
  const from = useRef<number | null>(null);
  const [answer] = useAnswerDrillMutation();
  const { message } = App.useApp();
  const ready = maps?.key === key;
  // Thinking begins when there is something to look at.
  useEffect(() => {
    if (ready) from.current = performance.now();
  }, [ready]);
  const part = useMemo(
    () =>
      maps
        ? {
            form: shown.form,
            maps: maps.maps,
            key: maps.key,
            words: 'specimen',
            debris: shown.debris ? { kind: shown.debris, severity } : null,
          }
        : null,
    [maps, shown, severity],
  );
  const give = (id: string): void => {
    if (given !== null || !ready) return;
    setGiven(id);
    onAnswered();
    const tookMs = Math.min(86_400_000, Math.round(performance.now() - (from.current ?? performance.now())));
    void answer({ id: crypto.randomUUID(), card: card.id, seed, given: id, tookMs })
      .unwrap()
      .catch((e: unknown) => void message.error(`The answer was not kept. ${asProblem(e).sentence}`, 8));
  };
  useKeys([
    ...drill.options.map((o, i) => ({ keys: String(i + 1), what: `Answer ${i + 1}`, run: () => give(o.id) })),
    { keys: 'Enter', what: 'Next drill', run: () => given !== null && onNext() },
  ]);
  const right = given === drill.right;
  return (
    <div className="drill">
      <Specimen3D specimen={part} setting={ROOM} label="Rendered specimen" />
      <section className="pane" aria-label="Question">
        <h2>{drill.question}</h2>
        {problem && <p className="fault">{problem}</p>}
        <ol className="drill-options">
          {drill.options.map((o, i) => (
            <li key={o.id}>
              <Button
                block
                disabled={given !== null || !ready}
                data-right={given !== null && o.id === drill.right}
                data-wrong={given === o.id && !right}
                onClick={() => give(o.id)}
              >
                <span className="figure">{i + 1}</span> {o.label}
              </Button>
            </li>
          ))}
        </ol>
        {given !== null && (
          <div role="status">
            <p>
              <b className={right ? 'drill-right' : 'fault'}>
                {right ? 'Right.' : `No: ${drill.options.find((o) => o.id === drill.right)!.label}.`}
              </b>{' '}
              {drillReason(drill, given)}
            </p>
            <p className="row">
              <Button type="primary" onClick={onNext}>
                Next
              </Button>
              <Link to={`/patterns?pattern=${card.pattern}`}>In the catalogue</Link>
            </p>
          </div>
        )}
        <p className="quiet">
          Keys 1 to {drill.options.length} answer, Enter goes on; turn the part by dragging or by the arrow keys. It is painted by figures;
          real parts vary.
        </p>
      </section>
    </div>
  );
}

function ByPattern({ progress }: { progress: DrillProgress }): ReactNode {
  if (progress.byPattern.length === 0) return null;
  return (
    <section className="pane" aria-label="By pattern">
      <h2>
        By pattern <span className="quiet">worst first; right answers with the interval that so many leave open</span>
      </h2>
      <table className="lines">
        <tbody>
          {progress.byPattern.slice(0, 20).map((p) => (
            <tr key={p.pattern}>
              <th scope="row">{pattern(p.pattern)?.name ?? p.pattern}</th>
              <td className="figure">
                {p.k} of {p.n}
              </td>
              <td className="figure">
                {percentText(p.low)} to {percentText(p.high)}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
