import { readAnswer } from '@true-ledger/core/opening';
import { useCase, useRecord } from '../../app/caseContext.js';
import './opening.css';

export type Open = (check: string, key: string, raw: string | readonly string[], unit?: string) => string | null;

/** Keeps an answer; returns the sentence when it cannot be one. */
export function useAnswer(): Open {
  const { view } = useCase();
  const record = useRecord();
  return (id, key, raw, unit) => {
    const read = readAnswer(view.layout, id, key, raw, unit);
    if (!read.ok) return read.problem.sentence;
    const held = view.checks.get(`${id}:${key}`)?.value;
    if (held?.text === read.value.text && held.unit === read.value.unit) return null;
    if (read.value.text === '' && !held) return null;
    record({ kind: 'check-set', station: null, body: read.value });
    return null;
  };
}
