import { fail, ok, type Result } from '../kit/result.js';
import { readFigure } from './figure.js';

/** Units a length may be typed in. */
export type LengthUnit = 'mm' | 'in' | 'thou' | 'um';

/** Exact factors to millimetres (1 in = 25.4 mm by definition). */
export const MM_PER: Readonly<Record<LengthUnit, number>> = { mm: 1, in: 25.4, thou: 0.0254, um: 0.001 };

const UNIT_WORDS: Readonly<Record<string, LengthUnit>> = {
  mm: 'mm',
  in: 'in',
  inch: 'in',
  '"': 'in',
  '″': 'in',
  thou: 'thou',
  mil: 'thou',
  um: 'um',
  µm: 'um',
  μm: 'um',
};

/** A typed length: a value in mm with the unit it was typed in, or a place left unread. */
export type TypedLength =
  { readonly kind: 'value'; readonly mm: number; readonly unit: LengthUnit; readonly offset: boolean } | { readonly kind: 'not-read' };

/** What a length is read with: the unit where none is typed, and the master an offset is from. */
export interface LengthContext {
  /** Unit taken when none is typed. */
  readonly unit: LengthUnit;
  /** Size the gauge was set to, mm; needed for readings typed as an offset (`+0.02`). */
  readonly masterMm?: number;
}

/**
 * Reads a length as a hand types it: `58.41`, `2.2995"`, `1.5 thou`, `12 µm`, `+0.02` (offset from the set master), `-` (not read).
 * One comma is taken as the decimal mark. Returns millimetres.
 */
export function parseLength(text: string, context: LengthContext): Result<TypedLength> {
  const typed = text.trim();
  if (typed === '-' || typed === '–') return ok({ kind: 'not-read' });
  if (typed === '') return fail('reading-empty', 'Nothing was typed. Type a reading, or a single - for a place that was not read.', 'text');
  const figure = readFigure(typed);
  if (!figure || /[^a-zµμ"″]/i.test(figure.rest))
    return fail(
      'reading-not-a-number',
      `"${typed.slice(0, 40)}" is not a reading. Nothing was changed. Type one number such as 52.97, 2.0855", 1.5 thou or 12 µm.`,
      'text',
    );
  const { sign, rest: word } = figure;
  const unit = word === '' ? context.unit : Object.hasOwn(UNIT_WORDS, word.toLowerCase()) ? UNIT_WORDS[word.toLowerCase()] : undefined;
  if (!unit) return fail('reading-unit', `"${word}" is not a length unit known here. Use mm, in or ", thou, µm.`, 'text');
  const magnitude = Math.abs(figure.value) * MM_PER[unit];
  if (!Number.isFinite(magnitude))
    return fail('reading-not-a-number', `"${typed.slice(0, 40)}" is not a reading. Type one number.`, 'text');
  if (!sign) return ok({ kind: 'value', mm: magnitude, unit, offset: false });
  if (context.masterMm === undefined)
    return fail(
      'reading-no-master',
      'A reading with + or − is an offset from the set master, and this gauge has none. Type the whole size.',
      'text',
    );
  return ok({ kind: 'value', mm: context.masterMm + (sign === '-' ? -magnitude : magnitude), unit, offset: true });
}

const DIGITS: Readonly<Record<LengthUnit, number>> = { mm: 3, in: 4, thou: 2, um: 0 };
const LABEL: Readonly<Record<LengthUnit, string>> = { mm: 'mm', in: 'in', thou: 'thou', um: 'µm' };

/** Length in mm as text in the wanted unit, with the unit. `signed` puts + before positives and a true minus before negatives. */
export function formatLength(mm: number, unit: LengthUnit = 'mm', options: { digits?: number; signed?: boolean } = {}): string {
  const value = mm / MM_PER[unit];
  const body = Math.abs(value).toFixed(options.digits ?? DIGITS[unit]);
  const zero = Number(body) === 0;
  const sign = value < 0 && !zero ? '−' : options.signed && !zero ? '+' : '';
  return `${sign}${body} ${LABEL[unit]}`;
}
