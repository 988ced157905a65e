import { Alert, Button, Input, Select } from 'antd';
import { CAUSES } from '@true-ledger/core/cause';
import { outcomeAgainstAccount } from '@true-ledger/core/case';
import { OUTCOME_SOURCES, OUTCOMES, type EntryBodies } from '@true-ledger/core/entries';
import { useState, type ReactNode } from 'react';
import { useCase, useRecord } from '../../app/caseContext.js';
import { DateField } from '../../fields/DateField.js';
import { NumberField } from '../../fields/NumberField.js';

type Outcome = EntryBodies['outcome-set'];
/** While it is typed, nobody has said yet what became of it, or who told it. */
type Typed = Omit<Outcome, 'by'> & { readonly by: Outcome['by'] | null };

const WORDS: Readonly<Record<(typeof OUTCOMES)[number], string>> = {
  'ran-on': 'ran on',
  'failed-again': 'failed again',
  proved: 'the cause was proved',
  disproved: 'the cause was disproved',
  scrapped: 'was scrapped',
};

/** What became of the engine, and of what was held to be its cause: each on its day, none instead of another. */
export function OutcomePane(): ReactNode {
  const { view, readOnly } = useCase();
  const record = useRecord();
  const [today] = useState(() => new Date().toISOString().slice(0, 10));
  const empty: Typed = { on: today, outcome: null, by: null, cause: null, service: null, cost: null, days: null, note: '' };
  const [draft, setDraft] = useState<Typed>(empty);
  const set = (part: Partial<Typed>): void => setDraft({ ...draft, ...part });
  const against = outcomeAgainstAccount(view);
  const figure = (key: 'service' | 'cost' | 'days', label: string): ReactNode => (
    <label>
      <span>{label}</span>
      <NumberField
        aria-label={label}
        value={draft[key]}
        min={0}
        max={10_000_000}
        placeholder="not known"
        onChange={(v) => set({ [key]: v })}
      />
    </label>
  );
  return (
    <div className="outcome-list">
      {against && <Alert type="warning" title={against} />}
      {view.outcomes.length === 0 ? (
        <p className="quiet">
          Nothing is known yet of what became of it. It is asked for a month, half a year, a year and two years after it was given back.
        </p>
      ) : (
        <ul>
          {view.outcomes.map(({ value: o, version }) => (
            <li key={version.entry}>
              <span className="figure">{o.on}</span> {WORDS[o.outcome!]}, by {o.by.replace('-', ' ')}
              {o.cause ? `; it was ${CAUSES.find((c) => c.id === o.cause)?.name.toLowerCase() ?? o.cause}` : ''}
              {o.service !== null ? `, after ${o.service}` : ''}
              {o.cost !== null ? `; came to ${o.cost}` : ''}
              {o.days !== null ? ` in ${o.days} days` : ''}
              {o.note ? ` – ${o.note}` : ''}{' '}
              {!readOnly && (
                <Button
                  size="small"
                  type="text"
                  onClick={() => record({ kind: 'outcome-set', station: null, body: { ...o, outcome: null } })}
                >
                  Take back
                </Button>
              )}
            </li>
          ))}
        </ul>
      )}
      {!readOnly && (
        <>
          <div className="fields">
            <label>
              <span>On</span>
              <DateField aria-label="On" needed value={draft.on} onChange={(on) => on && set({ on })} />
            </label>
            <label>
              <span>It</span>
              <Select
                aria-label="It"
                placeholder="choose"
                value={draft.outcome}
                options={OUTCOMES.map((value) => ({ value, label: WORDS[value] }))}
                onChange={(outcome) => set({ outcome, ...(outcome === 'disproved' ? {} : { cause: null }) })}
              />
            </label>
            <label>
              <span>Told by</span>
              <Select
                aria-label="Told by"
                placeholder="choose"
                value={draft.by}
                options={OUTCOME_SOURCES.map((value) => ({ value, label: value.replace('-', ' ') }))}
                onChange={(by) => set({ by })}
              />
            </label>
            {draft.outcome === 'disproved' && (
              <label>
                <span>It was instead</span>
                <Select
                  showSearch
                  allowClear
                  optionFilterProp="label"
                  aria-label="It was instead"
                  placeholder="not known"
                  value={draft.cause}
                  options={CAUSES.map((c) => ({ value: c.id, label: c.name }))}
                  onChange={(cause?: string) => set({ cause: cause ?? null })}
                />
              </label>
            )}
            {figure('service', 'Run since')}
            {figure('cost', 'The work came to')}
            {figure('days', 'Days it took')}
            <label>
              <span>Note</span>
              <Input value={draft.note} maxLength={1000} onChange={(e) => set({ note: e.target.value })} />
            </label>
          </div>
          <Button
            type="primary"
            disabled={draft.outcome === null || draft.by === null}
            onClick={() => {
              if (draft.by === null) return;
              record({ kind: 'outcome-set', station: null, body: { ...draft, by: draft.by } });
              setDraft(empty);
            }}
          >
            Write it down
          </Button>
        </>
      )}
    </div>
  );
}
