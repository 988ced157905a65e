import { Alert, Button, Select, Table } from 'antd';
import { authorOf, type KeptEntry } from '@true-ledger/core/ledger';
import { entryName, entryWords } from '@true-ledger/core/entries';
import { useMemo, useState, type ReactNode } from 'react';
import { useEntriesQuery } from '../../app/api.js';
import { useCase } from '../../app/caseContext.js';
import { compute } from '../../workers/compute.js';
import { Strike } from './Strike.js';
import { asProblem } from '../../app/server.js';
import './ledger.css';

type Verdict = Awaited<ReturnType<ReturnType<typeof compute>['verify']>>;

/** Who saw what when, and whether the chain holds. */
export function LedgerStage(): ReactNode {
  const { caseId, state, view, me } = useCase();
  const { data = [], error, isFetching } = useEntriesQuery({ caseId, seq: state.seq });
  const [station, setStation] = useState<string | null>(null);
  const [verdict, setVerdict] = useState<{ result: Verdict; seq: number } | null>(null);
  const [busy, setBusy] = useState(false);
  const superseded = useMemo(() => new Set(data.flatMap((e) => (e.supersedes ? [e.supersedes] : []))), [data]);
  const rows = useMemo(() => [...data].reverse().filter((e) => station === null || e.station === station), [data, station]);
  const verify = async (): Promise<void> => {
    setBusy(true);
    setVerdict({ result: await compute().verify(caseId, data, { seq: state.seq, head: state.head }), seq: data.length });
    setBusy(false);
  };
  return (
    <div className="page">
      <div className="page-head">
        <h1>Ledger</h1>
        <Select
          allowClear
          showSearch
          optionFilterProp="label"
          placeholder="All places"
          aria-label="Show one place"
          style={{ width: 260 }}
          value={station}
          onChange={(v) => setStation(v ?? null)}
          options={view.stations.map((s) => ({ value: s.station.id, label: s.station.name }))}
        />
        <Button type="primary" loading={busy} disabled={data.length === 0} onClick={() => void verify()}>
          Verify the chain here
        </Button>
        <span className="quiet figure">{data.length} entries</span>
      </div>
      {error && <Alert type="error" role="alert" title={asProblem(error).sentence} />}
      {verdict && (
        <Alert
          type={verdict.result.ok ? 'success' : 'error'}
          role="status"
          className="verdict"
          title={
            verdict.result.ok
              ? `All ${verdict.result.entries} entries hold: each follows the one before it and none was changed. Computed in this browser.${verdict.result.sameState ? '' : ' But the state the server showed does not follow from them: tell the owner.'}`
              : `Entry ${verdict.result.broken?.seq} does not hold: ${verdict.result.broken?.reason}.`
          }
          description={<span className="figure">head {verdict.result.head}</span>}
        />
      )}
      <Table<KeptEntry>
        size="small"
        rowKey="id"
        loading={isFetching && data.length === 0}
        dataSource={rows}
        pagination={false}
        virtual
        scroll={{ y: 560, x: 1000 }}
        rowClassName={(e) => (superseded.has(e.id) ? 'superseded' : '')}
        columns={[
          { title: 'No.', dataIndex: 'seq', width: 52, className: 'figure' },
          {
            title: 'Time',
            width: 174,
            className: 'figure nowrap',
            render: (_, e) => new Date(e.time).toLocaleString('sv-SE').slice(0, 19),
          },
          { title: 'By', width: 120, render: (_, e) => authorOf(e).name },
          { title: 'Kind', width: 100, render: (_, e) => entryName(e.kind) },
          { title: 'Place', width: 140, render: (_, e) => (e.station ? (view.byId.get(e.station)?.station.name ?? e.station) : 'case') },
          { title: 'What', ellipsis: true, render: (_, e) => <span title={entryWords(e.kind, e.body)}>{entryWords(e.kind, e.body)}</span> },
          { title: 'Hash', width: 96, className: 'figure', render: (_, e) => <span title={e.hash}>{e.hash.slice(0, 8)}</span> },
          ...(me.account.role === 'owner'
            ? [
                {
                  title: '',
                  width: 76,
                  render: (_: unknown, e: KeptEntry) => <Strike entry={e} caseId={caseId} signed={view.signed.length} />,
                },
              ]
            : []),
        ]}
      />
    </div>
  );
}
