import { Input, Segmented } from 'antd';
import { QUANTITIES } from '@true-ledger/core/units';
import { checksFor, fieldKeys, NOT_DONE, type CheckField, type OpeningCheck } from '@true-ledger/core/opening';
import { notDone } from '@true-ledger/core/case';
import { useEffect, useState, type ReactNode } from 'react';
import { useDraft } from '../../app/drafts.js';
import { WithSuggestions } from '../../fields/WithSuggestions.js';
import { Choice, Choices } from '../../fields/Choice.js';
import { useCase } from '../../app/caseContext.js';
import './opening.css';
import type { Open } from './useAnswer.js';

/** Why this check was not made: an answer as good as any, and one given for many. */
export function NotDone({ check, readOnly, answer }: { check: OpeningCheck; readOnly: boolean; answer: Open }): ReactNode {
  const { view } = useCase();
  const kept = notDone(view, check.id) ?? '';
  const [text, setText] = useDraft(`${check.name}, not done`, kept);
  const given = [...new Set(checksFor(view.layout).flatMap((c) => notDone(view, c.id) ?? []))];
  const keep = (value: string): void => void (value.trim() === kept || answer(check.id, NOT_DONE.id, value.trim()));
  return (
    <label className="not-done">
      <span>{NOT_DONE.label}</span>
      <WithSuggestions
        disabled={readOnly}
        value={text}
        suggestions={given.filter((g) => g !== text)}
        placeholder="leave empty where it was made"
        maxLength={1000}
        onChange={(e) => setText(e.target.value)}
        onBlur={() => keep(text)}
        onPressEnter={() => keep(text)}
      />
    </label>
  );
}

export function Field({
  check,
  field,
  readOnly,
  answer,
}: {
  check: OpeningCheck;
  field: CheckField;
  readOnly: boolean;
  answer: Open;
}): ReactNode {
  const { view } = useCase();
  const keys = fieldKeys(field, view.layout);
  const units = field.quantity ? Object.keys(QUANTITIES[field.quantity].units) : [];
  const used = keys.map((k) => view.checks.get(`${check.id}:${k}`)?.value.unit).find((u) => u);
  const [unit, setUnit] = useState(used ?? units[0] ?? '');
  const chosen = (key: string): readonly string[] => view.checks.get(`${check.id}:${key}`)?.value.chosen ?? [];
  const options = (field.options ?? []).map((o) => ({ value: o.value, label: o.label }));
  if (field.kind === 'choice' || field.kind === 'choices')
    return (
      <div className="check-field">
        {keys.map((key) => (
          <div
            key={key}
            className={keys.length > 1 ? 'per-cylinder' : ''}
            role="group"
            aria-label={keys.length > 1 ? `${field.label}, ${key.split('.')[1]}` : field.label}
          >
            <div className="label">{keys.length > 1 ? `${field.label}, cylinder ${key.split('.')[1]}` : field.label}</div>
            {field.kind === 'choice' ? (
              <Choice
                className="big-choice"
                disabled={readOnly}
                value={chosen(key)[0] ?? null}
                options={options}
                onAnswer={(value) => void answer(check.id, key, [value])}
              />
            ) : (
              <Choices
                className="big-choice"
                disabled={readOnly}
                value={chosen(key)}
                options={options}
                onAnswer={(value) => void answer(check.id, key, value)}
              />
            )}
          </div>
        ))}
      </div>
    );
  return (
    <div className="check-field">
      <div className="label">
        {field.label}
        {units.length > 1 && (
          <Segmented
            size="small"
            options={units}
            value={unit}
            onChange={(v) => setUnit(v)}
            aria-label={`Unit of ${field.label} when none is typed`}
          />
        )}
      </div>
      <div className={keys.length > 1 ? 'typed-row' : ''}>
        {keys.map((key) => (
          <Typed
            key={key}
            label={field.per === 'turn' ? `${(Number(key.split('.')[1]) - 1) * 30}°` : keys.length > 1 ? (key.split('.')[1] ?? '') : ''}
            name={`${field.label}${keys.length > 1 ? ` ${key.split('.')[1]}` : ''}`}
            held={view.checks.get(`${check.id}:${key}`)?.value.text ?? ''}
            disabled={readOnly}
            wide={field.kind === 'words'}
            keep={(text) => answer(check.id, key, text, unit || undefined)}
          />
        ))}
      </div>
    </div>
  );
}

/** One typed answer; Enter keeps it and goes to the next, leaving it keeps it too. */
function Typed({
  label,
  name,
  held,
  disabled,
  wide,
  keep,
}: {
  label: string;
  name: string;
  held: string;
  disabled: boolean;
  wide: boolean;
  keep: (text: string) => string | null;
}): ReactNode {
  const [text, setText] = useState(held);
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => setText(held), [held]);
  const done = (): void => setProblem(text === held ? null : keep(text));
  return (
    <label className={wide ? 'typed wide' : 'typed'}>
      {label && <span className="quiet figure">{label}</span>}
      <Input
        value={text}
        disabled={disabled}
        status={problem ? 'error' : ''}
        aria-label={name}
        inputMode={wide ? 'text' : 'decimal'}
        maxLength={wide ? 1000 : 30}
        onChange={(e) => {
          setText(e.target.value);
          setProblem(null);
        }}
        onBlur={done}
        onPressEnter={(e) => {
          done();
          const all = [...document.querySelectorAll<HTMLInputElement>('.check-fields .typed input')];
          all[all.indexOf(e.currentTarget) + 1]?.focus();
        }}
      />
      {problem && (
        <span className="fault" role="alert">
          {problem}
        </span>
      )}
    </label>
  );
}
