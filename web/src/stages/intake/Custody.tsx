import { Button, Input, Segmented, Select } from 'antd';
import { MARK_KINDS, MARK_MEANINGS, QUESTION_TO, RECEIVED_STATES, type EntryBodies } from '@true-ledger/core/entries';
import { useState, type ReactNode } from 'react';
import { useDraft } from '../../app/drafts.js';
import { useCase, useRecord } from '../../app/caseContext.js';
import './custody.css';

const STATE_WORDS: Readonly<Record<EntryBodies['received-item']['state'], string>> = {
  received: 'Received',
  'already-off': 'Off already',
  missing: 'Missing',
};
const KIND_WORDS: Readonly<Record<EntryBodies['build-mark']['kind'], string>> = {
  'date-code': 'Date code',
  'size-stamp': 'Over- or undersize stamp',
  gasket: 'Gasket kind',
  sealant: 'Sealant bead',
  paint: 'Paint, marks',
  fastener: 'Fastener not original',
  other: 'Other',
};
const MEANING_WORDS: Readonly<Record<EntryBodies['build-mark']['pointsTo'], string>> = {
  'opened-before': 'opened before',
  'as-made': 'as made',
  unclear: 'unclear',
};
const TO_WORDS: Readonly<Record<EntryBodies['open-question']['to'], string>> = {
  client: 'Client',
  'earlier-builder': 'Earlier builder',
  maker: 'Maker',
};

const options = <T extends string>(list: readonly T[], words: Readonly<Record<T, string>>): Array<{ value: T; label: string }> =>
  list.map((value) => ({ value, label: words[value] }));

function TakeBack({ entry, slot }: { entry: string; slot: string }): ReactNode {
  const { readOnly } = useCase();
  const record = useRecord();
  if (readOnly) return null;
  return (
    <Button
      size="small"
      type="text"
      onClick={() => record({ kind: 'retracted', station: null, body: { target: entry, slot, reason: 'taken back' } })}
    >
      Take back
    </Button>
  );
}

/** What came, what was missing, what was off already, and who had it in hand. */
export function ReceivedList(): ReactNode {
  const { view, readOnly } = useCase();
  const record = useRecord();
  const [text, setText] = useDraft('Received');
  const [state, setState] = useState<EntryBodies['received-item']['state']>('received');
  const [by, setBy] = useState('');
  const add = (): void => {
    if (text.trim() === '') return;
    record({ kind: 'received-item', station: null, body: { item: crypto.randomUUID(), text: text.trim(), state, by: by.trim() } });
    setText('');
  };
  return (
    <section className="pane" aria-label="Received">
      <h2>
        Received and custody <span className="quiet">what came, what did not, what was off already and by whom</span>
      </h2>
      <table className="lines">
        <tbody>
          {view.received.length === 0 && (
            <tr>
              <td className="quiet">Nothing listed yet: block, head, pan, pump, loose parts, oil, keys to the data.</td>
            </tr>
          )}
          {view.received.map(({ value: r, version }) => (
            <tr key={r.item}>
              <td>{r.text}</td>
              <td className={r.state === 'received' ? '' : 'fault'}>{STATE_WORDS[r.state].toLowerCase()}</td>
              <td className="quiet">{r.by}</td>
              <td className="quiet figure">{version.time.slice(0, 10)}</td>
              <td>
                <TakeBack entry={version.entry} slot={`received:${r.item}`} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {!readOnly && (
        <div className="custody-add">
          <Input
            value={text}
            onChange={(e) => setText(e.target.value)}
            onPressEnter={add}
            placeholder="Part or thing"
            aria-label="Part received"
            maxLength={300}
          />
          <Segmented value={state} onChange={setState} options={options(RECEIVED_STATES, STATE_WORDS)} aria-label="How it came" />
          <Input
            value={by}
            onChange={(e) => setBy(e.target.value)}
            onPressEnter={add}
            placeholder="Opened or held by (role, no name)"
            aria-label="By whom"
            maxLength={120}
          />
          <Button onClick={add}>Add</Button>
        </div>
      )}
    </section>
  );
}

/** Marks that tell whether it was opened before, and how well. */
export function BuildMarks(): ReactNode {
  const { view, readOnly } = useCase();
  const record = useRecord();
  const [kind, setKind] = useState<EntryBodies['build-mark']['kind']>('date-code');
  const [text, setText] = useDraft('Build mark');
  const [pointsTo, setPointsTo] = useState<EntryBodies['build-mark']['pointsTo']>('unclear');
  const opened = view.buildMarks.filter((m) => m.value.pointsTo === 'opened-before').length;
  const made = view.buildMarks.filter((m) => m.value.pointsTo === 'as-made').length;
  const add = (): void => {
    if (text.trim() === '') return;
    record({ kind: 'build-mark', station: null, body: { mark: crypto.randomUUID(), kind, text: text.trim(), pointsTo } });
    setText('');
  };
  return (
    <section className="pane" aria-label="Build marks">
      <h2>
        Opened before?{' '}
        <span className="quiet">
          {view.buildMarks.length === 0
            ? 'no mark noted yet'
            : `${opened} mark${opened === 1 ? '' : 's'} point${opened === 1 ? 's' : ''} to it, ${made} to as made`}
        </span>
      </h2>
      <table className="lines">
        <tbody>
          {view.buildMarks.map(({ value: m, version }) => (
            <tr key={m.mark}>
              <td className="quiet">{KIND_WORDS[m.kind]}</td>
              <td>{m.text}</td>
              <td>{MEANING_WORDS[m.pointsTo]}</td>
              <td>
                <TakeBack entry={version.entry} slot={`build:${m.mark}`} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {!readOnly && (
        <div className="custody-add">
          <Select value={kind} onChange={setKind} options={options(MARK_KINDS, KIND_WORDS)} aria-label="Kind of mark" />
          <Input
            value={text}
            onChange={(e) => setText(e.target.value)}
            onPressEnter={add}
            placeholder="What is there: code, stamp, colour, place"
            aria-label="Build mark"
            maxLength={500}
          />
          <Segmented value={pointsTo} onChange={setPointsTo} options={options(MARK_MEANINGS, MEANING_WORDS)} aria-label="Points to" />
          <Button onClick={add}>Add</Button>
        </div>
      )}
    </section>
  );
}

/** Questions nobody has answered yet; never lost, printed with the account. */
export function OpenQuestions(): ReactNode {
  const { view, readOnly } = useCase();
  const record = useRecord();
  const [to, setTo] = useState<EntryBodies['open-question']['to']>('client');
  const [text, setText] = useDraft('Question');
  const [answers, setAnswers] = useState<Readonly<Record<string, string>>>({});
  const add = (): void => {
    if (text.trim() === '') return;
    record({
      kind: 'open-question',
      station: null,
      body: { question: crypto.randomUUID(), to, text: text.trim(), answer: null, answeredOn: null },
    });
    setText('');
  };
  return (
    <section className="pane" aria-label="Open questions">
      <h2>
        Questions{' '}
        <span className="quiet">
          {view.questions.filter((q) => q.value.answer === null).length} open of {view.questions.length}
        </span>
        {view.questions.length > 0 && (
          <Button size="small" className="no-print" onClick={() => window.print()}>
            Print
          </Button>
        )}
      </h2>
      <ul className="questions">
        {view.questions.map(({ value: q, version }) => (
          <li key={q.question}>
            <b>{TO_WORDS[q.to]}:</b> {q.text} <span className="quiet figure">{version.time.slice(0, 10)}</span>
            {q.answer !== null ? (
              <div>
                {q.answer} <span className="quiet figure">{q.answeredOn}</span>
              </div>
            ) : (
              !readOnly && (
                <div className="row">
                  <Input
                    size="small"
                    value={answers[q.question] ?? ''}
                    onChange={(e) => setAnswers({ ...answers, [q.question]: e.target.value })}
                    placeholder="Answer"
                    aria-label={`Answer to: ${q.text.slice(0, 40)}`}
                    maxLength={4000}
                    onPressEnter={() => {
                      const answer = (answers[q.question] ?? '').trim();
                      if (answer !== '')
                        record({
                          kind: 'open-question',
                          station: null,
                          body: { ...q, answer, answeredOn: new Date().toISOString().slice(0, 10) },
                        });
                    }}
                  />
                </div>
              )
            )}
          </li>
        ))}
      </ul>
      {!readOnly && (
        <div className="custody-add">
          <Segmented value={to} onChange={setTo} options={options(QUESTION_TO, TO_WORDS)} aria-label="Question to" />
          <Input
            value={text}
            onChange={(e) => setText(e.target.value)}
            onPressEnter={add}
            placeholder="What has to be asked"
            aria-label="Question"
            maxLength={1000}
          />
          <Button onClick={add}>Add</Button>
        </div>
      )}
    </section>
  );
}
