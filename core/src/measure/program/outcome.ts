import type { Problem } from '../../kit/result.js';
import { checkDoubt, type Gauge } from '../../units/gauge.js';
import { takeRepeats, type SheetOutcome } from '../sheets/line.js';
import { runSheet } from '../sheets/run.js';
import { DEEPEST_MARK, type Cell, type SheetPlace } from './cells.js';
import { specForSheet, type SheetSpec } from './specs.js';

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

export interface PlaceOutcome {
  readonly place: SheetPlace;
  /** Null while the sheet lacks a cell it needs, or cannot be computed. */
  readonly outcome: SheetOutcome | null;
  readonly problem: Problem | null;
  /** Cells taken here (or said to be unreadable), of those that are not optional; what comes from other sheets is not counted. */
  readonly read: number;
  readonly wanted: number;
  /** What the sheet still waits for before it can compute. */
  readonly waiting: readonly string[];
  /** Mean of the takes by cell, canonical unit. */
  readonly values: ReadonlyMap<string, number>;
  readonly questions: readonly string[];
}

function setPath(target: Record<string, unknown>, path: string, value: number): void {
  const steps = path.split('.');
  let at = target;
  for (const step of steps.slice(0, -1)) at = (at[step] ??= {}) as Record<string, unknown>;
  at[steps.at(-1)!] = value;
}

/** The readings of a sheet file from the values of its cells. */
function assemble(place: SheetPlace, values: ReadonlyMap<string, number>): unknown {
  const root: Record<string, unknown> = { ...place.fixed };
  const lists = new Map<string, Map<string, Record<string, unknown>>>();
  for (const cell of place.cells) {
    const value = values.get(cell.key);
    if (value === undefined || cell.key === DEEPEST_MARK) continue;
    if (cell.list === undefined) setPath(root, cell.field, value);
    else {
      const list = lists.get(cell.list) ?? new Map<string, Record<string, unknown>>();
      lists.set(cell.list, list);
      const key = JSON.stringify(cell.item);
      const item = list.get(key) ?? { ...cell.item };
      item[cell.field] = value;
      list.set(key, item);
    }
  }
  const items = (name: string): Record<string, unknown>[] =>
    [...(lists.get(name)?.values() ?? [])].filter(
      (item) => name === 'journals' || place.complete.every((field) => item[field] !== undefined),
    );
  if (lists.has('') || place.cells.some((c) => c.list === '')) return items('');
  for (const name of new Set(place.cells.flatMap((c) => c.list ?? []))) {
    const list = items(name).filter((item) => name !== 'journals' || item['value'] !== undefined);
    if (list.length > 0) root[name] = list;
  }
  return root;
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
  const base = { place, read, wanted: wanted.length, waiting, values };
  const overdue = [...new Set(takes.flatMap((t) => checkDoubt(t.gauge, t.time) ?? []))];
  if (own === 0 || waiting.length > 0) return { ...base, outcome: null, problem: null, questions: overdue };
  const readings = assemble(place, values);
  if (Array.isArray(readings) && readings.length === 0) return { ...base, outcome: null, problem: null, questions: overdue };
  const mark = values.get(DEEPEST_MARK);
  const held = { ...specForSheet(place, spec), ...(mark === undefined ? {} : { deepestMarkMm: mark }) };
  const sheet = runSheet({ sheet: place.kind, readings, spec: held, gauges });
  if (!sheet.ok) {
    // Too few items for the sheet yet is waiting, not a fault.
    const few = sheet.problem.code === 'sheet-file' || sheet.problem.code === 'flatness-points';
    return {
      ...base,
      outcome: null,
      problem: few ? null : sheet.problem,
      waiting: few ? [`${wanted.length - read} more readings`] : [],
      questions: overdue,
    };
  }
  const questions = sheet.value.questions.filter(
    (q) => !q.startsWith('No gauge is recorded') && !q.includes('of the specification was not used'),
  );
  return { ...base, outcome: sheet.value, problem: null, questions: [...questions, ...overdue] };
}

export type PlaceWord = 'not measured' | 'outside' | 'too close to call' | 'within' | 'no limits';

/** Worst verdict of a sheet in one word. */
export function worstWord(outcome: SheetOutcome | null): PlaceWord {
  if (!outcome) return 'not measured';
  const words = outcome.lines.flatMap((l) => l.verdict?.word ?? []);
  return (['outside', 'too close to call', 'within'] as const).find((w) => words.includes(w)) ?? 'no limits';
}
