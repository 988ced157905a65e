import { fail, ok, type Result } from '../kit/result.js';
import { isConvex, type Point } from './homography.js';
import { solved } from './image/solved.js';

type Vec = readonly [number, number, number];

/** A pinhole camera at the origin looking along +z at the outside of a round part. Lengths in mm. */
export interface RoundPose {
  readonly focalPx: number;
  readonly centre: Point;
  /** Middle of the front end on the axis, and the direction of the axis towards the rear. */
  readonly front: Vec;
  readonly axis: Vec;
  /** Across the part to the right, and away from the camera, both square to the axis. */
  readonly across: Vec;
  readonly away: Vec;
  readonly radiusMm: number;
  readonly widthMm: number;
  /** Half the arc that can be seen: the sides of the picture of the part lie there, degrees. */
  readonly limitDeg: number;
  /** Root mean square distance of the corners from those of this pose, pixels. */
  readonly misfitPx: number;
}

const dot = (a: Vec, b: Vec): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
const cross = (a: Vec, b: Vec): Vec => [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]];
const add = (a: Vec, b: Vec, s: number): Vec => [a[0] + s * b[0], a[1] + s * b[1], a[2] + s * b[2]];
const unit = (a: Vec): Vec => {
  const n = Math.hypot(...a) || 1;
  return [a[0] / n, a[1] / n, a[2] / n];
};

/** Place in the picture: `phi` −90 left to 90 right of what faces the camera, degrees; `v` 0 front to 1 rear. */
export function roundPoint(pose: RoundPose, phi: number, v: number): Point {
  // Written out without arrays, as `surfacePoint`: this runs for every pixel of every tilt that is tried.
  const a = (phi * Math.PI) / 180;
  const along = v * pose.widthMm;
  const across = pose.radiusMm * Math.sin(a);
  const away = -pose.radiusMm * Math.cos(a);
  const at = (k: 0 | 1 | 2): number => pose.front[k] + along * pose.axis[k] + across * pose.across[k] + away * pose.away[k];
  const z = at(2);
  return [pose.centre[0] + (pose.focalPx * at(0)) / z, pose.centre[1] + (pose.focalPx * at(1)) / z];
}

function surfacePoint(pose: Omit<RoundPose, 'misfitPx'>, phi: number, v: number): Vec {
  const a = (phi * Math.PI) / 180;
  const onAxis = add(pose.front, pose.axis, v * pose.widthMm);
  return add(add(onAxis, pose.across, pose.radiusMm * Math.sin(a)), pose.away, -pose.radiusMm * Math.cos(a));
}

/** Cosine between the surface and the line of sight; 0 beyond the limit of what can be seen. */
export function roundCosine(pose: RoundPose, phi: number, v: number): number {
  const a = (phi * Math.PI) / 180;
  const p = surfacePoint(pose, phi, v);
  const normal = add([pose.across[0] * Math.sin(a), pose.across[1] * Math.sin(a), pose.across[2] * Math.sin(a)], pose.away, -Math.cos(a));
  return Math.max(0, -dot(normal, unit(p)));
}

function poseOf(params: readonly number[], tilt: number, focalPx: number, centre: Point, radiusMm: number): Omit<RoundPose, 'misfitPx'> {
  const [x, y, logZ, turn, logW] = params as [number, number, number, number, number];
  const z = Math.exp(logZ);
  const front: Vec = [x * z, y * z, z];
  const axis: Vec = [Math.sin(turn) * Math.cos(tilt), -Math.cos(turn) * Math.cos(tilt), Math.sin(tilt)];
  // From the eye square onto the axis.
  const foot = add(front, axis, -dot(front, axis));
  const away = unit(foot);
  const across = cross([-axis[0], -axis[1], -axis[2]], away);
  const limit = Math.acos(Math.min(0.99, radiusMm / Math.hypot(...foot)));
  return { focalPx, centre, front, axis, across, away, radiusMm, widthMm: Math.exp(logW), limitDeg: (limit * 180) / Math.PI };
}

/**
 * Pose of a round part seen from outside, from the four corners of its picture (left-front, left-rear, right-rear, right-front: where its sides meet its two ends), for a given tilt of the axis
 * away from the camera (degrees, rear end farther away positive) and focal length. Five unknowns and eight figures, by damped least squares (Levenberg 1944, Marquardt 1963).
 */
export function roundPose(corners: readonly Point[], centre: Point, radiusMm: number, focalPx: number, tiltDeg: number): Result<RoundPose> {
  if (corners.length !== 4) return fail('corners-missing', 'Four corners are needed: two sides, two ends.', 'corners');
  if (!isConvex(corners))
    return fail(
      'corners-crossed',
      'The corners cross or lie on one line. Go round the face: left-front, left-rear, right-rear, right-front.',
      'corners',
    );
  const [lf, lr, rr, rf] = corners as [Point, Point, Point, Point];
  const mid = (p: Point, q: Point): Point => [(p[0] + q[0]) / 2 - centre[0], (p[1] + q[1]) / 2 - centre[1]];
  const [frontMid, rearMid] = [mid(lf, rf), mid(lr, rr)];
  const wide = (Math.hypot(lf[0] - rf[0], lf[1] - rf[1]) + Math.hypot(lr[0] - rr[0], lr[1] - rr[1])) / 2;
  const turn = Math.atan2(rearMid[0] - frontMid[0], -(rearMid[1] - frontMid[1]));
  const [rightX, rightY] = [rf[0] - lf[0], rf[1] - lf[1]];
  if (rightX * Math.cos(turn) + rightY * Math.sin(turn) <= 0)
    return fail(
      'corners-mirrored',
      'The corners run the wrong way round. Left-front first, then left-rear, right-rear, right-front.',
      'corners',
    );
  const long = Math.hypot(rearMid[0] - frontMid[0], rearMid[1] - frontMid[1]);
  const z = (focalPx * 2 * radiusMm) / wide;
  const tilt = (tiltDeg * Math.PI) / 180;
  let params = [
    frontMid[0] / focalPx,
    frontMid[1] / focalPx,
    Math.log(z),
    turn,
    Math.log(Math.max(0.5, (2 * radiusMm * long) / wide / Math.max(0.3, Math.cos(tilt)))),
  ];
  const residuals = (p: readonly number[]): number[] => {
    const pose = { ...poseOf(p, tilt, focalPx, centre, radiusMm), misfitPx: 0 };
    return (
      [
        [-1, 0],
        [-1, 1],
        [1, 1],
        [1, 0],
      ] as const
    ).flatMap(([side, v], k) => {
      const [px, py] = roundPoint(pose, side * pose.limitDeg, v);
      return [px - corners[k]![0], py - corners[k]![1]];
    });
  };
  const cost = (r: readonly number[]): number => r.reduce((s, v) => s + v * v, 0);
  let r = residuals(params);
  let damping = 1e-3;
  for (let turnNo = 0; turnNo < 30; turnNo++) {
    const jacobian = params.map((value, k) => {
      const h = 1e-6 * Math.max(1, Math.abs(value));
      const moved = residuals(params.map((v, j) => (j === k ? v + h : v)));
      return moved.map((v, i) => (v - r[i]!) / h);
    });
    const step = stepOf(jacobian, r, damping);
    if (!step) break;
    const next = params.map((v, k) => v - step[k]!);
    const moved = residuals(next);
    if (cost(moved) < cost(r)) {
      const gained = cost(r) - cost(moved);
      params = next;
      r = moved;
      damping = Math.max(1e-9, damping / 5);
      if (gained < 1e-9) break;
    } else if ((damping *= 8) > 1e9) break;
  }
  const misfitPx = Math.sqrt(cost(r) / 4);
  if (!Number.isFinite(misfitPx)) return fail('corners-degenerate', 'No round part fits these four corners.', 'corners');
  return ok({ ...poseOf(params, tilt, focalPx, centre, radiusMm), misfitPx });
}

/** A step of least squares with damping on the diagonal of its normal equations. */
function stepOf(jacobian: readonly (readonly number[])[], r: readonly number[], damping: number): number[] | null {
  return solved(
    jacobian.map((a, i) => jacobian.map((b, j) => a.reduce((s, v, k) => s + v * b[k]!, 0) * (i === j ? 1 + damping : 1))),
    jacobian.map((a) => a.reduce((s, v, k) => s + v * r[k]!, 0)),
  );
}
