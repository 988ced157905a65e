import type { Pixels } from '../photo/flatten.js';
import type { Point } from '../photo/homography.js';
import { projectShell, type ShellPose } from '../photo/shellPose.js';
import { fractal, lattice, seeded, smoothNoise } from './noise.js';
import type { ShellMaps, ShellSpecimen } from './shellMaps.js';

/** How a specimen is lit and taken. */
export interface ShellShot {
  readonly seed: number;
  readonly width: number;
  readonly height: number;
  /** Focal length over the long side. */
  readonly focal: number;
  /** Share of the long side that the face fills. */
  readonly fill: number;
  readonly tiltDeg: number;
  readonly tiltTowardsDeg: number;
  readonly rollDeg: number;
  readonly bench: 'wood' | 'cloth' | 'steel' | 'concrete' | 'paint';
  readonly benchColour: readonly [number, number, number];
  readonly lamps: number;
  readonly lampWidth: number;
  readonly lampWarmth: number;
  /** Gains of the camera's white balance. */
  readonly gains: readonly [number, number, number];
  readonly exposure: number;
  readonly noise: number;
  readonly blurPx: number;
}

/** A plain shot: one soft lamp over a painted bench, little tilt, a phone at twofold zoom. What is not said of a shot is as here. */
export const USUAL_SHOT: ShellShot = {
  seed: 4,
  width: 960,
  height: 720,
  focal: 1.7,
  fill: 0.68,
  tiltDeg: 4,
  tiltTowardsDeg: 30,
  rollDeg: 5,
  bench: 'paint',
  benchColour: [0.13, 0.3, 0.24],
  lamps: 1,
  lampWidth: 0.45,
  lampWarmth: 0.2,
  gains: [1, 1, 1],
  exposure: 0.85,
  noise: 0.8,
  blurPx: 0.5,
};

export interface ShotPicture {
  readonly pixels: Pixels;
  /** Left-front, left-rear, right-rear, right-front. */
  readonly corners: readonly Point[];
  readonly pose: ShellPose;
}

type Vec = readonly [number, number, number];
const add = (a: Vec, b: Vec, s = 1): Vec => [a[0] + s * b[0], a[1] + s * b[1], a[2] + s * b[2]];
const dot = (a: Vec, b: Vec): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
const unit = (a: Vec): Vec => {
  const n = Math.hypot(...a) || 1;
  return [a[0] / n, a[1] / n, a[2] / n];
};
const cross = (a: Vec, b: Vec): Vec => [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]];

const WALL = 0.07;

/** Camera pose of a shot: it looks at the middle of the face from above, tilted and turned. */
export function shotPose(s: ShellSpecimen, shot: ShellShot): ShellPose {
  const long = Math.max(shot.width, shot.height);
  const focalPx = shot.focal * long;
  const tilt = (shot.tiltDeg * Math.PI) / 180;
  const towards = (shot.tiltTowardsDeg * Math.PI) / 180;
  const roll = (shot.rollDeg * Math.PI) / 180;
  // Sight in world axes: z goes into the shell.
  const sight = unit([Math.sin(tilt) * Math.cos(towards), Math.sin(tilt) * Math.sin(towards), Math.cos(tilt)]);
  const level = unit(cross([Math.sin(roll), Math.cos(roll), 0], sight));
  const down = cross(sight, level);
  const r = (k: 0 | 1 | 2): Vec => [level[k], down[k], sight[k]];
  const away = (focalPx * 2 * s.radiusMm) / (shot.fill * long);
  const middle: Vec = [0, -s.widthMm / 2, s.radiusMm * 0.35];
  const eye = add(middle, sight, -away);
  return {
    focalPx,
    centre: [shot.width / 2, shot.height / 2],
    r1: r(0),
    r2: r(1),
    r3: r(2),
    t: [-dot(level, eye), -dot(down, eye), -dot(sight, eye)],
    radiusMm: s.radiusMm,
    widthMm: s.widthMm,
  };
}

/** Light that comes from a direction: lamps overhead, ceiling, and the bench from the sides. `z` points down. */
function surroundings(shot: ShellShot): (d: Vec) => Vec {
  const random = seeded(shot.seed * 17 + 5);
  const lamps = Array.from({ length: shot.lamps }, () => ({
    to: unit([1.5 * (random() - 0.5), 1.1 * (random() - 0.5), -0.9]),
    wide: shot.lampWidth * (0.7 + 0.6 * random()),
    bright: 2.2 + 2.6 * random(),
  }));
  const warm: Vec = [1 + 0.22 * shot.lampWarmth, 1, 1 - 0.28 * shot.lampWarmth];
  const room = 0.22 + 0.2 * random();
  return (d) => {
    if (d[2] > 0.02) return [shot.benchColour[0] * 0.55, shot.benchColour[1] * 0.55, shot.benchColour[2] * 0.55];
    let light = room * (0.5 - 0.6 * d[2]);
    for (const l of lamps) {
      const off = Math.acos(Math.min(1, dot(d, l.to))) / l.wide;
      light += l.bright * Math.exp(-(off ** 4));
    }
    // Near the horizon the bench and its colour mix in.
    const low = Math.max(0, 1 + d[2] * 2.2) * 0.35;
    return [0, 1, 2].map((k) => light * warm[k]! * (1 - low) + low * shot.benchColour[k]! * 0.8) as unknown as Vec;
  };
}

/**
 * Takes a picture of a half shell on a bench: rays through a pinhole, metal that mirrors its surroundings spread across the machining marks, wall, chamfer and parting faces, bench with shadow, then
 * exposure, white balance, blur, noise and the tone of a camera. Rendered, and to be called so.
 */
export function takeShell(s: ShellSpecimen, maps: ShellMaps, shot: ShellShot): ShotPicture {
  const pose = shotPose(s, shot);
  const { width, height } = shot;
  const eye: Vec = [-dot(pose.r1, pose.t), -dot(pose.r2, pose.t), -dot(pose.r3, pose.t)];
  const env = surroundings(shot);
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
    pixels: develop(linear, shot),
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
    const light = env([0, 0, -1]);
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
    const up = maps.height[Math.min(maps.rows - 1, y + 1) * maps.columns + x]! - maps.height[Math.max(0, y - 1) * maps.columns + x]!;
    const slope = (up * maps.rows) / (2 * W);
    // Inwards, with the slope of grooves and marks across the axis.
    const inwards: Vec = [-p[0] / R, 0, -p[2] / R];
    const rough = maps.roughness[i]!;
    let sum: Vec = [0, 0, 0];
    const taps = 8;
    // Shifted from place to place, so that few rays leave no steps.
    const shift = lattice(Math.round(p[0] * 40), Math.round(p[1] * 40), shot.seed) * 0.5;
    for (let k = 0; k < taps; k++) {
      const across = ((k + 0.5 + shift) / taps - 0.5) * 2.4 * rough;
      const along = ((((k * 5) % taps) + 0.5 + shift) / taps - 0.5) * 0.9 * rough * rough;
      const n = unit(add(add(inwards, [0, 1, 0], slope * 0.8 + across), [inwards[2], 0, -inwards[0]], along));
      const m = add(d, n, -2 * dot(d, n));
      sum = add(sum, mirror(p, unit(m)));
    }
    const dull = maps.dull[i]!;
    const skyward = env([0, 0, -1]);
    return [0, 1, 2].map((k) => {
      const c = maps.colour[3 * i + k]!;
      return c * ((1 - dull) * (sum[k]! / taps) + dull * 0.55 * skyward[k]! * Math.max(0.15, -inwards[2]));
    }) as unknown as Vec;
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
    const shadow = 1 - 0.55 * Math.exp(-away / (0.35 * R));
    let g = 1 + 0.06 * fractal(p[0] / 9, p[1] / 9, shot.seed);
    if (shot.bench === 'wood')
      g +=
        0.16 * smoothNoise(p[0] / 30 + p[1] / 40, p[1] / 1.4 + p[0] / 2.6, shot.seed) +
        0.06 * smoothNoise(p[0] / 9, p[1] * 2, shot.seed + 1);
    if (shot.bench === 'cloth')
      g += 0.14 * Math.sin(p[0] * 7.1) * Math.sin(p[1] * 7.3) + 0.08 * lattice(Math.floor(p[0] * 4), Math.floor(p[1] * 4), shot.seed);
    if (shot.bench === 'concrete')
      g += 0.22 * fractal(p[0] / 4, p[1] / 4, shot.seed + 2) + 0.08 * lattice(Math.floor(p[0] * 3), Math.floor(p[1] * 3), shot.seed);
    if (shot.bench === 'steel') g += 0.1 * lattice(Math.floor(p[1] * 9), Math.floor(p[0] / 30), shot.seed);
    const light = env([0, 0, -1]);
    const level = 0.22 * g * shadow * shade;
    return [
      shot.benchColour[0] * level * (0.4 + light[0]),
      shot.benchColour[1] * level * (0.4 + light[1]),
      shot.benchColour[2] * level * (0.4 + light[2]),
    ];
  }
}

/** From light to a file's pixels: exposure by the bright part, white balance, blur, shot and read noise, a shoulder, sRGB. */
function develop(linear: Float32Array, shot: ShellShot): Pixels {
  const { width, height } = shot;
  const random = seeded(shot.seed * 7 + 3);
  const normal = (): number => Math.sqrt(-2 * Math.log(Math.max(1e-9, random()))) * Math.cos(2 * Math.PI * random());
  const levels = Float32Array.from({ length: 4000 }, () => linear[Math.floor(random() * width * height) * 3 + 1]!).sort();
  const gain = (0.5 * shot.exposure) / Math.max(1e-4, levels[Math.floor(levels.length * 0.93)]!);
  const soft = blur(linear, width, height, shot.blurPx);
  const data = new Uint8ClampedArray(width * height * 4);
  for (let i = 0; i < width * height; i++) {
    const x = (i % width) / width - 0.5;
    const y = Math.floor(i / width) / height - 0.5;
    const vignette = 1 - 0.35 * (x * x + y * y);
    for (let k = 0; k < 3; k++) {
      let v = soft[3 * i + k]! * gain * shot.gains[k]! * vignette;
      v += shot.noise * (0.006 * Math.sqrt(Math.max(0, v)) + 0.0025) * normal();
      v = v > 0.75 ? 0.75 + 0.25 * (1 - Math.exp(-(v - 0.75) / 0.25)) : Math.max(0, v);
      data[4 * i + k] = 255 * (v <= 0.0031308 ? 12.92 * v : 1.055 * v ** (1 / 2.4) - 0.055);
    }
    data[4 * i + 3] = 255;
  }
  return { width, height, data };
}

function blur(linear: Float32Array, width: number, height: number, r: number): Float32Array {
  if (r <= 0.05) return linear;
  const side = Math.min(0.32, r * 0.28);
  const middle = 1 - 2 * side;
  const pass = (from: Float32Array, step: number, limit: (i: number) => boolean): Float32Array => {
    const out = new Float32Array(from.length);
    for (let i = 0; i < width * height; i++)
      for (let k = 0; k < 3; k++) {
        const at = 3 * i + k;
        out[at] = limit(i) ? from[at]! : middle * from[at]! + side * (from[at - 3 * step]! + from[at + 3 * step]!);
      }
    return out;
  };
  const once = pass(linear, 1, (i) => i % width === 0 || i % width === width - 1);
  return pass(once, width, (i) => i < width || i >= width * (height - 1));
}
