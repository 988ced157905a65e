import { GRADE_INFO, WEAR_CLASSES } from '../../damage/classes.js';
import type { Point } from '../homography.js';
import { MAP_COLUMNS, MAP_ROWS, type SurfaceReading } from './surfaceReading.js';

const round = (v: number, digits: number): number => Number(v.toFixed(digits));
const few = (v: number | null, digits: number): number | null => (v === null ? null : round(v, digits));

/** The answer of `true-ledger grade` (`docs/formats/grade.md`). */
export function readingJson(
  r: SurfaceReading,
  about: { readonly part: string; readonly corners: readonly Point[]; readonly sizeAssumed: boolean },
): object {
  const cells = (values: Float32Array, digits: number): number[][] =>
    Array.from({ length: MAP_COLUMNS }, (_, c) =>
      Array.from({ length: MAP_ROWS }, (__, row) => round(values[row * MAP_COLUMNS + c]!, digits)),
    );
  return {
    format: 'true-ledger/grade',
    version: 1,
    part: about.part,
    grade: r.grade,
    gradeWord: r.grade === null ? null : GRADE_INFO[r.grade].word,
    reason: r.reason,
    book: r.bookVersion,
    confidence: r.confidence,
    doubts: r.doubts,
    percent: Object.fromEntries(WEAR_CLASSES.map((c) => [c, round(r.summary.percent[c], 3)])),
    seenPercent: round(r.summary.seenPercent, 1),
    glarePercent: round(r.glarePercent, 1),
    lines: r.lines.map((l) => ({
      fromDeg: round(l.fromDeg, 1),
      toDeg: round(l.toDeg, 1),
      axial: round(l.axial, 3),
      widthMm: round(l.widthMm, 2),
      through: l.through,
    })),
    linesFrom015mm: r.lines.filter((l) => l.widthMm >= 0.15).length,
    features: {
      specks: r.features.specks,
      crazedPercent: round(r.features.crazedPercent, 1),
      edgeBias: few(r.features.edgeBias, 3),
      liningEdgeBias: few(r.features.liningEdgeBias, 3),
      arcCentreDeg: few(r.features.arcCentreDeg, 1),
      arcSharePercent: round(r.features.arcSharePercent, 1),
      frontEdgePercent: round(r.features.frontEdgePercent, 1),
      rearEdgePercent: round(r.features.rearEdgePercent, 1),
      diagonal: round(r.features.diagonal, 2),
      holes: r.features.holes,
      linesPercent: round(r.features.linesPercent, 2),
    },
    map: {
      columns: MAP_COLUMNS,
      rows: MAP_ROWS,
      shares: Object.fromEntries(WEAR_CLASSES.filter((c) => r.summary.percent[c] > 0).map((c) => [c, cells(r.map.shares[c], 3)])),
      seen: cells(r.map.seen, 2),
    },
    corners: about.corners.map(([x, y]) => [round(x, 1), round(y, 1)]),
    scale: { ...r.size, widthMm: round(r.size.widthMm, 2), assumed: about.sizeAssumed, pxPerMm: round(r.pxPerMm, 1) },
  };
}
