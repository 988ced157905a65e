import { Input } from 'antd';
import { formatFigure, readTyped, type Quantity } from '@true-ledger/core/units';
import { useEffect, useId, useRef, useState, type CSSProperties, type ReactNode } from 'react';
import './fields.css';

export interface NumberFieldProps {
  readonly value?: number | null | undefined;
  /** Called with what was understood; null when the field was emptied. Never with something that was not typed. */
  readonly onChange?: (value: number | null) => void;
  /** With a quantity the figure may carry a unit (`3.386"`, `12 psi`) and is kept in `unit`. */
  readonly quantity?: Quantity;
  readonly unit?: string;
  readonly min?: number;
  readonly max?: number;
  readonly whole?: boolean;
  /** Takes effect when the field is left or Enter is pressed, not while one types. */
  readonly late?: boolean;
  readonly disabled?: boolean;
  readonly readOnly?: boolean;
  readonly placeholder?: string;
  readonly status?: 'error' | '' | undefined;
  readonly size?: 'small' | 'middle';
  readonly style?: CSSProperties;
  readonly id?: string;
  readonly 'aria-label'?: string;
}

/**
 * The one field for figures: decimal point or comma, fraction, unit as the hand types it. What is typed stays as typed until the field is left; what was
 * understood is shown beside it when it reads differently, and a text that is no figure changes nothing.
 */
export function NumberField(props: NumberFieldProps): ReactNode {
  const {
    value = null,
    onChange,
    quantity,
    unit = '',
    min,
    max,
    whole,
    late,
    status,
    disabled,
    readOnly,
    placeholder,
    size,
    style,
    id,
  } = props;
  const limits = { quantity, unit, min, max, whole };
  const [typed, setTyped] = useState<string | null>(null);
  const said = useRef<number | null>(value);
  /** What the field held when the hand came to it; a text that turns out to be no figure gives it back. */
  const start = useRef<number | null>(value);
  const noteId = useId();
  useEffect(() => {
    // A value that came from elsewhere takes the place of the text that made another.
    if (value !== said.current) setTyped(null);
    said.current = value;
  }, [value]);
  const shown = typed ?? (value === null ? '' : formatFigure(value));
  const read = typed === null || typed.trim() === '' ? null : readTyped(typed, limits);
  const note =
    read === null ? '' : !read.ok ? read.problem.sentence : read.value.plain ? '' : `= ${formatFigure(read.value.value)} ${unit}`.trim();
  const give = (text: string): void => {
    const now = text.trim() === '' ? null : readTyped(text, limits);
    const next = now === null ? null : now.ok ? now.value.value : start.current;
    if (next === said.current) return;
    said.current = next;
    onChange?.(next);
  };
  const leave = (): void => {
    if (typed === null) return;
    if (late) give(typed);
    if (read === null || read.ok) setTyped(null);
  };
  return (
    <span className="number-field" style={style}>
      <Input
        id={id}
        inputMode={whole ? 'numeric' : 'decimal'}
        autoComplete="off"
        value={shown}
        size={size}
        disabled={disabled}
        readOnly={readOnly}
        placeholder={placeholder}
        status={read !== null && !read.ok ? 'error' : status}
        suffix={unit || undefined}
        aria-label={props['aria-label']}
        aria-invalid={read !== null && !read.ok}
        aria-describedby={note === '' ? undefined : noteId}
        onFocus={() => {
          if (typed === null) start.current = value;
        }}
        onChange={(e) => {
          setTyped(e.target.value);
          if (!late) give(e.target.value);
        }}
        onBlur={leave}
        onPressEnter={leave}
        onKeyDown={(e) => {
          if (e.key !== 'Escape' || typed === null) return;
          e.stopPropagation();
          setTyped(null);
          // What was given while one typed is taken back with the text.
          if (said.current === start.current) return;
          said.current = start.current;
          onChange?.(start.current);
        }}
      />
      {note !== '' && (
        <span id={noteId} className={read !== null && !read.ok ? 'number-note fault' : 'number-note'} role="status">
          {note}
        </span>
      )}
    </span>
  );
}
