import { fail, ok, type Result } from '../kit/result.js';
import { solved } from './image/solved.js';

/** A point of a picture, px, x to the right and y down. */
export type Point = readonly [number, number];

/** Row-major 3 × 3 matrix. */
export type Matrix3 = readonly [number, number, number, number, number, number, number, number, number];

/**
 * Homography that takes four plane points to four picture points (direct linear solution, eight equations).
 * Fails when three of the points lie on a line.
 */
export function homography(from: readonly Point[], to: readonly Point[]): Result<Matrix3> {
  const rows: number[][] = [];
  const right: number[] = [];
  for (let i = 0; i < 4; i++) {
    const [x, y] = from[i] as Point;
    const [u, v] = to[i] as Point;
    rows.push([x, y, 1, 0, 0, 0, -u * x, -u * y], [0, 0, 0, x, y, 1, -v * x, -v * y]);
    right.push(u, v);
  }
  const h = solved(rows, right);
  if (!h)
    return fail('corners-degenerate', 'Three of the four corners lie on one line. Drag them to the four corners of the face.', 'corners');
  return ok([...h, 1] as unknown as Matrix3);
}

/** True when the corners, in order, form a convex quadrilateral. */
export function isConvex(corners: readonly Point[]): boolean {
  let sign = 0;
  for (let i = 0; i < 4; i++) {
    const [ax, ay] = corners[i] as Point;
    const [bx, by] = corners[(i + 1) % 4] as Point;
    const [cx, cy] = corners[(i + 2) % 4] as Point;
    const cross = (bx - ax) * (cy - by) - (by - ay) * (cx - bx);
    if (Math.abs(cross) < 1e-6) return false;
    if (sign !== 0 && Math.sign(cross) !== sign) return false;
    sign = Math.sign(cross);
  }
  return true;
}
