import { Button, Checkbox, Input, Select, type InputRef } from 'antd';
import { pattern, sightName } from '@true-ledger/core/damage';
import type { CaseView } from '@true-ledger/core/case';
import { feature } from '@true-ledger/core/cause';
import { closerSights, entriesOfLine, readLine, type NotedFinding, type NotedLine } from '@true-ledger/core/notebook';
import { useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import { useCase, useRecord } from '../app/caseContext.js';
import './notebook.css';

/** Stands for what the line says is gone, among what may be left out. */
const GONE = -1;

/** More places than this are told by their number. */
const NAMED_AT_MOST = 3;

const nameOf = (view: CaseView, id: string): string => view.byId.get(id)?.station.name ?? id;

function placesText(view: CaseView, stations: readonly string[]): string {
  const names = stations.map((id) => nameOf(view, id));
  return names.length <= NAMED_AT_MOST ? names.join(', ') : `${names[0]} … ${names.at(-1)} (${names.length} places)`;
}

/** What a proposal says of its places, without them. */
function findingText(f: NotedFinding): string {
  if (f.sound) return 'as it should be';
  const grade = f.grade === null ? '' : `, grade ${f.grade}`;
  if (f.sight === null) return `grade ${f.grade ?? ''}`;
  return f.present ? `${sightName(f.sight)}${f.edge ? `, ${f.edge} edge` : ''}${grade}` : `no ${sightName(f.sight).toLowerCase()}`;
}

/** The line as it was typed, every stretch marked by what it was taken for. */
function ReadBack({ line }: { line: NotedLine }): ReactNode {
  const pieces: ReactNode[] = [];
  let at = 0;
  line.chips.forEach((chip, i) => {
    pieces.push(line.text.slice(at, chip.from));
    pieces.push(
      <span key={i} className={`chip as-${chip.role.replaceAll(' ', '-')}`} title={chip.says ? `${chip.role}: ${chip.says}` : chip.role}>
        {line.text.slice(chip.from, chip.to)}
      </span>,
    );
    at = chip.to;
  });
  pieces.push(line.text.slice(at));
  return (
    <p className="read-back" aria-hidden="true">
      {pieces}
    </p>
  );
}

/** One line of a notebook, as one writes it: what it says is shown while it is typed, and kept by Enter. `here` is the station it stands at: a line that names no place is of it. */
export function NoteLine({ here, onClose }: { here?: string | undefined; onClose?: () => void }): ReactNode {
  const { view, readOnly } = useCase();
  const record = useRecord();
  const [text, setText] = useState('');
  const [left, setLeft] = useState<ReadonlySet<number>>(new Set());
  const [chosen, setChosen] = useState<Readonly<Record<number, Partial<NotedFinding>>>>({});
  const [last, setLast] = useState('');
  const field = useRef<InputRef>(null);
  const line = useMemo(() => (text.trim() === '' ? null : readLine(text, view.layout, { here })), [text, view.layout, here]);
  const findings = useMemo(() => (line?.findings ?? []).map((f, i): NotedFinding => ({ ...f, ...chosen[i] })), [line, chosen]);
  // Opened by hand, it is written in at once; where it stands on the page, a phone's keys stay down until it is touched.
  useEffect(() => {
    if (onClose) field.current?.focus();
  }, [onClose]);
  if (readOnly) return null;
  const type = (value: string): void => {
    setText(value);
    setLeft(new Set());
    setChosen({});
  };
  const toggle = (i: number): void => setLeft((was) => new Set(was.has(i) ? [...was].filter((x) => x !== i) : [...was, i]));
  const keep = (): void => {
    if (!line) return;
    const count = findings.length;
    const kept = {
      findings: findings.filter((_, i) => !left.has(i)),
      features: line.features.filter((_, i) => !left.has(count + i)),
      gone: left.has(GONE) ? [] : line.gone,
    };
    const entries = entriesOfLine(line, kept, view.layout, view.book.version, () => crypto.randomUUID());
    record(...entries);
    const said = kept.findings.length + kept.features.length + (kept.gone.length > 0 ? 1 : 0);
    setLast(said > 0 ? `Kept: ${said} of “${line.text}”.` : `Kept as a remark: “${line.text}”.`);
    type('');
    if (onClose) field.current?.focus();
  };
  return (
    <section className="note-line" aria-label="Notebook line">
      <div className="note-field">
        <Input
          ref={field}
          value={text}
          maxLength={400}
          allowClear
          placeholder={
            here === undefined
              ? 'A line as you write it: R2 upper copper along flywheel edge, nail catches'
              : `Of ${nameOf(view, here)}, or of any place the line names: copper along flywheel edge, nail catches`
          }
          aria-label="Notebook line"
          aria-describedby="note-last"
          onChange={(e) => type(e.target.value)}
          onPressEnter={keep}
          onKeyDown={(e) => {
            if (e.key !== 'Escape') return;
            e.stopPropagation();
            if (text !== '') type('');
            else onClose?.();
          }}
        />
        <Button type="primary" disabled={!line} onClick={keep}>
          Keep
        </Button>
        {onClose && (
          <Button type="text" onClick={onClose} aria-label="Close the notebook line" title="Close (Esc)">
            ×
          </Button>
        )}
      </div>
      {line && <ReadBack line={line} />}
      {line && (
        <ul className="proposals" aria-label="What the line says">
          {findings.map((f, i) => (
            <Proposal key={`f${i}`} kept={!left.has(i)} onToggle={() => toggle(i)} told={f.reliability}>
              <Finding f={f} view={view} onChoose={(more) => setChosen((was) => ({ ...was, [i]: { ...was[i], ...more } }))} />
            </Proposal>
          ))}
          {line.features.map((f, i) => (
            <Proposal
              key={`e${f.feature}`}
              kept={!left.has(findings.length + i)}
              onToggle={() => toggle(findings.length + i)}
              told={f.reliability}
            >
              {f.present ? '' : 'not: '}
              {feature(f.feature)?.name ?? f.feature}
            </Proposal>
          ))}
          {line.gone.length > 0 && (
            <Proposal kept={!left.has(GONE)} onToggle={() => toggle(GONE)} told="cannot be looked at any more">
              gone: {placesText(view, line.gone)}
            </Proposal>
          )}
          {findings.length + line.features.length + line.gone.length === 0 && (
            <li className="quiet">
              {line.notExamined ? 'It says what was not examined: nothing is noted of it.' : 'Nothing in it is understood yet.'} Enter keeps
              it as a remark.
            </li>
          )}
          {line.result?.unjudged && (
            <li className="quiet">{line.result.name}: kept as written; without a limit in the line it is judged by nothing.</li>
          )}
          {line.left.length > 0 && findings.length + line.features.length > 0 && (
            <li className="quiet">Kept in words: {line.left.map((l) => `“${line.text.slice(l.from, l.to)}”`).join(', ')}</li>
          )}
        </ul>
      )}
      <p id="note-last" className="quiet" role="status">
        {last && !line ? `${last} u takes it back.` : ''}
      </p>
    </section>
  );
}

function Proposal({
  kept,
  onToggle,
  told,
  children,
}: {
  kept: boolean;
  onToggle: () => void;
  told: string;
  children: ReactNode;
}): ReactNode {
  return (
    <li className={kept ? 'noted' : 'noted dropped'}>
      <Checkbox checked={kept} onChange={onToggle}>
        {children} <span className="quiet">{told}</span>
      </Checkbox>
    </li>
  );
}

/** A finding in words, with what it leaves open to be said: which of the places, which of the patterns. */
function Finding({ f, view, onChoose }: { f: NotedFinding; view: CaseView; onChoose: (more: Partial<NotedFinding>) => void }): ReactNode {
  const closer = closerSights(f, view.layout);
  return (
    <>
      {findingText(f)} <span className="quiet">at</span>{' '}
      {f.of === null ? placesText(view, f.stations) : `${f.of} of ${placesText(view, f.stations)}`}
      {f.of !== null && (
        <span onClick={(e) => e.preventDefault()}>
          <Select
            size="small"
            aria-label="Which one?"
            placeholder="Which one?"
            popupMatchSelectWidth={false}
            value={null}
            options={f.stations.map((id) => ({ value: id, label: nameOf(view, id) }))}
            onChange={(id: string) => onChoose({ stations: [id], of: null })}
          />
        </span>
      )}
      {f.present && closer.length > 1 && (
        <span onClick={(e) => e.preventDefault()}>
          <Select
            size="small"
            aria-label="Which pattern is it?"
            placeholder="Or closer: which?"
            popupMatchSelectWidth={false}
            value={null}
            options={closer.map((id) => ({ value: id, label: pattern(id)?.name ?? id }))}
            onChange={(id: string) => onChoose({ sight: id })}
          />
        </span>
      )}
    </>
  );
}
