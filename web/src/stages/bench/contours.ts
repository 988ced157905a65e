import { contours } from 'd3-contour';
import { WEAR_CLASS_INFO, WEAR_CLASSES, type WearMap } from '@true-ledger/core/damage';

export interface Contour {
  readonly colour: string;
  /** In cells of the map, its first row at the top. */
  readonly path: Path2D;
}

/** Where a class covers more than half of the surface it is drawn round. */
const COVERS = 0.5;

/** Lines round what was read or drawn on a surface, a path for every class that is there. */
export function contoursOf(map: WearMap, frontDown: boolean): Contour[] {
  const lines = contours().size([map.columns, map.rows]).thresholds([COVERS]).smooth(true);
  return WEAR_CLASSES.flatMap((name): Contour[] => {
    if (name === 'sound' || !map.shares[name].some((share, cell) => share * map.seen[cell]! > COVERS)) return [];
    const values = Array.from({ length: map.columns * map.rows }, (_, i) => {
      const row = Math.floor(i / map.columns);
      const cell = (frontDown ? map.rows - 1 - row : row) * map.columns + (i % map.columns);
      return map.shares[name][cell]! * map.seen[cell]!;
    });
    const path = new Path2D();
    for (const { coordinates } of lines(values))
      for (const polygon of coordinates)
        for (const ring of polygon) {
          ring.forEach(([x, y], k) => (k === 0 ? path.moveTo(x!, y!) : path.lineTo(x!, y!)));
          path.closePath();
        }
    return [{ colour: WEAR_CLASS_INFO[name].colour, path }];
  });
}
