import Joi from 'joi';
import { WEAR_CLASSES, type WearClass } from './classes.js';
import type { LineDepth, SurfaceMark, WearMap } from './wearMap.js';

/** A line that was read in a picture. Arc in degrees, axial 0 front to 1 rear. */
export interface ReadLine {
  readonly fromDeg: number;
  readonly toDeg: number;
  readonly axial: number;
  readonly widthMm: number;
  readonly through: boolean;
}

/** What was read in one picture of a surface, as the ledger keeps it: whole percent by cell, row 0 at the front edge, `row * columns + column`. */
export interface SurfaceRead {
  readonly sha256: string;
  readonly columns: number;
  readonly rows: number;
  /** Classes that were found; what is left of a cell is sound. */
  readonly shares: Readonly<Partial<Record<WearClass, readonly number[]>>>;
  readonly seen: readonly number[];
  readonly lines: readonly ReadLine[];
  readonly crazedPercent: number;
  readonly specks: number;
  /** 0–1. Under `TRUSTED` it proposes no grade. */
  readonly confidence: number;
  readonly doubts: readonly string[];
  /** Version of the reader. */
  readonly reader: string;
}

/** Version of the way pictures are read; raised when answers change. */
export const READER_VERSION = '6';
export const TRUSTED = 0.35;

const cells = Joi.array().items(Joi.number().integer().min(0).max(100)).max(2000);

export const surfaceReadSchema = Joi.object({
  sha256: Joi.string().hex().length(64).required(),
  columns: Joi.number().integer().min(1).max(80).required(),
  rows: Joi.number().integer().min(1).max(40).required(),
  shares: Joi.object()
    .pattern(Joi.string().valid(...WEAR_CLASSES), cells)
    .required(),
  seen: cells.required(),
  lines: Joi.array()
    .max(200)
    .items(
      Joi.object({
        fromDeg: Joi.number().min(0).max(360).required(),
        toDeg: Joi.number().min(0).max(360).required(),
        axial: Joi.number().min(0).max(1).required(),
        widthMm: Joi.number().min(0).max(20).required(),
        through: Joi.boolean().required(),
      }),
    )
    .required(),
  crazedPercent: Joi.number().min(0).max(100).required(),
  specks: Joi.number().integer().min(0).max(100_000).required(),
  confidence: Joi.number().min(0).max(1).required(),
  doubts: Joi.array().max(20).items(Joi.string().max(300)).required(),
  reader: Joi.string().max(20).required(),
}).custom((read: SurfaceRead, helpers) => {
  const size = read.columns * read.rows;
  const odd = [read.seen, ...Object.values(read.shares)].some((list) => list.length !== size);
  return odd ? helpers.message({ custom: `A map of ${read.columns} × ${read.rows} cells has ${size} figures a class.` }) : read;
});

/**
 * Several pictures of one surface as one map: every cell is taken from the picture that saw most of it, the newest where they are equal. Reads of another grid than the first
 * are passed over. Null for none.
 */
export function mergeReads(reads: readonly SurfaceRead[]): WearMap | null {
  const first = reads[0];
  if (!first) return null;
  const { columns, rows } = first;
  const size = columns * rows;
  const shares = Object.fromEntries(WEAR_CLASSES.map((c) => [c, new Float32Array(size)])) as Record<WearClass, Float32Array>;
  const seen = new Float32Array(size);
  for (let cell = 0; cell < size; cell++) {
    let best: SurfaceRead | null = null;
    for (const read of reads)
      if (read.columns === columns && read.rows === rows && read.seen[cell]! >= (best?.seen[cell] ?? 1)) best = read;
    if (!best) continue;
    seen[cell] = best.seen[cell]! / 100;
    let rest = 1;
    for (const [name, list] of Object.entries(best.shares) as Array<[WearClass, readonly number[]]>) {
      if (name === 'sound') continue;
      const share = list[cell]! / 100;
      shares[name][cell] = share;
      rest -= share;
    }
    shares.sound[cell] = Math.max(0, rest);
  }
  return { columns, rows, shares, seen };
}

/** Lines of all reads, the same one of two pictures once; a line over which a hand has drawn "sound" is taken out. */
export function mergeLines(reads: readonly SurfaceRead[], marks: readonly SurfaceMark[], spanDeg: number, heightMm: number): ReadLine[] {
  const found: ReadLine[] = [];
  for (const read of reads)
    for (const line of read.lines) {
      const same = found.some(
        (f) => Math.abs(f.axial - line.axial) * heightMm < 0.5 && Math.min(f.toDeg, line.toDeg) - Math.max(f.fromDeg, line.fromDeg) > 0,
      );
      if (!same) found.push(line);
    }
  const wiped = (line: ReadLine): boolean =>
    marks.some(
      (m) =>
        (m.class === 'sound' || m.class === 'unseen') &&
        m.points.some(([u, v], i) => {
          const [pu, pv] = m.points[Math.max(0, i - 1)]!;
          const crosses = Math.max(u, pu) * spanDeg >= line.fromDeg - 2 && Math.min(u, pu) * spanDeg <= line.toDeg + 2;
          const past = Math.min(Math.abs(v - line.axial), Math.abs(pv - line.axial)) * heightMm;
          const between = (v - line.axial) * (pv - line.axial) <= 0;
          return crosses && (between || past < m.radiusMm + 0.2);
        }),
    );
  return found.filter((line) => !wiped(line));
}

/** Least width of a line that a probe would feel, mm. */
const FEELABLE_MM = 0.15;

/** A line in a picture cannot be felt: through where the lining shows, else by its width. */
export function lineDepth(line: Pick<ReadLine, 'widthMm' | 'through'>): LineDepth {
  return line.through ? 'through' : line.widthMm >= FEELABLE_MM ? 'probe' : 'hair';
}
