import { Alert, App, Button, Input, Select, Table } from 'antd';
import type { EngineLogAnswer, Me } from '@true-ledger/contract';
import {
  dueOf,
  formatCounter,
  LINE_NAMES,
  linesOf,
  readLog,
  type LineDraft,
  type LogFinding,
  type LogLine,
} from '@true-ledger/core/engineLog';
import { useMemo, useState, type ReactNode } from 'react';
import { Link, useParams } from 'react-router';
import { Dialog } from '../app/Dialog.js';
import { useChangeEngineMutation, useEngineQuery, useEnginesQuery, useMergeEngineMutation, useWriteLinesMutation } from '../app/api.js';
import { asProblem } from '../app/server.js';
import { Waiting } from '../app/Waiting.js';
import { EngineFields, engineFault } from './EngineFields.js';
import { LineForm } from './LineForm.js';
import { lineWords } from './lineWords.js';
import { LogCharts } from './LogCharts.js';
import { SamplesPane } from './SamplesPane.js';
import './oil.css';

const WEIGHTS: Readonly<Record<LogFinding['weight'], string>> = { now: 'Look now', watch: 'Watch', note: 'Noted' };

/** The log of one engine over its years. */
export function EngineLogPage({ me }: { me: Me }): ReactNode {
  const { engineId = '' } = useParams();
  const { data, error } = useEngineQuery(engineId, { refetchOnMountOrArgChange: true });
  if (error) return <Alert type="error" role="alert" title={asProblem(error).sentence} />;
  if (!data) return <Waiting what="Fetching the log" />;
  return <EngineLog key={data.id} answer={data} isReader={me.account.role === 'reader'} />;
}

function EngineLog({ answer, isReader }: { answer: EngineLogAnswer; isReader: boolean }): ReactNode {
  const mayWrite = !isReader && answer.mergedInto === null;
  const { id, record, lines } = answer;
  const reading = useMemo(() => readLog(record, lines, answer.others), [record, lines, answer.others]);
  const [today] = useState(() => new Date().toISOString().slice(0, 10));
  const due = useMemo(() => dueOf(record, reading.lines, today), [record, reading, today]);
  const [write, { isLoading }] = useWriteLinesMutation();
  const [merge] = useMergeEngineMutation();
  const [anew, setAnew] = useState<LogLine | null>(null);
  const [striking, setStriking] = useState<LogLine | null>(null);
  const [why, setWhy] = useState('');
  const [changing, setChanging] = useState(false);
  const { message } = App.useApp();
  const said = (e: unknown): void => void message.error(asProblem(e).sentence, 8);
  const put = async (drafts: ReadonlyArray<Omit<LineDraft, 'id'>>): Promise<boolean> => {
    try {
      await write({ id, lines: drafts.map((d) => ({ ...d, id: crypto.randomUUID() })) }).unwrap();
      return true;
    } catch (e) {
      said(e);
      return false;
    }
  };
  const counter = reading.lines.findLast((l) => l.counter !== null)?.counter ?? null;
  const oil = linesOf(reading.lines, 'oil-change').at(-1)?.body.oil ?? '';
  const samples = linesOf(reading.lines, 'sample').length;
  const reference = `${record.mark.toUpperCase().replace(/[^A-Z0-9-]/g, '')}-${String(samples + 1).padStart(3, '0')}`.slice(0, 24);
  const doubted = new Map(reading.doubts.map((d) => [d.line, d.words]));
  const findings = reading.findings.filter((f) => !f.id.startsWith('within-'));
  return (
    <div className="page">
      <div className="page-head">
        <h1>
          <span className="figure">{record.mark}</span> {record.name}
        </h1>
        <span className="figure">{counter === null ? 'counter not read' : formatCounter(counter, record.counter)}</span>
        {mayWrite && <Button onClick={() => setChanging(true)}>Change the record</Button>}
        <Link to="/oil">All engines</Link>
      </div>
      {answer.mergedInto && (
        <Alert
          type="info"
          title={
            <>
              This record turned out to be <Link to={`/oil/${answer.mergedInto.id}`}>{answer.mergedInto.mark}</Link>; its lines stand in
              that log.
            </>
          }
          action={
            !isReader && (
              <Button size="small" onClick={() => void merge({ id, into: null }).unwrap().catch(said)}>
                Part them again
              </Button>
            )
          }
        />
      )}
      {answer.merged.map((m) => (
        <p key={m.id} className="quiet">
          The record {m.mark} was merged into this one.{' '}
          {!isReader && (
            <button type="button" className="linkish" onClick={() => void merge({ id: m.id, into: null }).unwrap().catch(said)}>
              Part them again
            </button>
          )}
        </p>
      ))}
      <div className="log-head">
        <section className="pane" aria-label="What the log says">
          <h2>What the log says</h2>
          {findings.length === 0 ? (
            <p className="quiet">{lines.length === 0 ? 'Nothing yet: the log is empty.' : 'Nothing stands out.'}</p>
          ) : (
            <ul className="findings">
              {findings.map((f) => (
                <li key={f.id} data-weight={f.weight}>
                  <b>{WEIGHTS[f.weight]}</b> {f.words}
                </li>
              ))}
            </ul>
          )}
          {reading.doubts.length > 0 && (
            <Alert
              type="warning"
              title={`${reading.doubts.length === 1 ? 'A line' : `${reading.doubts.length} lines`} of the log cannot be right; see below.`}
            />
          )}
        </section>
        <section className="pane" aria-label="Due">
          <h2>Due</h2>
          {due.length === 0 ? (
            <p className="quiet">Nothing is due by what the log holds.</p>
          ) : (
            <ul className="due">
              {due.map((d) => (
                <li key={d.id} data-late={d.day < today}>
                  <span className="figure">{d.day}</span> {d.words}
                  {d.day < today ? ', overdue' : ''}
                </li>
              ))}
            </ul>
          )}
          <h3>
            Cases of this engine{' '}
            {answer.cases.length > 0 && (
              <Link to={`/oil/${id}/strips`}>{answer.cases.length > 1 ? 'Strips side by side, tests' : 'Tests'}</Link>
            )}
          </h3>
          {answer.cases.length === 0 ? (
            <p className="quiet">No case hangs on it yet. On the Intake page of a case, say that it is this engine.</p>
          ) : (
            <ul className="due">
              {answer.cases.map((c) => (
                <li key={c.id}>
                  <Link to={`/case/${c.id}/bench`}>
                    <span className="figure">{c.number}</span> {c.title}
                  </Link>{' '}
                  <span className="quiet">
                    {c.stage}
                    {c.leading ? `, ${c.leading}` : ''}
                  </span>
                </li>
              ))}
            </ul>
          )}
        </section>
      </div>
      {mayWrite && (
        <section className="pane" aria-label="Write a line">
          <LineForm
            key={reference}
            engine={record}
            oil={oil}
            reference={reference}
            replaces={null}
            busy={isLoading}
            onWrite={(l) => put([l])}
          />
        </section>
      )}
      <section className="pane" aria-label="Trends">
        <h2>Trends</h2>
        <LogCharts engine={record} reading={reading} />
      </section>
      <SamplesPane answer={answer} reading={reading} mayWrite={mayWrite} onWrite={put} />
      <section className="pane" aria-label="Lines">
        <h2>
          Lines{' '}
          <span className="quiet">
            {reading.lines.length} stand, {lines.length} were written; none is ever changed
          </span>
        </h2>
        <Table<LogLine>
          rowKey="id"
          size="small"
          dataSource={[...reading.lines].reverse()}
          pagination={reading.lines.length > 40 ? { pageSize: 40, showSizeChanger: false } : false}
          locale={{ emptyText: 'No line yet' }}
          columns={[
            { title: 'Day', width: 110, className: 'figure', dataIndex: 'day' },
            {
              title: `Counter, ${record.counter}`,
              width: 110,
              className: 'figure',
              render: (_, l) => (l.counter === null ? '–' : String(l.counter)),
            },
            { title: 'What', width: 150, render: (_, l) => LINE_NAMES[l.kind] },
            {
              title: 'Says',
              render: (_, l) => (
                <>
                  {lineWords(l)}
                  {doubted.has(l.id) && <p className="fault">{doubted.get(l.id)}</p>}
                </>
              ),
            },
            { title: 'By', width: 130, render: (_, l) => <span className="quiet">{l.by}</span> },
            {
              title: '',
              width: 190,
              render: (_, l) =>
                mayWrite && (
                  <span className="line-acts">
                    {l.kind !== 'test' && (
                      <Button size="small" type="text" onClick={() => setAnew(l)}>
                        Write anew
                      </Button>
                    )}
                    <Button size="small" type="text" onClick={() => setStriking(l)}>
                      Take back
                    </Button>
                  </span>
                ),
            },
          ]}
        />
      </section>
      {mayWrite && <Merge id={id} onMerge={(into) => void merge({ id, into }).unwrap().catch(said)} />}
      <Dialog
        open={anew !== null}
        title={anew ? `${LINE_NAMES[anew.kind]} of ${anew.day}, written anew` : ''}
        footer={null}
        onCancel={() => setAnew(null)}
        destroyOnHidden
      >
        {anew && (
          <LineForm
            engine={record}
            oil={oil}
            reference={reference}
            replaces={anew}
            busy={isLoading}
            onWrite={async (l) => {
              const done = await put([l]);
              if (done) setAnew(null);
              return done;
            }}
            onLeave={() => setAnew(null)}
          />
        )}
      </Dialog>
      <Dialog
        open={striking !== null}
        title={striking ? `Take back: ${LINE_NAMES[striking.kind].toLowerCase()} of ${striking.day}` : ''}
        okText="Take it back"
        okButtonProps={{ disabled: why.trim().length < 3, loading: isLoading }}
        onOk={() =>
          void put([{ kind: 'struck', day: striking!.day, counter: null, supersedes: striking!.id, body: { why: why.trim() } }]).then(
            (done) => {
              if (!done) return;
              setStriking(null);
              setWhy('');
            },
          )
        }
        onCancel={() => setStriking(null)}
      >
        <label className="wide">
          <span>Why; the line stays on record</span>
          <Input value={why} maxLength={500} onChange={(e) => setWhy(e.target.value)} />
        </label>
      </Dialog>
      {changing && <ChangeRecord answer={answer} onDone={() => setChanging(false)} />}
    </div>
  );
}

function ChangeRecord({ answer, onDone }: { answer: EngineLogAnswer; onDone: () => void }): ReactNode {
  const [draft, setDraft] = useState(answer.record);
  const [change, { isLoading }] = useChangeEngineMutation();
  const { message } = App.useApp();
  const fault = engineFault(draft);
  const keep = (): void =>
    void change({ id: answer.id, basedOn: answer.version, record: draft })
      .unwrap()
      .then(onDone, (e: unknown) => void message.error(asProblem(e).sentence, 8));
  return (
    <Dialog
      open
      title="The record of the engine"
      okText="Keep it"
      okButtonProps={{ disabled: fault !== null, loading: isLoading }}
      onOk={keep}
      onCancel={onDone}
    >
      <EngineFields record={draft} onChange={setDraft} />
      {fault && <p className="quiet">{fault}</p>}
    </Dialog>
  );
}

/** One engine under two marks: the one record becomes part of the other, and can be parted again. */
function Merge({ id, onMerge }: { id: string; onMerge: (into: string) => void }): ReactNode {
  const { data = [] } = useEnginesQuery();
  const [into, setInto] = useState<string | null>(null);
  const others = data.filter((e) => e.id !== id);
  if (others.length === 0) return null;
  return (
    <div className="row">
      <span className="quiet">Is it the same engine as another here?</span>
      <Select
        showSearch
        optionFilterProp="label"
        aria-label="The same engine as"
        style={{ width: 300 }}
        placeholder="mark or name"
        value={into}
        options={others.map((e) => ({ value: e.id, label: `${e.record.mark} ${e.record.name}` }))}
        onChange={setInto}
      />
      <Button disabled={into === null} onClick={() => into && onMerge(into)}>
        Merge into it
      </Button>
    </div>
  );
}
