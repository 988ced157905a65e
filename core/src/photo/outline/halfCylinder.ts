import type { Point } from '../homography.js';

/**
 * How a half cylinder lies in a picture: middle of the plane between its two sides, distance of the sides, its length along the axis over that, roll, the tilts of its axis and of its run (radians), and the logarithm of
 * the focal length over the long side of the picture. Lengths in pixels of the picture.
 */
export type CylinderPose = readonly [
  x: number,
  y: number,
  across: number,
  ratio: number,
  roll: number,
  tiltAlong: number,
  tiltAcross: number,
  focal: number,
];

/** What a camera sees of a half cylinder. */
export interface SeenCylinder {
  /** Closed line round what is seen of its surface. */
  readonly line: readonly Point[];
  /** Left-front, left-rear, right-rear, right-front. */
  readonly corners: readonly Point[];
}

/** Degrees between the points of a bowed end. */
const GAP = 9;

/** Where in the picture a place of a half cylinder lies: `u` −1 left side to 1 right, `v` −1 rear end to 1 front end, `deep` 0 in the plane between the sides to 1 at the bottom of a hollow one (−1 the top of a full one); pinhole camera. */
export function placeOn(
  [x, y, across, ratio, roll, tiltAlong, tiltAcross, focal]: CylinderPose,
  picture: { readonly width: number; readonly height: number },
): (u: number, v: number, deep: number) => Point {
  const f = Math.exp(focal) * Math.max(picture.width, picture.height);
  const r = across / 2;
  const w = (across * ratio) / 2;
  const [cr, sr] = [Math.cos(roll), Math.sin(roll)];
  const [ca, sa] = [Math.cos(tiltAlong), Math.sin(tiltAlong)];
  const [cb, sb] = [Math.cos(tiltAcross), Math.sin(tiltAcross)];
  // The run across, the axis, and the way away from the camera, each turned by the tilts and then by the roll.
  const [runX, runY, runZ] = [cb * cr, cb * sr, sb];
  const [axX0, axY0, axZ] = [-sa * sb, ca, sa * cb];
  const [axX, axY] = [axX0 * cr - axY0 * sr, axX0 * sr + axY0 * cr];
  const [awayX0, awayY0, awayZ] = [-ca * sb, -sa, ca * cb];
  const [awayX, awayY] = [awayX0 * cr - awayY0 * sr, awayX0 * sr + awayY0 * cr];
  const [cx, cy] = [picture.width / 2, picture.height / 2];
  return (u, v, deep) => {
    const z = f + r * u * runZ + w * v * axZ + r * deep * awayZ;
    return [
      cx + (f * (x - cx + r * u * runX + w * v * axX + r * deep * awayX)) / z,
      cy + (f * (y - cy + r * u * runY + w * v * axY + r * deep * awayY)) / z,
    ];
  };
}

/** What a camera sees of a half cylinder, hollow (a shell, seen from inside) or full (a journal or skirt, seen from outside). */
export function seenCylinder(
  hollow: boolean,
  pose: CylinderPose,
  picture: { readonly width: number; readonly height: number },
): SeenCylinder {
  const place = placeOn(pose, picture);
  const closeness = pose[2] / 2 / (Math.exp(pose[7]) * Math.max(picture.width, picture.height));
  // Of a full part the sides that are seen lie a little nearer than its middle: where the line of sight touches it.
  const limit = hollow ? Math.PI / 2 : Math.acos(Math.min(0.9, closeness));
  const point = (turn: number, v: number): Point => place(Math.sin(turn), v, (hollow ? 1 : -1) * Math.cos(turn));
  const count = Math.round(((limit * 180) / Math.PI / GAP) * 2);
  const end = (v: number): Point[] => Array.from({ length: count + 1 }, (_, k) => point((2 * (k / count) - 1) * limit, v));
  return { line: [...end(1), ...end(-1).reverse()], corners: [point(-limit, 1), point(-limit, -1), point(limit, -1), point(limit, 1)] };
}
