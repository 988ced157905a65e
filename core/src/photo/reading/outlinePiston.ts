import { fail, ok, type Result } from '../../kit/result.js';
import type { Pixels } from '../flatten.js';
import type { Point } from '../homography.js';
import { components, quantile, type Component } from './field.js';
import { apartFromBench, close, shrink, type Small } from './outlineParts.js';

/** Height of a whole piston over its diameter, as pictures of one lying on its side show it. */
const RATIO = [0.42, 1.15] as const;

/**
 * Finds the four corners of a skirt in a picture of a piston that lies on its side, crown up: the piece that stands against the bench, its axis, its sides, its foot, and the lowest groove across it.
 * A proposal, to be looked at. Needs a groove: a skirt alone is marked by hand.
 */
export function findPiston(picture: Pixels): Result<readonly Point[]> {
  if (picture.width < 64 || picture.height < 64) return fail('picture-small', 'The picture is too small to find a part in it.', 'picture');
  const small = shrink(picture);
  const { width, height } = small;
  const distance = apartFromBench(small);
  let best: { corners: Point[]; score: number } | null = null;
  for (const limit of [3, 5, 8, 13]) {
    const mask = new Uint8Array(distance.length);
    for (let i = 0; i < mask.length; i++) mask[i] = distance[i]! > limit ? 1 : 0;
    // Closed a little, and hardly: what lies close beside it, a card, must not grow together with it.
    for (const r of [3, 1])
      for (const c of components(close(mask, width, height, r), width, height, Math.round(mask.length * 0.02)).slice(0, 4)) {
        const found = cornersOf(c, small);
        if (found && (!best || found.score > best.score)) best = found;
      }
  }
  if (!best)
    return fail(
      'outline-not-found',
      'No piston was found in the picture. Mark the four corners of its skirt: left foot, left ring land, right ring land, right foot.',
      'corners',
    );
  return ok(best.corners.map(([x, y]): Point => [(x + 0.5) * small.step, (y + 0.5) * small.step]));
}

function cornersOf(c: Component, small: Small): { corners: Point[]; score: number } | null {
  const up = uprightAxis(c, small.width);
  if (!up) return null;
  const right: Point = [-up[1], up[0]];
  const along = (x: number, y: number): number => (x - c.x) * up[0] + (y - c.y) * up[1];
  const across = (x: number, y: number): number => (x - c.x) * right[0] + (y - c.y) * right[1];
  const rows = new Map<number, { sides: number[]; light: number[] }>();
  const reach = Math.hypot(c.right - c.left, c.bottom - c.top);
  for (const i of c.pixels) {
    const x = i % small.width;
    const y = (i - x) / small.width;
    const t = Math.round(along(x, y));
    const row = rows.get(t) ?? { sides: [], light: [] };
    const s = across(x, y);
    row.sides.push(s);
    if (Math.abs(s) < 0.1 * reach) row.light.push(small.values[3 * i]!);
    rows.set(t, row);
  }
  const steps = [...rows.keys()].sort((a, b) => a - b);
  const edges = steps.map((t) => {
    const s = Float32Array.from(rows.get(t)!.sides);
    return { t, left: quantile(s, 0.01), right: quantile(s, 0.99) };
  });
  if (edges.length < 12) return null;
  const W = quantile(
    Float32Array.from(edges, (e) => e.right - e.left),
    0.9,
  );
  // The sides of a bright skirt may mirror the bench and be lost; the belt of the rings shows them.
  const full = edges.filter((e) => e.right - e.left > 0.7 * W);
  const widest = edges.filter((e) => e.right - e.left > 0.96 * W);
  const [foot, crown] = [full[0]?.t, full.at(-1)?.t];
  if (foot === undefined || crown === undefined || widest.length < 4) return null;
  const H = crown - foot;
  if (H / W < RATIO[0] || H / W > RATIO[1] || W < 24) return null;
  // How far the middle of the foot lies below its ends: the bow of every edge across.
  const bow = foot - steps[0]!;
  const groove = lowestGroove(steps, rows, foot - bow, H);
  if (groove === null) return null;
  const land = Math.min(crown, groove.t + bow);
  if (land - foot < 0.3 * H) return null;
  const lever = widest.at(-1)!.t - widest[0]!.t;
  const side = (k: 'left' | 'right', t: number): Point => {
    const points = widest.map((e) => [e.t, e[k]] as const);
    // Rows that lie close together tell where a side is, not how it leans.
    const s = lever > 0.5 * H ? line(points, t) : points.reduce((sum, p) => sum + p[1], 0) / points.length;
    return [c.x + t * up[0] + s * right[0], c.y + t * up[1] + s * right[1]];
  };
  return {
    corners: [side('left', foot), side('left', land), side('right', land), side('right', foot)],
    score: groove.depth * Math.sqrt(c.area),
  };
}

/** The main direction of a piece that is nearer to upright, pointing up; null where it leans by more than 40°. */
function uprightAxis(c: Component, width: number): Point | null {
  let [sxx, sxy, syy] = [0, 0, 0];
  for (const i of c.pixels) {
    const x = (i % width) - c.x;
    const y = Math.floor(i / width) - c.y;
    sxx += x * x;
    sxy += x * y;
    syy += y * y;
  }
  const turn = Math.atan2(2 * sxy, sxx - syy) / 2;
  const axes: Point[] = [
    [Math.cos(turn), Math.sin(turn)],
    [-Math.sin(turn), Math.cos(turn)],
  ];
  const [a, b] = axes as [Point, Point];
  const axis = Math.abs(a[1]) > Math.abs(b[1]) ? a : b;
  if (Math.abs(axis[1]) < Math.cos((40 * Math.PI) / 180)) return null;
  return axis[1] < 0 ? axis : [-axis[0], -axis[1]];
}

/** The lowest dark band across the middle, above a third of the height: its lower border, and how dark it is. */
function lowestGroove(
  steps: readonly number[],
  rows: ReadonlyMap<number, { readonly light: readonly number[] }>,
  foot: number,
  H: number,
): { t: number; depth: number } | null {
  const light = steps.map((t) => {
    const list = rows.get(t)!.light;
    return list.length === 0 ? NaN : list.reduce((s, v) => s + v, 0) / list.length;
  });
  const near = Math.max(2, Math.round(0.09 * H));
  const dips = light.map((v, k) => {
    const around = light.slice(Math.max(0, k - near), k + near + 1).filter((n) => !Number.isNaN(n));
    const bright = quantile(Float32Array.from(around), 0.75);
    return Number.isNaN(v) ? 0 : 1 - v / Math.max(8, bright);
  });
  const inBelt = steps.flatMap((t, k) => (t > foot + 0.35 * H && t < foot + 1.02 * H ? [k] : []));
  const deepest = Math.max(0, ...inBelt.map((k) => dips[k]!));
  if (deepest < 0.15) return null;
  const first = inBelt.find((k) => dips[k]! > 0.55 * deepest);
  if (first === undefined) return null;
  let k = first;
  while (k > 0 && dips[k]! > 0.2 * deepest) k--;
  return { t: steps[k]!, depth: deepest };
}

/** Straight line through points (least squares), at `x`. */
function line(points: ReadonlyArray<readonly [number, number]>, x: number): number {
  const n = points.length;
  const mx = points.reduce((s, p) => s + p[0], 0) / n;
  const my = points.reduce((s, p) => s + p[1], 0) / n;
  const sxx = points.reduce((s, p) => s + (p[0] - mx) ** 2, 0);
  const sxy = points.reduce((s, p) => s + (p[0] - mx) * (p[1] - my), 0);
  return my + (sxx > 0 ? (sxy / sxx) * (x - mx) : 0);
}
