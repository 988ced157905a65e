import { Alert, Button, Input, Select } from 'antd';
import type { ApiError } from '@true-ledger/contract';
import { GAUGE_KINDS, type Gauge } from '@true-ledger/core/units';
import { useState, type ReactNode } from 'react';
import { NumberField } from '../fields/NumberField.js';
import { useSaveGaugeMutation } from '../app/api.js';
import { asProblem } from '../app/server.js';
import { idOfName } from '../app/idOfName.js';
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

export function GaugeForm({
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
  const id = draft.id || idOfName(draft.name);
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
