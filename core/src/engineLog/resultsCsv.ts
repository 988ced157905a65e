import Papa from 'papaparse';
import { fail, ok, type Result } from '../kit/result.js';
import type { LineBodies } from './lines.js';
import { SPECIES, type Species } from './species.js';

/** A result of a laboratory before it is a line of a log. */
export type ReportedResult = Omit<LineBodies['result'], 'insisted'>;

const MOST_ROWS = 500;
/** `Fe`, `Fe mg/kg`, `Fe (ppm)`, `visc100_cSt`. */
const HEADING = /^\s*([A-Za-z0-9]+?)\s*(?:[\s_([]+\s*([^\s)\]]+)\s*[)\]]?)?\s*$/;

/**
 * Reads results as a laboratory sends them (docs/formats/oil-results.md): a row a sample, columns `reference`, `reported` (ISO day), `laboratory` and any of the species, its unit in the heading. `<2` is taken as half of
 * it; an empty cell was not measured. Nothing is taken in part: the first cell that cannot be read refuses the file.
 */
export function readResultsCsv(text: string): Result<ReportedResult[]> {
  const clean = text.replace(/^\uFEFF/, '');
  const delimiter = /[;\t]/.exec(clean.split('\n', 5).join('\n'))?.[0] ?? ',';
  const [head, ...rows] = Papa.parse<string[]>(clean, { delimiter, skipEmptyLines: 'greedy' }).data;
  const refuse = (sentence: string, field?: string) => fail('oil-results', `${sentence} Nothing was taken in.`, field);
  if (!head || rows.length === 0) return refuse('The file holds no result: a heading and a row a sample are needed.');
  if (rows.length > MOST_ROWS) return refuse(`The file holds ${rows.length} results; at most ${MOST_ROWS} are read at once.`);
  const columns: Array<{ species: Species; factor: number; at: number }> = [];
  const plain: Partial<Record<'reference' | 'reported' | 'laboratory', number>> = {};
  for (const [at, heading] of head.entries()) {
    const bare = heading.trim();
    if (bare === 'reference' || bare === 'reported' || bare === 'laboratory') {
      plain[bare] = at;
      continue;
    }
    const [, id, unit] = HEADING.exec(bare) ?? [];
    const found = SPECIES.find((s) => s.id.toLowerCase() === id?.toLowerCase());
    if (!found)
      return refuse(`The column "${bare.slice(0, 40)}" is none known here; known are ${SPECIES.map((s) => s.id).join(', ')}.`, bare);
    const units = Object.keys(found.units);
    const named = unit === undefined ? units[0]! : units.find((u) => plainUnit(u) === plainUnit(unit));
    if (named === undefined) return refuse(`"${unit!.slice(0, 20)}" is no unit of ${found.name}; give it in ${units.join(', ')}.`, bare);
    if (columns.some((c) => c.species === found)) return refuse(`The column ${found.id} stands there twice.`, bare);
    columns.push({ species: found, factor: found.units[named]!, at });
  }
  if (plain.reference === undefined || plain.reported === undefined)
    return refuse(
      `The column ${plain.reference === undefined ? 'reference' : 'reported'} is missing.`,
      plain.reference === undefined ? 'reference' : 'reported',
    );
  if (columns.length === 0) return refuse('The file has no column of figures.');
  const results: ReportedResult[] = [];
  for (const [i, row] of rows.entries()) {
    const reference = (row[plain.reference] ?? '').trim().toUpperCase();
    const reported = (row[plain.reported] ?? '').trim();
    if (!/^[A-Z0-9][A-Z0-9-]{3,23}$/.test(reference))
      return refuse(`Row ${i + 1}: "${reference.slice(0, 40)}" is no reference of a sample.`, 'reference');
    if (!/^\d{4}-\d{2}-\d{2}$/.test(reported) || Number.isNaN(Date.parse(reported)))
      return refuse(`Row ${i + 1}: "${reported.slice(0, 40)}" is no day; write it as 2026-03-31.`, 'reported');
    const figures: Record<string, number> = {};
    for (const { species: s, factor, at } of columns) {
      const cell = (row[at] ?? '').trim();
      if (cell === '' || cell === '-') continue;
      const under = cell.startsWith('<');
      const value = Number((under ? cell.slice(1) : cell).trim().replace(delimiter === ',' ? /(?!)/ : ',', '.'));
      if (!Number.isFinite(value) || value < 0) return refuse(`Row ${i + 1}: "${cell.slice(0, 40)}" under ${s.id} is no figure.`, s.id);
      figures[s.id] = Number(((under ? value / 2 : value) * factor).toPrecision(6));
    }
    if (Object.keys(figures).length === 0) return refuse(`Row ${i + 1}, ${reference}, has no figure.`, 'reference');
    results.push({
      reference,
      reported,
      laboratory: (plain.laboratory === undefined ? '' : (row[plain.laboratory] ?? '')).trim().slice(0, 80),
      figures,
    });
  }
  return ok(results);
}

const plainUnit = (unit: string): string =>
  unit
    .toLowerCase()
    .replace(/[²^]2?/g, '2')
    .replace(/[^a-z0-9%/]/g, '');
