import { Matrix, solve } from 'ml-matrix';
import { combinedExpanded, type Gauge } from '../../../units/gauge.js';
import type { SheetLine } from '../line.js';

/** Height of a face over the straight edge or plate at a place of it, mm. */
export interface HeightPoint {
  readonly xMm: number;
  readonly yMm: number;
  readonly heightMm: number;
}

/** A face against its least-squares plane. */
export interface Flatness {
  readonly lines: readonly SheetLine[];
  /** Residual heights over the best plane, in the order of the points, mm. */
  readonly residuals: readonly number[];
  readonly plane: { readonly a: number; readonly b: number; readonly c: number };
}

/** Flatness by the least-squares plane z = a + bx + cy: deviation is greatest − least residual (ISO 12781-1, LS). Null below four points or on one line. */
export function flatness(points: readonly HeightPoint[], gauge: Gauge): Flatness | null {
  if (points.length < 4) return null;
  const mx = points.reduce((s, p) => s + p.xMm, 0) / points.length;
  const my = points.reduce((s, p) => s + p.yMm, 0) / points.length;
  const spread = (f: (p: HeightPoint) => number): number => Math.max(...points.map(f)) - Math.min(...points.map(f));
  const matrix = new Matrix(points.map((p) => [1, p.xMm - mx, p.yMm - my]));
  const normal = matrix.transpose().mmul(matrix);
  const det = normal.get(1, 1) * normal.get(2, 2) - normal.get(1, 2) ** 2;
  if (spread((p) => p.xMm) === 0 || spread((p) => p.yMm) === 0 || det < 1e-9) return null;
  const solved = solve(matrix, Matrix.columnVector(points.map((p) => p.heightMm)), true);
  const [a, b, c] = [solved.get(0, 0), solved.get(1, 0), solved.get(2, 0)];
  const residuals = points.map((p) => p.heightMm - a - b * (p.xMm - mx) - c * (p.yMm - my));
  const high = residuals.indexOf(Math.max(...residuals));
  const low = residuals.indexOf(Math.min(...residuals));
  const place = (i: number): string => `${points[i]!.xMm.toFixed(0)}, ${points[i]!.yMm.toFixed(0)} mm`;
  return {
    residuals,
    plane: { a: a - b * mx - c * my, b, c },
    lines: [
      {
        id: 'flatness',
        name: 'Deviation from flat',
        value: residuals[high]! - residuals[low]!,
        unit: 'mm',
        expanded: combinedExpanded(gauge, [1, -1]),
        at: `high at ${place(high)}, low at ${place(low)}`,
      },
    ],
  };
}

/** Scratches across a fire ring: the deepest counts. */
export function scratchLines(scratches: ReadonlyArray<{ readonly at: string; readonly depthMm: number }>, gauge: Gauge): SheetLine[] {
  if (scratches.length === 0) return [];
  const worst = scratches.reduce((a, b) => (b.depthMm > a.depthMm ? b : a));
  return [
    {
      id: 'scratch',
      name: 'Deepest fire-ring scratch',
      value: worst.depthMm,
      unit: 'mm',
      expanded: combinedExpanded(gauge, [1]),
      at: worst.at,
    },
  ];
}

/** Compression ratio after a cut off the deck or head: V_c falls by the bore's area times the cut. */
export function ratioAfterCut(ratio: number, boreMm: number, strokeMm: number, cutMm: number): number | null {
  const area = (Math.PI * boreMm * boreMm) / 4;
  const swept = area * strokeMm;
  const chamber = swept / (ratio - 1) - area * cutMm;
  return chamber > 0 ? (swept + chamber) / chamber : null;
}
