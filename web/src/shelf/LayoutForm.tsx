import { Alert, Input, Select } from 'antd';
import { pinCount, stationsOf, validateLayout, type EngineLayout } from '@true-ledger/core/engine';
import { useState, type ReactNode } from 'react';
import { NumberField } from '../fields/NumberField.js';
import { PlanSvg } from '../surface/PlanSvg.js';
import './shelf.css';

/** Shells that may be of another construction than the rest: the pattern of their stations, and the bearings that must have shells. What was stated stays in sight where they no longer have any, so that it can be taken back. */
const OTHER_SHELLS = [
  ['main.**', 'mainBearings', 'Main shells, where they differ'],
  ['rod.**', 'bigEnds', 'Big-end shells, where they differ'],
] as const;

type Choice = { [K in keyof EngineLayout]-?: EngineLayout[K] extends string ? K : never }[keyof EngineLayout];
type Figure = { [K in keyof EngineLayout]-?: EngineLayout[K] extends number ? K : never }[keyof EngineLayout];

const FIGURES: ReadonlyArray<readonly [Figure, string, string, whole: boolean]> = [
  ['cylinders', 'Cylinders', '', true],
  ['boreMm', 'Bore', 'mm', false],
  ['strokeMm', 'Stroke', 'mm', false],
  ['rodLengthMm', 'Rod length', 'mm', false],
  ['mains', 'Mains', '', true],
  ['thrustMain', 'Thrust on main', '0 = none', true],
  ['mainDiameterMm', 'Main journal Ø', 'mm', false],
  ['pinDiameterMm', 'Crankpin Ø', 'mm', false],
  ['mainShellWidthMm', 'Main shell width', 'mm', false],
  ['rodShellWidthMm', 'Big-end shell width', 'mm', false],
  ['bankAngleDeg', 'Bank angle', '°', false],
  ['compressionRatio', 'Compression ratio', '', false],
  ['peakRpm', 'Peak speed', 'rpm', false],
];

/** Known or not: an empty field says nothing. */
const SERVICE = [
  ['hours', 'Hours run', 'h'],
  ['distanceKm', 'Distance run', 'km'],
  ['ageYears', 'Age', 'years'],
] as const;

const STATED = [
  [
    'aspiration',
    'Aspiration',
    [
      ['natural', 'Natural'],
      ['turbocharged', 'Turbocharged'],
      ['supercharged', 'Supercharged'],
    ],
  ],
  [
    'shellLocation',
    'Shells located by',
    [
      ['tab', 'A tab'],
      ['tabless', 'Nothing but crush'],
    ],
  ],
] as const;

const CHOICES: ReadonlyArray<readonly [Choice, string, ReadonlyArray<readonly [string, string]>]> = [
  [
    'arrangement',
    'Arrangement',
    [
      ['single', 'Single'],
      ['inline', 'Inline'],
      ['vee', 'V'],
      ['flat', 'Flat'],
    ],
  ],
  [
    'cycle',
    'Cycle',
    [
      ['four-stroke', 'Four-stroke'],
      ['two-stroke', 'Two-stroke'],
    ],
  ],
  [
    'fuel',
    'Fuel',
    [
      ['petrol', 'Petrol'],
      ['diesel', 'Diesel'],
      ['gas', 'Gas'],
      ['alcohol', 'Alcohol'],
      ['premix', 'Premix'],
    ],
  ],
  [
    'numbering',
    'Numbering',
    [
      ['along-each-bank', 'Along each bank'],
      ['alternating', 'Alternating'],
    ],
  ],
  [
    'firstBank',
    'Cylinder 1 in',
    [
      ['left', 'Left bank, seen from the flywheel'],
      ['right', 'Right bank, seen from the flywheel'],
    ],
  ],
  [
    'cylinderOneEnd',
    'Cylinder 1 at',
    [
      ['front', 'Front end'],
      ['flywheel', 'Flywheel end'],
    ],
  ],
  [
    'rotation',
    'Rotation, seen from the flywheel',
    [
      ['anticlockwise', 'Anticlockwise'],
      ['clockwise', 'Clockwise'],
    ],
  ],
  [
    'crankpins',
    'Crankpins',
    [
      ['own', 'One a rod'],
      ['shared', 'Shared by two rods'],
    ],
  ],
  [
    'mainBearings',
    'Main bearings',
    [
      ['shells', 'Plain shells'],
      ['bush', 'Plain bush'],
      ['direct', 'Journal directly in the case'],
      ['rolling', 'Rolling'],
    ],
  ],
  [
    'bigEnds',
    'Big ends',
    [
      ['shells', 'Plain shells'],
      ['direct', 'Rod directly on pin'],
      ['rolling', 'Rolling'],
    ],
  ],
  [
    'shellConstruction',
    'Shell construction',
    [
      ['trimetal', 'Trimetal, copper lining'],
      ['coated', 'Coated'],
      ['aluminium-bimetal', 'Aluminium bimetal'],
      ['unknown', 'Not known'],
    ],
  ],
  [
    'lubrication',
    'Lubrication',
    [
      ['wet-sump', 'Pressure, wet sump'],
      ['dry-sump', 'Pressure, dry sump'],
      ['splash', 'Splash'],
      ['premix', 'Premix'],
      ['total-loss', 'Total loss'],
    ],
  ],
  [
    'cooling',
    'Cooling',
    [
      ['liquid', 'Liquid'],
      ['air', 'Air'],
    ],
  ],
  [
    'bores',
    'Bores',
    [
      ['integral-iron', 'Integral iron'],
      ['dry-liner', 'Dry liners'],
      ['wet-liner', 'Wet liners'],
      ['coated-aluminium', 'Coated aluminium'],
    ],
  ],
  [
    'valveGear',
    'Valve gear',
    [
      ['overhead-cam', 'Overhead cam'],
      ['pushrod', 'Pushrod'],
      ['side-valve', 'Side valve'],
      ['ports', 'Ports'],
    ],
  ],
  [
    'followers',
    'Followers',
    [
      ['solid', 'Solid'],
      ['hydraulic', 'Hydraulic'],
      ['roller', 'Roller'],
      ['flat', 'Flat'],
      ['bucket', 'Bucket'],
      ['none', 'None'],
    ],
  ],
];

const numbers = (text: string): number[] =>
  text
    .split(/[\s,;-]+/)
    .filter(Boolean)
    .map(Number);

const SHELL_OPTIONS = CHOICES.find(([field]) => field === 'shellConstruction')![2].map(([value, label]) => ({ value, label }));

/** What a branch before the filter may feed. */
const unfilteredChoices = (layout: EngineLayout): Array<{ value: string; label: string }> => [
  ...Array.from({ length: layout.mains }, (_, i) => ({ value: `main.${i + 1}`, label: `Main ${i + 1}` })),
  ...stationsOf(layout)
    .filter((s) => ['turbo', 'cam.bearings'].includes(s.id))
    .map((s) => ({ value: s.id, label: s.name })),
];

/** Corrects a layout field by field; the plan and the contradictions follow at once. */
export function LayoutForm({ layout, onChange }: { layout: EngineLayout; onChange: (layout: EngineLayout) => void }): ReactNode {
  const problems = validateLayout(layout);
  const fault = (field: string): 'error' | '' => (problems.some((p) => p.field === field) ? 'error' : '');
  const set = (change: Partial<EngineLayout>): void => onChange({ ...layout, ...change });
  const [order, setOrder] = useState(layout.firingOrder.join('-'));
  const [throws, setThrows] = useState(layout.throwAnglesDeg.join(', '));
  const two = layout.arrangement === 'vee' || layout.arrangement === 'flat';
  return (
    <div className="layout-form">
      <div className="plan-box">
        <PlanSvg layout={layout} height={170} detail />
      </div>
      {problems.length > 0 && (
        <Alert
          type="error"
          role="alert"
          title={problems.map((p) => (
            <div key={p.field}>{p.sentence}</div>
          ))}
        />
      )}
      <div className="fields">
        {FIGURES.filter(([f]) => two || f !== 'bankAngleDeg').map(([field, label, unit, whole]) => (
          <label key={field}>
            <span>{label}</span>
            <NumberField
              value={layout[field]}
              status={fault(field)}
              {...(unit === 'mm' ? { quantity: 'length' as const } : {})}
              whole={whole}
              unit={unit}
              onChange={(v) => v !== null && set({ [field]: v } as Partial<EngineLayout>)}
              style={{ width: '100%' }}
            />
          </label>
        ))}
        {SERVICE.map(([field, label, unit]) => (
          <label key={field}>
            <span>{label}</span>
            <NumberField
              value={layout[field] ?? null}
              status={fault(field)}
              unit={unit}
              onChange={(v) => {
                const { [field]: _was, ...rest } = layout;
                onChange(v === null ? rest : { ...layout, [field]: v });
              }}
              style={{ width: '100%' }}
            />
          </label>
        ))}
        {STATED.map(([field, label, options]) => (
          <label key={field}>
            <span>{label}</span>
            <Select<string>
              value={layout[field] ?? null}
              allowClear
              placeholder="Not known"
              options={options.map(([value, words]) => ({ value, label: words }))}
              onChange={(v) => {
                const { [field]: _was, ...rest } = layout;
                onChange(v ? ({ ...layout, [field]: v } as EngineLayout) : rest);
              }}
              style={{ width: '100%' }}
            />
          </label>
        ))}
        {OTHER_SHELLS.filter(([pattern, kind]) => layout[kind] === 'shells' || layout.otherShells?.[pattern]).map(([pattern, , label]) => (
          <label key={pattern}>
            <span>{label}</span>
            <Select<string>
              value={layout.otherShells?.[pattern] ?? null}
              status={layout.otherShells?.[pattern] ? fault('otherShells') : ''}
              allowClear
              placeholder="Like the rest"
              options={SHELL_OPTIONS}
              onChange={(v) => {
                const { otherShells, ...rest } = layout;
                const { [pattern]: _was, ...others } = otherShells ?? {};
                const next = v ? { ...others, [pattern]: v as EngineLayout['shellConstruction'] } : others;
                onChange(Object.keys(next).length > 0 ? { ...rest, otherShells: next } : rest);
              }}
              style={{ width: '100%' }}
            />
          </label>
        ))}
        {(/^(?:wet|dry)-sump$/.test(layout.lubrication) || layout.unfiltered) && (
          <label>
            <span>Fed before the filter</span>
            <Select<string[]>
              mode="multiple"
              value={[...(layout.unfiltered ?? [])]}
              status={fault('unfiltered')}
              placeholder="Nothing"
              options={unfilteredChoices(layout)}
              onChange={(list) => {
                const { unfiltered: _was, ...rest } = layout;
                onChange(list.length > 0 ? { ...rest, unfiltered: list } : rest);
              }}
              style={{ width: '100%' }}
            />
          </label>
        )}
        <label>
          <span>Firing order</span>
          <Input
            value={order}
            status={fault('firingOrder')}
            onChange={(e) => {
              setOrder(e.target.value);
              set({ firingOrder: numbers(e.target.value) });
            }}
          />
        </label>
        <label>
          <span>Throw angles, {pinCount(layout)} pins</span>
          <Input
            value={throws}
            status={fault('throwAnglesDeg')}
            suffix="°"
            onChange={(e) => {
              setThrows(e.target.value);
              set({ throwAnglesDeg: numbers(e.target.value.replace(/-/g, ' ')) });
            }}
          />
        </label>
        {CHOICES.filter(([f]) => two || !['firstBank', 'numbering', 'crankpins'].includes(f)).map(([field, label, options]) => (
          <label key={field}>
            <span>{label}</span>
            <Select
              value={layout[field] as string}
              status={fault(field)}
              options={options.map(([value, words]) => ({ value, label: words }))}
              onChange={(v) => set({ [field]: v } as Partial<EngineLayout>)}
              style={{ width: '100%' }}
            />
          </label>
        ))}
      </div>
    </div>
  );
}
