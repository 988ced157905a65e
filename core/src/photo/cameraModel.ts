import { homography, type Point } from './homography.js';
import { roundPoint, roundCosine, type RoundPose } from './roundPose.js';
import { projectShell, viewCosine, type ShellPose } from './shellPose.js';
import { fail, ok, type Result } from '../kit/result.js';

/** A surface as a camera sees it. `u` 0–1 runs across (round faces: along the arc), `v` 0–1 along it from the front. */
export interface CameraModel {
  /** Size of the developed surface, mm. */
  readonly widthMm: number;
  readonly heightMm: number;
  /** Arc that `u` covers, degrees; 0 for a flat surface. */
  readonly spanDeg: number;
  /** Pixel of the picture at which the place lies. */
  readonly project: (u: number, v: number) => Point;
  /** Cosine between the surface and the line of sight; 0 for what is hidden or no surface. */
  readonly cosine: (u: number, v: number) => number;
}

/** Inside of a half shell: u from the left parting line to the right. */
export function shellCamera(pose: ShellPose): CameraModel {
  return {
    widthMm: Math.PI * pose.radiusMm,
    heightMm: pose.widthMm,
    spanDeg: 180,
    project: (u, v) => projectShell(pose, u * 180, v),
    cosine: (u, v) => viewCosine(pose, u * 180, v),
  };
}

/** Outside of a round part: u covers the half turn that faces the camera, left to right. */
export function roundCamera(pose: RoundPose): CameraModel {
  return {
    widthMm: Math.PI * pose.radiusMm,
    heightMm: pose.widthMm,
    spanDeg: 180,
    project: (u, v) => roundPoint(pose, u * 180 - 90, v),
    cosine: (u, v) => roundCosine(pose, u * 180 - 90, v),
  };
}

/** Maps the unit square onto four corners: (0,0) left-front, (0,1) left-rear, (1,1) right-rear, (1,0) right-front. */
function plane(corners: readonly Point[]): Result<(x: number, y: number) => Point> {
  const h = homography(
    [
      [0, 0],
      [0, 1],
      [1, 1],
      [1, 0],
    ],
    corners,
  );
  if (!h.ok) return h;
  const m = h.value;
  return ok((x, y) => {
    const w = m[6] * x + m[7] * y + m[8];
    return [(m[0] * x + m[1] * y + m[2]) / w, (m[3] * x + m[4] * y + m[5]) / w];
  });
}

/** Obliqueness of a plane at a place: how much shorter its shorter direction looks than its longer one (1 square on). */
function planeCosine(at: (x: number, y: number) => Point, x: number, y: number, aspect: number): number {
  const e = 0.002;
  const [ax, ay] = at(x + e, y);
  const [bx, by] = at(x - e, y);
  const [cx, cy] = at(x, y + e * aspect);
  const [dx, dy] = at(x, y - e * aspect);
  const [ux, uy, vx, vy] = [ax - bx, ay - by, cx - dx, cy - dy];
  const area = Math.abs(ux * vy - uy * vx);
  const square = ux * ux + uy * uy + vx * vx + vy * vy;
  // Singular values s ≥ t of the map: s·t = area, s² + t² = square.
  const root = Math.sqrt(Math.max(0, square * square - 4 * area * area));
  return square <= 0 ? 0 : Math.sqrt(Math.max(0, (square - root) / (square + root)));
}

/** A flat face, or a strip that is developed already (borescope): four corners of a rectangle. `spanDeg` when the strip covers an arc. */
export function flatCamera(corners: readonly Point[], widthMm: number, heightMm: number, spanDeg = 0): Result<CameraModel> {
  const at = plane(corners);
  if (!at.ok) return at;
  const project = at.value;
  return ok({ widthMm, heightMm, spanDeg, project, cosine: (u, v) => planeCosine(project, u, v, widthMm / heightMm) });
}

/** A round flat face (crown): four corners of the square about its circle. Outside the circle there is no surface. */
export function discCamera(corners: readonly Point[], diameterMm: number): Result<CameraModel> {
  const flat = flatCamera(corners, diameterMm, diameterMm);
  if (!flat.ok) return flat;
  const { cosine } = flat.value;
  return ok({ ...flat.value, cosine: (u, v) => (Math.hypot(u - 0.5, v - 0.5) > 0.5 ? 0 : cosine(u, v)) });
}

/**
 * A ring-shaped flat face (thrust face) developed round: `u` one turn clockwise from the top of the square about its outer circle, `v` from the inner edge outwards.
 * Corners are those of the square.
 */
export function ringCamera(corners: readonly Point[], outerRadiusMm: number, innerRadiusMm: number): Result<CameraModel> {
  const at = plane(corners);
  if (!at.ok) return at;
  if (!(innerRadiusMm > 0 && innerRadiusMm < outerRadiusMm))
    return fail('ring-size', 'The inner radius of a ring-shaped face is above 0 and below the outer one.', 'radius');
  const inPlane = (u: number, v: number): readonly [number, number] => {
    const share = (innerRadiusMm + v * (outerRadiusMm - innerRadiusMm)) / outerRadiusMm / 2;
    const turn = 2 * Math.PI * u;
    return [0.5 + share * Math.sin(turn), 0.5 + share * Math.cos(turn)];
  };
  return ok({
    widthMm: Math.PI * (outerRadiusMm + innerRadiusMm),
    heightMm: outerRadiusMm - innerRadiusMm,
    spanDeg: 360,
    project: (u, v) => at.value(...inPlane(u, v)),
    cosine: (u, v) => planeCosine(at.value, ...inPlane(u, v), 1),
  });
}
