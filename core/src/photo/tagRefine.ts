import { Matrix, solve } from 'ml-matrix';
import type { Pixels } from './flatten.js';
import type { Matrix3, Point } from './homography.js';
import { PART_TAG, project, tagHomography } from './partTag.js';

/** A straight printed edge in millimetres of the tag: `n` points to the lighter side. */
interface Edge {
  readonly a: Point;
  readonly b: Point;
  readonly n: Point;
}

function rectangle(x: number, y: number, w: number, h: number, lighterOutside: boolean): Edge[] {
  const s = lighterOutside ? 1 : -1;
  const at = (i: number, j: number): Point => [x + i * w, y + j * h];
  return [
    { a: at(0, 0), b: at(1, 0), n: [0, -s] },
    { a: at(1, 0), b: at(1, 1), n: [s, 0] },
    { a: at(1, 1), b: at(0, 1), n: [0, s] },
    { a: at(0, 1), b: at(0, 0), n: [-s, 0] },
  ];
}

/** Edges of the three finder squares (rings of 7, 5 and 3 modules, ISO/IEC 18004), which every code has whatever it says. */
function finderEdges(modules: number): Edge[] {
  const { x, y, size } = PART_TAG.code;
  const m = size / modules;
  const far = size - 7 * m;
  return [
    [0, 0],
    [far, 0],
    [0, far],
  ].flatMap(([i, j]) => [0, 1, 2].flatMap((k) => rectangle(x + i! + k * m, y + j! + k * m, (7 - 2 * k) * m, (7 - 2 * k) * m, k !== 1)));
}

/** Edges of the bar and the patches, far from the code: they hold the scale where the code alone would have to be extrapolated. */
function printedEdges(): Edge[] {
  const { bar, patches, patchSize } = PART_TAG;
  return [
    ...rectangle(bar.x, bar.y, bar.length, bar.thick, true),
    ...patches.flatMap((p) => rectangle(p.x, p.y, patchSize, patchSize, true)),
  ];
}

/** Light of a pixel, linear enough for an edge to stay where the lens put it. */
function light({ data, width, height }: Pixels, x: number, y: number): number | null {
  const px = x - 0.5;
  const py = y - 0.5;
  const i = Math.floor(px);
  const j = Math.floor(py);
  if (i < 0 || j < 0 || i + 1 >= width || j + 1 >= height) return null;
  const grey = (at: number): number => (0.3 * data[at]! ** 2.2 + 0.59 * data[at + 1]! ** 2.2 + 0.11 * data[at + 2]! ** 2.2) / 255 ** 2.2;
  const at = (j * width + i) * 4;
  const u = px - i;
  const v = py - j;
  return (1 - v) * ((1 - u) * grey(at) + u * grey(at + 4)) + v * ((1 - u) * grey(at + width * 4) + u * grey(at + width * 4 + 4));
}

const STEP = 0.5;

/** Where light rises most along a line through `at`, pixels from it: the middle of the rise, or null when nothing rises clearly within `reach`. */
function riseAt(pixels: Pixels, at: Point, along: Point, reach: number): number | null {
  const n = Math.ceil(reach / STEP) + 2;
  const line: number[] = [];
  for (let k = -n; k <= n; k++) {
    const v = light(pixels, at[0] + along[0] * k * STEP, at[1] + along[1] * k * STEP);
    if (v === null) return null;
    line.push(v);
  }
  const rise = line.slice(2).map((v, i) => v - line[i]!);
  let best = -1;
  for (let i = 0; i < rise.length; i++) if (best < 0 || rise[i]! > rise[best]!) best = i;
  const least = 0.15 * (Math.max(...line) - Math.min(...line));
  if (rise[best]! < Math.max(0.02, least) || best < 2 || best > rise.length - 3) return null;
  let weight = 0;
  let sum = 0;
  for (let i = Math.max(0, best - 4); i <= Math.min(rise.length - 1, best + 4); i++) {
    const w = Math.max(0, rise[i]! - rise[best]! * 0.2);
    weight += w;
    sum += w * i;
  }
  return (sum / weight + 1 - n) * STEP;
}

interface EdgeSample {
  readonly mm: Point;
  /** Direction of the edge's normal in the picture, unit length. */
  readonly along: Point;
  /** Pixels from where the matrix puts the point to where the edge is seen. */
  readonly off: number;
}

function edgeSamples(pixels: Pixels, h: Matrix3, edges: readonly Edge[], reach: number, each: number): EdgeSample[] {
  const found: EdgeSample[] = [];
  for (const { a, b, n } of edges)
    for (let k = 0; k < each; k++) {
      const t = 0.12 + (0.76 * (k + 0.5)) / each;
      const mm: Point = [a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1])];
      const at = project(h, mm);
      const ahead = project(h, [mm[0] + 0.1 * n[0], mm[1] + 0.1 * n[1]]);
      const length = Math.hypot(ahead[0] - at[0], ahead[1] - at[1]);
      // The picture of a normal is not the normal of the picture: search across the edge as it is seen.
      const beside = project(h, [mm[0] + 0.1 * n[1], mm[1] - 0.1 * n[0]]);
      const across: [number, number] = [beside[1] - at[1], at[0] - beside[0]];
      const side = Math.hypot(across[0], across[1]);
      if (!(length > 0) || !(side > 0)) continue;
      const sign = Math.sign(across[0] * (ahead[0] - at[0]) + across[1] * (ahead[1] - at[1])) || 1;
      const along: Point = [(sign * across[0]) / side, (sign * across[1]) / side];
      const off = riseAt(pixels, at, along, reach);
      if (off !== null) found.push({ mm, along, off });
    }
  return found;
}

/** One Gauss–Newton step of the eight free numbers on distances across the edges, outliers (beyond three times the median) left out. */
function step(h: Matrix3, seen: readonly EdgeSample[]): Matrix3 | null {
  const sizes = seen.map((s) => Math.abs(s.off)).sort((a, b) => a - b);
  const bound = Math.max(0.3, 3 * (sizes[sizes.length >> 1] ?? 0));
  const used = seen.filter((s) => Math.abs(s.off) <= bound);
  if (used.length < 24) return null;
  const rows = used.map(({ mm: [x, y], along: [dx, dy] }) => {
    const w = h[6] * x + h[7] * y + 1;
    const [u, v] = project(h, [x, y]);
    const pull = -(dx * u + dy * v) / w;
    return [(dx * x) / w, (dx * y) / w, dx / w, (dy * x) / w, (dy * y) / w, dy / w, pull * x, pull * y];
  });
  // Columns differ by four orders of ten: scaled before the least squares.
  const scale = rows[0]!.map((_, c) => Math.sqrt(rows.reduce((sum, r) => sum + r[c]! ** 2, 0)) || 1);
  const answer = solve(
    new Matrix(rows.map((r) => r.map((v, c) => v / scale[c]!))),
    Matrix.columnVector(used.map((s) => s.off)),
    true,
  ).to1DArray();
  const next = h.slice(0, 8).map((v, c) => v + answer[c]! / scale[c]!);
  return next.every(Number.isFinite) ? ([...next, 1] as unknown as Matrix3) : null;
}

/**
 * The corners of a tag's code, found again to a fraction of a pixel: the homography is fitted (Gauss–Newton on distances across edges) to the edges of the
 * three finder squares, then of the bar and the patches as well. Corners in pixels, the middle of the first pixel at 0.5; `modules` a side of the code.
 * Returns the corners it was given when too few edges are seen (covered, blurred, out of the picture).
 */
export function refineTagCorners(pixels: Pixels, corners: readonly Point[], modules: number): readonly Point[] {
  const first = tagHomography(corners);
  if (!first.ok) return corners;
  const { x, y, size } = PART_TAG.code;
  const far = size - size / modules;
  const a = project(first.value, [x, y]);
  const b = project(first.value, [x + far, y]);
  const moduleAcross = Math.hypot(b[0] - a[0], b[1] - a[1]) / (modules - 1);
  let h = first.value;
  const finder = finderEdges(modules);
  const all = [...finder, ...printedEdges()];
  const rounds: ReadonlyArray<readonly [readonly Edge[], number, number]> = [
    [finder, 0.8 * moduleAcross, 6],
    [finder, 0.6 * moduleAcross, 6],
    [finder, 0.5 * moduleAcross, 8],
    [all, Math.max(3, 1.5 * moduleAcross), 10],
    [all, 0.6 * moduleAcross, 12],
    [all, 0.5 * moduleAcross, 12],
  ];
  let last: number | null = null;
  for (const [edges, reach, each] of rounds) {
    const seen = edgeSamples(pixels, h, edges, Math.max(1.5, reach), each);
    const next = step(h, seen);
    if (!next) return last === null ? corners : cornersOf(h);
    h = next;
    last = seen.length;
  }
  return cornersOf(h);
}

function cornersOf(h: Matrix3): Point[] {
  const { x, y, size } = PART_TAG.code;
  return [
    [x, y],
    [x + size, y],
    [x + size, y + size],
    [x, y + size],
  ].map((p) => project(h, p as unknown as Point));
}
