/** A figure as a hand writes it, and what stands after it. */
export interface ReadFigure {
  readonly value: number;
  /** Sign as typed; '' where none was. */
  readonly sign: '' | '+' | '-';
  /** What follows: a unit, or nothing. */
  readonly rest: string;
}

const DECIMAL = /^([+\-−]?)\s*(\d+(?:[.,]\d*)?|[.,]\d+)\s*(.*)$/;
const FRACTION = /^([+\-−]?)\s*(?:(\d+)[\s-]+)?(\d+)\s*\/\s*(\d+)\s*(.*)$/;

/**
 * Reads the figure at the start of a text: decimal point or comma (`62.50`, `62,50`), a fraction (`3/8`), a whole with a fraction (`3 3/8`). One mark is taken
 * as the decimal mark; what has two (`1.234,5`) is no figure. Null when there is none.
 */
export function readFigure(text: string): ReadFigure | null {
  const typed = text.trim();
  const signOf = (sign: string): ReadFigure['sign'] => (sign === '−' ? '-' : (sign as ReadFigure['sign']));
  const fraction = FRACTION.exec(typed);
  if (fraction) {
    const [, sign = '', whole = '0', above, below, rest = ''] = fraction;
    if (Number(below) === 0) return null;
    const size = Number(whole) + Number(above) / Number(below);
    return { value: sign === '' || sign === '+' ? size : -size, sign: signOf(sign), rest: rest.trim() };
  }
  const decimal = DECIMAL.exec(typed);
  if (!decimal) return null;
  const [, sign = '', digits = '', rest = ''] = decimal;
  // A second mark, or more digits after a gap: it cannot be told which was meant.
  if (/^[.,\d/]/.test(rest)) return null;
  const size = Number(digits.replace(',', '.'));
  if (!Number.isFinite(size)) return null;
  return { value: sign === '' || sign === '+' ? size : -size, sign: signOf(sign), rest: rest.trim() };
}
