import { Matrix, solve } from 'ml-matrix';
import { combine, type Gauge } from '../../units/gauge.js';
import type { SheetLine } from './line.js';

export interface HeightPoint {
  readonly xMm: number;
  readonly yMm: number;
  readonly heightMm: number;
}

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
        expanded: combine([
          { gauge, c: 1 },
          { gauge, c: -1 },
        ]),
        at: `high at ${place(high)}, low at ${place(low)}`,
      },
    ],
  };
}

/** Compression ratio after a cut off the deck or head: V_c falls by the bore's area times the cut. */
export function ratioAfterCut(ratio: number, boreMm: number, strokeMm: number, cutMm: number): number | null {
  const area = (Math.PI * boreMm * boreMm) / 4;
  const swept = area * strokeMm;
  const chamber = swept / (ratio - 1) - area * cutMm;
  return chamber > 0 ? (swept + chamber) / chamber : null;
}

export interface RunoutReading {
  readonly main: number;
  /** Position along the crank, mm. */
  readonly alongMm: number;
  /** Total indicator reading, mm. */
  readonly tirMm: number;
  /** Crank angle of the high side, degrees. */
  readonly highDeg: number;
}

/**
 * Crank bow from the runout at each main, resting on the outer two. Half the indicator reading at its angle is the offset of the journal; what is off the line
 * through the supports is the bow. A single bent throw makes two straight pieces with one kink: fitted at each main in turn, it is named when it
 * leaves less than a quarter of the offsets' sum of squares.
 */
export function crankRunout(readings: readonly RunoutReading[], gauge: Gauge): { lines: SheetLine[]; says: string[] } {
  const sorted = [...readings].sort((a, b) => a.alongMm - b.alongMm);
  if (sorted.length < 3) return { lines: [], says: ['Runout at three mains at least is needed.'] };
  const offset = sorted.map((r) => {
    const rad = (r.highDeg * Math.PI) / 180;
    return [(r.tirMm / 2) * Math.cos(rad), (r.tirMm / 2) * Math.sin(rad)] as const;
  });
  const first = sorted[0]!;
  const last = sorted.at(-1)!;
  const bow = sorted.map((r, i) => {
    const t = (r.alongMm - first.alongMm) / (last.alongMm - first.alongMm);
    const base = [0, 1].map((k) => offset[0]![k]! * (1 - t) + offset.at(-1)![k]! * t);
    return [offset[i]![0] - base[0]!, offset[i]![1] - base[1]!] as const;
  });
  const size = bow.map((b) => Math.hypot(...b));
  const worst = size.indexOf(Math.max(...size));
  const total = size.reduce((s, v) => s + v * v, 0);
  let best: { main: number; rest: number } | null = null;
  for (let k = 1; k < sorted.length - 1; k++) {
    // A tent with its top at main k: height by least squares over the others.
    const shape = sorted.map((r) =>
      r.alongMm <= sorted[k]!.alongMm
        ? (r.alongMm - first.alongMm) / (sorted[k]!.alongMm - first.alongMm)
        : (last.alongMm - r.alongMm) / (last.alongMm - sorted[k]!.alongMm),
    );
    const norm = shape.reduce((s, v) => s + v * v, 0);
    const top = [0, 1].map((c) => shape.reduce((s, v, i) => s + v * bow[i]![c]!, 0) / norm);
    const rest = bow.reduce((s, b, i) => s + (b[0] - top[0]! * shape[i]!) ** 2 + (b[1] - top[1]! * shape[i]!) ** 2, 0);
    if (!best || rest < best.rest) best = { main: sorted[k]!.main, rest };
  }
  const phase = ((Math.atan2(bow[worst]![1], bow[worst]![0]) * 180) / Math.PI + 360) % 360;
  const u = combine([{ gauge, c: 1 }]);
  const lines: SheetLine[] = [
    {
      id: 'runout',
      name: 'Greatest runout',
      value: Math.max(...sorted.map((r) => r.tirMm)),
      unit: 'mm',
      expanded: u,
      at: `main ${sorted.reduce((a, b) => (b.tirMm > a.tirMm ? b : a)).main}`,
    },
    {
      id: 'bow',
      name: 'Bow',
      value: size[worst]! * 2,
      unit: 'mm',
      expanded: u,
      at: `main ${sorted[worst]!.main}, high at ${phase.toFixed(0)}°, as indicator reading`,
    },
  ];
  const single = best !== null && total > 0 && best.rest < total / 4;
  return {
    lines,
    says: [
      single
        ? `One bend at main ${best!.main} or the throws beside it accounts for it.`
        : 'No single bend accounts for it: the crank is bowed as a whole, or the mains are worn unevenly.',
    ],
  };
}

/** Cam: lift of each lobe over its base circle, loss against the greatest of its kind or the lift new. */
export function camLines(
  lobes: ReadonlyArray<{ readonly lobe: string; readonly kind: string; readonly heightMm: number; readonly baseMm: number }>,
  newLiftMm: Readonly<Record<string, number>>,
  gauge: Gauge,
): SheetLine[] {
  const two = combine([
    { gauge, c: 1 },
    { gauge, c: -1 },
  ]);
  const lift = lobes.map((l) => ({ ...l, lift: l.heightMm - l.baseMm }));
  const best = (kind: string): number => newLiftMm[kind] ?? Math.max(...lift.filter((l) => l.kind === kind).map((l) => l.lift));
  return lift.flatMap((l): SheetLine[] => [
    { id: `lift.${l.lobe}`, name: `Lift, lobe ${l.lobe}`, value: l.lift, unit: 'mm', expanded: two, at: `${l.kind} lobe ${l.lobe}` },
    {
      id: `loss.${l.lobe}`,
      name: `Lift lost, lobe ${l.lobe}`,
      value: best(l.kind) - l.lift,
      unit: 'mm',
      expanded: newLiftMm[l.kind] === undefined ? two * Math.SQRT2 : two,
      at: newLiftMm[l.kind] === undefined ? `against the best ${l.kind} lobe` : 'against the lift new',
    },
  ]);
}

/** Camshaft journals: wear against the greatest size new, else against the largest of them; clearance where the bore was read. */
export function camJournalLines(
  journals: ReadonlyArray<{ readonly journal: string; readonly mm: number; readonly boreMm: number | null }>,
  newMm: number | null,
  micrometer: Gauge,
  bore: Gauge,
): SheetLine[] {
  const against = newMm ?? Math.max(...journals.map((j) => j.mm));
  const u = combine(newMm === null ? [1, -1].map((c) => ({ gauge: micrometer, c })) : [{ gauge: micrometer, c: 1 }]);
  return journals.flatMap((j): SheetLine[] => [
    {
      id: `journalWear.${j.journal}`,
      name: `Wear, cam journal ${j.journal}`,
      value: against - j.mm,
      unit: 'mm',
      expanded: u,
      at: newMm === null ? 'against the largest of them' : 'against the greatest size new',
    },
    ...(j.boreMm === null
      ? []
      : [
          {
            id: `journalClearance.${j.journal}`,
            name: `Clearance, cam journal ${j.journal}`,
            value: j.boreMm - j.mm,
            unit: 'mm' as const,
            expanded: combine([
              { gauge: bore, c: 1 },
              { gauge: micrometer, c: -1 },
            ]),
            at: 'bore − journal',
          },
        ]),
  ]);
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
      expanded: combine([{ gauge, c: 1 }]),
      at: worst.at,
    },
  ];
}

/** Bend and twist of a rod between its eyes, carried over to 100 mm. */
export function rodLines(
  r: { readonly bendMm: number | null; readonly twistMm: number | null; readonly overMm: number; readonly centresMm: number | null },
  gauge: Gauge,
): SheetLine[] {
  const lines: SheetLine[] = [];
  const u = combine([{ gauge, c: 100 / r.overMm }]);
  if (r.bendMm !== null)
    lines.push({
      id: 'bend',
      name: 'Bend per 100 mm',
      value: (r.bendMm * 100) / r.overMm,
      unit: 'mm',
      expanded: u,
      at: `read over ${r.overMm} mm`,
    });
  if (r.twistMm !== null)
    lines.push({
      id: 'twist',
      name: 'Twist per 100 mm',
      value: (r.twistMm * 100) / r.overMm,
      unit: 'mm',
      expanded: u,
      at: `read over ${r.overMm} mm`,
    });
  if (r.centresMm !== null)
    lines.push({
      id: 'centres',
      name: 'Length between centres',
      value: r.centresMm,
      unit: 'mm',
      expanded: combine([{ gauge, c: 1 }]),
      at: 'eye to eye',
    });
  return lines;
}
