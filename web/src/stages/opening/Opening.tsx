import { Alert, Input, Segmented } from 'antd';
import { QUANTITIES } from '@true-ledger/core/units';
import {
  checksFor,
  fieldKeys,
  NOT_DONE,
  openingResults,
  readAnswer,
  THUMB,
  type CheckField,
  type Limited,
  type OpeningCheck,
  type OpeningResults,
} from '@true-ledger/core/opening';
import { notDone } from '@true-ledger/core/case';
import { answersOf, limitSource } from '@true-ledger/core/diagnosis';
import { useEffect, useMemo, useState, type ReactNode } from 'react';
import { useDraft } from '../../app/drafts.js';
import { WithSuggestions } from '../../fields/WithSuggestions.js';
import { Choice, Choices } from '../../fields/Choice.js';
import { Link, useNavigate, useParams } from 'react-router';
import { useCase, useRecord } from '../../app/caseContext.js';
import { useKeys } from '../../app/keys.js';
import {
  CompressionBars,
  Cylinders,
  Dipstick,
  FourSides,
  Glass,
  KnockMap,
  Magnet,
  NosePlay,
  Pleats,
  PressureFace,
  Tank,
  TurningRose,
} from './drawings.js';
import './opening.css';

export type Open = (check: string, key: string, raw: string | readonly string[], unit?: string) => string | null;

/** How many of a check's places are answered. */
function answered(check: OpeningCheck, view: ReturnType<typeof useCase>['view']): { done: number; of: number } {
  const keys = check.fields.flatMap((f) => fieldKeys(f, view.layout));
  if (notDone(view, check.id) !== null) return { done: keys.length, of: keys.length };
  return { done: keys.filter((k) => (view.checks.get(`${check.id}:${k}`)?.value.text ?? '') !== '').length, of: keys.length };
}

/** Keeps an answer; returns the sentence when it cannot be one. */
export function useAnswer(): Open {
  const { view } = useCase();
  const record = useRecord();
  return (id, key, raw, unit) => {
    const read = readAnswer(view.layout, id, key, raw, unit);
    if (!read.ok) return read.problem.sentence;
    const held = view.checks.get(`${id}:${key}`)?.value;
    if (held?.text === read.value.text && held.unit === read.value.unit) return null;
    if (read.value.text === '' && !held) return null;
    record({ kind: 'check-set', station: null, body: read.value });
    return null;
  };
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

/** Why this check was not made: an answer as good as any, and one given for many. */
function NotDone({ check, readOnly, answer }: { check: OpeningCheck; readOnly: boolean; answer: Open }): ReactNode {
  const { view } = useCase();
  const kept = notDone(view, check.id) ?? '';
  const [text, setText] = useDraft(`${check.name}, not done`, kept);
  const given = [...new Set(checksFor(view.layout).flatMap((c) => notDone(view, c.id) ?? []))];
  const keep = (value: string): void => void (value.trim() === kept || answer(check.id, NOT_DONE.id, value.trim()));
  return (
    <label className="not-done">
      <span>{NOT_DONE.label}</span>
      <WithSuggestions
        disabled={readOnly}
        value={text}
        suggestions={given.filter((g) => g !== text)}
        placeholder="leave empty where it was made"
        maxLength={1000}
        onChange={(e) => setText(e.target.value)}
        onBlur={() => keep(text)}
        onPressEnter={() => keep(text)}
      />
    </label>
  );
}

export function Field({
  check,
  field,
  readOnly,
  answer,
}: {
  check: OpeningCheck;
  field: CheckField;
  readOnly: boolean;
  answer: Open;
}): ReactNode {
  const { view } = useCase();
  const keys = fieldKeys(field, view.layout);
  const units = field.quantity ? Object.keys(QUANTITIES[field.quantity].units) : [];
  const used = keys.map((k) => view.checks.get(`${check.id}:${k}`)?.value.unit).find((u) => u);
  const [unit, setUnit] = useState(used ?? units[0] ?? '');
  const chosen = (key: string): readonly string[] => view.checks.get(`${check.id}:${key}`)?.value.chosen ?? [];
  const options = (field.options ?? []).map((o) => ({ value: o.value, label: o.label }));
  if (field.kind === 'choice' || field.kind === 'choices')
    return (
      <div className="check-field">
        {keys.map((key) => (
          <div
            key={key}
            className={keys.length > 1 ? 'per-cylinder' : ''}
            role="group"
            aria-label={keys.length > 1 ? `${field.label}, ${key.split('.')[1]}` : field.label}
          >
            <div className="label">{keys.length > 1 ? `${field.label}, cylinder ${key.split('.')[1]}` : field.label}</div>
            {field.kind === 'choice' ? (
              <Choice
                className="big-choice"
                disabled={readOnly}
                value={chosen(key)[0] ?? null}
                options={options}
                onAnswer={(value) => void answer(check.id, key, [value])}
              />
            ) : (
              <Choices
                className="big-choice"
                disabled={readOnly}
                value={chosen(key)}
                options={options}
                onAnswer={(value) => void answer(check.id, key, value)}
              />
            )}
          </div>
        ))}
      </div>
    );
  return (
    <div className="check-field">
      <div className="label">
        {field.label}
        {units.length > 1 && (
          <Segmented
            size="small"
            options={units}
            value={unit}
            onChange={(v) => setUnit(v)}
            aria-label={`Unit of ${field.label} when none is typed`}
          />
        )}
      </div>
      <div className={keys.length > 1 ? 'typed-row' : ''}>
        {keys.map((key) => (
          <Typed
            key={key}
            label={field.per === 'turn' ? `${(Number(key.split('.')[1]) - 1) * 30}°` : keys.length > 1 ? (key.split('.')[1] ?? '') : ''}
            name={`${field.label}${keys.length > 1 ? ` ${key.split('.')[1]}` : ''}`}
            held={view.checks.get(`${check.id}:${key}`)?.value.text ?? ''}
            disabled={readOnly}
            wide={field.kind === 'words'}
            keep={(text) => answer(check.id, key, text, unit || undefined)}
          />
        ))}
      </div>
    </div>
  );
}

/** One typed answer; Enter keeps it and goes to the next, leaving it keeps it too. */
function Typed({
  label,
  name,
  held,
  disabled,
  wide,
  keep,
}: {
  label: string;
  name: string;
  held: string;
  disabled: boolean;
  wide: boolean;
  keep: (text: string) => string | null;
}): ReactNode {
  const [text, setText] = useState(held);
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => setText(held), [held]);
  const done = (): void => setProblem(text === held ? null : keep(text));
  return (
    <label className={wide ? 'typed wide' : 'typed'}>
      {label && <span className="quiet figure">{label}</span>}
      <Input
        value={text}
        disabled={disabled}
        status={problem ? 'error' : ''}
        aria-label={name}
        inputMode={wide ? 'text' : 'decimal'}
        maxLength={wide ? 1000 : 30}
        onChange={(e) => {
          setText(e.target.value);
          setProblem(null);
        }}
        onBlur={done}
        onPressEnter={(e) => {
          done();
          const all = [...document.querySelectorAll<HTMLInputElement>('.check-fields .typed input')];
          all[all.indexOf(e.currentTarget) + 1]?.focus();
        }}
      />
      {problem && (
        <span className="fault" role="alert">
          {problem}
        </span>
      )}
    </label>
  );
}

function Picture({ check, results }: { check: OpeningCheck; results: OpeningResults }): ReactNode {
  const { view } = useCase();
  const value = (key: string): number | null => view.checks.get(`${check.id}:${key}`)?.value.value ?? null;
  const chosen = (key: string): readonly string[] => view.checks.get(`${check.id}:${key}`)?.value.chosen ?? [];
  const text = (key: string): string => view.checks.get(`${check.id}:${key}`)?.value.text ?? '';
  const each = (key: string, n: number): Array<number | null> => Array.from({ length: n }, (_, i) => value(`${key}.${i + 1}`));
  const limits = limitSource(view);
  switch (check.id) {
    case 'dipstick':
      return <Dipstick level={chosen('level')[0]} look={chosen('look')} />;
    case 'coolant':
      return <Tank level={chosen('level')[0]} film={chosen('film')} />;
    case 'oil-sample':
      return <Glass look={[]} filled={['mid-stream', 'pan'].includes(chosen('taken')[0] ?? '')} />;
    case 'fuel':
      return <Glass look={chosen('look')} filled={chosen('look').length > 0} />;
    case 'filter':
      return <Pleats found={chosen('found')} />;
    case 'magnet':
      return <Magnet clings={chosen('clings')} />;
    case 'compression':
      return (
        <CompressionBars dry={each('dry', view.layout.cylinders)} wet={each('wet', view.layout.cylinders)} result={results.compression} />
      );
    case 'turning':
      return <TurningRose ahead={each('ahead', 12)} back={each('back', 12)} result={results.turning} />;
    case 'end-float':
      return <NosePlay float={text('float')} play={text('play')} />;
    case 'oil-pressure':
      return (
        <div className="faces">
          {check.fields.map((f) => (
            <PressureFace
              key={f.id}
              name={f.label}
              value={value(f.id)}
              limit={f.id === 'hot-idle' ? (limits('oil-pressure.hot-idle')?.band.lower ?? THUMB.hotIdleBar) : null}
            />
          ))}
        </div>
      );
    case 'leak-down':
      return (
        <Cylinders
          layout={view.layout}
          word={(c) => (value(`loss.${c}`) === null ? '' : `${value(`loss.${c}`)} %`)}
          marked={(c) => (value(`loss.${c}`) ?? 0) > THUMB.leakPercent}
        />
      );
    case 'borescope':
      return (
        <Cylinders layout={view.layout} word={(c) => text(`seen.${c}`)} marked={(c) => chosen(`seen.${c}`).some((x) => x !== 'clear')} />
      );
    case 'knock':
      return <KnockMap where={chosen('where')} />;
    case 'arrival':
      return <FourSides count={view.photos.length} />;
  }
}

/** What the figures of a check say, with the limit they are held against. */
function Told({ check, results }: { check: OpeningCheck; results: OpeningResults }): ReactNode {
  const lines: Array<readonly [string, Limited | null]> =
    check.id === 'oil-pressure'
      ? [['Hot, idle', results.hotIdle]]
      : check.id === 'end-float'
        ? [
            ['End float', results.endFloat],
            ['Play at the nose', results.nosePlay],
          ]
        : [];
  const words = check.id === 'compression' ? results.compression?.words : check.id === 'turning' ? results.turning?.words : undefined;
  const leaks = check.id === 'leak-down' ? results.leak.flatMap((v, i) => (v !== null && v > THUMB.leakPercent ? [i + 1] : [])) : [];
  return (
    <>
      {words && (
        <Alert
          type="info"
          title={`${words[0]?.toUpperCase()}${words.slice(1)}.`}
          description={
            check.id === 'compression'
              ? 'Low: more than 15 % below the highest (rule of thumb), or below the maker’s least where a sheet gives it.'
              : undefined
          }
        />
      )}
      {leaks.length > 0 && <Alert type="info" title={`Over ${THUMB.leakPercent} % (rule of thumb): cylinder ${leaks.join(', ')}.`} />}
      {lines.map(
        ([name, l]) =>
          l && (
            <p key={name}>
              {name}: <b className={`verdict-word ${l.verdict.word.replace(/ /g, '-')}`}>{l.verdict.word}</b>{' '}
              <span className="quiet">
                {l.verdict.reason} ({l.source}). {l.verdict.settle ?? ''}
              </span>
            </p>
          ),
      )}
    </>
  );
}
