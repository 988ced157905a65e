import { alongRun, askedOf, type Pose, type Scene } from './outlineScene.js';
import type { OutlineModel } from './outlineSteps.js';

/** Share of the radius that wall and parting face take at each end (1.5 to 2 mm of 25). */
const WALL = 0.07;
/** How much it tells against a pose that what lies beside it is not like the bench. */
const STRANGE = 0.5;
/** How much it tells for a pose that its face is the same over its width. */
const RUN = 0.2;

/** A half shell as it is looked for in a picture. */
export const SHELL_OUTLINE: OutlineModel = {
  reaches: { coarse: 0.05, middle: 0.035, fine: 0.02 },
  gaps: { spread: 14, coarse: 10, middle: 6, fine: 4 },
  units: [0.1, 0.06, 0.12, 0.05, 0.08, 0.1, 0.1],
  mostTurned: 0.8,
  endsMove: false,
  kept: { coarse: 40, middle: 10, fine: 4 },
  apart: { place: 0.06, size: 0.08, roll: 0.1, tilt: 0.1 },
  poses: everyPose,
  worthOf,
};

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

/** 0 to 1: how much of the outline stands against what lies beside it, a little more for what is larger. `reach` is how far beside, share of the half length; `gap` the degrees between places asked. */
function worthOf(scene: Scene, pose: Pose, reach: number, gap: number): number {
  const { long } = scene;
  const [, , length, ratio] = pose;
  if (ratio < 0.2 || ratio > 0.75 || length < 0.2 * long || length > 0.98 * long) return 0;
  const asked = askedOf(scene, pose);
  const { at, stands, bench } = asked;
  const beside = reach / ratio;
  let rims = 0;
  let n = 0;
  for (let arc = 6; arc <= 174; arc += gap) {
    const [u, deep] = [-Math.cos((arc * Math.PI) / 180), Math.sin((arc * Math.PI) / 180)];
    for (const v of [-1, 1]) rims += stands(at(u, v * (1 - beside), deep), bench(at(u, v * (1 + beside), deep)));
    n += 2;
  }
  let ends = 0;
  let m = 0;
  for (const side of [-1, 1])
    for (const v of [-0.75, -0.375, 0, 0.375, 0.75]) {
      const face = at(side * (1 - 0.5 * reach), v, Math.sqrt(1 - (1 - 0.5 * reach) ** 2));
      const wall = at(side * (1 + 0.5 * WALL), v, 0);
      ends += 0.5 * (stands(face, wall) + stands(wall, bench(at(side * (1 + WALL + reach), v, 0))));
      bench(at(side * (1 + WALL + 3 * reach), v, 0));
      m++;
    }
  if (asked.outside() > 0.12) return 0;
  // The coarse search asks only for what stands against the bench.
  const run = gap > 10 ? 0 : RUN * alongRun(scene, at, 1);
  return run + ((2 * rims) / n + ends / m) / 3 - STRANGE * asked.strange() + 0.08 * Math.log(length / long);
}
