import { Alert, Button, Empty, Input, Segmented, Table } from 'antd';
import type { CaseSummary, Me } from '@true-ledger/contract';
import { GRADE_INFO, type Grade } from '@true-ledger/core/damage';
import { percentText } from '@true-ledger/core/cause';
import { useDeferredValue, useState, type ReactNode } from 'react';
import { Link, useNavigate } from 'react-router';
import { useShelfPageQuery } from '../app/api.js';
import { DemoProgress } from '../account/DemoProgress.js';
import { TakeBundle } from './TakeBundle.js';
import { COLOUR } from '../app/tokens.js';
import { asProblem } from '../app/server.js';
import './shelf.css';

const PAGE = 50;

/** All cases of the shop. */
export function Shelf({ me }: { me: Me }): ReactNode {
  const [search, setSearch] = useState('');
  const [page, setPage] = useState(0);
  /** Those put away instead of those in hand. */
  const [away, setAway] = useState(false);
  const words = useDeferredValue(search.trim());
  const {
    currentData,
    data: last,
    isLoading,
    error,
  } = useShelfPageQuery({ words, page, size: PAGE, shelved: away ? 'yes' : 'no' }, { refetchOnMountOrArgChange: true });
  // The page before stays while the next is fetched.
  const { cases = [], total = 0 } = currentData ?? last ?? {};
  const navigate = useNavigate();
  return (
    <div className="page">
      <div className="page-head">
        <h1>Shelf</h1>
        <Input.Search
          allowClear
          placeholder="Find a case"
          aria-label="Find a case"
          style={{ width: 280 }}
          onChange={(e) => {
            setSearch(e.target.value);
            setPage(0);
          }}
        />
        <Segmented
          aria-label="Which cases"
          value={away}
          options={[
            { value: false, label: 'In hand' },
            { value: true, label: 'Put away' },
          ]}
          onChange={(value) => {
            setAway(value);
            setPage(0);
          }}
        />
        {me.account.role !== 'reader' && (
          <Button type="primary" onClick={() => void navigate('/new')}>
            Open a new case
          </Button>
        )}
        {me.account.role !== 'reader' && <TakeBundle />}
      </div>
      <DemoProgress />
      {error && <Alert type="error" title={asProblem(error).sentence} role="alert" />}
      <Table<CaseSummary>
        rowKey="id"
        loading={isLoading}
        dataSource={[...cases]}
        pagination={
          total > PAGE ? { pageSize: PAGE, total, current: page + 1, showSizeChanger: false, onChange: (n) => setPage(n - 1) } : false
        }
        locale={{
          // Nothing is said of cases before they are fetched.
          emptyText: isLoading ? (
            ' '
          ) : (
            <Empty
              image={null}
              description={
                search
                  ? 'No case holds these words.'
                  : away
                    ? 'No case is put away.'
                    : 'No case yet. Open one to lay out an engine and start its ledger.'
              }
            />
          ),
        }}
        onRow={(c) => ({ onClick: () => void navigate(`/case/${c.id}/bench`), className: 'case-row' })}
        columns={[
          {
            title: 'Case',
            width: 266,
            render: (_, c) => (
              <>
                <Link to={`/case/${c.id}/bench`} onClick={(e) => e.stopPropagation()}>
                  <span className="figure">{c.number}</span> {c.title}
                </Link>
                <div className="quiet">
                  {c.reference || 'no client reference'}
                  {c.behind > 0 && ` · figures from ${c.behind} ${c.behind === 1 ? 'entry' : 'entries'} ago`}
                </div>
              </>
            ),
          },
          {
            title: 'Bench',
            width: 230,
            render: (_, c) => (
              <>
                <Strip summary={c} />
                <div className="quiet">{c.engine}</div>
              </>
            ),
          },
          {
            title: 'Stage',
            width: 104,
            render: (_, c) => (
              <>
                {c.stage}
                {c.signed > 0 && <div className="quiet">signed, version {c.signed}</div>}
              </>
            ),
          },
          { title: 'Waiting on', dataIndex: 'waitingOn', width: 124 },
          { title: 'Examined', className: 'figure', width: 86, render: (_, c) => `${Math.round(c.coverage * 100)} %` },
          { title: 'Unexplained', className: 'figure', width: 104, dataIndex: 'unexplained' },
          {
            title: 'Leading cause',
            render: (_, c) => (c.leading ? `${c.leading} (${percentText(c.leadingProbability ?? 0).replace(/ /g, '\u00a0')})` : '–'),
          },
          {
            title: 'Last entry',
            className: 'figure',
            width: 110,
            render: (_, c) => new Date(c.updated).toLocaleString('sv-SE').slice(0, 16),
          },
        ]}
      />
    </div>
  );
}

/** The bench in one line: bores, shells and journals in their order, hatch where not examined. */
function Strip({ summary }: { summary: CaseSummary }): ReactNode {
  const w = 214 / Math.max(1, summary.strip.length);
  return (
    <svg
      width="214"
      height="20"
      role="img"
      aria-label={`${summary.strip.filter((s) => s.grade !== null).length} of ${summary.strip.length} bearings, journals and bores examined; worst grade ${Math.max(0, ...summary.strip.map((s) => s.grade ?? 0))}`}
    >
      <defs>
        <pattern id="hatch-strip" width="4" height="4" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="4" height="4" fill={COLOUR.paper} />
          <line x1="0" y1="0" x2="0" y2="4" stroke={COLOUR.lineDark} strokeWidth="1" />
        </pattern>
      </defs>
      {summary.strip.map((s, i) => {
        const tall = s.grade === null ? 20 : 6 + s.grade * 3.5;
        return (
          <rect
            key={s.station}
            x={i * w}
            y={20 - tall}
            width={Math.max(1, w - 0.8)}
            height={tall}
            fill={s.grade === null ? 'url(#hatch-strip)' : GRADE_INFO[s.grade as Grade].colour}
          />
        );
      })}
    </svg>
  );
}
