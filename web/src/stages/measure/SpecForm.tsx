import { Button, Input, InputNumber } from 'antd';
import type { JournalSpec } from '@true-ledger/core';
import { useState, type ReactNode } from 'react';
import { useCase, useRecord } from '../../app/caseContext.js';

interface Draft {
  readonly minMm: number | null;
  readonly maxMm: number | null;
  readonly outOfRoundMaxMm: number | null;
  readonly taperMaxMm: number | null;
  readonly undersizes: string;
  readonly source: string;
}

/** Specification of all crankpins or all main journals of this engine, with its source. */
export function SpecForm({
  quantity,
  spec,
  nominal,
}: {
  quantity: 'crank.pin' | 'crank.main';
  spec: JournalSpec | null;
  nominal: number;
}): ReactNode {
  const { readOnly } = useCase();
  const record = useRecord();
  const [draft, setDraft] = useState<Draft | null>(null);
  const open = (): void =>
    setDraft({
      minMm: spec?.minMm ?? nominal - 0.016,
      maxMm: spec?.maxMm ?? nominal,
      outOfRoundMaxMm: spec?.outOfRoundMaxMm ?? null,
      taperMaxMm: spec?.taperMaxMm ?? null,
      undersizes: (spec?.undersizesMm ?? [0.25, 0.5, 0.75, 1]).join(', '),
      source: spec?.source ?? '',
    });
  if (!draft)
    return (
      <p className="spec-line">
        {spec ? (
          <>
            Specification{' '}
            <span className="figure">
              {spec.minMm.toFixed(3)}–{spec.maxMm.toFixed(3)} mm
            </span>
            {spec.outOfRoundMaxMm !== undefined && (
              <>
                , out-of-round <span className="figure">≤ {spec.outOfRoundMaxMm.toFixed(3)}</span>
              </>
            )}
            {spec.taperMaxMm !== undefined && (
              <>
                , taper <span className="figure">≤ {spec.taperMaxMm.toFixed(3)}</span>
              </>
            )}{' '}
            <span className="quiet">({spec.source || 'source not stated'})</span>
          </>
        ) : (
          'No specification yet: results come without a verdict.'
        )}{' '}
        {!readOnly && (
          <Button size="small" onClick={open}>
            {spec ? 'Correct it' : 'Enter the specification'}
          </Button>
        )}
      </p>
    );
  const steps = draft.undersizes
    .split(/[\s,;]+/)
    .filter(Boolean)
    .map(Number);
  const faults = [
    draft.minMm === null || draft.maxMm === null
      ? 'Both sizes are needed.'
      : draft.maxMm < draft.minMm
        ? 'The upper size is smaller than the lower.'
        : '',
    steps.some((s) => !(s > 0)) ? 'Undersizes are figures in mm, parted by commas.' : '',
    draft.source.trim() === '' ? 'Name the source: spec sheet, book and page, or measured new part.' : '',
  ].filter(Boolean);
  const set = (part: Partial<Draft>): void => setDraft({ ...draft, ...part });
  const figure = (field: 'minMm' | 'maxMm' | 'outOfRoundMaxMm' | 'taperMaxMm', label: string): ReactNode => (
    <label>
      <span>{label}</span>
      <InputNumber
        value={draft[field]}
        step={0.001}
        min={0}
        precision={4}
        onChange={(v) => set({ [field]: v })}
        style={{ width: '100%' }}
        suffix="mm"
      />
    </label>
  );
  return (
    <div className="spec-form">
      <div className="fields">
        {figure('minMm', 'Least size new')}
        {figure('maxMm', 'Largest size new')}
        {figure('outOfRoundMaxMm', 'Out-of-round limit')}
        {figure('taperMaxMm', 'Taper limit')}
        <label>
          <span>Undersizes, mm</span>
          <Input value={draft.undersizes} onChange={(e) => set({ undersizes: e.target.value })} />
        </label>
        <label>
          <span>Source</span>
          <Input value={draft.source} maxLength={200} onChange={(e) => set({ source: e.target.value })} />
        </label>
      </div>
      {faults.map((f) => (
        <p key={f} className="fault">
          {f}
        </p>
      ))}
      <div className="row">
        <Button
          type="primary"
          disabled={faults.length > 0}
          onClick={() => {
            record({
              kind: 'spec-set',
              station: null,
              body: {
                quantity,
                spec: {
                  minMm: draft.minMm!,
                  maxMm: draft.maxMm!,
                  ...(draft.outOfRoundMaxMm ? { outOfRoundMaxMm: draft.outOfRoundMaxMm } : {}),
                  ...(draft.taperMaxMm ? { taperMaxMm: draft.taperMaxMm } : {}),
                  undersizesMm: steps,
                  source: draft.source.trim(),
                },
              },
            });
            setDraft(null);
          }}
        >
          Keep the specification
        </Button>
        <Button onClick={() => setDraft(null)}>Leave as it was</Button>
      </div>
    </div>
  );
}
