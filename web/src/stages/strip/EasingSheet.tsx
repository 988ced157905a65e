import { Alert, Button, Input, Segmented, Select } from 'antd';
import { easingResult, parseQuantity, type StripPlan } from '@true-ledger/core';
import { useState, type ReactNode } from 'react';
import { useCase, useRecord } from '../../app/caseContext.js';
import { TORQUE_UNITS } from './FastenerSheet.js';

const capName = (cap: string): string => (cap === '' ? 'as it came' : cap.replace('.', ' ').replace(/^rod/, 'big end'));

/** Turning torque as caps are eased one by one: the cap whose easing lets the crank go is named. */
export function EasingSheet({ plan }: { plan: StripPlan }): ReactNode {
  const { view, readOnly } = useCase();
  const record = useRecord();
  const readings = view.strip.easing.map((e) => e.value);
  const result = easingResult(readings.map((r) => ({ cap: r.cap, newtonMetre: r.newtonMetre })));
  const caps = plan.steps.flatMap((s) => (s.cap ? [s.cap] : [])).filter((c) => !readings.some((r) => r.cap === c));
  const mains = caps.filter((c) => c.startsWith('main'));
  const [chosen, setChosen] = useState<string | null>(null);
  const cap = readings.length === 0 ? '' : (chosen ?? mains[0] ?? caps[0] ?? null);
  const [text, setText] = useState('');
  const [unit, setUnit] = useState<'N·m' | 'lb·ft' | 'lb·in'>('N·m');
  const [problem, setProblem] = useState<string | null>(null);
  const take = (): void => {
    if (cap === null) return;
    const parsed = parseQuantity(text, 'torque', unit);
    if (!parsed.ok) return setProblem(parsed.problem.sentence);
    const index = (readings.at(-1)?.index ?? -1) + 1;
    record({
      kind: 'ease-torque',
      station: null,
      body: { index, cap, text: text.trim(), unit: parsed.value.unit, newtonMetre: parsed.value.value },
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
                const last = view.strip.easing.at(-1)!;
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
