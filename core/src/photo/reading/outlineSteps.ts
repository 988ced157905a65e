import type { Pixels } from '../flatten.js';
import type { Point } from '../homography.js';
import type { CylinderPose } from '../outline/halfCylinder.js';
import { modelOf, sceneOf, type Pose, type Scene } from './outlineScene.js';

/** Long sides of the pictures in which the part is looked for, moved into place and set, pixels. */
const SIDES = { coarse: 160, middle: 360, fine: 900 } as const;
type Step = keyof typeof SIDES;
/** Steps of the search on each of them, over what a search of this fineness resolves. */
const STEPS: Readonly<Record<Step, readonly number[]>> = { coarse: [1, 0.5], middle: [0.6, 0.3], fine: [0.25, 0.12, 0.06] };

/** A part as its outline is looked for. */
export interface OutlineModel {
  /** How far beside the outline it is asked, shares of half the distance of the sides. */
  readonly reaches: Readonly<Record<Step, number>>;
  /** Degrees between places asked along the arc; `spread` while all poses are tried. */
  readonly gaps: Readonly<Record<Step | 'spread', number>>;
  /** Step 1 of every figure of a pose; the first three over the distance of the sides. */
  readonly units: readonly number[];
  /** How far it may be rolled, radians. */
  readonly mostTurned: number;
  /** Whether one end along the axis is moved while the other stays, as one side is. */
  readonly endsMove: boolean;
  /** How many of the best go on at each step. */
  readonly kept: Readonly<Record<Step, number>>;
  /** Two poses nearer than this in everything are one: place and size over the distance of the sides, radians. */
  readonly apart: { readonly place: number; readonly size: number; readonly roll: number; readonly tilt: number };
  readonly poses: (scene: Scene) => Pose[];
  readonly worthOf: (scene: Scene, pose: Pose, reach: number, gap: number) => number;
}

/** Which of the guesses where a part lies is wanted: the best, or another one than that. */
export type Guess = 1 | 2;

/** A part that was laid into a picture. */
export interface LaidPart {
  /** Left-front, left-rear, right-rear, right-front, pixels of the picture. */
  readonly corners: readonly Point[];
  /** How much speaks for it, as its model counts. */
  readonly worth: number;
}

/**
 * Lays a half cylinder into a picture in some fifty thousand ways; of each its model says how much speaks for it. The best are moved into place on ever finer pictures (pattern search, Hooke and Jeeves 1961). What was found, the best first;
 * none where nothing can be laid into it.
 */
export function searchOutline(picture: Pixels, model: OutlineModel): LaidPart[] {
  const { kept } = model;
  const coarse = sceneOf(picture, SIDES.coarse);
  let best = spread(
    model.poses(coarse).map((pose): Scored => ({ pose, worth: model.worthOf(coarse, pose, model.reaches.coarse, model.gaps.spread) })),
    kept.coarse,
    model,
  ).map(({ pose }) => climb(coarse, pose, model, 'coarse'));
  const middle = sceneOf(picture, SIDES.middle);
  best = spread(best, kept.middle, model).map(({ pose }) => climb(middle, rescaled(pose, coarse, middle), model, 'middle'));
  const fine = sceneOf(picture, SIDES.fine, middle);
  // The finest picture sets the corners; which pose is right both tell, as the grain of a bench is seen in the one and not in the other.
  return spread(best, kept.fine, model)
    .map((s) => {
      const set = climb(fine, rescaled(s.pose, middle, fine), model, 'fine');
      return { pose: set.pose, worth: (s.worth + set.worth) / 2 };
    })
    .sort((a, b) => b.worth - a.worth)
    .map(({ pose, worth }) => {
      const place = modelOf(pose, fine);
      const corners = [place(-1, 1, 0), place(-1, -1, 0), place(1, -1, 0), place(1, 1, 0)];
      return { corners: corners.map(([x, y]): Point => [(x + 0.5) * fine.small.step, (y + 0.5) * fine.small.step]), worth };
    });
}

/** How much speaks for a part that lies about so; `step` are pixels of the picture a pixel of the pose. */
export function standsOut(picture: Pixels, model: OutlineModel, [x, y, across, ...rest]: CylinderPose, step: number): number {
  const middle = sceneOf(picture, SIDES.middle);
  const fine = sceneOf(picture, SIDES.fine, middle);
  const at = (scene: Scene, of: Step): number => {
    const by = step / scene.small.step;
    const pose: Pose = [x * by - 0.5, y * by - 0.5, across * by, rest[0], rest[1], rest[2], rest[3]];
    return climb(scene, pose, model, of, [0.3, 0.12]).worth;
  };
  return (at(middle, 'middle') + at(fine, 'fine')) / 2;
}

interface Scored {
  readonly pose: Pose;
  readonly worth: number;
}

/** Tilts beyond these are not looked for, radians. */
const MOST_TILT = { along: 0.45, across: 0.35 } as const;
const TURNS = 12;

/** Moves a pose one figure at a time to where more speaks for it. */
function climb(scene: Scene, start: Pose, model: OutlineModel, of: Step, steps: readonly number[] = STEPS[of]): Scored {
  const [reach, gap] = [model.reaches[of], model.gaps[of]];
  let pose = start;
  let worth = model.worthOf(scene, pose, reach, gap);
  const take = (moved: Pose): void => {
    if (Math.abs(moved[5]) > MOST_TILT.along || Math.abs(moved[6]) > MOST_TILT.across || Math.abs(moved[4]) > model.mostTurned) return;
    const value = model.worthOf(scene, moved, reach, gap);
    if (value > worth + 1e-4) [worth, pose] = [value, moved];
  };
  for (const step of steps) {
    const unit = model.units.map((u, k) => step * u * (k < 3 ? pose[2] : 1));
    for (let turn = 0; turn < TURNS; turn++) {
      const before = worth;
      for (let k = 0; k < 7; k++)
        for (const sign of [1, -1]) take(pose.map((value, j) => (j === k ? value + sign * unit[k]! : value)) as unknown as Pose);
      for (const end of [-1, 1])
        for (const by of [unit[2]!, -unit[2]!]) {
          take(withOneSide(pose, end, by));
          if (model.endsMove) take(withOneEnd(pose, end, by));
        }
      if (worth === before) break;
    }
  }
  return { pose, worth };
}

/** One side moved by so many pixels, the other where it was. */
const withOneSide = ([x, y, across, ratio, roll, ...tilts]: Pose, side: number, by: number): Pose => [
  x + (side * by * Math.cos(roll)) / 2,
  y + (side * by * Math.sin(roll)) / 2,
  across + by,
  (ratio * across) / (across + by),
  roll,
  ...tilts,
];

/** One end moved by so many pixels along the axis, the other where it was. */
const withOneEnd = ([x, y, across, ratio, roll, ...tilts]: Pose, end: number, by: number): Pose => [
  x - (end * by * Math.sin(roll)) / 2,
  y + (end * by * Math.cos(roll)) / 2,
  across,
  ratio + by / across,
  roll,
  ...tilts,
];

function rescaled([x, y, length, ...rest]: Pose, from: Scene, to: Scene): Pose {
  const by = from.small.step / to.small.step;
  return [(x + 0.5) * by - 0.5, (y + 0.5) * by - 0.5, length * by, ...rest];
}

/** The best, no two of them nearly the same. */
function spread(list: readonly Scored[], count: number, { apart }: OutlineModel): Scored[] {
  const kept: Scored[] = [];
  for (const s of [...list].sort((a, b) => b.worth - a.worth)) {
    if (kept.length === count) break;
    const near = kept.some(
      (k) =>
        Math.hypot(k.pose[0] - s.pose[0], k.pose[1] - s.pose[1]) < apart.place * s.pose[2] &&
        Math.abs(Math.log(k.pose[2] / s.pose[2])) < apart.size &&
        Math.abs(k.pose[4] - s.pose[4]) < apart.roll &&
        Math.abs(k.pose[5] - s.pose[5]) < apart.tilt,
    );
    if (!near) kept.push(s);
  }
  return kept;
}
