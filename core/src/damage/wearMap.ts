import type { SurfaceFrame } from '../engine/stations.js';
import { WEAR_CLASSES, type WearClass } from './classes.js';

/** A mark drawn on the developed surface. `points` are [u, v] in 0–1 across and along the surface. */
export interface SurfaceMark {
  readonly id: string;
  readonly shape: 'stroke' | 'line';
  /** `unseen` takes cells out of the seen share, `erase` takes marks away again. */
  readonly class: WearClass | 'unseen' | 'erase';
  readonly points: ReadonlyArray<readonly [number, number]>;
  /** Brush radius or half the line width, mm. */
  readonly radiusMm: number;
  /** Score lines only: how deep it feels. */
  readonly depth?: LineDepth;
  readonly made: 'found-so' | 'by-us';
}

/** How deep a score line is, by the sense that tells it: eye, probe, fingernail; or through the lining. */
export type LineDepth = 'hair' | 'probe' | 'nail' | 'through';
/** Depths of a score line, from one that is only seen to one that is through the lining. */
export const LINE_DEPTHS: readonly LineDepth[] = ['hair', 'probe', 'nail', 'through'];

/** Share of every class in every cell of a surface. Row 0 is v = 0, column 0 is u = 0. */
export interface WearMap {
  readonly columns: number;
  readonly rows: number;
  /** `shares[class][row * columns + column]`, 0–1, over what was seen of the cell. */
  readonly shares: Readonly<Record<WearClass, Float32Array>>;
  /** Share of the cell that was seen, 0–1. */
  readonly seen: Float32Array;
}

export interface WearSummary {
  /** Percent of the seen surface, by class. */
  readonly percent: Readonly<Record<WearClass, number>>;
  readonly seenPercent: number;
  /** (rear − front) / (rear + front) of everything that is not sound or polished; null when there is too little to tell. */
  readonly edgeBias: number | null;
  /** Share of the damage within the outer quarter at each edge. */
  readonly edgeShare: { readonly front: number; readonly rear: number };
  /** Mean arc position of the damage and its spread, as shares of the span; null when none. */
  readonly arcCentre: number | null;
  /** Share of arc columns that hold damage. */
  readonly arcShare: number;
  readonly lines: Readonly<Record<LineDepth, number>>;
}

const FINE = 6;
const UNSEEN = 255;
const UNTOUCHED = 254;

/**
 * Rasterises marks in the order they were made (later ones cover earlier ones) and averages to cells. Where nothing was marked, what was read in pictures stands, else the
 * surface is sound.
 */
export function wearMap(frame: SurfaceFrame, marks: readonly SurfaceMark[], read: WearMap | null = null): WearMap {
  const columns = frame.columns;
  const rows = frame.rows;
  const empty = Object.fromEntries(WEAR_CLASSES.map((c) => [c, new Float32Array(columns * rows)])) as Record<WearClass, Float32Array>;
  const base = read && read.columns === columns && read.rows === rows ? read : null;
  if (marks.length === 0 && base) return base;
  if (marks.length === 0)
    return { columns, rows, shares: { ...empty, sound: empty.sound.fill(1) }, seen: new Float32Array(columns * rows).fill(1) };
  const w = columns * FINE;
  const h = rows * FINE;
  const fine = new Uint8Array(w * h);
  if (base) fine.fill(UNTOUCHED);
  for (const mark of marks) paint(fine, w, h, frame, mark, base ? UNTOUCHED : 0);
  const shares = empty;
  const byIndex = WEAR_CLASSES.map((c) => shares[c]);
  const seen = new Float32Array(columns * rows);
  for (let y = 0; y < h; y++) {
    const line = ((y / FINE) | 0) * columns;
    for (let x = 0; x < w; x++) {
      const value = fine[y * w + x] as number;
      if (value === UNSEEN) continue;
      const cell = line + ((x / FINE) | 0);
      if (value === UNTOUCHED) {
        const was = base!.seen[cell] as number;
        seen[cell]! += was;
        for (const c of WEAR_CLASSES) shares[c][cell]! += was * (base!.shares[c][cell] as number);
        continue;
      }
      seen[cell]!++;
      byIndex[value]![cell]!++;
    }
  }
  for (let cell = 0; cell < seen.length; cell++) {
    const count = seen[cell] as number;
    for (const c of WEAR_CLASSES) if (count > 0) shares[c][cell] = (shares[c][cell] as number) / count;
    seen[cell] = count / (FINE * FINE);
  }
  return { columns, rows, shares, seen };
}

function paint(fine: Uint8Array, w: number, h: number, frame: SurfaceFrame, mark: SurfaceMark, bare: number): void {
  // A score that did not go through leaves the layer in place: it counts as a line, not as area.
  if (mark.shape === 'line' && mark.depth !== 'through' && mark.class === 'lining') return;
  const value = mark.class === 'unseen' ? UNSEEN : mark.class === 'erase' ? bare : WEAR_CLASSES.indexOf(mark.class);
  const rx = (mark.radiusMm / frame.widthMm) * w;
  const ry = (mark.radiusMm / frame.heightMm) * h;
  const points = mark.points.map(([u, v]) => [u * w, v * h] as const);
  const span = new Float64Array(2);
  const done = Int32Array.from({ length: 2 * h }, (_, i) => (i % 2 === 0 ? 1 : 0) * w - (i % 2));
  points.forEach((to, i) => {
    const from = points[Math.max(0, i - 1)] ?? to;
    const x0 = Math.max(0, Math.floor(Math.min(from[0], to[0]) - rx));
    const x1 = Math.min(w - 1, Math.ceil(Math.max(from[0], to[0]) + rx));
    const y0 = Math.max(0, Math.floor(Math.min(from[1], to[1]) - ry));
    const y1 = Math.min(h - 1, Math.ceil(Math.max(from[1], to[1]) + ry));
    for (let y = y0; y <= y1; y++) {
      reach((y + 0.5) / ry, from[0] / rx, from[1] / ry, to[0] / rx, to[1] / ry, span);
      let first = Math.max(x0, Math.floor(span[0]! * rx) - 1);
      let last = Math.min(x1, Math.ceil(span[1]! * rx) + 1);
      if (first >= done[2 * y]! && last <= done[2 * y + 1]!) continue;
      while (first <= last && !near(first + 0.5, y + 0.5, from, to, rx, ry)) first++;
      while (last > first && !near(last + 0.5, y + 0.5, from, to, rx, ry)) last--;
      if (first > last) continue;
      fine.fill(value, y * w + first, y * w + last + 1);
      // What this mark has covered in one piece need not be covered again: a scribble goes over the same place a thousand times.
      const apart = first > done[2 * y + 1]! + 1 || last < done[2 * y]! - 1;
      if (!apart || last - first > done[2 * y + 1]! - done[2 * y]!) {
        done[2 * y] = apart ? first : Math.min(first, done[2 * y]!);
        done[2 * y + 1] = apart ? last : Math.max(last, done[2 * y + 1]!);
      }
    }
  });
}

/**
 * Least and greatest x, at height y, of everything within 1 of the segment a–b: two discs and the strip between them, which are convex, so that all
 * between the two belongs to it. [Infinity, -Infinity] where the height is not reached.
 */
function reach(y: number, ax: number, ay: number, bx: number, by: number, out: Float64Array): void {
  let least = Infinity;
  let greatest = -Infinity;
  const discA = 1 - (y - ay) * (y - ay);
  if (discA >= 0) {
    const half = Math.sqrt(discA);
    least = ax - half;
    greatest = ax + half;
  }
  const discB = 1 - (y - by) * (y - by);
  if (discB >= 0) {
    const half = Math.sqrt(discB);
    if (bx - half < least) least = bx - half;
    if (bx + half > greatest) greatest = bx + half;
  }
  const length = Math.sqrt((bx - ax) * (bx - ax) + (by - ay) * (by - ay));
  if (length > 0 && by !== ay)
    for (let side = -1; side <= 1; side += 2) {
      const t = (y - (ay + (side * (bx - ax)) / length)) / (by - ay);
      if (t < 0 || t > 1) continue;
      const x = ax + (side * (ay - by)) / length + t * (bx - ax);
      if (x < least) least = x;
      if (x > greatest) greatest = x;
    }
  out[0] = least;
  out[1] = greatest;
}

/** Is the point within one brush radius of the segment, measured in millimetres (the axes have different scales)? */
function near(x: number, y: number, a: readonly [number, number], b: readonly [number, number], rx: number, ry: number): boolean {
  const px = x / rx - a[0] / rx;
  const py = y / ry - a[1] / ry;
  const dx = (b[0] - a[0]) / rx;
  const dy = (b[1] - a[1]) / ry;
  const length = dx * dx + dy * dy;
  const t = length === 0 ? 0 : Math.max(0, Math.min(1, (px * dx + py * dy) / length));
  return (px - t * dx) ** 2 + (py - t * dy) ** 2 <= 1;
}

/** Damage in a cell: everything that is neither sound nor polished. */
export function damageShare(map: WearMap, cell: number): number {
  return 1 - (map.shares.sound[cell] as number) - (map.shares.polished[cell] as number);
}

/** Percentages, edge bias, arc position and line counts of a surface. */
export function summariseWear(map: WearMap, marks: readonly SurfaceMark[]): WearSummary {
  const lines: Record<LineDepth, number> = { hair: 0, probe: 0, nail: 0, through: 0 };
  for (const mark of marks) if (mark.shape === 'line' && mark.made === 'found-so') lines[mark.depth ?? 'hair']++;
  return summariseMap(map, lines);
}

/** The same of a map however it was made, with the lines counted elsewhere. */
export function summariseMap(map: WearMap, lines: Readonly<Record<LineDepth, number>>): WearSummary {
  const percent = Object.fromEntries(WEAR_CLASSES.map((c) => [c, 0])) as Record<WearClass, number>;
  let seenTotal = 0;
  let front = 0;
  let rear = 0;
  let outerFront = 0;
  let outerRear = 0;
  let total = 0;
  let arcMoment = 0;
  const columnsHit = new Set<number>();
  for (let cell = 0; cell < map.seen.length; cell++) {
    const seen = map.seen[cell] as number;
    if (seen === 0) continue;
    seenTotal += seen;
    for (const c of WEAR_CLASSES) percent[c] += (map.shares[c][cell] as number) * seen;
    const damage = damageShare(map, cell) * seen;
    if (damage <= 0.001) continue;
    const row = Math.floor(cell / map.columns);
    const v = (row + 0.5) / map.rows;
    total += damage;
    if (v < 0.5) front += damage;
    else rear += damage;
    if (v < 0.25) outerFront += damage;
    if (v > 0.75) outerRear += damage;
    const column = cell % map.columns;
    arcMoment += damage * ((column + 0.5) / map.columns);
    if (damage > 0.15) columnsHit.add(column);
  }
  for (const c of WEAR_CLASSES) percent[c] = seenTotal === 0 ? 0 : (percent[c] / seenTotal) * 100;
  const enough = total > seenTotal * 0.002;
  return {
    percent,
    seenPercent: (seenTotal / map.seen.length) * 100,
    edgeBias: enough ? (rear - front) / (rear + front) : null,
    edgeShare: { front: total > 0 ? outerFront / total : 0, rear: total > 0 ? outerRear / total : 0 },
    arcCentre: enough ? arcMoment / total : null,
    arcShare: columnsHit.size / map.columns,
    lines,
  };
}
