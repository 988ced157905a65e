import type { Developed } from './flatten.js';
import type { Point } from './homography.js';

type Mesh = Pick<Developed, 'columns' | 'rows' | 'nodes' | 'cosine'>;

const node = ({ columns, nodes }: Mesh, c: number, r: number): Point => {
  const i = 2 * (r * (columns + 1) + c);
  return [nodes[i]!, nodes[i + 1]!];
};

/** Pixel of the picture at a place of the surface (0–1 each), between the corners of its cell. */
export function toPicture(mesh: Mesh, u: number, v: number): Point {
  const x = Math.min(mesh.columns - 1e-9, Math.max(0, u * mesh.columns));
  const y = Math.min(mesh.rows - 1e-9, Math.max(0, v * mesh.rows));
  const [c, r] = [Math.floor(x), Math.floor(y)];
  const [s, t] = [x - c, y - r];
  const mix = (k: 0 | 1): number =>
    (node(mesh, c, r)[k] * (1 - s) + node(mesh, c + 1, r)[k] * s) * (1 - t) +
    (node(mesh, c, r + 1)[k] * (1 - s) + node(mesh, c + 1, r + 1)[k] * s) * t;
  return [mix(0), mix(1)];
}

/** Place of the surface at a pixel of the picture; null beside it and where the surface is turned away (several places of it lie on one pixel: the one that is seen). */
export function toSurface(mesh: Mesh, x: number, y: number): Point | null {
  for (let r = 0; r < mesh.rows; r++)
    for (let c = 0; c < mesh.columns; c++) {
      if (mesh.cosine[r * mesh.columns + c]! <= 0.02) continue;
      const [a, b, d, e] = [node(mesh, c, r), node(mesh, c + 1, r), node(mesh, c, r + 1), node(mesh, c + 1, r + 1)];
      if (x < Math.min(a[0], b[0], d[0], e[0]) || x > Math.max(a[0], b[0], d[0], e[0])) continue;
      if (y < Math.min(a[1], b[1], d[1], e[1]) || y > Math.max(a[1], b[1], d[1], e[1])) continue;
      const lower = inTriangle([x, y], a, b, d);
      if (lower) return [(c + lower[0]) / mesh.columns, (r + lower[1]) / mesh.rows];
      const upper = inTriangle([x, y], e, d, b);
      if (upper) return [(c + 1 - upper[0]) / mesh.columns, (r + 1 - upper[1]) / mesh.rows];
    }
  return null;
}

/** Shares of the two sides of a triangle from its first corner; null outside. */
function inTriangle(p: Point, a: Point, b: Point, c: Point): Point | null {
  const [ux, uy, vx, vy] = [b[0] - a[0], b[1] - a[1], c[0] - a[0], c[1] - a[1]];
  const det = ux * vy - uy * vx;
  if (Math.abs(det) < 1e-9) return null;
  const [px, py] = [p[0] - a[0], p[1] - a[1]];
  const s = (px * vy - py * vx) / det;
  const t = (ux * py - uy * px) / det;
  return s >= -1e-9 && t >= -1e-9 && s + t <= 1 + 1e-9 ? [s, t] : null;
}
