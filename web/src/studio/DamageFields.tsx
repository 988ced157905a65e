import { Button, Select, Switch } from 'antd';
import type { Damage } from '@true-ledger/core/specimen';
import type { ReactNode } from 'react';
import { NumberField } from '../fields/NumberField.js';
import './studio.css';

const KIND_WORDS: Readonly<Record<Damage['kind'], string>> = {
  polish: 'Polish',
  wipe: 'Wiped lining',
  edge: 'Worn edge',
  score: 'Score',
  fatigue: 'Net of cracks',
  heat: 'Heat',
  rust: 'Rust',
  specks: 'Embedded specks',
  wear: 'Wear map',
  temper: 'Temper colours',
  transfer: 'Transfer',
  scuff: 'Scuffing',
  coat: 'Printed layer',
  pits: 'Pits',
  crack: 'Crack',
  deposit: 'Deposit',
  glaze: 'Glaze',
  gone: 'Material gone',
  etch: 'Etched',
  brinell: 'Marks of rollers',
  step: 'Step',
  contact: 'Contact',
};
const FIELD_WORDS: Readonly<Record<string, string>> = {
  arc: 'at, °',
  halfDeg: 'half arc, °',
  axial: 'at height',
  axialHalf: 'half height',
  fromDeg: 'from, °',
  toDeg: 'to, °',
  from: 'from height',
  to: 'to height',
  widthMm: 'width, mm',
  mostMm: 'largest, mm',
  longMm: 'length, mm',
  radiusMm: 'radius, mm',
  heightMm: 'height, mm',
  turnDeg: 'direction, °',
  pitchDeg: 'pitch, °',
  widthDeg: 'width, °',
};
/** What can be added by hand, as it begins. */
const NEW: readonly Damage[] = [
  { kind: 'score', axial: 0.5, fromDeg: 20, toDeg: 160, widthMm: 0.4, through: false },
  { kind: 'wipe', arc: 90, halfDeg: 20, amount: 0.9 },
  { kind: 'edge', edge: 'rear', depth: 0.15, fromDeg: 30, toDeg: 150 },
  { kind: 'fatigue', arc: 90, halfDeg: 25, axial: 0.5, lost: 0.2 },
  { kind: 'heat', arc: 120, halfDeg: 50, most: 0.8 },
  { kind: 'rust', arc: 90, halfDeg: 30, amount: 0.5 },
  { kind: 'specks', count: 20 },
  { kind: 'temper', arc: 180, halfDeg: 180, axial: 0.5, axialHalf: 0.3, most: 0.8 },
  { kind: 'transfer', arc: 180, halfDeg: 40, axial: 0.5, axialHalf: 0.3, cover: 0.3, metal: 'bronze' },
  { kind: 'scuff', arc: 180, halfDeg: 15, from: 0.1, to: 0.8, amount: 1 },
  { kind: 'pits', arc: 90, halfDeg: 20, axial: 0.5, axialHalf: 0.2, count: 40, mostMm: 0.7 },
  { kind: 'crack', arc: 90, axial: 0.5, turnDeg: 10, longMm: 12 },
  { kind: 'deposit', arc: 90, halfDeg: 40, axial: 0.5, axialHalf: 0.4, amount: 0.8 },
  { kind: 'gone', arc: 90, axial: 0.5, radiusMm: 2, ragged: 0.8 },
  { kind: 'etch', arc: 90, halfDeg: 40, amount: 0.6 },
];

interface Props {
  readonly damages: readonly Damage[];
  readonly changed: boolean;
  /** Null goes back to the pattern as it comes. */
  readonly onChange: (damages: readonly Damage[] | null) => void;
}

/** Every damage of a specimen with its figures, to be changed, taken away or added to. */
export function DamageFields({ damages, changed, onChange }: Props): ReactNode {
  const set = (n: number, field: string, value: unknown): void =>
    onChange(damages.map((d, k) => (k === n ? ({ ...d, [field]: value } as Damage) : d)));
  return (
    <details className="damage-fields" open={changed}>
      <summary>
        {damages.length} {damages.length === 1 ? 'damage' : 'damages'} by their figures
      </summary>
      {damages.map((d, n) => (
        <fieldset key={n}>
          <legend>
            {KIND_WORDS[d.kind]}
            <Button size="small" type="text" onClick={() => onChange(damages.filter((_, k) => k !== n))}>
              Take out
            </Button>
          </legend>
          {Object.entries(d).map(([field, value]) =>
            typeof value === 'number' ? (
              <label key={field}>
                {FIELD_WORDS[field] ?? field}
                <NumberField
                  size="small"
                  value={value}
                  whole={field === 'count'}
                  min={field === 'heightMm' ? -1 : 0}
                  max={400}
                  aria-label={`${KIND_WORDS[d.kind]} ${n + 1}: ${FIELD_WORDS[field] ?? field}`}
                  onChange={(v) => v !== null && set(n, field, v)}
                />
              </label>
            ) : typeof value === 'boolean' ? (
              <label key={field} className="inline">
                <Switch size="small" checked={value} onChange={(v) => set(n, field, v)} /> {field}
              </label>
            ) : null,
          )}
        </fieldset>
      ))}
      <div className="row">
        <Select
          size="small"
          value={null}
          placeholder="Add a damage"
          aria-label="Add a damage"
          style={{ width: 180 }}
          onChange={(k: number | null) => k !== null && onChange([...damages, NEW[k]!])}
          options={NEW.map((d, k) => ({ value: k, label: KIND_WORDS[d.kind] }))}
        />
        {changed && (
          <Button size="small" onClick={() => onChange(null)}>
            As the pattern comes
          </Button>
        )}
      </div>
    </details>
  );
}
