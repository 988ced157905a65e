import { Button, Checkbox, Input, Select } from 'antd';
import {
  DRAWN_FROM,
  FILTER_FINDS,
  LINE_KINDS,
  LINE_NAMES,
  OIL_LOOKS,
  PRESSURE_STATES,
  SPECIES,
  species,
  type EngineRecord,
  type LineBodies,
  type LineDraft,
  type LineKind,
} from '@true-ledger/core/engineLog';
import { useState, type ReactNode } from 'react';
import { DateField } from '../fields/DateField.js';
import { NumberField } from '../fields/NumberField.js';

const plain = (word: string): string => word.replaceAll('-', ' ');
const words = <T extends string>(all: readonly T[]): Array<{ value: T; label: string }> =>
  all.map((value) => ({ value, label: plain(value) }));

/** What a new line of a kind begins with. */
const BEGIN: LineBodies = {
  level: { share: 1, look: null, stick: '', note: '' },
  'top-up': { litres: 0.5, oil: '' },
  'oil-change': { litres: 1, oil: '', filter: true },
  pressure: { state: 'hot-idle', bar: 1 },
  'filter-cut': { found: 'clean', note: '' },
  sample: { reference: '', drawn: 'mid-stream', laboratory: '' },
  result: { reference: '', reported: '', laboratory: '', figures: {}, insisted: false },
  owner: { reference: '' },
  note: { words: '' },
  struck: { why: '' },
};

/** Why a line cannot be written as it is; null where it can. */
function lineFault(kind: LineKind, body: LineBodies[LineKind]): string | null {
  const b = body as unknown as Record<string, unknown>;
  if ('reference' in b && kind !== 'owner' && !/^[A-Z0-9][A-Z0-9-]{3,23}$/.test(String(b['reference'])))
    return 'A reference is 4 to 24 capital letters, digits and dashes.';
  if (kind === 'result' && Object.keys(b['figures'] as object).length === 0) return 'Type one figure at least.';
  if (kind === 'note' && String(b['words']).trim() === '') return 'Nothing was written.';
  return null;
}

export interface Written {
  readonly kind: LineKind;
  readonly day: string;
  readonly counter: number | null;
  readonly body: LineBodies[LineKind];
}

/** The form of a line; with `replaces` it is written in the place of that one. */
export function LineForm({
  engine,
  oil,
  reference,
  replaces,
  busy,
  onWrite,
  onLeave,
}: {
  engine: EngineRecord;
  /** Oil that was filled in last, and a reference nobody used yet. */
  oil: string;
  reference: string;
  replaces: (Written & { readonly id: string }) | null;
  busy: boolean;
  onWrite: (line: Omit<LineDraft, 'id'>) => Promise<boolean>;
  onLeave?: () => void;
}): ReactNode {
  const [today] = useState(() => new Date().toISOString().slice(0, 10));
  const begin = (kind: LineKind): Written => ({
    kind,
    day: today,
    counter: null,
    body: {
      ...BEGIN[kind],
      ...(kind === 'top-up' || kind === 'oil-change' ? { oil } : {}),
      ...(kind === 'oil-change' ? { litres: engine.sumpL } : {}),
      ...(kind === 'sample' ? { reference } : {}),
      ...(kind === 'result' ? { reported: today } : {}),
    } as LineBodies[LineKind],
  });
  const [line, setLine] = useState<Written>(() => replaces ?? begin('level'));
  const set = (part: object): void => setLine({ ...line, body: { ...line.body, ...part } as LineBodies[LineKind] });
  const fault = lineFault(line.kind, line.body);
  const write = async (): Promise<void> => {
    if (fault) return;
    const { kind, day, counter, body } = line;
    if ((await onWrite({ kind, day, counter, body, supersedes: replaces?.id ?? null })) && !replaces) setLine(begin(kind));
  };
  return (
    <form
      className="line-form"
      aria-label={replaces ? 'Line written anew' : 'New line'}
      onSubmit={(e) => {
        e.preventDefault();
        void write();
      }}
    >
      <div className="fields">
        {!replaces && (
          <label>
            <span>What</span>
            <Select
              aria-label="What"
              value={line.kind}
              options={LINE_KINDS.filter((k) => k !== 'struck').map((value) => ({ value, label: LINE_NAMES[value] }))}
              onChange={(kind) => setLine({ ...begin(kind), day: line.day, counter: line.counter })}
            />
          </label>
        )}
        <label>
          <span>Day</span>
          <DateField aria-label="Day" needed value={line.day} onChange={(day) => day && setLine({ ...line, day })} />
        </label>
        <label>
          <span>Counter</span>
          <NumberField
            aria-label="Counter"
            value={line.counter}
            unit={engine.counter}
            min={0}
            max={10_000_000}
            placeholder="not read"
            onChange={(counter) => setLine({ ...line, counter })}
          />
        </label>
        <BodyFields kind={line.kind} body={line.body} set={set} />
      </div>
      <div className="row">
        <Button htmlType="submit" type="primary" loading={busy} disabled={fault !== null}>
          {replaces ? 'Write it so' : 'Write the line'}
        </Button>
        {onLeave && <Button onClick={onLeave}>Leave</Button>}
        {fault && <span className="quiet">{fault}</span>}
      </div>
    </form>
  );
}

function BodyFields({ kind, body, set }: { kind: LineKind; body: LineBodies[LineKind]; set: (part: object) => void }): ReactNode {
  const b = body as unknown as Record<string, never>;
  const text = (key: string, label: string, max = 60): ReactNode => (
    <label>
      <span>{label}</span>
      <Input value={b[key]} maxLength={max} onChange={(e) => set({ [key]: e.target.value })} />
    </label>
  );
  const figure = (key: string, label: string, unit: string, min: number, max: number): ReactNode => (
    <label>
      <span>{label}</span>
      <NumberField aria-label={label} value={b[key]} unit={unit} min={min} max={max} onChange={(v) => v !== null && set({ [key]: v })} />
    </label>
  );
  const pick = (key: string, label: string, options: Array<{ value: string; label: string }>, clear = false): ReactNode => (
    <label>
      <span>{label}</span>
      <Select
        aria-label={label}
        value={(b[key] as unknown as string | null) ?? null}
        allowClear={clear}
        placeholder="not looked at"
        options={options}
        onChange={(v: string | undefined) => set({ [key]: v ?? null })}
      />
    </label>
  );
  switch (kind) {
    case 'level':
      return (
        <>
          {figure('share', 'Level: 0 lower mark, 1 upper', 'marks', -2, 4)}
          {pick('look', 'Look', words(OIL_LOOKS), true)}
          {text('stick', 'Stick, where there are two', 40)}
          {text('note', 'Note', 1000)}
        </>
      );
    case 'top-up':
      return (
        <>
          {figure('litres', 'Topped up', 'l', 0.01, 500)}
          {text('oil', 'Oil')}
        </>
      );
    case 'oil-change':
      return (
        <>
          {figure('litres', 'Filled in', 'l', 0.01, 2000)}
          {text('oil', 'Oil')}
          <label>
            <span>Filter</span>
            <Checkbox checked={(body as LineBodies['oil-change']).filter} onChange={(e) => set({ filter: e.target.checked })}>
              new
            </Checkbox>
          </label>
        </>
      );
    case 'pressure':
      return (
        <>
          {pick('state', 'When', words(PRESSURE_STATES))}
          {figure('bar', 'Pressure', 'bar', 0, 30)}
        </>
      );
    case 'filter-cut':
      return (
        <>
          {pick('found', 'Found', words(FILTER_FINDS))}
          {text('note', 'Note', 1000)}
        </>
      );
    case 'sample':
      return (
        <>
          {text('reference', 'Reference, the shop’s own', 24)}
          {pick('drawn', 'Drawn from', words(DRAWN_FROM))}
          {text('laboratory', 'Laboratory', 80)}
        </>
      );
    case 'result':
      return <ResultFields body={body as LineBodies['result']} set={set} text={text} />;
    case 'owner':
      return text('reference', 'Reference of the owner', 80);
    case 'note':
      return text('words', 'Remark', 2000);
    case 'struck':
      return text('why', 'Why', 500);
  }
}

function ResultFields({
  body,
  set,
  text,
}: {
  body: LineBodies['result'];
  set: (part: object) => void;
  text: (key: string, label: string, max?: number) => ReactNode;
}): ReactNode {
  return (
    <>
      {text('reference', 'Reference of the sample', 24)}
      <label>
        <span>Reported</span>
        <DateField aria-label="Reported" needed value={body.reported} onChange={(reported) => reported && set({ reported })} />
      </label>
      {text('laboratory', 'Laboratory', 80)}
      {SPECIES.map((s) => (
        <label key={s.id}>
          <span>{s.name}</span>
          <NumberField
            aria-label={species(s.id)!.name}
            value={body.figures[s.id] ?? null}
            unit={Object.keys(s.units)[0]!}
            min={0}
            max={1e6}
            onChange={(v) => {
              const { [s.id]: _before, ...rest } = body.figures;
              set({ figures: v === null ? rest : { ...rest, [s.id]: v } });
            }}
          />
        </label>
      ))}
    </>
  );
}
