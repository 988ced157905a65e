import type { Point } from '../homography.js';
import { develop, type Pixels } from '../flatten.js';
import { roundPose, type RoundPose } from '../roundPose.js';
import { shellPose, widthOverRadius, type ShellPose } from '../shellPose.js';
import { roundCamera, shellCamera, type CameraModel } from '../cameraModel.js';
import { ok, type Result } from '../../kit/result.js';
import { boxMean, field } from './field.js';

/** Focal length over the long side, tried and usual (a phone at two to threefold zoom, as small parts are taken). */
const USUAL = 1.6;
const RIM_WEIGHT = 2.4;
const TRIED = [0.85, 0.97, 1.1, 1.25, 1.42, 1.6, 1.8, 2.05, 2.35, 2.7];

/**
 * Pose of a shell with the focal length found from the face itself: machining marks and scores run round the bore, so they lie level on a rightly developed surface and bow on a wrong
 * one. Four corners alone hardly tell it when the face is seen square on. The two rims tell it too: rightly developed they are straight.
 * Among the lengths tried, the one whose rows agree best along the arc and whose rims stand out best is taken, with a light hold towards the usual one. `fineness` under 1 looks at a coarser
 * surface: for drawing, not for reading.
 */
export function shellPoseByRun(
  corners: readonly Point[],
  picture: Pixels,
  radiusMm: number,
  widthMm: number | null,
  fineness = 1,
): Result<ShellPose> {
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
      ? 0.6 * Math.log(1e-9 + levelness(shellCamera(pose.value), picture, fineness)) +
          RIM_WEIGHT * Math.log(4 + rimStep(shellCamera(pose.value), picture)) -
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
function rimStep(camera: CameraModel, picture: Pixels, slack: readonly number[] = [0]): number {
  const at = (arc: number, axial: number): readonly [number, number, number] | null => {
    const [x, y] = camera.project(arc / 180, axial);
    const px = Math.round(x - 0.5);
    const py = Math.round(y - 0.5);
    if (px < 0 || py < 0 || px >= picture.width || py >= picture.height) return null;
    const i = (py * picture.width + px) * 4;
    return [picture.data[i]!, picture.data[i + 1]!, picture.data[i + 2]!];
  };
  let whole = 0;
  for (const [inside, outside] of [
    [0.03, -0.035],
    [0.97, 1.035],
  ] as const) {
    let best = 0;
    for (const shift of slack) {
      let sum = 0;
      let n = 0;
      for (let arc = 24; arc <= 156; arc += 3) {
        const p = at(arc, inside + shift);
        const q = at(arc, outside + shift);
        if (!p || !q) continue;
        sum += Math.min(70, Math.hypot(p[0] - q[0], p[1] - q[1], p[2] - q[2]));
        n++;
      }
      if (n > 0) best = Math.max(best, sum / n);
    }
    whole += best / 2;
  }
  return whole;
}

/** How much of what varies across the face is the same along the arc. */
function levelness(camera: CameraModel, picture: Pixels, fineness: number): number {
  const columns = Math.round(240 * fineness);
  const { pixels } = develop(camera, picture, columns * 2, 2, 2);
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

/** How far off a corner set by hand may lie, as a share of the width of the part. */
const CORNER_SLACK = 0.004;
/** Tilts of a round part tried, degrees. */
const TILTS = Array.from({ length: 13 }, (_, k) => -24 + 4 * k);

/**
 * Pose of a round part seen from outside with the tilt of its axis found from the picture: four corners hardly tell it, but with a wrong one the ends bow away from the real ones and marks that
 * run round the part do not lie level. The focal length matters little here and is taken as usual.
 */
export function roundPoseByRun(corners: readonly Point[], picture: Pixels, radiusMm: number, fineness = 1): Result<RoundPose> {
  const centre: Point = [picture.width / 2, picture.height / 2];
  const focalPx = USUAL * Math.max(picture.width, picture.height);
  const at = (tilt: number): Result<RoundPose> => roundPose(corners, centre, radiusMm, focalPx, tilt);
  const level = at(0);
  if (!level.ok) return level;
  const wide = Math.hypot(corners[3]![0] - corners[0]![0], corners[3]![1] - corners[0]![1]);
  const worth = (tilt: number): number => {
    const pose = at(tilt);
    if (!pose.ok) return -Infinity;
    const camera = roundCamera(pose.value);
    return (
      ROW_WEIGHT * rowAgreement(camera, picture, fineness) +
      2 * Math.log(4 + rimStep(camera, picture)) -
      (tilt / 30) ** 2 -
      (pose.value.misfitPx / (CORNER_SLACK * wide)) ** 2
    );
  };
  const tried = TILTS.map(worth);
  let best = TILTS[tried.indexOf(Math.max(...tried))]!;
  let most = Math.max(...tried);
  if (!Number.isFinite(most)) return ok(level.value);
  for (const step of [2, 1, 0.5])
    for (const tilt of [best - step, best + step]) {
      const value = worth(tilt);
      if (value > most) [most, best] = [value, tilt];
    }
  return at(best);
}

const ROW_WEIGHT = 3;

/**
 * How much of what differs along each column is the same all along the row, 0 to about 1: fine steps of lightness and coarse ones of two colours, weighed by how much each differs at all. What a
 * round part mirrors differs from column to column and averages out. Only the middle two thirds of the arc count, where it does not mirror the bench.
 */
function rowAgreement(camera: CameraModel, picture: Pixels, fineness: number): number {
  const { pixels } = develop(camera, picture, Math.round(320 * fineness), 2, 2);
  const { width, height, data } = pixels;
  const [from, to] = [Math.round(width / 6), Math.round((5 * width) / 6)];
  let [same, all] = [0, 0];
  for (const k of [0, 1, 2] as const) {
    const p = field(width, height);
    for (let i = 0; i < p.data.length; i++) {
      const [r, g, b] = [data[4 * i]! + 8, data[4 * i + 1]! + 8, data[4 * i + 2]! + 8];
      p.data[i] = k === 0 ? Math.log(r + g + b) : k === 1 ? Math.log(r / g) : Math.log(g / b);
    }
    const around = boxMean(p, 0, Math.round(height * (k === 0 ? 0.06 : 0.5)));
    for (let y = 0; y < height; y++) {
      let row = 0;
      for (let x = from; x < to; x++) {
        const i = y * width + x;
        if (data[4 * i + 3] === 0) continue;
        const off = Math.max(-0.3, Math.min(0.3, p.data[i]! - around.data[i]!));
        row += off;
        all += off * off;
      }
      same += (row * row) / (to - from);
    }
  }
  return same / (all + 1e-4 * 3 * height * (to - from));
}

/** An end may lie so far from where a hand put its corners, share of the width. */
const SLACK = [-0.09, -0.06, -0.03, 0, 0.03, 0.06, 0.09];

/**
 * How much better the two ends of a part stand out if it were round the other way, hollow for full: their logarithms' difference. Nearer to the lens things are larger, so the ends of a hollow half bow
 * in and those of a round part out; corners on the wrong kind of part show it.
 */
export function otherWayRound(hollow: boolean, own: CameraModel, corners: readonly Point[], picture: Pixels, radiusMm: number): number {
  const long = Math.max(picture.width, picture.height);
  const others: CameraModel[] = hollow
    ? [-16, -8, 0, 8, 16].flatMap((tilt) => {
        const pose = roundPose(corners, [picture.width / 2, picture.height / 2], radiusMm, USUAL * long, tilt);
        return pose.ok ? [roundCamera(pose.value)] : [];
      })
    : [1.25, 1.6, 2.05].flatMap((k) => {
        const width = radiusMm * (widthOverRadius(corners, picture, k * long) ?? 1);
        const pose = shellPose(corners, picture, radiusMm, width, k * long);
        return pose.ok ? [shellCamera(pose.value)] : [];
      });
  const best = Math.max(...others.map((camera) => rimStep(camera, picture, SLACK)), 0);
  return Math.log((4 + best) / (4 + rimStep(own, picture, SLACK)));
}
