import { Select, Slider } from 'antd';
import { OIL_GRADES } from '@true-ledger/core/film';
import { OIL_FAULTS, type OilFault } from '@true-ledger/core/oil';
import { ASLANT_NAMES, type Run, type RunSetting } from '@true-ledger/core/running';
import { memo, type ReactNode } from 'react';
import { useCase } from '../../app/caseContext.js';
import { FAULT_AMOUNTS, FAULT_NAMES, placeName } from './faultWords.js';

type Aslant = NonNullable<RunSetting['aslant']>;

/** How the engine is let run. */
export const Controls = memo(function Controls({
  setting,
  onChange,
  run,
  measured,
}: {
  setting: RunSetting;
  onChange: (setting: RunSetting) => void;
  run: Run | null;
  measured: ReadonlyMap<string, number>;
}): ReactNode {
  const { layout } = useCase().view;
  const set = (more: Partial<RunSetting>): void => onChange({ ...setting, ...more });
  const bearings = [
    ...Array.from({ length: layout.cylinders }, (_, i) => `rod.${i + 1}`),
    ...Array.from({ length: layout.mains }, (_, i) => `main.${i + 1}`),
  ];
  const { bearing } = setting;
  const own = measured.get(bearing);
  const clearance = setting.clearancesMm[bearing] ?? run?.clearanceMm ?? 0.05;
  const [fault] = setting.faults;
  const kinds = OIL_FAULTS.filter((k) => run?.faultPlaces && (run.faultPlaces[k] === null || run.faultPlaces[k].length > 0));
  const begin = (kind: (typeof OIL_FAULTS)[number], at?: string): OilFault => {
    const places = run?.faultPlaces?.[kind];
    const amount = FAULT_AMOUNTS[kind]?.first;
    return { kind, ...(places ? { at: at ?? places[0]! } : {}), ...(amount === undefined ? {} : { amount }) };
  };
  return (
    <>
      <label className="wide">
        <span>Bearing</span>
        <Select
          id="loads-bearing"
          showSearch={{ optionFilterProp: 'label' }}
          value={bearing}
          onChange={(to) =>
            set({ bearing: to, ...(setting.aslant?.kind.endsWith('rod') && !to.startsWith('rod') ? { aslant: null } : {}) })
          }
          options={bearings.map((value) => ({ value, label: placeName(value) }))}
        />
      </label>
      <Setting
        name="Speed"
        told={`${setting.speedRpm} rpm`}
        min={300}
        max={Math.round(layout.peakRpm * 1.4)}
        step={50}
        value={setting.speedRpm}
        onChange={(speedRpm) => set({ speedRpm })}
      />
      <Setting
        name="Load"
        told={`${Math.round(100 * setting.loadShare)} %`}
        min={0}
        max={1.2}
        step={0.05}
        value={setting.loadShare}
        onChange={(loadShare) => set({ loadShare })}
      />
      <label className="wide">
        <span>Oil</span>
        <Select
          id="loads-oil"
          showSearch={{ optionFilterProp: 'label' }}
          value={setting.oilGrade}
          onChange={(oilGrade) => set({ oilGrade })}
          options={Object.keys(OIL_GRADES).map((value) => ({ value, label: value }))}
        />
      </label>
      <Setting
        name="Oil temperature"
        told={`${setting.oilTemperatureC} °C`}
        min={-10}
        max={150}
        step={5}
        value={setting.oilTemperatureC}
        onChange={(oilTemperatureC) => set({ oilTemperatureC })}
      />
      <Setting
        name="Fuel in the oil"
        told={`${Math.round(100 * setting.fuelShare)} %`}
        min={0}
        max={0.2}
        step={0.01}
        value={setting.fuelShare}
        onChange={(fuelShare) => set({ fuelShare })}
      />
      <Setting
        name="Clearance"
        told={`${clearance.toFixed(3)} mm`}
        note={own === undefined ? 'not measured' : `measured ${own.toFixed(3)} mm (mark)`}
        min={0.01}
        max={0.3}
        step={0.005}
        value={clearance}
        onChange={(mm) => set({ clearancesMm: { ...setting.clearancesMm, [bearing]: mm } })}
        {...(own === undefined ? {} : { mark: own })}
      />
      <label className="wide">
        <span>Runs aslant</span>
        <Select
          id="loads-aslant"
          showSearch={{ optionFilterProp: 'label' }}
          value={setting.aslant?.kind ?? ''}
          onChange={(kind: Aslant['kind'] | '') => set({ aslant: kind === '' ? null : { kind, amountM: setting.aslant?.amountM ?? 2e-5 } })}
          options={[
            { value: '' as const, label: 'No' },
            ...(Object.entries(ASLANT_NAMES) as Array<[Aslant['kind'], string]>)
              .filter(([kind]) => bearing.startsWith('rod') || !kind.endsWith('rod'))
              .map(([value, label]) => ({ value, label })),
          ]}
        />
      </label>
      {setting.aslant && (
        <Setting
          name="By"
          told={`${Math.round(setting.aslant.amountM * 1e6)} µm`}
          min={2}
          max={80}
          step={1}
          value={Math.round(setting.aslant.amountM * 1e6)}
          onChange={(um) => set({ aslant: { kind: setting.aslant!.kind, amountM: um * 1e-6 } })}
        />
      )}
      <label className="wide">
        <span>Fault of the oil circuit</span>
        <Select
          id="loads-fault"
          showSearch={{ optionFilterProp: 'label' }}
          value={fault?.kind ?? ''}
          disabled={kinds.length === 0}
          onChange={(kind: OilFault['kind'] | '') => set({ faults: kind === '' ? [] : [begin(kind)] })}
          options={[{ value: '' as const, label: 'None' }, ...kinds.map((value) => ({ value, label: FAULT_NAMES[value] }))]}
        />
      </label>
      {fault && run?.faultPlaces?.[fault.kind] && (
        <label className="wide">
          <span>At</span>
          <Select
            id="loads-at"
            showSearch={{ optionFilterProp: 'label' }}
            value={fault.at ?? null}
            onChange={(at) => set({ faults: [{ ...fault, ...(at ? { at } : {}) }] })}
            options={run.faultPlaces[fault.kind]!.map((value) => ({ value, label: placeName(value) }))}
          />
        </label>
      )}
      {fault?.amount !== undefined && FAULT_AMOUNTS[fault.kind] && (
        <Setting
          name="How much"
          told={FAULT_AMOUNTS[fault.kind]!.told(fault.amount)}
          min={FAULT_AMOUNTS[fault.kind]!.min}
          max={FAULT_AMOUNTS[fault.kind]!.max}
          step={FAULT_AMOUNTS[fault.kind]!.step}
          value={fault.amount}
          onChange={(amount) => set({ faults: [{ ...fault, amount }] })}
        />
      )}
    </>
  );
});

function Setting({
  name,
  told,
  min,
  max,
  step,
  value,
  mark,
  note,
  onChange,
}: {
  name: string;
  told: string;
  min: number;
  max: number;
  step: number;
  value: number;
  mark?: number;
  note?: string;
  onChange: (value: number) => void;
}): ReactNode {
  return (
    <div className="setting">
      <div className="setting-head">
        <span>{name}</span>
        <span className="figure">{told}</span>
      </div>
      <Slider
        min={min}
        max={max}
        step={step}
        value={value}
        onChange={onChange}
        tooltip={{ open: false }}
        ariaLabelForHandle={name}
        ariaValueTextFormatterForHandle={() => told}
        {...(mark === undefined ? {} : { marks: { [mark]: '' } })}
      />
      {note && <span className="quiet">{note}</span>}
    </div>
  );
}
