import { Button, Input, Select } from 'antd';
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
  type LogLine,
} from '@true-ledger/core/engineLog';
import { useState, type ReactNode } from 'react';
import { DateField } from '../fields/DateField.js';
import { NumberField } from '../fields/NumberField.js';

const plain = (word: string): string => word.replaceAll('-', ' ');
const words = <T extends string>(all: readonly T[]): Array<{ value: T; label: string }> =>
  all.map((value) => ({ value, label: plain(value) }));

/** A line's body while it is typed: what nobody read yet is null. */
type Typed = Readonly<Record<string, unknown>>;

/** What a new line of a kind begins with: nothing is there that nobody read. */
const BEGIN: Readonly<Record<LineKind, Typed>> = {
  level: { share: null, look: null, stick: '', note: '' },
  'top-up': { litres: null, oil: '' },
  'oil-change': { litres: null, oil: '', filter: null },
  pressure: { state: null, bar: null },
  'filter-cut': { found: null, note: '' },
  sample: { reference: '', drawn: null, laboratory: '' },
  result: { reference: '', reported: '', laboratory: '', figures: {}, insisted: false },
  owner: { reference: '' },
  test: {},
  note: { words: '' },
  struck: { why: '' },
};

/** What must be typed or chosen before a line is one. */
const NEEDED: Partial<Record<LineKind, Readonly<Record<string, string>>>> = {
  level: { share: 'Type the level.' },
  'top-up': { litres: 'Type how much was topped up.' },
  'oil-change': { litres: 'Type how much was filled in.', filter: 'Say whether the filter is new.' },
  pressure: { state: 'Say when it was read.', bar: 'Type the pressure.' },
  'filter-cut': { found: 'Say what was found.' },
  sample: { drawn: 'Say where it was drawn from.' },
};

/** Why a line cannot be written as it is; null where it can. */
function lineFault(kind: LineKind, b: Typed): string | null {
  for (const [key, words] of Object.entries(NEEDED[kind] ?? {})) if (b[key] === null) return words;
  if ('reference' in b && kind !== 'owner' && !/^[A-Z0-9][A-Z0-9-]{3,23}$/.test(String(b['reference'])))
    return 'A reference is 4 to 24 capital letters, digits and dashes.';
  if (kind === 'result' && Object.keys(b['figures'] as object).length === 0) return 'Type one figure at least.';
  if (kind === 'note' && String(b['words']).trim() === '') return 'Nothing was written.';
  return null;
}

interface Writing {
  readonly kind: LineKind;
  readonly day: string;
  readonly counter: number | null;
  readonly body: Typed;
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
  replaces: LogLine | null;
  busy: boolean;
  onWrite: (line: Omit<LineDraft, 'id'>) => Promise<boolean>;
  onLeave?: () => void;
}): ReactNode {
  const [today] = useState(() => new Date().toISOString().slice(0, 10));
  const begin = (kind: LineKind): Writing => ({
    kind,
    day: today,
    counter: null,
    body: {
      ...BEGIN[kind],
      ...(kind === 'top-up' || kind === 'oil-change' ? { oil } : {}),
      ...(kind === 'sample' ? { reference } : {}),
      ...(kind === 'result' ? { reported: today } : {}),
    },
  });
  const [line, setLine] = useState<Writing>(() => (replaces ? { ...replaces, body: { ...replaces.body } } : begin('level')));
  const set = (part: Typed): void => setLine({ ...line, body: { ...line.body, ...part } });
  const fault = lineFault(line.kind, line.body);
  const write = async (): Promise<void> => {
    if (fault) return;
    const { kind, day, counter, body } = line;
    const written = body as LineBodies[LineKind];
    if ((await onWrite({ kind, day, counter, body: written, supersedes: replaces?.id ?? null })) && !replaces) setLine(begin(kind));
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
              options={LINE_KINDS.filter((k) => k !== 'struck' && k !== 'test').map((value) => ({ value, label: LINE_NAMES[value] }))}
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

function BodyFields({ kind, body, set }: { kind: LineKind; body: Typed; set: (part: Typed) => void }): ReactNode {
  const text = (key: string, label: string, max = 60): ReactNode => (
    <label>
      <span>{label}</span>
      <Input value={body[key] as string} maxLength={max} onChange={(e) => set({ [key]: e.target.value })} />
    </label>
  );
  const figure = (key: string, label: string, unit: string, min: number, max: number): ReactNode => (
    <label>
      <span>{label}</span>
      <NumberField
        aria-label={label}
        value={body[key] as number | null}
        unit={unit}
        min={min}
        max={max}
        onChange={(v) => set({ [key]: v })}
      />
    </label>
  );
  const pick = (key: string, label: string, options: Array<{ value: string | boolean; label: string }>, clear = false): ReactNode => (
    <label>
      <span>{label}</span>
      <Select
        aria-label={label}
        value={body[key] as string | boolean | null}
        allowClear={clear}
        placeholder={clear ? 'not looked at' : 'choose'}
        options={options}
        onChange={(v: string | boolean | undefined) => set({ [key]: v ?? null })}
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
          {pick('filter', 'Filter', [
            { value: true, label: 'new' },
            { value: false, label: 'kept' },
          ])}
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
      return <ResultFields body={body as unknown as LineBodies['result']} set={set} text={text} />;
    case 'owner':
      return text('reference', 'Reference of the owner', 80);
    case 'test':
      // Set up on the page of the strips, where the places are.
      return null;
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
  set: (part: Typed) => void;
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
