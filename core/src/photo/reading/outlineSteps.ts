import type { Pixels } from '../flatten.js';
import type { Point } from '../homography.js';
import type { CylinderPose } from '../outline/halfCylinder.js';
import { modelOf, sceneOf, worthOf, type Pose, type Scene } from './outlineScene.js';

/** Long sides of the pictures in which the part is looked for, moved into place and set, pixels. */
const COARSE = 160;
const MIDDLE = 360;
const FINE = 900;
/** A half shell that was laid into a picture. */
export interface LaidShell {
  /** Left-front, left-rear, right-rear, right-front, pixels of the picture. */
  readonly corners: readonly Point[];
  /** How much its outline stands against what lies beside it, 0 to about 1. */
  readonly worth: number;
}

/**
 * Lays a hollow half cylinder into a picture in some fifty thousand ways; of each it is asked along both rims (bowed, as the lens shows them) and both ends how much of the outline stands against what lies beside it. The best are
 * moved into place on ever finer pictures (pattern search, Hooke and Jeeves 1961). No bench colour and no colour of the part is taken for granted. Null where nothing can be laid into it.
 */
export function searchByOutline(picture: Pixels): LaidShell | null {
  const coarse = sceneOf(picture, COARSE);
  let best = spread(
    everyPose(coarse).map((pose): Scored => ({ pose, worth: worthOf(coarse, pose, 0.05, 14) })),
    40,
  ).map(({ pose }) => climb(coarse, pose, 0.05, [1, 0.5]));
  const middle = sceneOf(picture, MIDDLE);
  best = spread(best, 10).map(({ pose }) => climb(middle, rescaled(pose, coarse, middle), 0.035, [0.6, 0.3]));
  const fine = sceneOf(picture, FINE, middle);
  // The finest picture sets the corners; which pose is right both tell, as the grain of a bench is seen in the one and not in the other.
  const found = spread(best, 4)
    .map((s) => {
      const set = climb(fine, rescaled(s.pose, middle, fine), 0.02, [0.25, 0.12, 0.06]);
      return { pose: set.pose, worth: (s.worth + set.worth) / 2 };
    })
    .sort((a, b) => b.worth - a.worth)[0];
  if (!found) return null;
  const model = modelOf(found.pose, fine);
  const corners = [model(-1, 1, 0), model(-1, -1, 0), model(1, -1, 0), model(1, 1, 0)];
  return { corners: corners.map(([x, y]): Point => [(x + 0.5) * fine.small.step, (y + 0.5) * fine.small.step]), worth: found.worth };
}

/** How much the outline of a half shell that lies about so stands against what lies beside it, 0 to about 1; `step` are pixels of the picture a pixel of the pose. */
export function standsOut(picture: Pixels, [x, y, across, ...rest]: CylinderPose, step: number): number {
  const middle = sceneOf(picture, MIDDLE);
  const fine = sceneOf(picture, FINE, middle);
  const at = (scene: Scene, reach: number): number => {
    const by = step / scene.small.step;
    return climb(scene, [x * by - 0.5, y * by - 0.5, across * by, rest[0], rest[1], rest[2], rest[3]], reach, [0.3, 0.12]).worth;
  };
  return (at(middle, 0.035) + at(fine, 0.02)) / 2;
}

interface Scored {
  readonly pose: Pose;
  readonly worth: number;
}

function everyPose({ small: { width, height }, long }: Scene): Pose[] {
  const poses: Pose[] = [];
  for (const roll of [-32, -22, -12, -4, 4, 12, 22, 32])
    for (const tilt of [-10, 0, 10])
      for (const length of [0.24, 0.34, 0.46, 0.6, 0.76])
        for (const ratio of [0.32, 0.46]) {
          const half = (length * long) / 2;
          for (let x = 0.9 * half; x <= width - 0.9 * half; x += 0.34 * half)
            for (let y = ratio * half; y <= height - ratio * half; y += 0.5 * ratio * half)
              poses.push([x, y, 2 * half, ratio, (roll * Math.PI) / 180, (tilt * Math.PI) / 180, 0]);
        }
  return poses;
}

/** Moves a pose one figure at a time to where the outline stands out more, in steps of `steps` times what a search of this fineness resolves. */
function climb(scene: Scene, start: Pose, reach: number, steps: readonly number[]): Scored {
  let pose = start;
  const gap = reach > 0.04 ? 10 : reach > 0.03 ? 6 : 4;
  let worth = worthOf(scene, pose, reach, gap);
  for (const step of steps) {
    const unit = [0.1 * pose[2], 0.06 * pose[2], 0.12 * pose[2], 0.05, 0.08, 0.1, 0.1].map((k) => k * step);
    for (let turn = 0; turn < 12; turn++) {
      const before = worth;
      for (let k = 0; k < 7; k++)
        for (const sign of [1, -1]) {
          const moved = pose.map((value, j) => (j === k ? value + sign * unit[k]! : value)) as unknown as Pose;
          if (Math.abs(moved[5]) > 0.45 || Math.abs(moved[6]) > 0.35 || Math.abs(moved[4]) > 0.8) continue;
          const value = worthOf(scene, moved, reach, gap);
          if (value > worth + 1e-4) [worth, pose] = [value, moved];
        }
      // One end alone: the length changes while the other end stays.
      for (const end of [-1, 1])
        for (const sign of [1, -1]) {
          const by = sign * unit[2]!;
          const [x, y, length, ratio, roll, a, b] = pose;
          const moved: Pose = [
            x + (end * by * Math.cos(roll)) / 2,
            y + (end * by * Math.sin(roll)) / 2,
            length + by,
            (ratio * length) / (length + by),
            roll,
            a,
            b,
          ];
          const value = worthOf(scene, moved, reach, gap);
          if (value > worth + 1e-4) [worth, pose] = [value, moved];
        }
      if (worth === before) break;
    }
  }
  return { pose, worth };
}

function rescaled([x, y, length, ...rest]: Pose, from: Scene, to: Scene): Pose {
  const by = from.small.step / to.small.step;
  return [(x + 0.5) * by - 0.5, (y + 0.5) * by - 0.5, length * by, ...rest];
}

/** The best, no two of them nearly the same. */
function spread(list: readonly Scored[], count: number): Scored[] {
  const kept: Scored[] = [];
  for (const s of [...list].sort((a, b) => b.worth - a.worth)) {
    if (kept.length === count) break;
    const near = kept.some(
      (k) =>
        Math.hypot(k.pose[0] - s.pose[0], k.pose[1] - s.pose[1]) < 0.06 * s.pose[2] &&
        Math.abs(Math.log(k.pose[2] / s.pose[2])) < 0.08 &&
        Math.abs(k.pose[4] - s.pose[4]) < 0.1 &&
        Math.abs(k.pose[5] - s.pose[5]) < 0.1,
    );
    if (!near) kept.push(s);
  }
  return kept;
}
