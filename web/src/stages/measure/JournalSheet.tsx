import { Alert, Input, Segmented, Select } from 'antd';
import {
  AXES,
  barrelText,
  checkDoubt,
  DEFAULT_GAUGE,
  doubtReading,
  formatLength,
  journalReadings,
  journalSheet,
  journalSpecOf,
  parseLength,
  PLANES,
  type Axis,
  type Gauge,
  type LengthUnit,
  type MeasuredValue,
  type Plane,
  type StationView,
} from '@true-ledger/core';
import { useEffect, useRef, useState, type KeyboardEvent, type ReactNode } from 'react';
import { useNavigate } from 'react-router';
import { useGaugesQuery } from '../../app/api.js';
import { useCase, useRecord } from '../../app/caseContext.js';
import { JournalChart } from './JournalChart.js';
import { JournalDrawing } from './JournalDrawing.js';
import { SpecForm } from './SpecForm.js';

interface Cell {
  readonly plane: Plane;
  readonly axis: Axis;
}

/** Order in which hands go round the part: along the pin, both axes at each plane. */
const ORDER: readonly Cell[] = PLANES.flatMap((plane) => AXES.map((axis) => ({ plane, axis })));

/** Entry, results and chart of one journal. */
export function JournalSheet({ station, next }: { station: StationView; next: string | null }): ReactNode {
  const { view, caseId, readOnly } = useCase();
  const record = useRecord();
  const navigate = useNavigate();
  const { data: gauges = [] } = useGaugesQuery();
  const { list, gauge: usedGauge, overdue } = journalReadings(station);
  const [gaugeId, setGaugeId] = useState<string | null>(usedGauge?.id ?? null);
  const gauge: Gauge = gauges.find((g) => g.id === gaugeId) ?? usedGauge ?? gauges[0] ?? DEFAULT_GAUGE;
  const [today] = useState(() => new Date().toISOString());
  const doubt = overdue ?? checkDoubt(gauge, today);
  const [unit, setUnit] = useState<LengthUnit>('mm');
  const spec = journalSpecOf(view, station.station.id);
  const taken = (c: Cell): (typeof station.readings)[number] | undefined =>
    station.readings.find((r) => r.value.plane === c.plane && r.value.axis === c.axis);
  const [at, setAt] = useState(() =>
    Math.max(
      0,
      ORDER.findIndex((c) => !taken(c)),
    ),
  );
  const [text, setText] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const [held, setHeld] = useState<string | null>(null);
  const input = useRef<{ focus: () => void }>(null);
  const cell = ORDER[at] ?? ORDER[0]!;

  useEffect(() => input.current?.focus(), [at]);

  const go = (to: number): void => {
    setAt((to + ORDER.length) % ORDER.length);
    setText('');
    setProblem(null);
    setHeld(null);
  };
  const take = (): void => {
    const parsed = parseLength(text, { unit, masterMm: gauge.masterMm });
    if (!parsed.ok) {
      setProblem(parsed.problem.sentence);
      setHeld(null);
      return;
    }
    const mm = parsed.value.kind === 'value' ? parsed.value.mm : null;
    const typedUnit = parsed.value.kind === 'value' ? parsed.value.unit : unit;
    if (mm !== null && held !== text) {
      const others = list.filter((r) => r.plane !== cell.plane || r.axis !== cell.axis).map((r) => r.mm);
      const doubt = doubtReading(
        mm,
        others,
        spec ? (spec.minMm + spec.maxMm) / 2 : view.layout[station.station.id.startsWith('crank.pin') ? 'pinDiameterMm' : 'mainDiameterMm'],
      );
      if (doubt) {
        setProblem(`${doubt.reason} Not taken yet. Press Enter once more to take it as it is, or type it again.`);
        setHeld(text);
        return;
      }
    }
    record({
      kind: 'reading-taken',
      station: station.station.id,
      body: {
        sheet: 'journal',
        plane: cell.plane,
        axis: cell.axis,
        text: text.trim(),
        unit: typedUnit,
        mm,
        gauge,
        insisted: held === text,
      },
    });
    go(at + 1);
  };
  const onKey = (e: KeyboardEvent): void => {
    if (e.key === 'Enter' && e.shiftKey && next) void navigate(`/case/${caseId}/measure/${next}`);
    else if (e.key === 'Enter') take();
    else if (e.key === 'Backspace' && text === '') go(at - 1);
    else if (e.key === 'ArrowDown' && text === '') go(at + 1);
    else if (e.key === 'ArrowUp' && text === '') go(at - 1);
    else return;
    e.preventDefault();
  };
  const last = station.readings.at(-1)?.value;
  const result = journalSheet(list, gauge, spec);
  return (
    <div className="sheet">
      <section className="pane entry" aria-label="Gauge entry">
        <div className="entry-head">
          <h2>
            {station.station.name}: {cell.plane}, axis {cell.axis}
          </h2>
          {last && (
            <span className="readout figure" aria-live="polite">
              {last.text}
              {/[a-z"″µ]/i.test(last.text) || last.text === '-' ? '' : ` ${last.unit}`}
            </span>
          )}
        </div>
        <div className="entry-body">
          <JournalDrawing plane={cell.plane} axis={cell.axis} />
          <div>
            <Input
              ref={input as never}
              className="reading-input figure"
              value={text}
              disabled={readOnly}
              status={problem ? (held ? 'warning' : 'error') : ''}
              placeholder="0.000"
              aria-label={`Reading, ${cell.plane}, axis ${cell.axis}`}
              inputMode="decimal"
              autoComplete="off"
              maxLength={40}
              onChange={(e) => {
                setText(e.target.value);
                setHeld(null);
                setProblem(null);
              }}
              onKeyDown={onKey}
            />
            {problem ? (
              <Alert type={held ? 'warning' : 'error'} role="alert" title={problem} />
            ) : (
              <p className="quiet">A figure and Enter; 2.0855" or 1.5 thou are understood; - means not read; Backspace steps back.</p>
            )}
            <div className="row">
              <Segmented<LengthUnit>
                value={unit}
                onChange={setUnit}
                options={[
                  { value: 'mm', label: 'mm' },
                  { value: 'in', label: 'in' },
                ]}
                aria-label="Unit when none is typed"
              />
              <Select
                value={gauge.id}
                options={(gauges.length > 0 ? gauges : [gauge]).map((g) => ({ value: g.id, label: g.name }))}
                onChange={setGaugeId}
                aria-label="Gauge"
                style={{ width: '100%' }}
              />
            </div>
          </div>
        </div>
        <table className="reading-grid">
          <thead>
            <tr>
              <th>Axis</th>
              {PLANES.map((p) => (
                <th key={p}>{p}</th>
              ))}
            </tr>
          </thead>
          <tbody>
            {AXES.map((axis) => (
              <tr key={axis}>
                <th>{axis}</th>
                {PLANES.map((plane) => {
                  const index = ORDER.findIndex((c) => c.plane === plane && c.axis === axis);
                  const r = taken({ plane, axis })?.value;
                  const shown = r ? (r.mm === null ? 'not read' : unit === 'in' ? (r.mm / 25.4).toFixed(4) : r.mm.toFixed(3)) : '·';
                  return (
                    <td key={plane}>
                      <button
                        type="button"
                        className={index === at ? 'here figure' : 'figure'}
                        onClick={() => go(index)}
                        aria-label={`${plane}, axis ${axis}: ${shown}`}
                      >
                        {shown}
                      </button>
                    </td>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </table>
        <SpecForm
          quantity={station.station.id.startsWith('crank.pin') ? 'crank.pin' : 'crank.main'}
          spec={spec}
          nominal={station.station.id.startsWith('crank.pin') ? view.layout.pinDiameterMm : view.layout.mainDiameterMm}
        />
        {list.length > 0 && <JournalChart readings={list} spec={spec} gauge={gauge} />}
      </section>
      <section className="pane results" aria-label="Results">
        <h2>
          Results <span className="quiet">± is U, k = 2, {gauge.name}</span>
        </h2>
        {list.length === 0 ? (
          <p className="quiet">Nothing read yet. The results build as readings come in.</p>
        ) : (
          <table className="result-table">
            <tbody>
              <Row name="Largest" value={result.max} unit={unit} />
              <Row name="Least" value={result.min} unit={unit} />
              <Row name="Out-of-round" value={result.outOfRound} unit={unit} />
              <Row name="Taper" value={result.taper} unit={unit} signed />
              {result.barrel.map((b) => (
                <tr key={b.axis}>
                  <th>Shape</th>
                  <td className="figure">{barrelText(b, unit)}</td>
                  <td className="quiet">± {formatLength(b.expanded, unit, { digits: unit === 'mm' ? 4 : undefined })}</td>
                </tr>
              ))}
              <Row name="Wear" value={result.wear} unit={unit} />
            </tbody>
          </table>
        )}
        {doubt && <Alert type="warning" title={doubt} />}
        {result.size && (
          <Alert
            type={result.size.kind === 'size' ? 'info' : 'error'}
            title={
              result.size.kind === 'size'
                ? `Next undersize −${result.size.undersizeMm.toFixed(2)} mm, to ${result.size.finishMinMm.toFixed(3)}–${result.size.finishMaxMm.toFixed(3)} mm`
                : 'No undersize left'
            }
            description={result.size.reason}
          />
        )}
      </section>
    </div>
  );
}

function Row({
  name,
  value,
  unit,
  signed = false,
}: {
  name: string;
  value: MeasuredValue | undefined;
  unit: LengthUnit;
  signed?: boolean;
}): ReactNode {
  if (!value) return null;
  const v = value.verdict;
  return (
    <>
      <tr className={v ? 'open' : ''}>
        <th>{name}</th>
        <td className="figure">
          {formatLength(value.value, unit, { signed })}{' '}
          <span className="quiet">± {formatLength(value.expanded, unit, { digits: unit === 'mm' ? 4 : undefined })}</span>
        </td>
        <td>
          {v && <b className={`verdict-word ${v.word.replace(/ /g, '-')}`}>{v.word}</b>} <span className="quiet">{value.at}</span>
        </td>
      </tr>
      {v && (
        <tr>
          <td />
          <td colSpan={2} className="quiet reason">
            {v.reason}
            {v.settle ? `. ${v.settle}` : ''}
          </td>
        </tr>
      )}
    </>
  );
}
