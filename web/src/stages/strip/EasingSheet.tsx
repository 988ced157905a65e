import { Alert, Button, Input, Segmented, Select } from 'antd';
import { parseQuantity } from '@true-ledger/core/units';
import { easingResult, type StripPlan } from '@true-ledger/core/strip';
import { useState, type ReactNode } from 'react';
import { useCase, useNow, useRecord } from '../../app/caseContext.js';
import { TORQUE_UNITS } from './FastenerSheet.js';
import './strip.css';

const capName = (cap: string): string => (cap === '' ? 'as it came' : cap.replace('.', ' ').replace(/^rod/, 'big end'));

type Reading = { readonly index: number; readonly cap: string };

/** Caps not eased yet, mains first. */
function capsToEase(plan: StripPlan, readings: readonly Reading[]): string[] {
  const open = plan.steps.flatMap((s) => (s.cap ? [s.cap] : [])).filter((c) => !readings.some((r) => r.cap === c));
  return [...open.filter((c) => c.startsWith('main')), ...open.filter((c) => !c.startsWith('main'))];
}

/** What the next figure is for: all caps tight, the cap chosen, or the next in the row. */
const capAsked = (open: readonly string[], readings: readonly Reading[], chosen: string | null): string | null =>
  readings.length === 0 ? '' : (chosen ?? open[0] ?? null);

/** Turning torque as caps are eased one by one: the cap whose easing lets the crank go is named. */
export function EasingSheet({ plan }: { plan: StripPlan }): ReactNode {
  const { view, readOnly } = useCase();
  const record = useRecord();
  const readings = view.easing.map((e) => e.value);
  const result = easingResult(readings.map((r) => ({ cap: r.cap, newtonMetre: r.newtonMetre })));
  const [chosen, setChosen] = useState<string | null>(null);
  const caps = capsToEase(plan, readings);
  const cap = capAsked(caps, readings, chosen);
  const now = useNow();
  const [text, setText] = useState('');
  const [unit, setUnit] = useState<'N·m' | 'lb·ft' | 'lb·in'>('N·m');
  const [problem, setProblem] = useState<string | null>(null);
  const take = (): void => {
    const held = now().easing.map((e) => e.value);
    const eased = capAsked(capsToEase(plan, held), held, held.length === readings.length ? chosen : null);
    if (eased === null) return;
    const parsed = parseQuantity(text, 'torque', unit);
    if (!parsed.ok) return setProblem(parsed.problem.sentence);
    const index = (held.at(-1)?.index ?? -1) + 1;
    record({
      kind: 'ease-torque',
      station: null,
      body: { index, cap: eased, text: text.trim(), unit: parsed.value.unit, newtonMetre: parsed.value.value },
    });
    setText('');
    setChosen(null);
    setProblem(null);
  };
  const most = Math.max(1, ...readings.map((r) => r.newtonMetre));
  return (
    <section className="easing" aria-label="Turning torque while easing caps">
      <h3>Turning torque while caps are eased</h3>
      {readings.length > 0 && (
        <table className="lines easing-table">
          <tbody>
            {readings.map((r, i) => {
              const drop = result?.drops[i - 1];
              return (
                <tr key={r.index} className={result?.binding === r.cap && r.cap !== '' ? 'binds' : ''}>
                  <td>{r.cap === '' ? 'As it came' : `${capName(r.cap)} eased`}</td>
                  <td className="figure">
                    {r.text} {/[a-z]/i.test(r.text) ? '' : r.unit}
                  </td>
                  <td>
                    <span className="bar" aria-hidden="true">
                      <i style={{ width: `${(r.newtonMetre / most) * 100}%` }} />
                    </span>
                  </td>
                  <td className="figure quiet">{drop ? `−${drop.drop.toFixed(0)} N·m` : ''}</td>
                </tr>
              );
            })}
          </tbody>
        </table>
      )}
      {!readOnly && cap !== null && (
        <div className="row torque-entry">
          {readings.length === 0 ? (
            <span>All caps tight</span>
          ) : (
            <Select
              value={cap}
              options={caps.map((c) => ({ value: c, label: `${capName(c)} eased` }))}
              onChange={setChosen}
              aria-label="Cap eased just now"
              style={{ width: 180 }}
            />
          )}
          <Input
            className="figure"
            value={text}
            style={{ width: 110 }}
            aria-label="Turning torque"
            inputMode="decimal"
            maxLength={30}
            status={problem ? 'error' : ''}
            onChange={(e) => {
              setText(e.target.value);
              setProblem(null);
            }}
            onPressEnter={take}
          />
          <Segmented size="small" options={TORQUE_UNITS} value={unit} onChange={setUnit} aria-label="Unit of the turning torque" />
          {readings.length > 0 && (
            <Button
              size="small"
              type="text"
              onClick={() => {
                const last = now().easing.at(-1);
                if (!last) return;
                record({
                  kind: 'retracted',
                  station: null,
                  body: { target: last.version.entry, slot: `ease:${last.value.index}`, reason: 'taken back' },
                });
              }}
            >
              Take the last back
            </Button>
          )}
        </div>
      )}
      {problem && <Alert type="error" role="alert" title={problem} />}
      {result && (
        <Alert
          type={result.binding ? 'warning' : 'info'}
          title={
            result.binding
              ? `Cap ${capName(result.binding)} binds: ${result.words.replace(result.binding, 'it')}.`
              : `${result.words[0]?.toUpperCase()}${result.words.slice(1)}.`
          }
        />
      )}
    </section>
  );
}
