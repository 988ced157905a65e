import { fail, ok, type Result } from '../kit/result.js';
import { readFigure } from './figure.js';
import { parseQuantity, QUANTITIES, type Quantity } from './quantity.js';

/** What a field takes: a quantity kept in `unit`, or a bare figure; its limits in that unit. */
export interface FieldLimits {
  readonly quantity?: Quantity | undefined;
  readonly unit?: string | undefined;
  readonly min?: number | undefined;
  readonly max?: number | undefined;
  readonly whole?: boolean | undefined;
}

/** A figure as it was understood. */
export interface TypedFigure {
  readonly value: number;
  /** Reads as it was typed: no comma, fraction or other unit stood in it. */
  readonly plain: boolean;
}

/** Decimal places kept after a unit was turned into another: beyond any gauge, short of the noise of the arithmetic. */
const PLACES = 9;

/** Reads what was typed into a field for figures; refuses what is none, is not whole where it must be, or lies outside the limits. */
export function readTyped(text: string, { quantity, unit = '', min, max, whole }: FieldLimits): Result<TypedFigure> {
  const figure = readFigure(text);
  if (!figure)
    return fail(
      'not-a-number',
      `"${text.trim().slice(0, 30)}" is no figure. Type one, such as 62.5 or 62,5${quantity ? ' or 2 3/8 in' : ''}.`,
    );
  let value = figure.value;
  if (quantity) {
    const read = parseQuantity(text, quantity, unit);
    if (!read.ok) return read;
    const info = QUANTITIES[quantity];
    value = read.value.unit === unit ? figure.value : Number((read.value.value / (info.units[unit] ?? 1)).toFixed(PLACES));
  } else if (figure.rest !== '' && figure.rest !== unit)
    return fail('unit', `"${figure.rest.slice(0, 20)}" is not understood here. Type the figure alone.`);
  if (whole && !Number.isInteger(value)) return fail('not-whole', 'Type a whole number.');
  if (min !== undefined && value < min) return fail('too-small', `At least ${formatFigure(min)} ${unit}`.trim());
  if (max !== undefined && value > max) return fail('too-large', `At most ${formatFigure(max)} ${unit}`.trim());
  return ok({ value, plain: figure.rest === '' && /^[+-]?[\d.]+$/.test(text.trim()) });
}

/** A figure as it is typed back: point, no grouping, no noise of the arithmetic. */
export function formatFigure(value: number): string {
  return String(Number(value.toPrecision(12)));
}
