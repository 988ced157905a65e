import { DatePicker } from 'antd';
import dayjs from 'dayjs';
import { useId, useMemo, useState, type ReactNode } from 'react';
import './fields.css';

const ISO = 'YYYY-MM-DD';
/** As a day is written here, and as hands write it otherwise where no two readings are possible. */
const WRITTEN = [ISO, 'YYYY-M-D', 'D.M.YYYY'];

interface DateFieldProps {
  /** ISO 8601 calendar day, or null (or empty) for none. */
  readonly value?: string | null | undefined;
  /** Called with an ISO day that is on the calendar; with null when the field was emptied. */
  readonly onChange?: (day: string | null) => void;
  /** A day must stand here: it cannot be emptied. */
  readonly needed?: boolean;
  readonly disabled?: boolean;
  /** What the day is of, where no label stands beside it. */
  readonly placeholder?: string;
  readonly id?: string;
  readonly 'aria-label'?: string;
}

/** The one field for days. A text that is no day of the calendar changes nothing, and is told with what stands instead. */
export function DateField({
  value,
  onChange,
  needed,
  disabled,
  placeholder = 'year-month-day',
  id,
  'aria-label': label,
}: DateFieldProps): ReactNode {
  // The same object for the same day: an answer that comes meanwhile must not take from the field what is being typed.
  const day = useMemo(() => (value ? dayjs(value) : null), [value]);
  const [refused, setRefused] = useState<string | null>(null);
  /** Counts the texts that were put back: left by way of its own buttons, the picker would go on showing a day that is not kept. */
  const [putBack, setPutBack] = useState(0);
  const noteId = useId();
  const check = (text: string): void => {
    const wrong = text.trim() !== '' && !WRITTEN.some((form) => dayjs(text.trim(), form, true).isValid());
    setRefused(wrong ? text.trim() : null);
  };
  return (
    <span
      className="date-field"
      onInput={() => setRefused(null)}
      onBlur={(e) => {
        if (refused !== null && !e.currentTarget.contains(e.relatedTarget)) setPutBack(putBack + 1);
      }}
    >
      <DatePicker
        key={putBack}
        id={id}
        value={day}
        format={WRITTEN}
        allowClear={!needed}
        disabled={disabled}
        placeholder={placeholder}
        status={refused === null ? '' : 'error'}
        onChange={(next) => {
          setRefused(null);
          onChange?.(next ? next.format(ISO) : null);
        }}
        onBlur={(e) => check((e.target as HTMLInputElement).value)}
        onKeyDown={(e) => {
          if (e.key === 'Enter') check((e.target as HTMLInputElement).value);
        }}
        aria-label={label}
        aria-describedby={refused === null ? undefined : noteId}
      />
      {refused !== null && (
        <span id={noteId} className="fault date-note" role="status">
          {refused} is no day of the calendar (year-month-day): {value ? `${value} stays` : 'no date is set'}.
        </span>
      )}
    </span>
  );
}
