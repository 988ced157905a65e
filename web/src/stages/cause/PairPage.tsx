import { Select } from 'antd';
import { cause as causeOf, isListed, percentText } from '@true-ledger/core/cause';
import { comparePair, type PairSign } from '@true-ledger/core/diagnosis';
import { useMemo, type ReactNode } from 'react';
import { useNavigate, useParams } from 'react-router';
import { useCase } from '../../app/caseContext.js';
import { Waiting } from '../../app/Waiting.js';
import { CauseTabs } from './CauseTabs.js';
import './cause.css';

/** Two causes side by side: every observation that decides between them, and which of them can still be made. */
export function PairPage(): ReactNode {
  const { view, diagnosis, caseId, lastKnown } = useCase();
  const { first, second } = useParams();
  const navigate = useNavigate();
  const ranked = diagnosis?.causes.filter((c) => isListed(c.id)) ?? [];
  const a = ranked.find((c) => c.id === first) ?? ranked[0];
  const b = ranked.find((c) => c.id === second && c.id !== a?.id) ?? ranked.find((c) => c.id !== a?.id);
  const signs = useMemo(() => (a && b ? comparePair(view, causeOf(a.id)!, causeOf(b.id)!) : []), [view, a, b]);
  if (!diagnosis || !a || !b) return <Waiting what="Weighing the evidence" />;
  const choose = (x: string, y: string): void => void navigate(`/case/${caseId}/cause/pair/${x}/${y}`, { replace: true });
  const options = ranked.map((c) => ({ value: c.id, label: `${c.name}, ${percentText(c.probability)}` }));
  const open = signs.filter((s) => s.state === 'still possible');
  const made = signs.filter((s) => s.state === 'found' || s.state === 'not there');
  const gone = signs.filter((s) => s.state === 'lost');
  const skipped = signs.filter((s) => s.state === 'not done');
  return (
    <div className={lastKnown ? 'page cause last-known' : 'page cause'}>
      <CauseTabs>what tells one from the other, strongest first; weights in decibans</CauseTabs>
      <div className="row pair-choice">
        <Select
          value={a.id}
          options={options.filter((o) => o.value !== b.id)}
          onChange={(v) => choose(v, b.id)}
          aria-label="First cause"
          showSearch={{ optionFilterProp: 'label' }}
          style={{ width: 400 }}
        />
        <span>against</span>
        <Select
          value={b.id}
          options={options.filter((o) => o.value !== a.id)}
          onChange={(v) => choose(a.id, v)}
          aria-label="Second cause"
          showSearch={{ optionFilterProp: 'label' }}
          style={{ width: 400 }}
        />
      </div>
      <div className="pair-does-not">
        <p className="pane">
          <b>{a.name}.</b> {causeOf(a.id)?.doesNot}
        </p>
        <p className="pane">
          <b>{b.name}.</b> {causeOf(b.id)?.doesNot}
        </p>
      </div>
      <Signs title="Still possible" signs={open} a={a.name} b={b.name} empty="Nothing left to look at would tell these two apart." />
      <Signs title="Already seen" signs={made} a={a.name} b={b.name} empty="Nothing yet observed tells them apart." />
      {skipped.length > 0 && <Signs title="Said not to be done" signs={skipped} a={a.name} b={b.name} empty="" />}
      {gone.length > 0 && <Signs title="Lost" signs={gone} a={a.name} b={b.name} empty="" />}
    </div>
  );
}

const side = (decibans: number, a: string, b: string): string =>
  Math.abs(decibans) < 0.5 ? 'no weight' : `${Math.abs(decibans).toFixed(1)} for ${(decibans > 0 ? a : b).toLowerCase()}`;

function Signs({
  title,
  signs,
  a,
  b,
  empty,
}: {
  title: string;
  signs: readonly PairSign[];
  a: string;
  b: string;
  empty: string;
}): ReactNode {
  return (
    <section className="pane" aria-label={title}>
      <h2>
        {title} <span className="figure">{signs.length}</span>
      </h2>
      {signs.length === 0 ? (
        <p className="quiet">{empty}</p>
      ) : (
        <table className="lines pair-table">
          <thead>
            <tr>
              <th>Observation</th>
              <th>If found</th>
              <th>If not there</th>
              <th>{title === 'Already seen' ? 'Seen' : 'How'}</th>
            </tr>
          </thead>
          <tbody>
            {signs.map((s) => (
              <tr key={s.feature}>
                <td title={s.why}>
                  {s.name}
                  <div className="quiet">{s.why}</div>
                </td>
                <td className={s.state === 'found' ? 'holds' : ''}>{side(s.ifFound, a, b)}</td>
                <td className={s.state === 'not there' ? 'holds' : ''}>{side(s.ifNot, a, b)}</td>
                <td>{title === 'Already seen' ? s.state : `${s.step}, about ${s.minutes} min`}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}
