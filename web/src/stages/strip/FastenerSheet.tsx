import { Alert, Button, Input, Segmented } from 'antd';
import { formatQuantity, parseQuantity, QUANTITIES } from '@true-ledger/core/units';
import { boltCell, BREAK_LOOSE, fastenerResult, type FastenerPattern } from '@true-ledger/core/strip';
import { useEffect, useRef, useState, type ReactNode } from 'react';
import { useGaugesQuery, useStandInsQuery } from '../../app/api.js';
import { useCase, useRecord } from '../../app/caseContext.js';
import { sendWire, useWire, WIRE_WORDS } from '../../gauges/wire.js';
import { COLOUR } from '../../app/tokens.js';
import './strip.css';

type TorqueUnit = 'N·m' | 'lb·ft' | 'lb·in';
export const TORQUE_UNITS = Object.keys(QUANTITIES.torque.units) as TorqueUnit[];

/** Break-loose torque of one pattern: a drawing of where each fastener sits, one figure and Enter each, in the order they are eased. */
export function FastenerSheet({ pattern }: { pattern: FastenerPattern }): ReactNode {
  const { view, caseId, readOnly } = useCase();
  const record = useRecord();
  const read = new Map(view.bolts.filter((b) => b.value.pattern === pattern.id).map((b) => [b.value.position, b.value]));
  const [at, setAt] = useState(() =>
    Math.max(
      0,
      pattern.easing.findIndex((id) => !read.has(id)),
    ),
  );
  const [text, setText] = useState('');
  const [unit, setUnit] = useState<TorqueUnit>((([...read.values()].at(-1)?.unit as TorqueUnit | undefined) ?? 'N·m') satisfies TorqueUnit);
  const [problem, setProblem] = useState<string | null>(null);
  const input = useRef<{ focus: () => void }>(null);
  const first = useRef(true);
  useEffect(() => {
    // The page decides where the hand starts; only later steps move it.
    if (first.current) first.current = false;
    else input.current?.focus();
  }, [at]);
  const position = pattern.easing[at] ?? pattern.easing[0]!;
  const result = fastenerResult(
    pattern,
    [...read.values()].flatMap((b) => (b.newtonMetre === null ? [] : [{ position: b.position, newtonMetre: b.newtonMetre }])),
  );
  const uneven = new Set(result?.uneven.flatMap((u) => u.positions) ?? []);
  const go = (to: number): void => {
    setAt((to + pattern.easing.length) % pattern.easing.length);
    setText('');
    setProblem(null);
  };
  const take = (typed = text, typedUnit: string = unit): void => {
    if (typed.trim() === '-') {
      record({ kind: 'bolt-torque', station: null, body: { pattern: pattern.id, position, text: '-', unit, newtonMetre: null } });
      go(at + 1);
      return;
    }
    const parsed = parseQuantity(typed, 'torque', typedUnit);
    if (!parsed.ok) return setProblem(parsed.problem.sentence);
    record({
      kind: 'bolt-torque',
      station: null,
      body: { pattern: pattern.id, position, text: typed.trim(), unit: parsed.value.unit, newtonMetre: parsed.value.value },
    });
    go(at + 1);
  };
  const { data: gauges = [] } = useGaugesQuery();
  const { data: standIns = [] } = useStandInsQuery();
  const wrench = readOnly ? undefined : gauges.find((g) => g.kind === 'torque-wrench' && standIns.some((s) => s.gaugeId === g.id));
  const cell = boltCell(pattern.id, position);
  const wire = useWire(wrench !== undefined, (m) => {
    if (m.type === 'refused') return setProblem(m.sentence);
    if (m.type === 'changed' || m.gauge !== wrench?.id || m.at === 'master') return;
    if (m.at.caseId !== caseId || m.at.sheet !== BREAK_LOOSE || m.at.cell !== cell) return;
    if (m.type === 'reading') take(m.text, m.unit);
    else
      setProblem(
        `${wrench.name} sent nothing at fastener ${position}. What was read before is kept. Ease it by hand and type the figure, or press again.`,
      );
  });
  const press = (): void => {
    if (wrench && !sendWire({ type: 'press', gauge: wrench.id, at: { caseId, station: null, sheet: BREAK_LOOSE, cell } }))
      setProblem('The wire to the gauges is down, nothing was read. What was read before is kept; type the figure until it is up again.');
  };
  const scale = Math.min(1.5, 470 / pattern.widthMm, 190 / pattern.heightMm);
  return (
    <section className="fasteners" aria-label={`Break-loose torque, ${pattern.name}`}>
      <h3>
        {pattern.name}: break-loose torque{' '}
        <span className="quiet figure">
          {read.size} of {pattern.positions.length}
        </span>
      </h3>
      <svg
        width={pattern.widthMm * scale}
        height={pattern.heightMm * scale}
        viewBox={`0 0 ${pattern.widthMm} ${pattern.heightMm}`}
        role="group"
        aria-label={`${pattern.name} as they lie, front at left`}
      >
        <rect
          x="1"
          y="1"
          width={pattern.widthMm - 2}
          height={pattern.heightMm - 2}
          fill={COLOUR.head}
          stroke={COLOUR.pencil}
          strokeWidth={1 / scale}
        />
        {pattern.positions.map((p) => {
          const held = read.get(p.id);
          const here = p.id === position;
          const r = 15 / scale;
          return (
            <g key={p.id} transform={`translate(${p.x} ${p.y})`} className={here ? 'bolt here' : 'bolt'}>
              <circle
                r={r}
                fill={uneven.has(p.id) ? COLOUR.copperWash : held ? COLOUR.steel : COLOUR.paper}
                stroke={here ? COLOUR.accent : uneven.has(p.id) ? COLOUR.copper : COLOUR.pencil}
                strokeWidth={(here ? 3 : 1.4) / scale}
                strokeDasharray={held ? undefined : `${4 / scale} ${3 / scale}`}
                tabIndex={0}
                role="button"
                aria-label={`Fastener ${p.id}: ${held ? held.text : 'not read'}`}
                onClick={() => go(pattern.easing.indexOf(p.id))}
                onKeyDown={(e) => {
                  if (e.key === 'Enter' || e.key === ' ') go(pattern.easing.indexOf(p.id));
                }}
              />
              <text y={4 / scale} fontSize={11 / scale} textAnchor="middle" pointerEvents="none" fill={COLOUR.ink}>
                {held ? (held.newtonMetre === null ? '–' : Math.round(held.newtonMetre)) : p.id}
              </text>
            </g>
          );
        })}
      </svg>
      {!readOnly && (
        <div className="row torque-entry">
          <label className="row">
            <span>
              Fastener <b className="figure">{position}</b>
            </span>
            <Input
              ref={input as never}
              className="figure"
              value={text}
              style={{ width: 120 }}
              status={problem ? 'error' : ''}
              inputMode="decimal"
              aria-label={`Break-loose torque of fastener ${position}`}
              maxLength={30}
              onChange={(e) => {
                setText(e.target.value);
                setProblem(null);
              }}
              onPressEnter={() => (text.trim() === '' && wrench ? press() : take())}
              onKeyDown={(e) => {
                if (e.key === 'Backspace' && text === '') go(at - 1);
              }}
            />
          </label>
          <Segmented<TorqueUnit> size="small" options={TORQUE_UNITS} value={unit} onChange={setUnit} aria-label="Unit when none is typed" />
          {wrench && (
            <>
              <Button size="small" title={`${wrench.name}; Enter on the empty field does the same`} onClick={press}>
                Press the wrench
              </Button>
              <span className={`wire ${wire}`}>{WIRE_WORDS[wire]}</span>
            </>
          )}
        </div>
      )}
      {problem && <Alert type="error" role="alert" title={problem} />}
      {result && (
        <p>
          {result.count} read: {formatQuantity(result.least, 'torque', unit)} to {formatQuantity(result.most, 'torque', unit)}, mean{' '}
          {formatQuantity(result.mean, 'torque', unit)}.{' '}
          {result.uneven.length === 0 ? (
            <span className="quiet">No pair more than 30 % apart (rule of thumb).</span>
          ) : (
            <b className="verdict-word outside">
              {result.uneven.map((u) => `${u.positions.join(' against ')}: ${u.percent.toFixed(0)} % apart`).join('; ')}
            </b>
          )}
        </p>
      )}
    </section>
  );
}
