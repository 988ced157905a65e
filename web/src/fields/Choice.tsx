import { Checkbox, Radio } from 'antd';
import { useEffect, useRef, useState, type FocusEvent, type KeyboardEvent, type ReactNode } from 'react';

interface Option<T> {
  readonly value: T;
  readonly label: ReactNode;
}

interface Answering<T> {
  /** The answer as it is recorded. */
  readonly value: T;
  readonly onAnswer: (value: T) => void;
  readonly equal: (a: T, b: T) => boolean;
}

/**
 * An answer that is given when the question is left, or by Enter; until then it is only shown, so that a hand on the keys may go through the answers. Leaving
 * includes going to another page.
 */
function useAnswer<T>({ value, onAnswer, equal }: Answering<T>): {
  shown: T;
  choose: (value: T, now: boolean) => void;
  onBlur: (event: FocusEvent<HTMLElement>) => void;
  onKeyDown: (event: KeyboardEvent<HTMLElement>) => void;
} {
  const [pending, setPending] = useState<{ readonly value: T } | null>(null);
  const held = useRef({ pending, value, onAnswer, equal });
  useEffect(() => {
    held.current = { pending, value, onAnswer, equal };
  });
  const give = (): void => {
    const { pending: p, value: v, onAnswer: answer, equal: same } = held.current;
    held.current = { ...held.current, pending: null };
    if (!p) return;
    setPending(null);
    if (!same(p.value, v)) answer(p.value);
  };
  // Gone with the page: given as it was shown.
  useEffect(
    () => () => {
      const { pending: p, value: v, onAnswer: answer, equal: same } = held.current;
      if (p && !same(p.value, v)) answer(p.value);
    },
    [],
  );
  return {
    shown: pending ? pending.value : value,
    choose: (next, now) => {
      setPending({ value: next });
      held.current = { ...held.current, pending: { value: next } };
      if (now) give();
    },
    onBlur: (event) => {
      if (!event.currentTarget.contains(event.relatedTarget)) give();
    },
    onKeyDown: (event) => {
      if (event.key === 'Enter') {
        event.preventDefault();
        give();
      } else if (event.key === 'Escape' && held.current.pending) {
        event.stopPropagation();
        held.current = { ...held.current, pending: null };
        setPending(null);
      }
    },
  };
}

interface Shown {
  readonly disabled?: boolean;
  readonly className?: string;
  readonly size?: 'small' | 'middle';
  readonly label?: string;
}

/** One of several. A press of the pointer answers; arrows go through the answers, Enter or leaving gives the one shown. */
export function Choice<T extends string | boolean>({
  value,
  options,
  onAnswer,
  disabled,
  className,
  size,
  label,
}: Shown & { value: T | null; options: readonly Option<T>[]; onAnswer: (value: T) => void }): ReactNode {
  const pointer = useRef(false);
  const { shown, choose, onBlur, onKeyDown } = useAnswer<T | null>({
    value,
    onAnswer: (v) => v !== null && onAnswer(v),
    equal: (a, b) => a === b,
  });
  return (
    <div
      className="answer"
      onPointerDown={() => (pointer.current = true)}
      onBlur={onBlur}
      onKeyDown={(e) => {
        pointer.current = false;
        onKeyDown(e);
      }}
    >
      <Radio.Group
        aria-label={label}
        disabled={disabled}
        className={className}
        size={size}
        value={shown}
        options={[...options]}
        onChange={(e) => choose(e.target.value as T, pointer.current)}
      />
    </div>
  );
}

/** Any of several, given together when the question is left or by Enter. */
export function Choices({
  value,
  options,
  onAnswer,
  disabled,
  className,
}: Shown & { value: readonly string[]; options: readonly Option<string>[]; onAnswer: (value: string[]) => void }): ReactNode {
  const { shown, choose, onBlur, onKeyDown } = useAnswer<readonly string[]>({
    value,
    onAnswer: (v) => onAnswer([...v]),
    equal: (a, b) => a.length === b.length && a.every((x) => b.includes(x)),
  });
  return (
    <div className="answer" onBlur={onBlur} onKeyDown={onKeyDown}>
      <Checkbox.Group
        disabled={disabled}
        className={className}
        value={[...shown]}
        options={[...options]}
        onChange={(v) => choose(v, false)}
      />
    </div>
  );
}
