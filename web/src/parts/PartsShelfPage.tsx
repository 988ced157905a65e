import { Alert, Input, Table } from 'antd';
import { shelfName, type KeptPart, type PartsShelf } from '@true-ledger/core/across';
import { useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import { usePartsShelfQuery } from '../app/api.js';
import { asProblem } from '../app/server.js';
import { Waiting } from '../app/Waiting.js';

type Wanted = PartsShelf['wanted'][number];

/** What the shop keeps from its strips for other engines, and what its cases wait for. */
export function PartsShelfPage(): ReactNode {
  const { data, error } = usePartsShelfQuery(undefined, { refetchOnMountOrArgChange: true });
  const [words, setWords] = useState('');
  if (error) return <Alert type="error" role="alert" title={asProblem(error).sentence} />;
  if (!data) return <Waiting what="Fetching the parts shelf" />;
  const asked = words.trim().toLowerCase().split(/\s+/);
  const holds = (...said: string[]): boolean => {
    const all = said.join(' ').toLowerCase();
    return asked.every((w) => all.includes(w));
  };
  const byName = new Map(data.kept.map((k) => [shelfName(k), k]));
  const kept = data.kept.filter((k) => holds(k.name, k.size, k.place, k.familyName, k.number));
  const wanted = data.wanted.filter((w) => holds(w.what, w.familyName, w.number));
  const place = ({ caseId, station, number }: { caseId: string; station: string; number: string }): ReactNode => (
    <Link to={`/case/${caseId}/station/${station}`}>
      <span className="figure">{number}</span>
    </Link>
  );
  return (
    <div className="page">
      <div className="page-head">
        <h1>Parts shelf</h1>
        <Input
          allowClear
          aria-label="Find a part"
          placeholder="part, size, place, engine"
          style={{ width: 280 }}
          value={words}
          onChange={(e) => setWords(e.target.value)}
        />
      </div>
      <section className="pane" aria-label="Kept">
        <h2>
          Kept <span className="quiet">{data.kept.length}</span>
        </h2>
        <Table<KeptPart>
          rowKey={shelfName}
          size="small"
          scroll={{ x: 'max-content' }}
          dataSource={kept}
          pagination={kept.length > 40 ? { pageSize: 40, showSizeChanger: false } : false}
          locale={{
            emptyText:
              data.kept.length === 0
                ? 'Nothing yet. On Decide › Parts of a case, keep what its strip leaves good.'
                : 'No part holds all of these words',
          }}
          columns={[
            { title: 'Part', render: (_, k) => k.name },
            { title: 'Measures', render: (_, k) => k.size || '–' },
            { title: 'Lies', render: (_, k) => k.place || '–' },
            { title: 'Engine', render: (_, k) => k.familyName },
            { title: 'From', render: (_, k) => place(k) },
            {
              title: 'Promised to',
              render: (_, k) =>
                k.promised.length === 0 ? (
                  'free'
                ) : (
                  <span className={k.promised.length > 1 ? 'fault' : undefined}>
                    {k.promised.map((p) => p.number).join(', ')}
                    {k.promised.length > 1 && ': promised more than once'}
                  </span>
                ),
            },
          ]}
        />
      </section>
      <section className="pane" aria-label="Wanted">
        <h2>
          Wanted <span className="quiet">{data.wanted.length}</span>
        </h2>
        <Table<Wanted>
          rowKey={shelfName}
          size="small"
          scroll={{ x: 'max-content' }}
          dataSource={wanted}
          pagination={wanted.length > 40 ? { pageSize: 40, showSizeChanger: false } : false}
          locale={{ emptyText: 'No case waits for a part.' }}
          columns={[
            { title: 'What', render: (_, w) => w.what },
            { title: 'Engine', render: (_, w) => w.familyName },
            {
              title: 'Case',
              render: (_, w) => (
                <Link to={`/case/${w.caseId}/decide/parts`}>
                  <span className="figure">{w.number}</span>
                </Link>
              ),
            },
            {
              title: 'On the shelf',
              render: (_, w) =>
                w.fits.length === 0
                  ? 'none that may fit'
                  : w.fits
                      .map((id) => byName.get(id))
                      .map((k) => (k ? [k.name, k.size, k.place].filter(Boolean).join(', ') : ''))
                      .join('; '),
            },
          ]}
        />
      </section>
    </div>
  );
}
