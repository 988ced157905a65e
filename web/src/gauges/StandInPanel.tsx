import { Alert, Button, Slider, Switch } from 'antd';
import type { GaugeMessage } from '@true-ledger/contract';
import type { Gauge } from '@true-ledger/core/units';
import { NO_FAULTS, type GaugeFaults } from '@true-ledger/core/measure';
import { useState, type ReactNode } from 'react';
import { useHoldStandInMutation, usePutAwayStandInMutation, useStandInsQuery } from '../app/api.js';
import { saveBlob } from '../app/saveBlob.js';
import { usePlaceWords } from './usePlaceWords.js';
import { sendWire, useWire, WIRE_WORDS } from './wire.js';
import { asProblem, fetchFile } from '../app/server.js';
import './gauges.css';

/** A stand-in on the wire, what is wrong with it, and its key. */
export function StandInPanel({ gauge, mayWrite }: { gauge: Gauge; mayWrite: boolean }): ReactNode {
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
          {(
            [
              ['biasMm', 'Bias', -range.bias, range.bias, range.step, unit],
              ['noise', 'Noise, times its repeatability', 0, 10, 0.5, '×'],
              ['driftMm', 'Drift a reading', -range.drift, range.drift, range.step, unit],
            ] as const
          ).map(([fault, label, min, max, step, of]) => (
            <Fault
              key={fault}
              label={label}
              value={faults[fault]}
              min={min}
              max={max}
              step={step}
              unit={of}
              off={!mayWrite}
              onSet={(v) => set({ ...faults, [fault]: v })}
            />
          ))}
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
