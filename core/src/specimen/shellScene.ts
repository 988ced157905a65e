import type { Pixels } from '../photo/flatten.js';
import type { Point } from '../photo/homography.js';
import { projectShell, type ShellPose } from '../photo/shellPose.js';
import { lattice } from './noise.js';
import { add, benchLight, dot, expose, eyeOf, metalLight, surroundings, unit, type Shot, type Vec } from './scene.js';
import type { SurfaceMaps } from './sheet.js';
import type { ShellSpecimen } from './surfaceMaps.js';

export interface ShotPicture {
  readonly pixels: Pixels;
  /** Left-front, left-rear, right-rear, right-front. */
  readonly corners: readonly Point[];
  readonly pose: ShellPose;
}

const WALL = 0.07;

/** Camera pose of a shot: it looks at the middle of the face from above, tilted and turned. */
function shotPose(s: ShellSpecimen, shot: Shot): ShellPose {
  // Line of sight in world axes: z goes into the shell.
  const { viewAxis, level, down, eye, focalPx } = eyeOf(shot, [0, -s.widthMm / 2, s.radiusMm * 0.35], 2 * s.radiusMm);
  const r = (k: 0 | 1 | 2): Vec => [level[k], down[k], viewAxis[k]];
  return {
    focalPx,
    centre: [shot.width / 2, shot.height / 2],
    r1: r(0),
    r2: r(1),
    r3: r(2),
    t: [-dot(level, eye), -dot(down, eye), -dot(viewAxis, eye)],
    radiusMm: s.radiusMm,
    widthMm: s.widthMm,
  };
}

/**
 * Takes a picture of a half shell on a bench: rays through a pinhole, metal that mirrors its surroundings spread across the machining marks, wall, chamfer and parting faces, bench with shadow, then
 * exposure, white balance, blur, noise and the tone of a camera. Rendered, and to be called so.
 */
export function takeShell(s: ShellSpecimen, maps: SurfaceMaps, shot: Shot): ShotPicture {
  const { linear, corners, pose } = lightOnShell(s, maps, shot);
  return { pixels: expose(linear, shot), corners, pose };
}

/** The light that comes from such a scene to the camera, by pixel and channel, before it is exposed. */
export function lightOnShell(
  s: ShellSpecimen,
  maps: SurfaceMaps,
  shot: Shot,
): { readonly linear: Float32Array; readonly corners: readonly Point[]; readonly pose: ShellPose } {
  const pose = shotPose(s, shot);
  const { width, height } = shot;
  const eye: Vec = [-dot(pose.r1, pose.t), -dot(pose.r2, pose.t), -dot(pose.r3, pose.t)];
  const env = surroundings(shot);
  const skyward = env([0, 0, -1]);
  const linear = new Float32Array(width * height * 3);
  const R = s.radiusMm;
  const W = s.widthMm;
  const outer = R * (1 + WALL);
  for (let py = 0; py < height; py++)
    for (let px = 0; px < width; px++) {
      const v: Vec = [(px + 0.5 - pose.centre[0]) / pose.focalPx, (py + 0.5 - pose.centre[1]) / pose.focalPx, 1];
      const d = unit([dot(v, pose.r1), dot(v, pose.r2), dot(v, pose.r3)]);
      const c = ray(d);
      for (let k = 0; k < 3; k++) linear[(py * width + px) * 3 + k] = c[k]!;
    }
  return {
    linear,
    corners: [0, 1, 2, 3].map((k) => projectShell(pose, k < 2 ? 0 : 180, k === 1 || k === 2 ? 1 : 0)),
    pose,
  };

  function ray(d: Vec): Vec {
    // Far wall of the bore.
    const a = d[0] * d[0] + d[2] * d[2];
    const b = eye[0] * d[0] + eye[2] * d[2];
    const hit = (radius: number): readonly [number, number] | null => {
      const c = eye[0] * eye[0] + eye[2] * eye[2] - radius * radius;
      const q = b * b - a * c;
      return q < 0 ? null : [(-b - Math.sqrt(q)) / a, (-b + Math.sqrt(q)) / a];
    };
    const atPlane = (t: number): Vec => add(eye, d, t);
    const tTop = -eye[2] / d[2];
    const top = atPlane(tTop);
    const inAxis = (y: number): boolean => y <= 0 && y >= -W;
    if (inAxis(top[1]) && Math.abs(top[0]) > R && Math.abs(top[0]) < outer) return parting(top);
    for (const end of [0, -W] as const) {
      if (Math.abs(d[1]) < 1e-6) continue;
      const t = (end - eye[1]) / d[1];
      const p = atPlane(t);
      const r = Math.hypot(p[0], p[2]);
      // The rim faces towards the camera only at the end it looks onto.
      if (t > 0 && p[2] > 0 && r > R && r < outer && (end === 0 ? d[1] < 0 : d[1] > 0)) return rim(p, r);
    }
    const inner = hit(R);
    if (inner) {
      const p = atPlane(inner[1]);
      if (p[2] >= 0 && inAxis(p[1])) return face(p, d);
    }
    return bench(d);
  }

  function parting(p: Vec): Vec {
    const near = Math.abs(p[0]) - R;
    const grain = 0.9 + 0.14 * lattice(Math.round(p[1] * 9), 3, s.seed);
    const light = skyward;
    const c: Vec = near < 0.3 ? [0.6, 0.36, 0.24] : [0.5, 0.49, 0.47];
    return [c[0] * light[0] * grain * 0.9, c[1] * light[1] * grain * 0.9, c[2] * light[2] * grain * 0.9];
  }

  function rim(p: Vec, r: number): Vec {
    const light = env(unit([0, p[1] > -W / 2 ? 0.7 : -0.7, -0.6]));
    const c: Vec = r - R < 0.32 ? [0.55, 0.34, 0.23] : [0.3, 0.29, 0.28];
    return [c[0] * (light[0] * 0.5 + 0.08), c[1] * (light[1] * 0.5 + 0.08), c[2] * (light[2] * 0.5 + 0.08)];
  }

  function face(p: Vec, d: Vec): Vec {
    const arc = (Math.acos(Math.max(-1, Math.min(1, -p[0] / R))) * 180) / Math.PI;
    const x = Math.min(maps.columns - 1, Math.floor((arc / 180) * maps.columns));
    const y = Math.min(maps.rows - 1, Math.floor((-p[1] / W) * maps.rows));
    const i = y * maps.columns + x;
    if (maps.truth[i] === 5) return bench(d, 0.25);
    // Inwards, with the slope of grooves and marks across the axis.
    const inwards: Vec = [-p[0] / R, 0, -p[2] / R];
    // Shifted from place to place, so that few rays leave no steps.
    const shift = lattice(Math.round(p[0] * 40), Math.round(p[1] * 40), shot.seed) * 0.5;
    return metalLight(
      maps,
      i,
      d,
      { normal: inwards, along: [inwards[2], 0, -inwards[0]], across: [0, 1, 0], shift, texelMm: W / maps.rows, up: -inwards[2] },
      (m) => mirror(p, m),
      skyward,
    );
  }

  /** What a mirrored ray meets: the other side of the bore, or the surroundings. */
  function mirror(p: Vec, m: Vec): Vec {
    const a = m[0] * m[0] + m[2] * m[2];
    const t = (-2 * (p[0] * m[0] + p[2] * m[2])) / Math.max(1e-9, a);
    const q = add(p, m, t);
    if (t > 0 && q[2] > 0.05 * R && q[1] < 0 && q[1] > -W) {
      const n: Vec = [-q[0] / R, 0, -q[2] / R];
      const again = unit(add(m, n, -2 * dot(m, n)));
      // Marks spread what comes back a second time over a wide strip.
      const e = env(again[2] > 0 ? [again[0], again[1], -Math.abs(again[2])] : again);
      return [0.5 * e[0], 0.5 * e[1], 0.49 * e[2]];
    }
    return env(m);
  }

  function bench(d: Vec, shade = 1): Vec {
    const t = (outer - eye[2]) / d[2];
    const p = add(eye, d, t);
    const away = Math.hypot(Math.max(0, Math.abs(p[0]) - outer), Math.max(0, -W - p[1], p[1]));
    return benchLight(shot, skyward, p, away, 0.35 * R, shade);
  }
}
