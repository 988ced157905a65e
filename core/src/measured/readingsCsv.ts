import Papa from 'papaparse';
import type { EngineLayout } from '../engine/layout.js';
import type { CaseView } from '../case/views.js';
import { fail, ok, type Result } from '../kit/result.js';
import { GAUGE_KINDS, type Gauge, type GaugeKind } from '../units/gauge.js';
import type { Cell, SheetPlace } from '../measure/sheets/cells.js';
import { placeReadings, type ReadingEntry } from './caseMeasure.js';
import { measureProgram, placeOf } from '../measure/program/program.js';
import { cellUnits, doubtCell, readCell } from '../measure/program/readCell.js';

const COLUMNS = [
  'station',
  'sheet',
  'cell',
  'take',
  'reading',
  'unit',
  'value',
  'gauge_id',
  'gauge',
  'gauge_kind',
  'resolution_mm',
  'expanded_uncertainty_mm',
  'repeatability_mm',
  'master_mm',
  'checked_on',
  'insisted',
  'by',
  'time',
] as const;
/** Present only where a reading came from a stand-in, so that files without one stay as they were. */
const SIMULATED = 'simulated';
type Column = (typeof COLUMNS)[number];

/** Every reading of a case, one a line, in the order of the program; header in `docs/formats/readings.md`. `station` is empty for the engine as a whole. */
export function readingsCsv(view: CaseView): string {
  const rows = measureProgram(view.layout).flatMap((place) =>
    [...placeReadings(view, place)]
      .sort((a, b) => order(place, a) - order(place, b) || a.value.take - b.value.take)
      .map(({ value: r, version }): Record<Column, unknown> & { readonly simulated?: string } => ({
        station: place.station ?? '',
        sheet: r.sheet,
        cell: r.cell,
        take: r.take,
        reading: r.text,
        unit: r.unit,
        value: r.value === null ? '' : Number(r.value.toFixed(9)),
        gauge_id: r.gauge.id,
        gauge: r.gauge.name,
        gauge_kind: r.gauge.kind,
        resolution_mm: r.gauge.resolutionMm,
        expanded_uncertainty_mm: r.gauge.expandedUncertaintyMm,
        repeatability_mm: r.gauge.repeatabilityMm,
        master_mm: r.gauge.masterMm ?? '',
        checked_on: r.gauge.checkedOn ?? '',
        insisted: r.insisted ? 'yes' : '',
        by: version.author.name,
        time: version.time,
        ...(r.simulated ? { [SIMULATED]: 'yes' } : {}),
      })),
  );
  const fields = rows.some((row) => row.simulated) ? [...COLUMNS, SIMULATED] : [...COLUMNS];
  return Papa.unparse({ fields, data: rows }, { newline: '\n', escapeFormulae: true }) + '\n';
}

const order = (place: SheetPlace, r: ReadingEntry): number => place.cells.findIndex((c) => c.key === r.value.cell);

/** A reading that comes from a file or a paste, checked against the program of the engine. */
export interface IncomingReading {
  readonly place: SheetPlace;
  readonly cell: Cell;
  readonly take: number;
  readonly text: string;
  readonly unit: string;
  readonly value: number | null;
  readonly gauge: Gauge;
  readonly insisted: boolean;
  readonly simulated: boolean;
}

/** What a file or paste of readings brings, before any of it is taken. */
export interface Incoming {
  readonly readings: readonly IncomingReading[];
  /** Lines that were not understood, each with its place and why; the others stand. */
  readonly faults: readonly string[];
  /** What should be looked at before it is taken: units mixed, figures out of family. */
  readonly questions: readonly string[];
}

const MOST_LINES = 20_000;
/** A spreadsheet guard before a formula sign, put there on the way out. */
const bare = (text: string): string => text.trim().replace(/^'(?=[=+\-@])/, '');
const figure = (text: string | undefined): number | undefined => {
  const n = Number((text ?? '').replace(',', '.'));
  return text?.trim() && Number.isFinite(n) ? n : undefined;
};

/**
 * Reads a file of readings. Comma, semicolon or tab; a byte-order mark and decimal commas are understood; columns in any order, of which `station`,
 * `sheet`, `cell` and `reading` are needed. `gauge` stands for lines that name none.
 */
export function readReadingsCsv(text: string, layout: EngineLayout, gauge: Gauge): Result<Incoming> {
  const parsed = Papa.parse<Record<string, string>>(text.replace(/^\uFEFF/, ''), {
    header: true,
    skipEmptyLines: 'greedy',
    delimitersToGuess: [',', ';', '\t'],
    transformHeader: (h) => h.trim().toLowerCase(),
  });
  const have = parsed.meta.fields ?? [];
  const lacking = ['station', 'sheet', 'cell', 'reading'].filter((c) => !have.includes(c));
  if (lacking.length > 0)
    return fail(
      'readings-header',
      `This is not a file of readings: the column${lacking.length > 1 ? 's' : ''} ${lacking.join(', ')} ${lacking.length > 1 ? 'are' : 'is'} missing in its first line. Nothing was taken. See docs/formats/readings.md.`,
      'header',
    );
  if (parsed.data.length > MOST_LINES)
    return fail('readings-long', `The file has ${parsed.data.length} lines; ${MOST_LINES} are read at most. Nothing was taken.`, 'lines');
  const faults: string[] = [];
  const readings: IncomingReading[] = [];
  const taken = new Map<string, number>();
  parsed.data.forEach((row, i) => {
    const line = i + 2;
    const station = bare(row['station'] ?? '') || null;
    const place = placeOf(layout, station, bare(row['sheet'] ?? ''));
    const cell = place?.cells.find((c) => c.key === bare(row['cell'] ?? ''));
    if (!place || !cell)
      return void faults.push(
        `Line ${line}: this engine has no place "${[station ?? 'engine', row['sheet'], row['cell']].join(' / ').slice(0, 80)}".`,
      );
    const unit = bare(row['unit'] ?? '') || cellUnits(cell)[0]!;
    const own = gaugeOfRow(row, gauge);
    const typed = bare(row['reading'] ?? '');
    const read = readCell(cell, typed, unit, own);
    if (!read.ok) return void faults.push(`Line ${line}: ${read.problem.sentence}`);
    const take = figure(row['take']) ?? 1;
    if (!Number.isInteger(take) || take < 1 || take > 20) return void faults.push(`Line ${line}: take ${row['take']} is not 1 to 20.`);
    const slot = `${place.id}|${cell.key}|${take}`;
    const before = taken.get(slot);
    if (before !== undefined) return void faults.push(`Line ${line}: the same place and take as line ${before}.`);
    taken.set(slot, line);
    readings.push({
      place,
      cell,
      take,
      text: typed,
      unit,
      value: read.value.value,
      gauge: own,
      insisted: row['insisted'] === 'yes',
      simulated: row[SIMULATED] === 'yes',
    });
  });
  return ok({ readings, faults, questions: questionsOf(readings) });
}

function gaugeOfRow(row: Record<string, string>, fallback: Gauge): Gauge {
  const name = bare(row['gauge'] ?? '');
  const resolutionMm = figure(row['resolution_mm']);
  const expandedUncertaintyMm = figure(row['expanded_uncertainty_mm']);
  if (!name || !resolutionMm || expandedUncertaintyMm === undefined) return fallback;
  const masterMm = figure(row['master_mm']);
  const checkedOn = bare(row['checked_on'] ?? '');
  const kind = bare(row['gauge_kind'] ?? '') as GaugeKind;
  return {
    id: bare(row['gauge_id'] ?? '') || name.toLowerCase().replace(/[^a-z0-9]+/g, '-'),
    name,
    kind: GAUGE_KINDS.includes(kind) ? kind : 'other',
    resolutionMm,
    expandedUncertaintyMm,
    repeatabilityMm: figure(row['repeatability_mm']) ?? 0,
    ...(masterMm === undefined ? {} : { masterMm }),
    ...(checkedOn ? { checkedOn } : {}),
  };
}

/**
 * Reads a block copied from a spreadsheet into a table whose rows are places and whose columns are cell keys, from one corner on. Empty cells of the block are
 * passed over; what runs over the edge is a fault.
 */
export function readPaste(
  text: string,
  table: { readonly rows: readonly SheetPlace[]; readonly columns: readonly string[] },
  corner: { readonly row: number; readonly column: number },
  gauge: Gauge,
  unitOf: (cell: Cell) => string,
): Incoming {
  // Cells copied from a spreadsheet are tab separated whatever the locale; a single column has no separator at all.
  const block = Papa.parse<string[]>(text.replace(/^\uFEFF/, '').replace(/\r?\n$/, ''), {
    delimiter: text.includes('\t') ? '\t' : text.includes(';') ? ';' : '\t',
  }).data;
  const faults: string[] = [];
  const readings: IncomingReading[] = [];
  block.slice(0, 500).forEach((line, j) =>
    line.slice(0, 100).forEach((raw, i) => {
      const typed = bare(raw);
      if (typed === '') return;
      const where = `row ${j + 1}, column ${i + 1} ("${typed.slice(0, 20)}")`;
      const place = table.rows[corner.row + j];
      const key = table.columns[corner.column + i];
      const cell = place?.cells.find((c) => c.key === key);
      if (!place || !cell) return void faults.push(`The block runs over the edge of the table at ${where}.`);
      const unit = unitOf(cell);
      const read = readCell(cell, typed, unit, gauge);
      if (!read.ok) return void faults.push(`${place.short}, ${where}: ${read.problem.sentence}`);
      readings.push({ place, cell, take: 1, text: typed, unit, value: read.value.value, gauge, insisted: false, simulated: false });
    }),
  );
  return { readings, faults, questions: questionsOf(readings) };
}

const written = /[a-zµμ"″·]+$/i;

function questionsOf(readings: readonly IncomingReading[]): string[] {
  const questions: string[] = [];
  const units = new Set(
    readings.filter((r) => r.cell.quantity === 'length' && r.value !== null).map((r) => written.exec(r.text)?.[0]?.toLowerCase() ?? r.unit),
  );
  if (units.size > 1) questions.push(`The units are mixed (${[...units].join(', ')}): each figure is taken in its own.`);
  for (const r of readings) {
    if (r.value === null) continue;
    const near = readings.flatMap((o) =>
      o !== r && o.place === r.place && o.cell.role === r.cell.role && o.value !== null ? [o.value] : [],
    );
    const elsewhere = readings.flatMap((o) =>
      o !== r && o.place !== r.place && o.cell.key === r.cell.key && o.value !== null ? [o.value] : [],
    );
    const doubt = doubtCell(r.cell, r.value, near, elsewhere);
    if (doubt) questions.push(`${r.place.short}, ${r.cell.name}: ${doubt}`);
  }
  return questions;
}

/** How a reading that comes stands to what is there. */
export type Standing = 'new' | 'same' | 'changed';

/** Is an incoming reading already there as it is, there otherwise, or new? */
export function standingOf(view: CaseView, r: IncomingReading): Standing {
  const there = placeReadings(view, r.place).find((o) => o.value.cell === r.cell.key && o.value.take === r.take)?.value;
  if (!there) return 'new';
  const gauge = (g: Gauge): string =>
    JSON.stringify([
      g.id,
      g.name,
      g.kind,
      g.resolutionMm,
      g.expandedUncertaintyMm,
      g.repeatabilityMm,
      g.masterMm ?? null,
      g.checkedOn ?? null,
    ]);
  return there.text === r.text &&
    there.unit === r.unit &&
    there.insisted === r.insisted &&
    (there.simulated ?? false) === r.simulated &&
    gauge(there.gauge) === gauge(r.gauge)
    ? 'same'
    : 'changed';
}
