import Papa from 'papaparse';
import { fail, ok, type Result } from '../kit/result.js';
import type { Trace } from './finish.js';

const MM_PER: Readonly<Record<string, number>> = { mm: 1, µm: 0.001, um: 0.001, in: 25.4 };
const UM_PER: Readonly<Record<string, number>> = { µm: 1, um: 1, nm: 0.001, mm: 1000 };

/** A figure as a spreadsheet writes it; a comma is the decimal mark where commas do not part the columns. An empty cell is no figure. */
const figure = (text: string, comma: boolean): number =>
  text.trim() === '' ? NaN : Number((comma ? text.replace(',', '.') : text).trim());

/**
 * Reads a profile trace: two columns x and z, in mm and µm unless the header says otherwise (`x (µm)`, `z (nm)`). Comma, semicolon or tab; a decimal comma
 * goes with semicolon or tab; a byte-order mark is ignored. The spacing must be even: a gap is told with its place, not bridged.
 */
export function readTraceCsv(text: string): Result<Trace> {
  const clean = text.replace(/^\uFEFF/, '');
  const delimiter = /[;\t]/.exec(clean.split('\n', 5).join('\n'))?.[0] ?? ',';
  const rows = Papa.parse<string[]>(clean, { delimiter, skipEmptyLines: 'greedy' }).data.filter((r) => !r[0]?.startsWith('#'));
  const comma = delimiter !== ',';
  const head = rows[0]?.slice(0, 2).some((c) => c.trim() !== '' && Number.isNaN(figure(c, comma))) ? rows.shift() : undefined;
  const unit = (cell: string | undefined, table: Readonly<Record<string, number>>, usual: number): number => {
    const said = /[([]\s*([a-zµμ]+)\s*[)\]]/i.exec(cell ?? '')?.[1]?.replace('μ', 'µ');
    return said ? (table[said] ?? NaN) : usual;
  };
  const perX = unit(head?.[0], MM_PER, 1);
  const perZ = unit(head?.[1], UM_PER, 1);
  if (Number.isNaN(perX) || Number.isNaN(perZ))
    return fail('trace-unit', 'A unit in the header is not known here. Use mm or µm for x, µm, nm or mm for z.', 'trace');
  if (rows.length < 50)
    return fail(
      'trace-empty',
      `The file holds ${rows.length} points; a trace needs at least 50. Two columns are expected: x and z.`,
      'trace',
    );
  if (rows.length > 2_000_000) return fail('trace-long', 'The trace has more than two million points. Thin it out first.', 'trace');
  const x = new Float64Array(rows.length);
  const z = new Float64Array(rows.length);
  for (const [i, r] of rows.entries()) {
    x[i] = figure(r[0] ?? '', comma) * perX;
    z[i] = figure(r[1] ?? '', comma) * perZ;
    if (!Number.isFinite(x[i]!) || !Number.isFinite(z[i]!))
      return fail(
        'trace-figure',
        `Point ${i + 1} is "${r.slice(0, 2).join(delimiter).slice(0, 40)}", not two figures. Nothing was computed.`,
        'trace',
      );
  }
  const stepMm = (x[x.length - 1]! - x[0]!) / (x.length - 1);
  if (!(stepMm > 0)) return fail('trace-order', 'The x values do not rise. The first column is the way along the surface.', 'trace');
  for (let i = 1; i < x.length; i++)
    if (Math.abs(x[i]! - x[i - 1]! - stepMm) > stepMm * 0.5)
      return fail(
        'trace-gap',
        `Between point ${i} and ${i + 1} the trace jumps by ${((x[i]! - x[i - 1]!) * 1000).toFixed(1)} µm where ${(stepMm * 1000).toFixed(1)} µm is its step. A gap is not bridged: send the trace whole, or cut it there.`,
        'trace',
      );
  return ok({ stepMm, z });
}
