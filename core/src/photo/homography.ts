import { fail, ok, type Result } from '../kit/result.js';

/** A point of a picture, px, x to the right and y down. */
export type Point = readonly [number, number];

/** Row-major 3 × 3 matrix. */
export type Matrix3 = readonly [number, number, number, number, number, number, number, number, number];

/**
 * Homography that takes four plane points to four picture points (direct linear solution, eight equations, Gaussian elimination with pivoting).
 * Fails when three of the points lie on a line.
 */
export function homography(from: readonly Point[], to: readonly Point[]): Result<Matrix3> {
  const rows: number[][] = [];
  for (let i = 0; i < 4; i++) {
    const [x, y] = from[i] as Point;
    const [u, v] = to[i] as Point;
    rows.push([x, y, 1, 0, 0, 0, -u * x, -u * y, u], [0, 0, 0, x, y, 1, -v * x, -v * y, v]);
  }
  for (let c = 0; c < 8; c++) {
    let pivot = c;
    for (let r = c + 1; r < 8; r++) if (Math.abs(rows[r]![c]!) > Math.abs(rows[pivot]![c]!)) pivot = r;
    if (Math.abs(rows[pivot]![c]!) < 1e-9)
      return fail('corners-degenerate', 'Three of the four corners lie on one line. Drag them to the four corners of the face.', 'corners');
    [rows[c], rows[pivot]] = [rows[pivot]!, rows[c]!];
    for (let r = 0; r < 8; r++) {
      if (r === c) continue;
      const factor = rows[r]![c]! / rows[c]![c]!;
      for (let k = c; k < 9; k++) rows[r]![k]! -= factor * rows[c]![k]!;
    }
  }
  const h = rows.map((row, i) => row[8]! / row[i]!);
  return ok([h[0]!, h[1]!, h[2]!, h[3]!, h[4]!, h[5]!, h[6]!, h[7]!, 1]);
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
