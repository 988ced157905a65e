import type { Point } from '../homography.js';
import { flattenShell, type Pixels } from '../flatten.js';
import { projectShell, shellPose, widthOverRadius, type ShellPose } from '../shellPose.js';
import type { Result } from '../../result.js';
import { boxMean, field } from './field.js';

/** Focal length over the long side, tried and usual (a phone at two to threefold zoom, as small parts are taken). */
const USUAL = 1.6;
const RIM_WEIGHT = 2.4;
const TRIED = [0.85, 0.97, 1.1, 1.25, 1.42, 1.6, 1.8, 2.05, 2.35, 2.7];

/**
 * Pose of a shell with the focal length found from the face itself: machining marks and scores run round the bore, so they lie level on a rightly developed surface and bow on a wrong
 * one. Four corners alone hardly tell it when the face is seen square on. The two rims tell it too: rightly developed they are straight.
 * Among the lengths tried, the one whose rows agree best along the arc and whose rims stand out best is taken, with a light hold towards the usual one.
 */
export function shellPoseByRun(corners: readonly Point[], picture: Pixels, radiusMm: number, widthMm: number | null): Result<ShellPose> {
  const long = Math.max(picture.width, picture.height);
  // Where the width is not known it follows from the corners and the focal length tried.
  const poseAt = (k: number): Result<ShellPose> => {
    const width = widthMm ?? radiusMm * (widthOverRadius(corners, picture, k * long) ?? 1);
    return shellPose(corners, picture, radiusMm, width, k * long);
  };
  const usual = widthMm === null ? poseAt(USUAL) : shellPose(corners, picture, radiusMm, widthMm);
  if (!usual.ok) return usual;
  const tried = TRIED.map((k) => {
    const pose = poseAt(k);
    return pose.ok
      ? 0.6 * Math.log(1e-9 + levelness(pose.value, picture)) +
          RIM_WEIGHT * Math.log(4 + rimStep(pose.value, picture)) -
          Math.log(k / USUAL) ** 2
      : -Infinity;
  });
  const best = tried.indexOf(Math.max(...tried));
  if (!Number.isFinite(tried[best]!)) return usual;
  // The top of a parabola through the best and its neighbours, in the logarithm of the length.
  const [before, here, after] = [tried[best - 1], tried[best]!, tried[best + 1]];
  let k = TRIED[best]!;
  if (before !== undefined && after !== undefined && before - 2 * here + after < 0) {
    const shift = (before - after) / (2 * (before - 2 * here + after));
    const neighbour = TRIED[best + (shift > 0 ? 1 : -1)]!;
    k *= (neighbour / k) ** Math.abs(shift);
  }
  return poseAt(k);
}

/** How strongly the two rims stand against what lies beyond them: with a wrong length the developed rim bows away from the real one. */
function rimStep(pose: ShellPose, picture: Pixels): number {
  const at = (arc: number, axial: number): readonly [number, number, number] | null => {
    const [x, y] = projectShell(pose, arc, axial);
    const px = Math.round(x - 0.5);
    const py = Math.round(y - 0.5);
    if (px < 0 || py < 0 || px >= picture.width || py >= picture.height) return null;
    const i = (py * picture.width + px) * 4;
    return [picture.data[i]!, picture.data[i + 1]!, picture.data[i + 2]!];
  };
  let sum = 0;
  let n = 0;
  for (let arc = 24; arc <= 156; arc += 3)
    for (const [inside, outside] of [
      [0.03, -0.035],
      [0.97, 1.035],
    ] as const) {
      const p = at(arc, inside);
      const q = at(arc, outside);
      if (!p || !q) continue;
      sum += Math.min(70, Math.hypot(p[0] - q[0], p[1] - q[1], p[2] - q[2]));
      n++;
    }
  return n === 0 ? 0 : sum / n;
}

/** How much of what varies across the face is the same along the arc. */
function levelness(pose: ShellPose, picture: Pixels): number {
  const columns = 240;
  const { pixels } = flattenShell(pose, picture, columns * 2, 2, 2);
  const { width, height, data } = pixels;
  const p = field(width, height);
  for (let i = 0; i < p.data.length; i++) p.data[i] = Math.log(1 + data[4 * i]! + data[4 * i + 1]! + data[4 * i + 2]!);
  const wide = boxMean(p, 0, Math.max(2, Math.round(height / 24)));
  let sum = 0;
  const border = Math.round(height * 0.17);
  for (let y = border; y < height - border; y++) {
    let row = 0;
    for (let x = Math.round(width * 0.12); x < width * 0.88; x++)
      row += Math.max(-0.2, Math.min(0.2, p.data[y * width + x]! - wide.data[y * width + x]!));
    sum += row * row;
  }
  return sum / ((height - 2 * border) * width * width);
}
