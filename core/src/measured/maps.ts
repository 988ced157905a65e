import { Matrix, solve } from 'ml-matrix';
import type { EngineLayout } from '../engine/layout.js';
import type { CaseView } from '../case/views.js';
import type { Gauge } from '../units/gauge.js';
import type { SheetLine } from '../measure/sheets/line.js';
import { boreReadings } from '../measure/sheets/bore/sheet.js';
import { flatness, ratioAfterCut } from '../measure/sheets/flatness/flatness.js';
import { heightPoints } from '../measure/sheets/flatness/sheet.js';
import type { SheetPlace } from '../measure/sheets/cells.js';
import { measurePlace, placeReadings, specOfPlace, type ReadingEntry } from './caseMeasure.js';
import { measureProgram } from '../measure/program/program.js';

/** Angle of a measuring axis round the bore, degrees from along the crank: A across it, B along it, C and D between. */
const AXIS_DEG: Readonly<Record<string, number>> = { A: 90, B: 0, C: 45, D: 135 };

/**
 * Diameter against angle through the axes that were read: mean, second and fourth harmonic, as many terms as there are axes (two axes are an oval, four one with
 * corners). It goes through every reading; what lies between is interpolation, not measurement.
 */
export function ovalThrough(read: ReadonlyArray<{ readonly deg: number; readonly mm: number }>): (deg: number) => number {
  if (read.length === 0) return () => NaN;
  const terms: Array<(rad: number) => number> = [() => 1, (r) => Math.cos(2 * r), (r) => Math.sin(2 * r), (r) => Math.cos(4 * r)];
  const rad = read.map((p) => (p.deg * Math.PI) / 180);
  const used: Array<{ term: (rad: number) => number; direction: number[] }> = [];
  for (const term of terms) {
    if (used.length === read.length) break;
    let column = rad.map(term);
    for (const { direction } of used) {
      const along = column.reduce((s, v, i) => s + v * direction[i]!, 0);
      column = column.map((v, i) => v - along * direction[i]!);
    }
    const size = Math.hypot(...column);
    if (size > 1e-6) used.push({ term, direction: column.map((v) => v / size) });
  }
  const matrix = new Matrix(rad.map((r) => used.map((u) => u.term(r))));
  const weights = solve(matrix, Matrix.columnVector(read.map((p) => p.mm)), true).to1DArray();
  return (deg) => used.reduce((s, u, k) => s + weights[k]! * u.term((deg * Math.PI) / 180), 0);
}

/** The wall of a bore unrolled: diameter by depth and angle, mm. */
export interface BoreWall {
  /** mm below the deck, downwards. */
  readonly depthsMm: readonly number[];
  readonly degrees: readonly number[];
  /** Diameter, by depth and angle, mm. */
  readonly mm: ReadonlyArray<readonly number[]>;
  /** Axes that were read at every depth shown. */
  readonly axes: readonly string[];
  readonly unwornMm: number | null;
}

/** The wall of a bore from what was read of it; null until one depth is. */
export function boreWall(place: SheetPlace, values: ReadonlyMap<string, number>): BoreWall | null {
  const points = boreReadings({ size: (key) => values.get(key) ?? null }, place.cells);
  const depthsMm = [...new Set(points.map((p) => p.depthMm))].sort((a, b) => a - b);
  if (depthsMm.length === 0) return null;
  const degrees = Array.from({ length: 73 }, (_, i) => i * 5);
  const mm = depthsMm.map((depth) => {
    const at = ovalThrough(points.filter((p) => p.depthMm === depth).map((p) => ({ deg: AXIS_DEG[p.axis] ?? 0, mm: p.mm })));
    return degrees.map(at);
  });
  const axes = [...new Set(points.map((p) => p.axis))].sort();
  return { depthsMm, degrees, mm, axes, unwornMm: values.get('unworn') ?? null };
}

/** A deck or head as heights over its plane, mm. */
export interface DeckMap {
  readonly xs: readonly number[];
  readonly ys: readonly number[];
  /** Height over the fitted plane by y and x, mm; null where nothing was read. */
  readonly mm: ReadonlyArray<ReadonlyArray<number | null>>;
  /** Least cut that takes the lowest point away, mm. */
  readonly cutMm: number;
}

/** Heights of a deck or head over its fitted plane; null until a plane can be fitted. */
export function deckMap(place: SheetPlace, values: ReadonlyMap<string, number>, gauge: Gauge): DeckMap | null {
  const points = heightPoints((key) => values.get(key) ?? null, place.cells);
  const fit = flatness(points, gauge);
  if (!fit) return null;
  const xs = [...new Set(points.map((p) => p.xMm))].sort((a, b) => a - b);
  const ys = [...new Set(points.map((p) => p.yMm))].sort((a, b) => a - b);
  const at = new Map(points.map((p, i) => [`${p.xMm} ${p.yMm}`, fit.residuals[i]!]));
  return {
    xs,
    ys,
    mm: ys.map((y) => xs.map((x) => at.get(`${x} ${y}`) ?? null)),
    cutMm: Math.max(...fit.residuals) - Math.min(...fit.residuals),
  };
}

/** Compression ratio after cuts off a deck or head. A cut that takes more than the chamber holds has none. */
export function cutEffects(
  layout: EngineLayout,
  cutsMm: readonly number[],
): Array<{ readonly cutMm: number; readonly ratio: number | null }> {
  return cutsMm.map((cutMm) => ({ cutMm, ratio: ratioAfterCut(layout.compressionRatio, layout.boreMm, layout.strokeMm, cutMm) }));
}

/** One result at one place along the engine, with its limits. */
export interface RunPoint {
  readonly place: SheetPlace;
  readonly line: SheetLine;
  readonly lower: number | null;
  readonly upper: number | null;
}

/** One result of a kind of place along the engine, with what limits it. */
function along(view: CaseView, kind: string, lineId: string): RunPoint[] {
  return measureProgram(view.layout).flatMap((place) => {
    if (place.kind !== kind) return [];
    const line = measurePlace(view, place).outcome?.lines.find((l) => l.id === lineId);
    const limit = specOfPlace(view, place)?.limits?.[lineId];
    return line ? [{ place, line, lower: limit?.lower ?? null, upper: limit?.upper ?? null }] : [];
  });
}

/** Running clearance along the crank by gauges and by strip. */
export function clearanceRun(view: CaseView): { readonly gauged: RunPoint[]; readonly strip: RunPoint[] } {
  return { gauged: along(view, 'shell-clearance', 'vertical'), strip: along(view, 'crushed-strip', 'clearance') };
}

/** Cells read more than once: the takes in their order. */
export function repeatsOf(readings: readonly ReadingEntry[]): Array<{ readonly cell: string; readonly values: number[] }> {
  const byCell = new Map<string, Array<{ take: number; value: number }>>();
  for (const { value: r } of readings)
    if (r.value !== null) byCell.set(r.cell, [...(byCell.get(r.cell) ?? []), { take: r.take, value: r.value }]);
  return [...byCell].flatMap(([cell, takes]) =>
    takes.length < 2 ? [] : [{ cell, values: takes.sort((a, b) => a.take - b.take).map((t) => t.value) }],
  );
}

/** Readings of a place in the cells' canonical unit, for tables and drawings. */
export function takesOf(view: CaseView, place: SheetPlace): ReadonlyMap<string, ReadingEntry[]> {
  const byCell = new Map<string, ReadingEntry[]>();
  for (const r of placeReadings(view, place)) byCell.set(r.value.cell, [...(byCell.get(r.value.cell) ?? []), r]);
  for (const list of byCell.values()) list.sort((a, b) => a.value.take - b.value.take);
  return byCell;
}
