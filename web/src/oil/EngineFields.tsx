import { Input, Select } from 'antd';
import type { EngineRecord } from '@true-ledger/core/engineLog';
import type { ReactNode } from 'react';
import { NumberField } from '../fields/NumberField.js';

export const NEW_ENGINE: EngineRecord = {
  mark: '',
  name: '',
  counter: 'h',
  fuel: 'diesel',
  cooling: 'liquid',
  sumpL: 8,
  marksL: 1.5,
  changeEvery: null,
};

const MARK = /^[A-Za-z0-9][A-Za-z0-9-]{1,23}$/;

/** Why a record cannot be kept as it is; null where it can. */
export const engineFault = (r: EngineRecord): string | null =>
  !MARK.test(r.mark)
    ? 'The mark is 2 to 24 letters, digits and dashes.'
    : r.name.trim() === ''
      ? 'Give the engine a name by which the shop knows it.'
      : r.marksL > r.sumpL
        ? 'Between the marks of the stick there is less than the whole filling.'
        : null;

const FUELS = ['petrol', 'diesel', 'gas', 'alcohol', 'premix'] as const;

/** The fields of an engine's own record. */
export function EngineFields({ record, onChange }: { record: EngineRecord; onChange: (next: EngineRecord) => void }): ReactNode {
  const set = (part: Partial<EngineRecord>): void => onChange({ ...record, ...part });
  const figure = (key: 'sumpL' | 'marksL', label: string): ReactNode => (
    <label>
      <span>{label}</span>
      <NumberField value={record[key]} unit="l" min={0.01} max={2000} onChange={(v) => v !== null && set({ [key]: v })} />
    </label>
  );
  return (
    <div className="fields">
      <label>
        <span>Mark</span>
        <Input value={record.mark} maxLength={24} onChange={(e) => set({ mark: e.target.value.trim() })} />
      </label>
      <label>
        <span>Name, without a client’s</span>
        <Input value={record.name} maxLength={120} onChange={(e) => set({ name: e.target.value })} />
      </label>
      <label>
        <span>Counts</span>
        <Select
          value={record.counter}
          aria-label="Counts"
          options={[
            { value: 'h', label: 'hours' },
            { value: 'km', label: 'kilometres' },
          ]}
          onChange={(counter) => set({ counter })}
        />
      </label>
      <label>
        <span>Fuel</span>
        <Select
          value={record.fuel}
          aria-label="Fuel"
          options={FUELS.map((value) => ({ value, label: value }))}
          onChange={(fuel) => set({ fuel })}
        />
      </label>
      <label>
        <span>Cooled by</span>
        <Select
          value={record.cooling}
          aria-label="Cooled by"
          options={[
            { value: 'liquid', label: 'liquid' },
            { value: 'air', label: 'air' },
          ]}
          onChange={(cooling) => set({ cooling })}
        />
      </label>
      {figure('sumpL', 'Oil at the upper mark')}
      {figure('marksL', 'Between the marks')}
      <label>
        <span>Oil change every</span>
        <NumberField
          value={record.changeEvery}
          unit={record.counter}
          min={1}
          max={1_000_000}
          placeholder="not kept to any"
          onChange={(changeEvery) => set({ changeEvery })}
        />
      </label>
    </div>
  );
}
