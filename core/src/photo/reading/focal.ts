import type { Point } from '../homography.js';
import { flattenShell, type Pixels } from '../flatten.js';
import { shellPose, widthOverRadius, type ShellPose } from '../shellPose.js';
import type { Result } from '../../result.js';
import { boxMean, field } from './field.js';

/** Focal length over the long side, tried and usual (a phone at two to threefold zoom, as small parts are taken). */
const USUAL = 1.6;
const TRIED = [0.85, 0.97, 1.1, 1.25, 1.42, 1.6, 1.8, 2.05, 2.35, 2.7];

/**
 * Pose of a shell with the focal length found from the face itself: machining marks and scores run round the bore, so they lie level on a rightly developed surface and bow on a wrong
 * one. Four corners alone hardly tell it when the face is seen square on. Among the lengths tried, the one whose rows agree best along the arc is taken; a face without
 * marks leaves the usual one.
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
    return pose.ok ? levelness(pose.value, picture) : 0;
  });
  const best = tried.indexOf(Math.max(...tried));
  const plain = [...tried].sort((a, b) => a - b)[Math.floor(tried.length / 2)]!;
  if (!(tried[best]! > 1.06 * plain)) return usual;
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
