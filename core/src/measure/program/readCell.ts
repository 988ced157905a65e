import { fail, ok, type Result } from '../../kit/result.js';
import { formatLength, MM_PER, parseLength, type LengthUnit } from '../../units/length.js';
import { formatQuantity, parseQuantity, QUANTITIES } from '../../units/quantity.js';
import type { Gauge } from '../../units/gauge.js';
import { doubtReading } from '../sheets/doubt.js';
import type { Cell } from '../sheets/cells.js';

/** One reading as it is kept. */
export interface CellReading {
  /** Canonical unit of the cell; null: the place was not read. */
  readonly value: number | null;
  /** Unit it was typed in. */
  readonly unit: string;
}

const LENGTH_UNITS = Object.keys(MM_PER) as LengthUnit[];

/** Units a cell may be typed in, the canonical first. */
export function cellUnits(cell: Cell): readonly string[] {
  return cell.quantity === 'length' ? LENGTH_UNITS : Object.keys(QUANTITIES[cell.quantity].units);
}

/** A sign before a reading means an offset from the set master where a size is read, and a direction where a play or height is. */
const signed = (cell: Cell): boolean => (cell.sense?.[0] ?? 0) < 0;

/** Reads what a hand or a gauge sent for a cell; `unit` is taken where none is typed. The value is a function of text, unit, cell and gauge, so a server can check it. */
export function readCell(cell: Cell, text: string, unit: string, gauge: Pick<Gauge, 'masterMm'>): Result<CellReading> {
  if (!cellUnits(cell).includes(unit))
    return fail('reading-unit', `"${unit.slice(0, 10)}" is not a unit for this place. Use ${cellUnits(cell).join(', ')}.`, 'unit');
  const typed = text.trim();
  if (cell.quantity !== 'length') {
    if (typed === '-' || typed === '–') return ok({ value: null, unit });
    const read = parseQuantity(typed, cell.quantity, unit);
    return read.ok ? ok({ value: read.value.value, unit: read.value.unit }) : read;
  }
  const minus = signed(cell) && /^[-−]\s*[\d.,]/.test(typed);
  const bare = signed(cell) ? typed.replace(/^[-−+]\s*(?=[\d.,])/, '') : typed;
  const read = parseLength(bare, { unit: unit as LengthUnit, ...(gauge.masterMm === undefined ? {} : { masterMm: gauge.masterMm }) });
  if (!read.ok) return read;
  if (read.value.kind === 'not-read') return ok({ value: null, unit });
  const value = minus ? -read.value.mm : read.value.mm;
  if (!signed(cell) && value < 0) return fail('reading-impossible', `${typed} cannot be the size of a part. Nothing was taken.`, 'text');
  return ok({ value, unit: read.value.unit });
}

/** A value of a cell in words, in the unit wanted where it is one of the cell's. */
export function cellText(cell: Cell, value: number, unit?: string): string {
  if (cell.quantity === 'length')
    return formatLength(value, LENGTH_UNITS.includes(unit as LengthUnit) ? (unit as LengthUnit) : 'mm', { signed: signed(cell) });
  return formatQuantity(value, cell.quantity, unit);
}

/** Parts of one engine differ by no more than the last of the usual sizes. */
const WHOLE_SIZES_MM = 1.5;

/**
 * Why a reading should be held for a second press; null when nothing speaks against it. Beyond the bounds of sense the unit is questioned; a size is held against
 * the size expected, its neighbours, and the same place elsewhere while it has none; a small figure against the same place elsewhere, when at least three are known and it is more than five times
 * their greatest or less than a fifth of their least.
 */
export function doubtCell(cell: Cell, value: number, neighbours: readonly number[], elsewhere: readonly number[]): string | null {
  if (cell.sense && (value < cell.sense[0] || value > cell.sense[1]))
    return `${cellText(cell, value)} is outside what ${cell.name} can be (${cellText(cell, cell.sense[0])} to ${cellText(cell, cell.sense[1])}). Is the unit right?`;
  if (cell.quantity !== 'length') return null;
  const known = elsewhere.filter((v) => v > 0);
  if (cell.expectMm !== undefined) {
    const doubt = doubtReading(value, neighbours, cell.expectMm)?.reason;
    if (doubt || neighbours.length >= 2 || known.length < 2) return doubt ?? null;
    const [least, most] = [Math.min(...known), Math.max(...known)];
    return value < least - WHOLE_SIZES_MM || value > most + WHOLE_SIZES_MM
      ? `${cellText(cell, value)} is out of family: the same place elsewhere lies between ${cellText(cell, least)} and ${cellText(cell, most)}.`
      : null;
  }
  if (known.length < 3 || value <= 0 || signed(cell)) return null;
  const [least, most] = [Math.min(...known), Math.max(...known)];
  return value > 5 * most || value < least / 5
    ? `${cellText(cell, value)} is out of family: the others lie between ${cellText(cell, least)} and ${cellText(cell, most)}.`
    : null;
}

/** A gauge that shows the very same figure this many times at different places is probably stuck. */
export const STUCK_AFTER = 4;

/** Does the run of last readings, the newest last, look like a stuck gauge? Different places never agree to the last digit so often. */
export function looksStuck(last: ReadonlyArray<{ readonly place: string; readonly text: string }>): boolean {
  const run = last.slice(-STUCK_AFTER);
  return run.length === STUCK_AFTER && new Set(run.map((r) => r.text)).size === 1 && new Set(run.map((r) => r.place)).size === STUCK_AFTER;
}
