import type { Point } from '../homography.js';
import { components, maskWhere, type Component } from '../reading/field.js';
import { seenCylinder, type CylinderPose } from './halfCylinder.js';
import { sumInside, type SurfaceMap } from './surfaceMap.js';

/** A half cylinder laid into a map of what is surface. */
export interface FittedCylinder {
  readonly pose: CylinderPose;
  /** Corners in pixels of the map: left-front, left-rear, right-rear, right-front. */
  readonly corners: readonly Point[];
  /** Odds inside its outline over all that are for surface: 1 when it holds all surface and nothing else. */
  readonly worth: number;
}

/** Focal length over the long side of a whole picture, and how widely it strays (logarithm). */
const FOCAL = Math.log(1.6);
const FOCAL_SPREAD = 0.25;
const TILT_SPREAD = 0.35;
/** What a focal length or a tilt that is one spread off costs. */
const HOLD = 0.004;
/** Steps of the search, from coarse to fine. */
const STEPS = [1, 0.5, 0.25, 0.12, 0.06, 0.03, 0.015] as const;
const TURNS = 30;
/** Step 1 of every figure of a pose; lengths over the distance of the sides. */
const UNITS = [0.06, 0.06, 0.08, 0.05, 0.08, 0.12, 0.08, 0.2] as const;
/** Bounds of length over distance of the sides. */
const RATIO = [0.12, 2.2] as const;

/** The picture of a map, in pixels of the map, which need not hold a whole number of them. */
export interface WholePicture {
  readonly width: number;
  readonly height: number;
}

/** Lays a half cylinder into what is likely surface, from each of some starts; the best first, no two of them alike. */
export function fitCylinder(map: SurfaceMap, hollow: boolean, picture: WholePicture, starts: readonly CylinderPose[]): FittedCylinder[] {
  const list = starts.map((start) => climb(map, hollow, picture, start)).sort((a, b) => b.worth - a.worth);
  const kept: FittedCylinder[] = [];
  for (const found of list) if (!kept.some((k) => alike(k, found))) kept.push(found);
  return kept;
}

const alike = (a: FittedCylinder, b: FittedCylinder): boolean => {
  const near = 0.1 * a.pose[2];
  const same = (shift: number): boolean =>
    a.corners.every((p, k) => Math.hypot(p[0] - b.corners[(k + shift) % 4]![0], p[1] - b.corners[(k + shift) % 4]![1]) < near);
  return same(0) || same(2);
};

/** Poses to begin with: the pieces that are likely surface, by their middle, main direction and extent. */
export function startsFrom(map: SurfaceMap, hollow: boolean): CylinderPose[] {
  const mask = maskWhere(map.odds, (o) => o > 0);
  const pieces = components(mask, map.width, map.height, Math.round(0.004 * mask.length))
    .map((c) => ({ c, weight: c.pixels.reduce((s, i) => s + map.odds[i]!, 0) }))
    .sort((a, b) => b.weight - a.weight)
    .slice(0, 3);
  return pieces.flatMap(({ c }) => startsOf(c, map.width, hollow));
}

function startsOf(c: Component, width: number, hollow: boolean): CylinderPose[] {
  let [sxx, sxy, syy] = [0, 0, 0];
  for (const i of c.pixels) {
    const [x, y] = [(i % width) - c.x, Math.floor(i / width) - c.y];
    sxx += x * x;
    sxy += x * y;
    syy += y * y;
  }
  const main = Math.atan2(2 * sxy, sxx - syy) / 2;
  const [a, b] = [0, Math.PI / 2].map((turn) => {
    const [dx, dy] = [Math.cos(main + turn), Math.sin(main + turn)];
    const s = c.pixels.reduce((sum, i) => sum + (((i % width) - c.x) * dx + (Math.floor(i / width) - c.y) * dy) ** 2, 0);
    // A filled rectangle spreads by its side over the root of twelve.
    return Math.sqrt((12 * s) / c.pixels.length);
  }) as [number, number];
  const starts: CylinderPose[] = [];
  // A half shell is longer from parting line to parting line than it is wide; a journal may be either.
  for (const [across, along, turn] of hollow
    ? ([[a, b, 0]] as const)
    : ([
        [a, b, 0],
        [b, a, Math.PI / 2],
      ] as const))
    for (const tilt of [-0.5, -0.25, 0, 0.25, 0.5]) {
      const roll = upright(main + turn);
      const pose: CylinderPose = [c.x, c.y, across, Math.max(RATIO[0], along / across), roll, tilt, 0, FOCAL];
      starts.push(pose);
    }
  return starts;
}

/** The run is taken from left to right: roll between −90° and 90°. */
const upright = (roll: number): number => roll - Math.PI * Math.round(roll / Math.PI);

function climb(map: SurfaceMap, hollow: boolean, picture: WholePicture, start: CylinderPose): FittedCylinder {
  const worthOf = (pose: CylinderPose): readonly [held: number, worth: number] => {
    if (pose[3] < RATIO[0] || pose[3] > RATIO[1] || Math.abs(pose[5]) > 0.7 || Math.abs(pose[6]) > 0.5) return [-Infinity, 0];
    const worth = sumInside(map, seenCylinder(hollow, pose, picture).line) / map.surface;
    const cost = ((pose[7] - FOCAL) / FOCAL_SPREAD) ** 2 + (pose[5] / TILT_SPREAD) ** 2 + (pose[6] / TILT_SPREAD) ** 2;
    return [worth - HOLD * cost, worth];
  };
  let pose = start;
  let [held, worth] = worthOf(pose);
  const take = (moved: CylinderPose): boolean => {
    const [h, w] = worthOf(moved);
    if (h <= held + 1e-6) return false;
    [held, worth, pose] = [h, w, moved];
    return true;
  };
  for (const step of STEPS)
    for (let turn = 0; turn < TURNS; turn++) {
      const [before, from] = [held, pose];
      for (const sign of [1, -1]) for (const move of MOVES) take(move(pose, sign * step));
      if (held - before < 1e-5) break;
      // Where a whole round led, the next may lead on: tilt, focal length and place give way to each other.
      for (let on = 1; on <= 4; on *= 2) {
        const here = pose;
        if (!take(pose.map((v, k) => v + on * (v - from[k]!)) as unknown as CylinderPose) || here === from) break;
      }
    }
  return { pose, corners: seenCylinder(hollow, pose, picture).corners, worth };
}

type Move = (pose: CylinderPose, by: number) => CylinderPose;

/** Ways in which a pose moves: figure by figure, and with one side or one end held where it is. */
const MOVES: readonly Move[] = [
  ...UNITS.map(
    (unit, k): Move =>
      (pose, by) =>
        pose.map((value, j) => (j === k ? value + by * unit * (k < 3 ? pose[2] : 1) : value)) as unknown as CylinderPose,
  ),
  ...[-1, 1].map((side): Move => ([x, y, across, ratio, roll, ...rest], by) => {
    const more = by * UNITS[2] * across;
    return [
      x + (side * more * Math.cos(roll)) / 2,
      y + (side * more * Math.sin(roll)) / 2,
      across + more,
      (ratio * across) / (across + more),
      roll,
      ...rest,
    ];
  }),
  ...[-1, 1].map((end): Move => ([x, y, across, ratio, roll, ...rest], by) => {
    const more = by * UNITS[3] * across;
    return [x - (end * more * Math.sin(roll)) / 2, y + (end * more * Math.cos(roll)) / 2, across, ratio + more / across, roll, ...rest];
  }),
];
