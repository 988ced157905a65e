import { Alert, App, Button, Empty, Input, Table } from 'antd';
import type { EngineLine, Me } from '@true-ledger/contract';
import { formatCounter } from '@true-ledger/core/engineLog';
import { useState, type ReactNode } from 'react';
import { Link, useNavigate } from 'react-router';
import { Dialog } from '../app/Dialog.js';
import { useEnginesQuery, useMakeEngineMutation } from '../app/api.js';
import { saveBlob } from '../app/saveBlob.js';
import { asProblem, fetchFile } from '../app/server.js';
import { Waiting } from '../app/Waiting.js';
import { EngineFields, engineFault, NEW_ENGINE } from './EngineFields.js';
import './oil.css';

/** Engines as records of their own: what their logs say, what is due, which cases hang on them. */
export function OilList({ me }: { me: Me }): ReactNode {
  const { data, error } = useEnginesQuery(undefined, { refetchOnMountOrArgChange: true });
  const [words, setWords] = useState('');
  const [draft, setDraft] = useState<typeof NEW_ENGINE | null>(null);
  const [make, { isLoading }] = useMakeEngineMutation();
  const { message } = App.useApp();
  const navigate = useNavigate();
  if (error) return <Alert type="error" role="alert" title={asProblem(error).sentence} />;
  if (!data) return <Waiting what="Fetching the engines" />;
  const looked = words.toLowerCase().split(/\s+/).filter(Boolean);
  const shown = data.filter((e) => looked.every((w) => `${e.record.mark} ${e.record.name}`.toLowerCase().includes(w)));
  const mayWrite = me.account.role !== 'reader';
  const keep = async (): Promise<void> => {
    const id = crypto.randomUUID();
    try {
      await make({ id, record: { ...draft!, name: draft!.name.trim() } }).unwrap();
      void navigate(`/oil/${id}`);
    } catch (e) {
      void message.error(asProblem(e).sentence, 8);
    }
  };
  const calendar = async (): Promise<void> => {
    const file = await fetchFile('/api/engines/due.ics');
    if (file.ok) saveBlob('due.ics', file.value.blob);
    else void message.error(file.problem.sentence, 8);
  };
  const fault = draft && engineFault(draft);
  return (
    <div className="page">
      <div className="page-head">
        <h1>Oil</h1>
        <Input.Search
          allowClear
          placeholder="Find an engine"
          aria-label="Find an engine"
          style={{ width: 260 }}
          onChange={(e) => setWords(e.target.value)}
        />
        {mayWrite && (
          <Button type="primary" onClick={() => setDraft(NEW_ENGINE)}>
            New engine
          </Button>
        )}
        {data.length > 0 && <Button onClick={() => void calendar()}>Calendar of what is due</Button>}
      </div>
      <p className="quiet">
        An engine has a record of its own: cases hang on it, and its log runs on between them. What rises in it is said at once.
      </p>
      {shown.length === 0 ? (
        <Empty
          description={
            words
              ? 'No engine has these words in its mark or name.'
              : 'No engine has a log yet. Make one, and write down level, look and oil changes as they come; the next strip of it begins with what its oil has said.'
          }
        />
      ) : (
        <Table<EngineLine>
          rowKey="id"
          size="small"
          dataSource={shown}
          pagination={shown.length > 50 ? { pageSize: 50 } : false}
          columns={[
            { title: 'Engine', render: (_, e) => <Link to={`/oil/${e.id}`}>{`${e.record.mark} ${e.record.name}`}</Link> },
            {
              title: 'What its log says',
              render: (_, e) =>
                e.urgent.length === 0 ? (
                  <span className="quiet">nothing that must be looked at</span>
                ) : (
                  <span className="fault">{`${e.urgent[0]!}${e.urgent.length > 1 ? ` And ${e.urgent.length - 1} more.` : ''}`}</span>
                ),
            },
            {
              title: 'Due',
              width: 230,
              render: (_, e) =>
                e.due ? (
                  <>
                    <span className="figure">{e.due.day}</span> {e.due.words}
                  </>
                ) : (
                  '–'
                ),
            },
            {
              title: 'Counter',
              width: 110,
              className: 'figure',
              render: (_, e) => (e.counter === null ? '–' : formatCounter(e.counter, e.record.counter)),
            },
            { title: 'Last line', width: 110, className: 'figure', render: (_, e) => e.newest ?? '–' },
            { title: 'Lines', width: 70, className: 'figure', dataIndex: 'lines' },
            { title: 'Cases', width: 70, className: 'figure', dataIndex: 'cases' },
          ]}
        />
      )}
      <Dialog
        open={draft !== null}
        title="New engine"
        okText="Make the record"
        okButtonProps={{ disabled: fault !== null, loading: isLoading }}
        onOk={() => void keep()}
        onCancel={() => setDraft(null)}
      >
        {draft && (
          <>
            <EngineFields record={draft} onChange={setDraft} />
            {fault && <p className="quiet">{fault}</p>}
          </>
        )}
      </Dialog>
    </div>
  );
}
