import { Alert, Button, Empty, Input, Pagination, Segmented, Select } from 'antd';
import { STAGES, WAITS, type CaseSummary, type Me, type ShelfOrder, type Waits } from '@true-ledger/contract';
import { percentText } from '@true-ledger/core/cause';
import { useDeferredValue, useState, type ReactNode } from 'react';
import { Link, useNavigate } from 'react-router';
import { useShelfPageQuery } from '../app/api.js';
import { DemoProgress } from '../account/DemoProgress.js';
import { SmallBench } from './SmallBench.js';
import { TakeBundle } from './TakeBundle.js';
import { asProblem } from '../app/server.js';
import './shelf.css';

const PAGE = 24;

const MINE = 'mine';

/** Whom a case waits for, as it is said after *for*. */
const OUTSIDE: Readonly<Record<Waits, string>> = {
  client: 'the client',
  'earlier builder': 'the earlier builder',
  maker: 'the maker',
  'machine shop': 'the machine shop',
  parts: 'parts',
};

const ORDERS: ReadonlyArray<{ value: ShelfOrder; label: string }> = [
  { value: 'written', label: 'Last entry first' },
  { value: 'number', label: 'Newest number first' },
  { value: 'examined', label: 'Least examined first' },
];

/** All cases of the shop as a wall of engines: each unrolled in small, what it waits for and since when. */
export function Shelf({ me }: { me: Me }): ReactNode {
  const [search, setSearch] = useState('');
  const [page, setPage] = useState(0);
  /** Those put away instead of those in hand. */
  const [away, setAway] = useState(false);
  const [stage, setStage] = useState('');
  /** `mine`: in which the person has written; else what a case waits for. */
  const [which, setWhich] = useState('');
  const [order, setOrder] = useState<ShelfOrder>('written');
  const words = useDeferredValue(search.trim());
  const {
    currentData,
    data: last,
    isLoading,
    error,
  } = useShelfPageQuery(
    {
      words,
      page,
      size: PAGE,
      shelved: away ? 'yes' : 'no',
      stage,
      waits: which === MINE ? '' : which,
      mine: which === MINE ? 'yes' : 'no',
      order,
    },
    { refetchOnMountOrArgChange: true },
  );
  // The page before stays while the next is fetched.
  const { cases = [], total = 0 } = currentData ?? last ?? {};
  const navigate = useNavigate();
  const empty = search
    ? 'No case holds these words.'
    : stage
      ? 'No case is at this stage.'
      : which
        ? which === MINE
          ? 'You have written in no case yet.'
          : `No case waits for ${OUTSIDE[which as Waits]}.`
        : away
          ? 'No case is put away.'
          : 'No case yet. Open one to lay out an engine and start its ledger.';
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
        <Select
          value={stage}
          aria-label="Stage"
          style={{ width: 150 }}
          onChange={(value) => {
            setStage(value);
            setPage(0);
          }}
          options={[{ value: '', label: 'Any stage' }, ...STAGES.map((value) => ({ value, label: value }))]}
        />
        <Select
          value={which}
          aria-label="Whose"
          style={{ width: 190 }}
          onChange={(value) => {
            setWhich(value);
            setPage(0);
          }}
          options={[
            { value: '', label: 'All cases' },
            { value: MINE, label: 'Mine' },
            ...WAITS.map((value) => ({ value, label: `Waits for ${OUTSIDE[value]}` })),
          ]}
        />
        <Select
          value={order}
          aria-label="Order"
          style={{ width: 180 }}
          options={[...ORDERS]}
          onChange={(value) => {
            setOrder(value);
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
      {cases.length === 0 && !isLoading && !error && <Empty image={null} description={empty} />}
      <ul className="shelf-wall">
        {cases.map((c) => (
          <CaseCard key={c.id} summary={c} />
        ))}
      </ul>
      {total > PAGE && (
        <Pagination pageSize={PAGE} total={total} current={page + 1} showSizeChanger={false} onChange={(n) => setPage(n - 1)} />
      )}
    </div>
  );
}

/** Words for how long ago: what waits is seen by its age. */
function since(time: string): string {
  const days = Math.floor((Date.now() - new Date(time).getTime()) / 86_400_000);
  return days < 1 ? 'today' : days === 1 ? 'since yesterday' : `for ${days} days`;
}

function CaseCard({ summary: c }: { summary: CaseSummary }): ReactNode {
  const leads = c.leading ? `${c.leading} (${percentText(c.leadingProbability ?? 0).replace(/ /g, '\u00a0')})` : 'No cause leads yet';
  return (
    <li className="case-card">
      <Link to={`/case/${c.id}/bench`}>
        <span className="figure">{c.number}</span> {c.title}
      </Link>
      <SmallBench bench={c.bench} />
      <p className="leading">{leads}</p>
      <p className="quiet">
        {c.stage}, {Math.round(c.coverage * 100)} % examined{c.unexplained > 0 && `, ${c.unexplained} unexplained`}
        {c.signed > 0 && `, signed version ${c.signed}`}
      </p>
      <p className="waits">
        {c.waitingOn === 'nothing' || c.waitingOn === '' ? 'Waits for nothing' : `Waits for ${c.waitingOn}`} ·{' '}
        <span className="quiet" title={new Date(c.updated).toLocaleString('sv-SE').slice(0, 16)}>
          {since(c.updated)}
        </span>
      </p>
      <p className="quiet">
        {c.engine}
        {c.reference && `; ${c.reference}`}
        {c.behind > 0 && `; figures from ${c.behind} ${c.behind === 1 ? 'entry' : 'entries'} ago`}
      </p>
    </li>
  );
}
