import type { Problem } from '../../kit/result.js';
import { checkDoubt, type Gauge } from '../../units/gauge.js';
import { DEEPEST_MARK, type Cell, type SheetPlace } from '../sheets/cells.js';
import { Reader, type CellValues, type Run } from '../sheets/define.js';
import { judge, takeRepeats, type Reference, type SheetOutcome } from '../sheets/line.js';
import { benchOf } from './sheetOf.js';
import { specOfSheet, type SheetSpec } from './specs.js';

/** What is taken for a gauge nobody recorded. */
export const ASSUMED_GAUGE: Gauge = {
  id: 'default',
  name: 'not named',
  kind: 'other',
  resolutionMm: 0.001,
  expandedUncertaintyMm: 0.003,
  repeatabilityMm: 0.0014,
};

/** What a sheet computed, held against its limits. */
export function outcomeOf(sheet: string, run: Run, bands: Readonly<Record<string, Reference>>): SheetOutcome {
  return {
    sheet,
    lines: judge(run.lines, { ...run.references, ...bands }, run.thumbs ?? {}),
    says: run.says ?? [],
    missing: run.missing ?? [],
    questions: run.questions ?? [],
  };
}

/** One reading of a cell: value in the cell's canonical unit, null where the place was not read. */
export interface Take {
  readonly cell: string;
  readonly take: number;
  readonly value: number | null;
  readonly gauge: Gauge;
  /** Time of the reading, for the check of the gauge. */
  readonly time: string;
}

/** A value the bench knows from another sheet, with the gauge that took it. */
export interface DerivedValue {
  readonly value: number;
  readonly gauge: Gauge;
}

/** A sheet at one place as it stands: computed, waiting, or at fault. */
export interface PlaceOutcome {
  readonly place: SheetPlace;
  /** Null while the sheet lacks a cell it needs, or cannot be computed. */
  readonly outcome: SheetOutcome | null;
  readonly problem: Problem | null;
  /** Cells taken here (or said to be unreadable), of those that are not optional; what comes from other sheets is not counted. */
  readonly read: number;
  /** Cells with a figure of their own, optional ones too; what comes from other sheets is not counted. */
  readonly own: number;
  readonly wanted: number;
  /** What the sheet still waits for before it can compute. */
  readonly waiting: readonly string[];
  /** Mean of the takes by cell, canonical unit. */
  readonly values: ReadonlyMap<string, number>;
  readonly questions: readonly string[];
}

/** Takes per cell brought to their mean, and the gauge of each role as its repeats make it. */
function gather(
  place: SheetPlace,
  takes: readonly Take[],
  derived: ReadonlyMap<string, DerivedValue>,
): { own: number; values: Map<string, number>; gauges: Record<string, Gauge> } {
  const byKey = new Map<string, Cell>(place.cells.map((c) => [c.key, c]));
  const values = new Map<string, number>();
  const gauges: Record<string, Gauge> = {};
  const roles = new Map<string, Array<{ mm: number; cell: string; gauge: Gauge }>>();
  for (const t of takes) {
    const cell = byKey.get(t.cell);
    if (!cell || t.value === null) continue;
    const list = roles.get(cell.role) ?? [];
    list.push({ mm: t.value, cell: t.cell, gauge: t.gauge });
    roles.set(cell.role, list);
  }
  for (const [role, list] of roles) {
    const taken = takeRepeats(list, (r) => r.cell, list.at(-1)!.gauge);
    for (const r of taken.readings) values.set(r.cell, r.mm);
    gauges[role] = taken.gauge;
  }
  const own = values.size;
  for (const [key, d] of derived) {
    const cell = byKey.get(key);
    if (!cell || values.has(key)) continue;
    values.set(key, d.value);
    gauges[cell.role] ??= d.gauge;
  }
  return { own, values, gauges };
}

/**
 * The sheet of a place from its takes: pure. `derived` are values the bench knows from other sheets (the journal of a clearance, the wall of a new
 * half); a reading of its own goes before.
 */
export function placeOutcome(
  place: SheetPlace,
  takes: readonly Take[],
  spec: SheetSpec | null,
  derived: ReadonlyMap<string, DerivedValue> = new Map(),
): PlaceOutcome {
  const { own, values, gauges } = gather(place, takes, derived);
  const wanted = place.cells.filter((c) => !c.optional);
  const typed = new Set(takes.map((t) => t.cell));
  const read = wanted.filter((c) => typed.has(c.key)).length;
  const nameOf = (key: string): string => place.cells.find((c) => c.key === key)?.name ?? key;
  const waiting = place.needs.filter((key) => !values.has(key)).map(nameOf);
  const base = { place, read, own, wanted: wanted.length, waiting, values };
  const overdue = [...new Set(takes.flatMap((t) => checkDoubt(t.gauge, t.time) ?? []))];
  const nothing = { ...base, outcome: null, problem: null, questions: overdue };
  if (own === 0 || waiting.length > 0) return nothing;
  const few = { ...nothing, waiting: [`${wanted.length - read} more readings`] };
  const reader = new Reader();
  const cells: CellValues = {
    of: (key) => values.get(key) ?? null,
    all: (keys) => (keys.every((key) => values.has(key)) ? (keys.map((key) => values.get(key)!) as never) : null),
    size: (key) => reader.size(values.get(key), nameOf(key)),
  };
  const compute = benchOf(place.kind).ofCells(cells, place);
  if (reader.problem) return { ...nothing, problem: reader.problem };
  if (!compute) return few;
  const { sizes, bands } = specOfSheet(place, spec);
  const mark = values.get(DEEPEST_MARK);
  const run = compute({
    gauge: (role) => gauges[role] ?? { ...ASSUMED_GAUGE, id: role },
    sizes: mark === undefined ? sizes : { ...sizes, deepestMarkMm: mark },
  });
  if (run.refused) return run.refused.few ? few : { ...nothing, problem: run.refused.problem };
  const outcome = outcomeOf(place.kind, run, bands);
  return { ...nothing, outcome, questions: [...outcome.questions, ...overdue] };
}

/** Worst verdict of a sheet in a word. */
export type PlaceWord = 'not measured' | 'outside' | 'too close to call' | 'within' | 'no limits';

/** Worst verdict of a sheet in one word. */
export function worstWord(outcome: SheetOutcome | null): PlaceWord {
  if (!outcome) return 'not measured';
  const words = outcome.lines.flatMap((l) => l.verdict?.word ?? []);
  return (['outside', 'too close to call', 'within'] as const).find((w) => words.includes(w)) ?? 'no limits';
}
