import { WEAR_CLASS_INFO } from '../damage/classes.js';
import type { StationView } from '../case/views.js';
import type { Developed } from '../photo/flatten.js';
import type { Point } from '../photo/homography.js';
import { toPicture } from '../photo/mesh.js';
import { inPicture, USUAL_TURN, type Turn } from '../photo/reading/onFrame.js';
import { isFlattened } from '../photo/reading/readParts.js';
import { cellColours } from './blocks.js';

/** A line drawn over a picture, in its pixels. */
export interface PictureLine {
  readonly points: readonly Point[];
  readonly kind: 'outline' | 'edge' | 'line';
}

/**
 * What is marked on a picture of a surface: the outline of the part, the edges between what is damaged and what is not, and score lines, projected
 * from the surface through `mesh`. Places the picture does not show are left out.
 */
export function pictureMarks(view: StationView, sha256: string, mesh: Developed): PictureLine[] {
  const { station, wear } = view;
  const frame = station.surface;
  const part = station.part;
  if (!frame || !isFlattened(part)) return [];
  const held = view.corners[sha256]?.value;
  const turn: Turn = { facingDeg: held?.facingDeg ?? USUAL_TURN.facingDeg, arcDeg: held?.arcDeg ?? USUAL_TURN.arcDeg };
  const at = (u: number, v: number): Point | null => {
    const own = inPicture(part, frame, turn, u, v);
    return own ? toPicture(mesh, own[0], own[1]) : null;
  };
  const run = (points: ReadonlyArray<readonly [number, number]>, kind: PictureLine['kind']): PictureLine[] => {
    const placed = points.map(([u, v]) => at(u, v));
    return placed.every((p): p is Point => p !== null) ? [{ points: placed, kind }] : [];
  };
  const rim = (n: number): Point[] =>
    Array.from({ length: 4 * n + 1 }, (_, i): Point => {
      const t = (i % n) / n;
      const side = Math.floor(i / n) % 4;
      const [u, v] = (
        [
          [t, 0],
          [1, t],
          [1 - t, 1],
          [0, 1 - t],
        ] as const
      )[side]!;
      return toPicture(mesh, u, v);
    });
  const lines: PictureLine[] = [{ points: rim(18), kind: 'outline' }];
  if (wear) lines.push(...edges(wear.columns, wear.rows, cellColours(wear)).flatMap((e) => run(e, 'edge')));
  for (const { mark } of view.marks.map((m) => m.value)) if (mark.shape === 'line') lines.push(...run(mark.points, 'line'));
  for (const l of view.readLines)
    lines.push(
      ...run(
        Array.from({ length: 9 }, (_, i) => [(l.fromDeg + ((l.toDeg - l.fromDeg) * i) / 8) / frame.uSpanDeg, l.axial] as const),
        'line',
      ),
    );
  return lines;
}

/** Edges between damaged cells and what is not, in u and v. */
function edges(columns: number, rows: number, colours: ReadonlyArray<string | null>): Array<ReadonlyArray<readonly [number, number]>> {
  const sound = WEAR_CLASS_INFO.sound.colour;
  const hurt = (c: number, r: number): boolean => {
    const colour = c < 0 || r < 0 || c >= columns || r >= rows ? sound : (colours[r * columns + c] ?? sound);
    return colour !== sound;
  };
  const found: Array<ReadonlyArray<readonly [number, number]>> = [];
  for (let r = 0; r <= rows; r++)
    for (let c = 0; c <= columns; c++) {
      if (c < columns && hurt(c, r) !== hurt(c, r - 1))
        found.push([
          [c / columns, r / rows],
          [(c + 1) / columns, r / rows],
        ]);
      if (r < rows && hurt(c, r) !== hurt(c - 1, r))
        found.push([
          [c / columns, r / rows],
          [c / columns, (r + 1) / rows],
        ]);
    }
  return found;
}
