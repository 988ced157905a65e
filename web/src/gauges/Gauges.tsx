import { Button, Empty } from 'antd';
import type { Me } from '@true-ledger/contract';
import { checkDoubt, type Gauge } from '@true-ledger/core/units';
import { useState, type ReactNode } from 'react';
import { Link, useParams } from 'react-router';
import { useGaugesQuery, useStandInsQuery } from '../app/api.js';
import './gauges.css';
import { GaugeForm } from './GaugeForm.js';
import { Checks } from './Checks.js';
import { StandInPanel } from './StandInPanel.js';

const FRESH: Gauge = {
  id: '',
  name: '',
  kind: 'outside-micrometer',
  resolutionMm: 0.001,
  expandedUncertaintyMm: 0.004,
  repeatabilityMm: 0.0015,
};

/** The shop's gauges: record, checks against a master, and stand-ins that send as a gauge on a wire would. */
export function Gauges({ me }: { me: Me }): ReactNode {
  const { gaugeId } = useParams();
  const { data: gauges = [], isLoading } = useGaugesQuery();
  const { data: standIns = [] } = useStandInsQuery();
  const [fresh, setFresh] = useState(false);
  const [today] = useState(() => new Date().toISOString());
  const shown = gauges.find((g) => g.id === gaugeId) ?? gauges[0];
  const mayWrite = me.account.role !== 'reader';
  return (
    <div className="page gauges">
      <div className="page-head">
        <h1>Gauges</h1>
        {mayWrite && !fresh && <Button onClick={() => setFresh(true)}>New gauge</Button>}
        <span className="quiet">A reading keeps a copy of its gauge as it was, so a correction here changes no verdict already given.</span>
      </div>
      <div className="opening-grid">
        <nav className="pane check-list" aria-label="Gauges">
          {gauges.map((g) => (
            <Link key={g.id} to={`/gauges/${g.id}`} className={g === shown && !fresh ? 'here' : ''} onClick={() => setFresh(false)}>
              <span>{g.name}</span>
              <span className="quiet">
                {standIns.some((s) => s.gaugeId === g.id) ? 'stand-in' : ''} {checkDoubt(g, today) ? 'overdue' : ''}
              </span>
            </Link>
          ))}
          {!isLoading && gauges.length === 0 && (
            <p className="quiet">No gauge yet. Without one, readings are taken with an assumed resolution and uncertainty, and say so.</p>
          )}
        </nav>
        {fresh ? (
          <section className="pane" aria-label="New gauge">
            <GaugeForm gauge={FRESH} taken={gauges.map((g) => g.id)} mayWrite onDone={() => setFresh(false)} />
          </section>
        ) : shown ? (
          <div className="stack" key={shown.id}>
            <section className="pane" aria-label={shown.name}>
              <GaugeForm gauge={shown} taken={[]} mayWrite={mayWrite} onDone={() => undefined} />
            </section>
            <Checks gauge={shown} mayWrite={mayWrite} />
            <StandInPanel gauge={shown} mayWrite={mayWrite} />
          </div>
        ) : (
          <Empty image={null} description="" />
        )}
      </div>
    </div>
  );
}
