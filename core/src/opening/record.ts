import type { EngineLayout } from '../engine/layout.js';
import { fail, ok, type Result } from '../kit/result.js';
import { parseQuantity, QUANTITIES, type Quantity } from '../units/quantity.js';
import { checksFor, fieldOfKey, type CheckField } from './checks.js';

/** One answer of a check as the ledger keeps it: what was typed or chosen, and for figures the canonical value and the unit typed. */
export interface CheckAnswer {
  readonly check: string;
  /** Field, with cylinder or position where it repeats: `level`, `dry.3`. */
  readonly field: string;
  readonly text: string;
  readonly chosen: readonly string[];
  readonly value: number | null;
  readonly unit: string | null;
}

/** Bounds of sense: beyond them a figure is a slip of the hand or of the unit, and is questioned instead of kept. */
const SENSE: Readonly<Record<Quantity, readonly [number, number, string]>> = {
  length: [-1, 10, 'a play of more than 10 mm'],
  torque: [0, 5000, 'a torque above 5 000 N·m'],
  pressure: [0, 100, 'a pressure above 100 bar'],
  share: [0, 100, 'a share above 100 %'],
  force: [0, 2000, 'a force above 2 000 N'],
  angle: [-360, 360, 'an angle beyond one turn'],
  temperature: [-30, 120, 'a temperature outside −30 to 120 °C'],
  vacuum: [0, 101.3, 'more than a full vacuum'],
  time: [0, 3600, 'a time above one hour'],
};

/** Reads an answer as typed or chosen. `raw` is the text, or the chosen options of a choice. */
export function readAnswer(
  layout: EngineLayout,
  checkId: string,
  key: string,
  raw: string | readonly string[],
  unit?: string,
): Result<CheckAnswer> {
  const check = checksFor(layout).find((c) => c.id === checkId);
  if (!check) return fail('check-unknown', `This engine has no check called "${checkId.slice(0, 40)}". Nothing was recorded.`, 'check');
  const field = fieldOfKey(check, key, layout);
  if (!field)
    return fail(
      'check-field',
      `The check "${check.name}" has no place called "${key.slice(0, 40)}" on this engine. Nothing was recorded.`,
      'field',
    );
  return field.kind === 'choice' || field.kind === 'choices'
    ? readChoice(check.id, key, field, raw)
    : readText(check.id, key, field, raw, unit);
}

function readChoice(check: string, key: string, field: CheckField, raw: string | readonly string[]): Result<CheckAnswer> {
  const chosen = (typeof raw === 'string' ? [raw] : [...raw]).filter((v) => v !== '');
  const strange = chosen.find((v) => !field.options?.some((option) => option.value === v));
  if (strange !== undefined)
    return fail('check-option', `"${strange.slice(0, 40)}" is not an answer to "${field.label}". Nothing was recorded.`, 'chosen');
  if (field.kind === 'choice' && chosen.length > 1)
    return fail('check-option', `"${field.label}" takes one answer. Nothing was recorded.`, 'chosen');
  return ok({
    check,
    field: key,
    text: chosen.map((v) => field.options?.find((x) => x.value === v)?.label).join(', '),
    chosen,
    value: null,
    unit: null,
  });
}

function readText(check: string, key: string, field: CheckField, raw: string | readonly string[], unit?: string): Result<CheckAnswer> {
  const text = (typeof raw === 'string' ? raw : raw.join(', ')).trim();
  const bare = { check, field: key, text, chosen: [], value: null, unit: null };
  if (field.kind === 'words' || !field.quantity || text === '' || text === '-') return ok(bare);
  const parsed = parseQuantity(text, field.quantity, unit);
  if (!parsed.ok) return parsed;
  const [low, high, words] = SENSE[field.quantity];
  if (parsed.value.value < low || parsed.value.value > high)
    return fail(
      'check-sense',
      `${text}${/[a-z%"″]/i.test(text) ? '' : ` ${unit ?? QUANTITIES[field.quantity].canonical}`} for "${field.label}" cannot be right (${words}). Nothing was recorded; check the unit.`,
      'text',
    );
  return ok({ ...bare, value: parsed.value.value, unit: parsed.value.unit });
}
