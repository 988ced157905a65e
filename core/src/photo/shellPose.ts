import { fail, ok, type Result } from '../kit/result.js';
import { homography, isConvex, type Point } from './homography.js';

type Vec3 = readonly [number, number, number];

/** A pinhole camera looking into a half shell. World: x right along the parting plane, y = −axial, z away from the camera into the shell, mm. */
export interface ShellPose {
  readonly focalPx: number;
  readonly centre: Point;
  readonly r1: Vec3;
  readonly r2: Vec3;
  readonly r3: Vec3;
  readonly t: Vec3;
  readonly radiusMm: number;
  readonly widthMm: number;
}

/** Size of a picture, px. */
export interface PictureSize {
  readonly width: number;
  readonly height: number;
}

const cross = (a: Vec3, b: Vec3): Vec3 => [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]];
const dot = (a: Vec3, b: Vec3): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
const scale = (a: Vec3, s: number): Vec3 => [a[0] * s, a[1] * s, a[2] * s];
const unit = (a: Vec3): Vec3 => scale(a, 1 / Math.hypot(...a));

/**
 * Camera pose from the four corners of the parting plane (order left-front, left-rear, right-rear, right-front, front edge nearest the viewer).
 * The rectangle is 2R × W, so its homography gives the pose once the focal length is known (Zhang 2000, plane at a time). The focal length comes from
 * the picture when known, otherwise it is the one that makes the plane's axes most nearly orthonormal, held by a prior near a phone lens at twofold zoom (52 mm equivalent, the usual way to fill a picture with a small part)
 * because a face seen square-on does not determine it.
 */
export function shellPose(
  corners: readonly Point[],
  size: PictureSize,
  radiusMm: number,
  widthMm: number,
  focalPx?: number,
): Result<ShellPose> {
  if (corners.length !== 4) return fail('corners-missing', 'Four corners are needed: two parting lines, two edges.', 'corners');
  if (!isConvex(corners))
    return fail(
      'corners-crossed',
      'The corners cross or lie on one line. Go round the face: left-front, left-rear, right-rear, right-front.',
      'corners',
    );
  const centre: Point = [size.width / 2, size.height / 2];
  const plane: Point[] = [
    [-radiusMm, 0],
    [-radiusMm, -widthMm],
    [radiusMm, -widthMm],
    [radiusMm, 0],
  ];
  const h = homography(
    plane,
    corners.map(([x, y]) => [x - centre[0], y - centre[1]]),
  );
  if (!h.ok) return h;
  const m = h.value;
  const columns = (f: number): [Vec3, Vec3, Vec3] => [
    [m[0] / f, m[3] / f, m[6]],
    [m[1] / f, m[4] / f, m[7]],
    [m[2] / f, m[5] / f, m[8]],
  ];
  const f = focalPx ?? bestFocal(columns, Math.max(size.width, size.height));
  const [a, b, c] = columns(f);
  const lambda = 2 / (Math.hypot(...a) + Math.hypot(...b));
  const sign = c[2] > 0 ? 1 : -1;
  const r1 = unit(scale(a, sign));
  const raw2 = scale(b, sign);
  const r2 = unit([raw2[0] - dot(raw2, r1) * r1[0], raw2[1] - dot(raw2, r1) * r1[1], raw2[2] - dot(raw2, r1) * r1[2]]);
  const r3 = cross(r1, r2);
  if (r3[2] <= 0)
    return fail(
      'corners-mirrored',
      'The corners run the wrong way round. Left-front first, then left-rear, right-rear, right-front.',
      'corners',
    );
  return ok({ focalPx: f, centre, r1, r2, r3, t: scale(c, lambda * sign), radiusMm, widthMm });
}

/** Width over radius of a face, from its corners and a focal length: the ratio at which the plane's axes come out equally long. */
export function widthOverRadius(corners: readonly Point[], size: PictureSize, focalPx: number): number | null {
  const h = homography(
    [
      [-1, 0],
      [-1, -1],
      [1, -1],
      [1, 0],
    ],
    corners.map(([x, y]) => [x - size.width / 2, y - size.height / 2]),
  );
  if (!h.ok) return null;
  const m = h.value;
  const a = Math.hypot(m[0] / focalPx, m[3] / focalPx, m[6]);
  const b = Math.hypot(m[1] / focalPx, m[4] / focalPx, m[7]);
  return a > 0 ? b / a : null;
}

function bestFocal(columns: (f: number) => [Vec3, Vec3, Vec3], longSide: number): number {
  const usual = longSide * 1.44;
  let best = usual;
  let least = Infinity;
  for (let k = -40; k <= 60; k++) {
    const f = usual * Math.exp(k / 40);
    const [a, b] = columns(f);
    const la = Math.hypot(...a);
    const lb = Math.hypot(...b);
    const skew = dot(a, b) / (la * lb);
    const stretch = Math.log(la / lb);
    const cost = (skew / 0.01) ** 2 + (stretch / 0.015) ** 2 + (Math.log(f / usual) / 0.35) ** 2;
    if (cost < least) {
      least = cost;
      best = f;
    }
  }
  return best;
}

/** Picture position of a place on the running face: arc 0–180°, axial 0–1. */
export function projectShell(pose: ShellPose, arcDeg: number, axial: number): Point {
  // Written out without arrays: this runs for every pixel of every length that is tried.
  const a = (arcDeg * Math.PI) / 180;
  const across = -pose.radiusMm * Math.cos(a);
  const along = -axial * pose.widthMm;
  const deep = pose.radiusMm * Math.sin(a);
  const { r1, r2, r3, t } = pose;
  const x = r1[0] * across + r2[0] * along + r3[0] * deep + t[0];
  const y = r1[1] * across + r2[1] * along + r3[1] * deep + t[1];
  const z = r1[2] * across + r2[2] * along + r3[2] * deep + t[2];
  return [pose.centre[0] + (pose.focalPx * x) / z, pose.centre[1] + (pose.focalPx * y) / z];
}

function worldPoint(pose: ShellPose, arcDeg: number, axial: number): Vec3 {
  const a = (arcDeg * Math.PI) / 180;
  return [-pose.radiusMm * Math.cos(a), -axial * pose.widthMm, pose.radiusMm * Math.sin(a)];
}

/** Cosine between the surface and the line of sight; 0 when the far rim hides the place. */
export function viewCosine(pose: ShellPose, arcDeg: number, axial: number): number {
  const p = worldPoint(pose, arcDeg, axial);
  const eye: Vec3 = [-dot(pose.r1, pose.t), -dot(pose.r2, pose.t), -dot(pose.r3, pose.t)];
  const camera: Vec3 = [eye[0] - p[0], eye[1] - p[1], eye[2] - p[2]];
  if (camera[2] >= 0) return 0;
  const atRim = p[0] + (camera[0] * -p[2]) / camera[2];
  if (p[2] > 1e-6 && Math.abs(atRim) > pose.radiusMm * 1.001) return 0;
  const a = (arcDeg * Math.PI) / 180;
  return Math.max(0, dot([Math.cos(a), 0, -Math.sin(a)], unit(camera)));
}
