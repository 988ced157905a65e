import { App, Input, Segmented, Select } from 'antd';
import type { EngineLogAnswer } from '@true-ledger/contract';
import { TEST_UNIT } from '@true-ledger/core/across';
import { PART_NAMES, stationsOf, type EngineLayout } from '@true-ledger/core/engine';
import { TEST_CHANGES, TEST_FIGURES, TESTED_PARTS, type LineBodies } from '@true-ledger/core/engineLog';
import { useState, type ReactNode } from 'react';
import { Dialog } from '../app/Dialog.js';
import { useWriteLinesMutation } from '../app/api.js';
import { asProblem } from '../app/server.js';
import { DateField } from '../fields/DateField.js';
import { NumberField } from '../fields/NumberField.js';

type EngineTest = LineBodies['test'];

const CHANGE_NAMES: Readonly<Record<EngineTest['changed'], string>> = {
  coating: 'Coating',
  clearance: 'Clearance',
  material: 'Material or make',
  oil: 'Oil',
  filter: 'Filter',
  load: 'Load or speed',
  other: 'Something else',
};
const FIGURE_NAMES: Readonly<Record<EngineTest['figure'], string>> = { damage: 'Damaged share', grade: 'Grade' };

/** Why a test cannot be written down as it is; null where it can. */
function testFault(t: EngineTest, of: number): string | null {
  if (t.name.trim() === '') return 'Give it a name.';
  if (t.places.length >= of && of > 0)
    return 'All places of this kind are changed: leave them out, and the whole engine is compared with itself.';
  if (t.places.length > 0 && t.places.length < 3)
    return 'With fewer than three changed places nothing can be shown; it can be written down all the same.';
  if (t.expected === 'same' && t.by === null) return 'Say within how much it still counts as the same; without, it can only be disproved.';
  return null;
}

/** Something changed on purpose, written down with what is expected of it. */
export function TestForm({ engine, layout, onDone }: { engine: EngineLogAnswer; layout: EngineLayout; onDone: () => void }): ReactNode {
  const [day, setDay] = useState(() => new Date().toISOString().slice(0, 10));
  const [test, setTest] = useState<EngineTest>({
    name: '',
    changed: 'coating',
    what: '',
    part: 'shell',
    places: [],
    figure: 'damage',
    expected: 'less',
    by: null,
  });
  const [write, { isLoading }] = useWriteLinesMutation();
  const { message } = App.useApp();
  const set = (part: Partial<EngineTest>): void => setTest({ ...test, ...part });
  const places = stationsOf(layout).filter((s) => s.part === test.part);
  const parts = TESTED_PARTS.filter((p) => stationsOf(layout).some((s) => s.part === p));
  const fault = testFault(test, places.length);
  const keep = (): void =>
    void write({
      id: engine.id,
      lines: [
        {
          id: crypto.randomUUID(),
          kind: 'test',
          day,
          counter: null,
          supersedes: null,
          body: { ...test, name: test.name.trim(), what: test.what.trim() },
        },
      ],
    })
      .unwrap()
      .then(onDone, (e: unknown) => void message.error(asProblem(e).sentence, 8));
  return (
    <Dialog
      open
      title="A test: what is changed on purpose, and what is expected of it"
      okText="Write it down"
      okButtonProps={{
        disabled: test.name.trim() === '' || (test.places.length >= places.length && places.length > 0),
        loading: isLoading,
      }}
      onOk={keep}
      onCancel={onDone}
    >
      <div className="fields">
        <label className="wide">
          <span>Name</span>
          <Input value={test.name} maxLength={80} onChange={(e) => set({ name: e.target.value })} />
        </label>
        <label>
          <span>Day it was built in</span>
          <DateField aria-label="Day it was built in" needed value={day} onChange={(d) => d && setDay(d)} />
        </label>
        <label>
          <span>What is changed</span>
          <Select
            aria-label="What is changed"
            value={test.changed}
            options={TEST_CHANGES.map((value) => ({ value, label: CHANGE_NAMES[value] }))}
            onChange={(changed) => set({ changed })}
          />
        </label>
        <label className="wide">
          <span>In words: from what to what</span>
          <Input.TextArea value={test.what} maxLength={600} rows={2} onChange={(e) => set({ what: e.target.value })} />
        </label>
        <label>
          <span>Kind of part looked at</span>
          <Select
            aria-label="Kind of part looked at"
            value={test.part}
            options={parts.map((value) => ({ value, label: PART_NAMES[value] }))}
            onChange={(part) => set({ part, places: [] })}
          />
        </label>
        <label>
          <span>By which figure</span>
          <Select
            aria-label="By which figure"
            value={test.figure}
            options={TEST_FIGURES.map((value) => ({ value, label: FIGURE_NAMES[value] }))}
            onChange={(figure) => set({ figure })}
          />
        </label>
        <label className="wide">
          <span>Changed places; none: the whole engine</span>
          <Select
            aria-label="Changed places; none: the whole engine"
            mode="multiple"
            allowClear
            optionFilterProp="label"
            value={[...test.places]}
            placeholder="the whole engine"
            options={places.map((s) => ({ value: s.id, label: s.name }))}
            onChange={(chosen: string[]) => set({ places: chosen })}
          />
        </label>
        <label>
          <span>Expected</span>
          <Segmented
            value={test.expected}
            options={[
              { value: 'less', label: 'Less' },
              { value: 'same', label: 'The same' },
              { value: 'more', label: 'More' },
            ]}
            onChange={(expected: EngineTest['expected']) => set({ expected })}
          />
        </label>
        <label>
          <span>{test.expected === 'same' ? 'Within' : 'By how much, where it is known'}</span>
          <NumberField
            aria-label={test.expected === 'same' ? 'Within' : 'By how much'}
            value={test.by}
            unit={TEST_UNIT[test.figure]}
            min={0.01}
            max={100}
            onChange={(by) => set({ by })}
          />
        </label>
      </div>
      {fault && <p className="quiet test-fault">{fault}</p>}
    </Dialog>
  );
}
