import type { Point } from '../photo/homography.js';
import type { Pixels } from '../photo/flatten.js';
import { lattice } from './noise.js';
import { add, benchLight, dot, expose, eyeOf, metalLight, surroundings, unit, type Shot, type Vec } from './scene.js';
import { MAP_CLASSES, type SurfaceMaps } from './sheet.js';
import type { SurfaceSpecimen } from './surfaceMaps.js';

/** A crankpin between its webs, or a piston lying on its side with the crown to the rear. */
export type RoundForm = 'journal' | 'piston';

export interface RoundPicture {
  readonly pixels: Pixels;
  /** Where the sides of the surface meet its ends: left-front, left-rear, right-rear, right-front. */
  readonly corners: readonly Point[];
  /** Arc of the surface that faces the camera, degrees. */
  readonly facingDeg: number;
  /** Place in the picture of a place on the surface, and the cosine of the angle of view there (0 hidden). */
  readonly project: (arcDeg: number, axial: number) => Point;
  readonly cosine: (arcDeg: number, axial: number) => number;
}

interface Solid {
  readonly radius: number;
  /** Along the axis, mm from the front end of the surface towards the rear. */
  readonly from: number;
  readonly to: number;
  readonly colour: Vec;
  readonly rough: number;
  /** The surface in question. */
  readonly face?: true;
}

/** Light out of an oil hole. */
export const HOLE_LIGHT: Vec = [0.012, 0.012, 0.012];

/** Everything the part is made of: cylinders on one axis. */
function solids(form: RoundForm, R: number, W: number): Solid[] {
  const cast: Vec = [0.36, 0.355, 0.35];
  const steel: Vec = [0.52, 0.525, 0.53];
  const face: Solid = { radius: R, from: 0, to: W, colour: steel, rough: 0.3, face: true };
  if (form === 'journal')
    return [
      face,
      { radius: 1.65 * R, from: -0.85 * R, to: -0.02 * R, colour: cast, rough: 0.7 },
      { radius: 1.65 * R, from: W + 0.02 * R, to: W + 0.85 * R, colour: cast, rough: 0.7 },
      { radius: 1.15 * R, from: -3.4 * R, to: -0.85 * R, colour: steel, rough: 0.25 },
      { radius: 1.15 * R, from: W + 0.85 * R, to: W + 3.4 * R, colour: steel, rough: 0.25 },
    ];
  const land: Vec = [0.6, 0.6, 0.605];
  const groove: Vec = [0.1, 0.1, 0.1];
  const list: Solid[] = [face];
  let at = W;
  for (const [share, radius, colour] of [
    [0.075, 0.91, groove],
    [0.07, 0.99, land],
    [0.05, 0.92, groove],
    [0.07, 0.99, land],
    [0.05, 0.92, groove],
    [0.14, 0.985, land],
  ] as const) {
    list.push({ radius: R * radius, from: at, to: at + share * R, colour, rough: 0.35 });
    at += share * R;
  }
  return list;
}

/** A round part on a bench before a camera. World: x right, y = minus the way along the axis, z away from the camera; the axis is at z = 0. */
export interface RoundStage {
  /** Light that comes from the direction of a pixel; what the face in question sends is asked of `face`. */
  readonly light: (px: number, py: number, face: FaceLight) => Vec;
  /** What a mirrored ray meets that leaves a place of the face: webs, bench or surroundings. */
  readonly mirrored: (p: Vec, m: Vec) => Vec;
  readonly skyward: Vec;
  /** Place in the picture, and cosine of the angle of view, of a place of the face: degrees from what lies uppermost, share of the way from front to rear. */
  readonly project: (phi: number, axial: number) => Point;
  readonly cosine: (phi: number, axial: number) => number;
  readonly corners: readonly Point[];
}

/** Light that a place of the face sends towards the camera: place, direction of the ray, normal. Null where the surface was not painted: there the part is plain. */
type FaceLight = (p: Vec, d: Vec, normal: Vec) => Vec | null;

/** Sets a round part of these sizes before the camera. */
export function roundStage(s: SurfaceSpecimen, shot: Shot, form: RoundForm): RoundStage {
  const { width, height } = shot;
  const [R, W] = [s.radiusMm, s.widthMm];
  const parts = solids(form, R, W);
  const floor = Math.max(...parts.map((p) => p.radius));
  const { viewAxis, level, down, eye, focalPx } = eyeOf(shot, [0, -W / 2, 0], 2 * R);
  const env = surroundings(shot);
  const centre: Point = [width / 2, height / 2];
  const skyward = env([0, 0, -1]);
  const light = (px: number, py: number, face: FaceLight): Vec => {
    const v = [(px + 0.5 - centre[0]) / focalPx, (py + 0.5 - centre[1]) / focalPx] as const;
    return ray(unit(add(add(viewAxis, level, v[0]), down, v[1])), face);
  };
  const point = (phi: number, axial: number): Vec => {
    const a = (phi * Math.PI) / 180;
    return [R * Math.sin(a), -axial * W, -R * Math.cos(a)];
  };
  const onPicture = (p: Vec): Point => {
    const q = add(p, eye, -1);
    const z = dot(q, viewAxis);
    return [centre[0] + (focalPx * dot(q, level)) / z, centre[1] + (focalPx * dot(q, down)) / z];
  };
  // The camera sees the half turn about the direction of the eye.
  const eyeTurn = (Math.atan2(eye[0], -eye[2]) * 180) / Math.PI;
  const limit = (Math.acos(R / Math.hypot(eye[0], eye[2])) * 180) / Math.PI;
  return {
    light,
    mirrored,
    skyward,
    corners: [
      onPicture(point(eyeTurn - limit, 0)),
      onPicture(point(eyeTurn - limit, 1)),
      onPicture(point(eyeTurn + limit, 1)),
      onPicture(point(eyeTurn + limit, 0)),
    ],
    project: (phi, axial) => onPicture(point(phi, axial)),
    cosine: (phi, axial) => {
      const a = (phi * Math.PI) / 180;
      return Math.max(0, dot([Math.sin(a), 0, -Math.cos(a)], unit(add(eye, point(phi, axial), -1))));
    },
  };

  function ray(d: Vec, face: FaceLight): Vec {
    let best: { t: number; solid: Solid; end: boolean } | null = null;
    const a = d[0] * d[0] + d[2] * d[2];
    const b = eye[0] * d[0] + eye[2] * d[2];
    for (const solid of parts) {
      const c = eye[0] * eye[0] + eye[2] * eye[2] - solid.radius * solid.radius;
      const q = b * b - a * c;
      if (q > 0) {
        const t = (-b - Math.sqrt(q)) / a;
        const along = -(eye[1] + t * d[1]);
        if (t > 0 && along >= solid.from && along <= solid.to && (!best || t < best.t)) best = { t, solid, end: false };
      }
      // End faces.
      for (const end of [solid.from, solid.to]) {
        if (Math.abs(d[1]) < 1e-7) continue;
        const t = (-end - eye[1]) / d[1];
        if (t <= 0 || (best && t >= best.t)) continue;
        if ((eye[0] + t * d[0]) ** 2 + (eye[2] + t * d[2]) ** 2 > solid.radius * solid.radius) continue;
        best = { t, solid, end: true };
      }
    }
    const tFloor = (floor - eye[2]) / d[2];
    if (!best || tFloor < best.t) return bench(add(eye, d, tFloor));
    const p = add(eye, d, best.t);
    if (best.end) {
      const side: Vec = [0, d[1] > 0 ? -1 : 1, 0];
      const light = env(unit([0, side[1] * 0.8, -0.6]));
      return best.solid.colour.map(
        (c, k) => c * (0.22 + 0.3 * light[k]!) * Math.max(0.3, 1 - 0.4 * Math.max(0, p[2] / best!.solid.radius)),
      ) as unknown as Vec;
    }
    const normal: Vec = [p[0] / best.solid.radius, 0, p[2] / best.solid.radius];
    return (best.solid.face ? face(p, d, normal) : null) ?? plain(p, d, normal, best.solid);
  }

  /** What a mirrored ray meets: the webs beside a journal, the bench in the shade of the part, or the surroundings. */
  function mirrored(p: Vec, m: Vec): Vec {
    if (form === 'journal' && Math.abs(m[1]) > 0.05) {
      const t = ((m[1] > 0 ? 0.02 * R : -(W + 0.02 * R)) - p[1]) / m[1];
      const q = add(p, m, t);
      if (t > 0 && q[0] * q[0] + q[2] * q[2] < (1.65 * R) ** 2) return [0.07, 0.069, 0.068];
    }
    if (m[2] <= 0.02) return env(m);
    const far = (floor - p[2]) / m[2];
    return benchLight(shot, skyward, add(p, m, far), Math.max(0, Math.abs(p[0] + far * m[0]) - R), 0.4 * R);
  }

  function plain(p: Vec, d: Vec, normal: Vec, solid: Solid): Vec {
    let sum: Vec = [0, 0, 0];
    for (let k = 0; k < 4; k++) {
      const n = unit(add(normal, [0, 1, 0], (k / 3 - 0.5) * 1.6 * solid.rough));
      const m = unit(add(d, n, -2 * dot(d, n)));
      sum = add(sum, m[2] > 0.02 ? [0.5 * shot.benchColour[0], 0.5 * shot.benchColour[1], 0.5 * shot.benchColour[2]] : env(m), 0.25);
    }
    const grain = 1 + 0.08 * lattice(Math.round(p[1] * 7), Math.round(p[0] * (solid.rough > 0.5 ? 7 : 0.4)), shot.seed);
    const soft = solid.rough > 0.5 ? 0.65 : 0.15;
    return solid.colour.map(
      (c, k) => c * grain * ((1 - soft) * sum[k]! + soft * 0.55 * skyward[k]! * Math.max(0.15, -normal[2])),
    ) as unknown as Vec;
  }

  function bench(p: Vec): Vec {
    let away = Infinity;
    for (const solid of parts)
      away = Math.min(
        away,
        Math.hypot(Math.max(0, Math.abs(p[0]) - solid.radius), Math.max(0, -solid.to - p[1], p[1] + solid.from)) +
          0.3 * (floor - solid.radius),
      );
    return benchLight(shot, skyward, p, away, 0.4 * R);
  }
}

/** Takes a picture of the outside of a round part on a bench; the arc `facingDeg` of its surface lies uppermost. Rendered, and to be called so. */
export function takeRound(s: SurfaceSpecimen, maps: SurfaceMaps, shot: Shot, form: RoundForm, facingDeg: number): RoundPicture {
  const stage = roundStage(s, shot, form);
  const { width, height } = shot;
  const face: FaceLight = (p, d, normal) => {
    const phi = (Math.atan2(p[0], -p[2]) * 180) / Math.PI;
    const arc = (((phi + facingDeg) % 360) + 360) % 360;
    if (arc >= maps.spanDeg) return null;
    const x = Math.min(maps.columns - 1, Math.floor((arc / maps.spanDeg) * maps.columns));
    const y = Math.min(maps.rows - 1, Math.max(0, Math.floor((-p[1] / s.widthMm) * maps.rows)));
    const i = y * maps.columns + x;
    if (MAP_CLASSES[maps.truth[i]!] === 'hole') return HOLE_LIGHT;
    const shift = lattice(Math.round(p[0] * 40), Math.round(p[1] * 40), shot.seed) * 0.5;
    return metalLight(
      maps,
      i,
      d,
      { normal, along: [-normal[2], 0, normal[0]], across: [0, 1, 0], shift, texelMm: s.widthMm / maps.rows, up: -normal[2] },
      (m) => stage.mirrored(p, m),
      stage.skyward,
    );
  };
  const linear = new Float32Array(width * height * 3);
  for (let py = 0; py < height; py++) for (let px = 0; px < width; px++) linear.set(stage.light(px, py, face), (py * width + px) * 3);
  return {
    pixels: expose(linear, shot),
    corners: stage.corners,
    facingDeg,
    project: (arc, axial) => stage.project(arc - facingDeg, axial),
    cosine: (arc, axial) => stage.cosine(arc - facingDeg, axial),
  };
}
