import Papa from 'papaparse';
import { fail, ok, type Result } from '../kit/result.js';
import type { ProblemCode } from '../kit/problems.js';

/** A table of figures by the names in its head, rows in their order. */
export type Columns = ReadonlyMap<string, Float64Array>;

const MOST_ROWS = 100_000;

/**
 * Reads a table of figures: comma, semicolon or tab, with a decimal comma where semicolon or tab part the columns; the first row names the columns. Lines that begin with # are left out. A cell that
 * is no figure is told with its row; nothing is guessed.
 */
export function readColumns(text: string, needed: readonly string[], optional: readonly string[], code: ProblemCode): Result<Columns> {
  const clean = text.replace(/^\uFEFF/, '');
  const delimiter = /[;\t]/.exec(clean.split('\n', 5).join('\n'))?.[0] ?? ',';
  const [head, ...rows] = Papa.parse<string[]>(clean, { delimiter, skipEmptyLines: 'greedy' }).data.filter((r) => !r[0]?.startsWith('#'));
  const names = (head ?? []).map((name) => name.trim());
  const missing = needed.filter((name) => !names.includes(name));
  if (missing.length > 0)
    return fail(code, `The first line names the columns, and ${missing.join(', ')} is missing. Nothing was computed.`, missing[0]);
  if (rows.length > MOST_ROWS) return fail(code, `The table has ${rows.length} rows; at most ${MOST_ROWS} are read. Thin it out.`);
  const columns = new Map<string, Float64Array>();
  for (const name of [...needed, ...optional.filter((o) => names.includes(o))]) {
    const column = new Float64Array(rows.length);
    const at = names.indexOf(name);
    for (const [i, row] of rows.entries()) {
      const cell = (row[at] ?? '').trim();
      column[i] = cell === '' ? NaN : Number(delimiter === ',' ? cell : cell.replace(',', '.'));
      if (!Number.isFinite(column[i]!))
        return fail(code, `Row ${i + 1} has "${cell.slice(0, 40)}" under ${name}, which is no figure. Nothing was computed.`, name);
    }
    columns.set(name, column);
  }
  return ok(columns);
}

/** Widest gap between angles of a table, degrees: over more than that a straight line would be a guess. */
const WIDEST_GAP_DEG = 15;

/**
 * Brings columns over an angle to `steps` even steps of one period from 0°, by straight lines; the last row goes on to the first. Angles must rise; a row at the end of the period that repeats the
 * first is taken for it.
 */
export function overPeriod(
  angleDeg: Float64Array,
  columns: readonly Float64Array[],
  periodDeg: number,
  steps: number,
  code: ProblemCode,
): Result<Float64Array[]> {
  const n = angleDeg.length;
  if (n < 3) return fail(code, `The table has ${n} rows; a period needs three at least.`);
  for (let i = 1; i < n; i++)
    if (!(angleDeg[i]! > angleDeg[i - 1]!))
      return fail(
        code,
        `The angle does not rise from row ${i} (${angleDeg[i - 1]}°) to row ${i + 1} (${angleDeg[i]}°). Sort the rows; nothing was computed.`,
      );
  const span = angleDeg[n - 1]! - angleDeg[0]!;
  if (span > periodDeg + 1e-9) return fail(code, `The table goes over ${span}°, more than the ${periodDeg}° of one period. Cut it to one.`);
  const used = Math.abs(span - periodDeg) < 1e-9 ? n - 1 : n;
  for (let i = 0; i < used; i++) {
    const next = i + 1 < used ? angleDeg[i + 1]! : angleDeg[0]! + periodDeg;
    if (next - angleDeg[i]! > WIDEST_GAP_DEG)
      return fail(
        code,
        `Between ${angleDeg[i]}° and ${next}° the table has a gap of ${(next - angleDeg[i]!).toFixed(1)}°; up to ${WIDEST_GAP_DEG}° are bridged by a straight line. Give the whole period of ${periodDeg}°.`,
      );
  }
  const out = columns.map(() => new Float64Array(steps));
  let row = 0;
  const begin = angleDeg[0]!;
  const order = Array.from({ length: steps }, (_, i) => i).sort((a, b) => turned(a) - turned(b));
  function turned(i: number): number {
    const at = (((i * periodDeg) / steps - begin) % periodDeg) + periodDeg;
    return at % periodDeg;
  }
  for (const i of order) {
    const at = begin + turned(i);
    while (row + 1 < used && angleDeg[row + 1]! <= at) row++;
    const next = row + 1 < used ? row + 1 : 0;
    const to = next === 0 ? begin + periodDeg : angleDeg[next]!;
    const u = (at - angleDeg[row]!) / (to - angleDeg[row]!);
    columns.forEach((column, k) => (out[k]![i] = column[row]! + u * (column[next]! - column[row]!)));
  }
  return ok(out);
}
