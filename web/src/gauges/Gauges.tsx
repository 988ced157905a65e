import { Alert, Button, Empty, Input, Select, Slider, Switch } from 'antd';
import type { ApiError, GaugeMessage, Me } from '@true-ledger/contract';
import { checkDoubt, GAUGE_KINDS, parseLength, type Gauge } from '@true-ledger/core/units';
import { NO_FAULTS, type GaugeFaults } from '@true-ledger/core/measure';
import { useState, type ReactNode } from 'react';
import { NumberField } from '../fields/NumberField.js';
import { Link, useParams } from 'react-router';
import {
  useCheckGaugeMutation,
  useGaugeChecksQuery,
  useGaugesQuery,
  useHoldStandInMutation,
  usePutAwayStandInMutation,
  useSaveGaugeMutation,
  useStandInsQuery,
} from '../app/api.js';
import { saveBlob } from '../app/saveBlob.js';
import { usePlaceWords } from './usePlaceWords.js';
import { sendWire, useWire, WIRE_WORDS } from './wire.js';
import { asProblem, fetchFile } from '../app/server.js';
import './gauges.css';

const KIND_WORDS: Readonly<Record<(typeof GAUGE_KINDS)[number], string>> = {
  'outside-micrometer': 'outside micrometer',
  'bore-gauge': 'bore gauge',
  indicator: 'indicator',
  caliper: 'caliper',
  feeler: 'feeler gauges',
  'depth-gauge': 'depth gauge',
  'torque-wrench': 'torque wrench',
  profilometer: 'profilometer',
  other: 'other',
};

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

function GaugeForm({
  gauge,
  taken,
  mayWrite,
  onDone,
}: {
  gauge: Gauge;
  taken: readonly string[];
  mayWrite: boolean;
  onDone: () => void;
}): ReactNode {
  const [draft, setDraft] = useState<Gauge>(gauge);
  const [save, { isLoading }] = useSaveGaugeMutation();
  const [problem, setProblem] = useState<ApiError | null>(null);
  const set = (part: Partial<Gauge>): void => setDraft({ ...draft, ...part });
  const unit = draft.kind === 'torque-wrench' ? 'N·m' : draft.kind === 'profilometer' ? 'mm along' : 'mm';
  const figure = (key: 'resolutionMm' | 'expandedUncertaintyMm' | 'repeatabilityMm' | 'masterMm', label: string): ReactNode => (
    <label>
      <span>{label}</span>
      <NumberField
        value={draft[key] ?? null}
        disabled={!mayWrite}
        min={0}
        {...(unit === 'mm' ? { quantity: 'length' as const } : {})}
        unit={unit}
        style={{ width: '100%' }}
        onChange={(v) => {
          if (v !== null) return set({ [key]: v });
          if (key !== 'masterMm') return;
          const { masterMm: _gone, ...rest } = draft;
          setDraft(rest);
        }}
      />
    </label>
  );
  const id =
    draft.id ||
    draft.name
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '')
      .slice(0, 60);
  const faults = [
    draft.name.trim() === '' ? 'Give the gauge a name as it is called in the shop.' : '',
    draft.resolutionMm > 0 ? '' : 'The resolution is the least step it shows and cannot be nothing.',
    taken.includes(id) ? 'The shop has a gauge of that name already.' : '',
  ].filter(Boolean);
  return (
    <>
      <h2>{gauge.name || 'New gauge'}</h2>
      <div className="fields">
        <label>
          <span>Name</span>
          <Input value={draft.name} disabled={!mayWrite} maxLength={80} onChange={(e) => set({ name: e.target.value })} />
        </label>
        <label>
          <span>Kind</span>
          <Select
            value={draft.kind}
            disabled={!mayWrite}
            options={GAUGE_KINDS.map((k) => ({ value: k, label: KIND_WORDS[k] }))}
            onChange={(kind) => set({ kind })}
          />
        </label>
        {figure('resolutionMm', 'Resolution')}
        {figure('expandedUncertaintyMm', 'U of its calibration, k = 2')}
        {figure('repeatabilityMm', 'Repeatability, one standard deviation')}
        {figure('masterMm', 'Master it is set by')}
      </div>
      {mayWrite && JSON.stringify(draft) !== JSON.stringify(gauge) && (
        <>
          {faults.map((f) => (
            <p key={f} className="fault">
              {f}
            </p>
          ))}
          {problem && <Alert type="error" role="alert" title={problem.sentence} />}
          <div className="row">
            <Button
              type="primary"
              loading={isLoading}
              disabled={faults.length > 0}
              onClick={() =>
                void save({ ...draft, id, name: draft.name.trim() })
                  .unwrap()
                  .then(onDone)
                  .catch((e: unknown) => setProblem(asProblem(e)))
              }
            >
              Keep the gauge
            </Button>
            <Button
              onClick={() => {
                setDraft(gauge);
                onDone();
              }}
            >
              Leave as it was
            </Button>
          </div>
        </>
      )}
    </>
  );
}

/** Checks against a master, the newest first; a new one dates the record. */
function Checks({ gauge, mayWrite }: { gauge: Gauge; mayWrite: boolean }): ReactNode {
  const { data: checks = [] } = useGaugeChecksQuery(gauge.id);
  const [check, { isLoading }] = useCheckGaugeMutation();
  const [draft, setDraft] = useState({ master: gauge.masterMm === undefined ? '' : String(gauge.masterMm), read: '', note: '' });
  const [problem, setProblem] = useState<string | null>(null);
  const [today] = useState(() => new Date().toISOString());
  const overdue = checkDoubt(gauge, today);
  const keep = (): void => {
    const [master, read] = [draft.master, draft.read].map((t) => parseLength(t.trim(), { unit: 'mm' }));
    if (!master?.ok || master.value.kind !== 'value' || master.value.mm <= 0)
      return setProblem(`"${draft.master.slice(0, 20)}" is not the size of a master. Nothing was kept.`);
    if (!read?.ok || read.value.kind !== 'value')
      return setProblem(`"${draft.read.slice(0, 20)}" is not a figure the gauge can have shown. Nothing was kept.`);
    void check({ id: crypto.randomUUID(), gaugeId: gauge.id, masterMm: master.value.mm, readMm: read.value.mm, note: draft.note.trim() })
      .unwrap()
      .then(() => {
        setDraft({ ...draft, read: '', note: '' });
        setProblem(null);
      })
      .catch((e: unknown) => setProblem(asProblem(e).sentence));
  };
  return (
    <section className="pane" aria-label="Checks">
      <h2>
        Checks against a master{' '}
        <span className="quiet">{gauge.checkedOn ? `last on ${gauge.checkedOn.slice(0, 10)}` : 'none is on record'}</span>
      </h2>
      {overdue && <Alert type="warning" title={overdue} />}
      {mayWrite && (
        <div className="check-line">
          <Input
            className="figure"
            value={draft.master}
            placeholder="master"
            aria-label="Size of the master"
            onChange={(e) => setDraft({ ...draft, master: e.target.value })}
          />
          <Input
            className="figure"
            value={draft.read}
            placeholder="it reads"
            aria-label="What the gauge reads on it"
            onChange={(e) => setDraft({ ...draft, read: e.target.value })}
            onPressEnter={keep}
          />
          <Input
            value={draft.note}
            placeholder="note"
            maxLength={500}
            aria-label="Note"
            onChange={(e) => setDraft({ ...draft, note: e.target.value })}
          />
          <Button loading={isLoading} disabled={draft.read.trim() === ''} onClick={keep}>
            Keep the check
          </Button>
        </div>
      )}
      {problem && <Alert type="error" role="alert" title={problem} />}
      <table className="lines">
        <tbody>
          {checks.map((c) => {
            const off = c.readMm - c.masterMm;
            const good = Math.abs(off) <= gauge.expandedUncertaintyMm + gauge.resolutionMm;
            return (
              <tr key={c.id}>
                <td className="figure">{c.time.slice(0, 10)}</td>
                <td className="figure">
                  {c.readMm.toFixed(3)} on {c.masterMm.toFixed(3)}
                </td>
                <td className="figure">
                  {off >= 0 ? '+' : '−'}
                  {Math.abs(off).toFixed(4)}
                </td>
                <td>{good ? 'inside its U' : <b className="verdict-word outside">more than its U: set it before it is used</b>}</td>
                <td>{c.note}</td>
                <td className="quiet">{c.by}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </section>
  );
}

/** A stand-in on the wire, what is wrong with it, and its key. */
function StandInPanel({ gauge, mayWrite }: { gauge: Gauge; mayWrite: boolean }): ReactNode {
  const { data: standIns = [], refetch } = useStandInsQuery();
  const [hold, { isLoading }] = useHoldStandInMutation();
  const [putAway] = usePutAwayStandInMutation();
  const held = standIns.find((s) => s.gaugeId === gauge.id);
  const placeWords = usePlaceWords(held?.at?.caseId);
  const [log, setLog] = useState<GaugeMessage[]>([]);
  const [problem, setProblem] = useState<string | null>(null);
  const say = (m: GaugeMessage): void => {
    if (m.type !== 'refused' && m.gauge !== gauge.id) return;
    if (m.type === 'changed') return;
    setLog((before) => [m, ...before].slice(0, 8));
    void refetch();
  };
  const sentWords = (m: GaugeMessage): string => {
    if (m.type === 'refused') return m.sentence;
    if (m.type !== 'reading') return 'sent nothing';
    return `sent ${m.text} ${m.unit} ${m.at === 'master' ? 'on its master' : `at ${placeWords(m.at)}`}`;
  };
  const wire = useWire(held !== undefined, say);
  const press = (at: 'master' | null): void => {
    setProblem(
      sendWire({ type: 'press', gauge: gauge.id, at })
        ? null
        : 'The wire to the gauges is down; nothing was sent. It is tried again by itself.',
    );
  };
  const set = (faults: GaugeFaults): void =>
    void hold({ id: gauge.id, faults })
      .unwrap()
      .catch((e: unknown) => setProblem(asProblem(e).sentence));
  if (!held)
    return (
      <section className="pane" aria-label="Stand-in">
        <h2>Stand-in on the wire</h2>
        <p>
          A stand-in sends figures as this gauge would over a cable: the demonstration engine&apos;s true sizes, with the gauge&apos;s own
          noise. It is for trying the bench and for teaching; no figure of it comes from a real part.
        </p>
        {mayWrite && (
          <Button loading={isLoading} onClick={() => set(NO_FAULTS)}>
            Put a stand-in on the wire
          </Button>
        )}
      </section>
    );
  const { faults } = held;
  // A wrench errs by newton metres where a gauge errs by thousandths.
  const torque = gauge.kind === 'torque-wrench';
  const unit = torque ? 'N·m' : 'mm';
  const range = torque ? { bias: 10, drift: 1, step: 0.1 } : { bias: 0.05, drift: 0.005, step: 0.0005 };
  return (
    <section className="pane stand-in" aria-label="Stand-in">
      <h2>
        Stand-in on the wire <span className={`wire ${wire}`}>{WIRE_WORDS[wire]}</span>
        {mayWrite && (
          <Button size="small" onClick={() => void putAway(gauge.id)}>
            Take it off the wire
          </Button>
        )}
      </h2>
      <div className="stand-in-grid">
        <div className="faults">
          <Fault
            label="Bias"
            value={faults.biasMm}
            min={-range.bias}
            max={range.bias}
            step={range.step}
            unit={unit}
            off={!mayWrite}
            onSet={(biasMm) => set({ ...faults, biasMm })}
          />
          <Fault
            label="Noise, times its repeatability"
            value={faults.noise}
            min={0}
            max={10}
            step={0.5}
            unit="×"
            off={!mayWrite}
            onSet={(noise) => set({ ...faults, noise })}
          />
          <Fault
            label="Drift a reading"
            value={faults.driftMm}
            min={-range.drift}
            max={range.drift}
            step={range.step}
            unit={unit}
            off={!mayWrite}
            onSet={(driftMm) => set({ ...faults, driftMm })}
          />
          <label className="fault-switch">
            <Switch checked={faults.stuck} disabled={!mayWrite} onChange={(stuck) => set({ ...faults, stuck })} /> sticks on its last figure
          </label>
          <label className="fault-switch">
            <Switch checked={faults.silent} disabled={!mayWrite} onChange={(silent) => set({ ...faults, silent })} /> drops out: sends
            nothing
          </label>
          {mayWrite && (Object.keys(NO_FAULTS) as Array<keyof GaugeFaults>).some((k) => faults[k] !== NO_FAULTS[k]) && (
            <Button size="small" onClick={() => set(NO_FAULTS)}>
              Sound again
            </Button>
          )}
        </div>
        <div>
          <div className="gauge-face" aria-live="polite">
            <span className="readout figure">{held.last ?? '–'}</span>
            <span className="quiet">{held.count} readings since it was last set</span>
          </div>
          {mayWrite && (
            <div className="row">
              <Button onClick={() => press(null)}>Press its key</Button>
              {gauge.masterMm !== undefined && <Button onClick={() => press('master')}>On its master</Button>}
              {gauge.kind === 'profilometer' && <TraceButton gauge={gauge} onProblem={setProblem} />}
            </div>
          )}
          <p className="quiet">
            {held.at ? `It is on ${placeWords(held.at)}.` : 'It is on no place: open a sheet with this gauge chosen.'} The sheet that stands
            at that place takes what the key sends.
          </p>
          {problem && <Alert type="error" role="alert" title={problem} />}
          <ol className="wire-log" aria-label="Sent">
            {log.map((l, i) => (
              <li key={log.length - i}>{sentWords(l)}</li>
            ))}
          </ol>
        </div>
      </div>
    </section>
  );
}

function Fault({
  label,
  value,
  min,
  max,
  step,
  unit,
  off,
  onSet,
}: {
  label: string;
  value: number;
  min: number;
  max: number;
  step: number;
  unit: string;
  off: boolean;
  onSet: (v: number) => void;
}): ReactNode {
  const [moving, setMoving] = useState<number | null>(null);
  const shown = moving ?? value;
  return (
    <div className="fault-line">
      <span>{label}</span>
      <Slider
        min={min}
        max={max}
        step={step}
        value={shown}
        disabled={off}
        ariaLabelForHandle={label}
        tooltip={{ open: false }}
        onChange={setMoving}
        onChangeComplete={(v) => {
          setMoving(null);
          onSet(v);
        }}
      />
      <span className="figure">
        {Number(shown.toPrecision(3))} {unit}
      </span>
    </div>
  );
}

/** Draws the profilometer stand-in over a wall and keeps the trace as the file it would send. */
function TraceButton({ gauge, onProblem }: { gauge: Gauge; onProblem: (words: string | null) => void }): ReactNode {
  const take = async (worn: number, name: string): Promise<void> => {
    const file = await fetchFile(`/api/stand-ins/${encodeURIComponent(gauge.id)}/trace?worn=${worn}`);
    onProblem(file.ok ? null : file.problem.sentence);
    if (file.ok) saveBlob(name, file.value.blob);
  };
  return (
    <>
      <Button onClick={() => void take(0.8, 'trace ring travel.csv')}>Trace in the ring travel</Button>
      <Button onClick={() => void take(0, 'trace below travel.csv')}>Trace below it</Button>
    </>
  );
}
