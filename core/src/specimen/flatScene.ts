import type { Pixels } from '../photo/flatten.js';
import type { Point } from '../photo/homography.js';
import { lattice } from './noise.js';
import { add, benchLight, dot, expose, eyeOf, metalLight, surroundings, unit, type Shot, type Vec } from './scene.js';
import type { SurfaceMaps } from './sheet.js';
import type { SurfaceSpecimen } from './surfaceMaps.js';

/** A round flat face that lies on a bench and looks up: a whole one (crown, follower), or a ring (thrust washer). */
export type FlatForm = 'disc' | 'ring';

export interface FlatPicture {
  readonly pixels: Pixels;
  /** The square about the circle: left-front, left-rear, right-rear, right-front. */
  readonly corners: readonly Point[];
  /** Place in the picture of a place of the surface as it is developed, 0 to 1 each: of a disc across and from its lower end up, of a ring one turn clockwise from the top and outwards. */
  readonly project: (u: number, v: number) => Point;
}

/** How high the face lies over the bench, shares of its radius. */
const HIGH = { disc: 1.1, ring: 0.07 } as const;
/** Width of the chamfer at the rim, shares of the radius. */
const CHAMFER = 0.012;

/** Takes a picture of such a face; `s.radiusMm` is its outer radius, of a ring `s.widthMm` the width of its face. Rendered, and to be called so. */
export function takeFlat(s: SurfaceSpecimen, maps: SurfaceMaps, shot: Shot, form: FlatForm): FlatPicture {
  const { width, height } = shot;
  const R = s.radiusMm;
  const inner = form === 'ring' ? R - s.widthMm : 0;
  const floor = HIGH[form] * R;
  const { viewAxis, level, down, eye, focalPx } = eyeOf(shot, [0, 0, 0], 2 * R);
  const env = surroundings(shot);
  const skyward = env([0, 0, -1]);
  const centre: Point = [width / 2, height / 2];
  const onPicture = (p: Vec): Point => {
    const q = add(p, eye, -1);
    const z = dot(q, viewAxis);
    return [centre[0] + (focalPx * dot(q, level)) / z, centre[1] + (focalPx * dot(q, down)) / z];
  };
  const linear = new Float32Array(width * height * 3);
  for (let py = 0; py < height; py++)
    for (let px = 0; px < width; px++) {
      const [a, b] = [(px + 0.5 - centre[0]) / focalPx, (py + 0.5 - centre[1]) / focalPx];
      linear.set(ray(unit([0, 1, 2].map((k) => a * level[k]! + b * down[k]! + viewAxis[k]!) as unknown as Vec)), (py * width + px) * 3);
    }
  return {
    pixels: expose(linear, shot),
    corners: [onPicture([-R, R, 0]), onPicture([-R, -R, 0]), onPicture([R, -R, 0]), onPicture([R, R, 0])],
    project: (u, v) => {
      if (form === 'disc') return onPicture([R * (2 * u - 1), R * (1 - 2 * v), 0]);
      const [turn, r] = [2 * Math.PI * u, inner + v * (R - inner)];
      return onPicture([r * Math.sin(turn), -r * Math.cos(turn), 0]);
    },
  };

  function ray(d: Vec): Vec {
    const p = add(eye, d, -eye[2] / d[2]);
    const r = Math.hypot(p[0], p[1]);
    if (r <= R && r >= inner) return face(p, r, d);
    // The wall below the rim, outside and, of a ring, inside.
    const a = d[0] * d[0] + d[1] * d[1];
    for (const [radius, sign] of [
      [R, -1],
      [inner, 1],
    ] as const) {
      const b = eye[0] * d[0] + eye[1] * d[1];
      const q = b * b - a * (eye[0] * eye[0] + eye[1] * eye[1] - radius * radius);
      if (radius === 0 || q <= 0 || a < 1e-9) continue;
      const w = add(eye, d, (-b + sign * Math.sqrt(q)) / a);
      if (w[2] > 0 && w[2] < floor) return wall(w, d, sign);
    }
    const far = add(eye, d, (floor - eye[2]) / d[2]);
    const off = Math.hypot(far[0], far[1]);
    return benchLight(shot, skyward, far, off > R ? off - R : Math.max(0, Math.min(off, inner - off)), 0.3 * floor);
  }

  function wall(p: Vec, d: Vec, sign: number): Vec {
    const normal = unit([-sign * p[0], -sign * p[1], 0]);
    const m = unit(add(d, normal, -2 * dot(d, normal)));
    const light = m[2] > 0.02 ? ([0, 1, 2].map((k) => 0.4 * shot.benchColour[k]!) as unknown as Vec) : env(m);
    // Ring grooves of a piston.
    const groove = form === 'disc' && Math.floor((p[2] / R) * 9) % 2 === 1 ? 0.35 : 1;
    return [0.5 * light[0] * groove, 0.5 * light[1] * groove, 0.5 * light[2] * groove];
  }

  function face(p: Vec, r: number, d: Vec): Vec {
    const turn = (Math.atan2(p[0], -p[1]) / (2 * Math.PI) + 1) % 1;
    const [u, v] = form === 'disc' ? [(p[0] / R + 1) / 2, (1 - p[1] / R) / 2] : [turn, (r - inner) / (R - inner)];
    const x = Math.min(maps.columns - 1, Math.max(0, Math.floor(u * maps.columns)));
    const y = Math.min(maps.rows - 1, Math.max(0, Math.floor(v * maps.rows)));
    const i = y * maps.columns + x;
    const rim = Math.max(r - (1 - CHAMFER) * R, inner > 0 ? inner + CHAMFER * R - r : -1) > 0;
    const outwards: Vec = [p[0] / Math.max(1e-6, r), p[1] / Math.max(1e-6, r), 0];
    const normal: Vec = rim ? unit(add([0, 0, -1], outwards, r > (R + inner) / 2 ? 0.9 : -0.9)) : [0, 0, -1];
    // Turned marks of a ring run round it, those of a cast crown nowhere.
    const [along, across]: [Vec, Vec] =
      form === 'ring'
        ? [[-outwards[1], outwards[0], 0], outwards]
        : [
            [1, 0, 0],
            [0, -1, 0],
          ];
    const shift = lattice(Math.round(p[0] * 40), Math.round(p[1] * 40), shot.seed) * 0.5;
    return metalLight(
      maps,
      i,
      d,
      { normal, along, across, shift, texelMm: (form === 'ring' ? s.widthMm : 2 * R) / maps.rows, up: -normal[2] },
      env,
      skyward,
    );
  }
}
