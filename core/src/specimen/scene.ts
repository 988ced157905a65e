import type { Pixels } from '../photo/flatten.js';
import { seeded } from '../kit/seeded.js';
import { fractal, lattice, smoothNoise } from './noise.js';
import type { SurfaceMaps } from './sheet.js';

/** How a specimen is lit and taken. */
export interface Shot {
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
  /** Where the first lamp is held, as the lean of its direction to the right and to the rear; where it hangs when not said follows from the seed. */
  readonly lampAt?: readonly [right: number, rear: number];
  /** Gains of the camera's white balance. */
  readonly gains: readonly [number, number, number];
  readonly exposure: number;
  readonly noise: number;
  readonly blurPx: number;
}

/** A plain shot: one soft lamp over a painted bench, little tilt, a phone at twofold zoom. What is not said of a shot is as here. */
export const USUAL_SHOT: Shot = {
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

export type Vec = readonly [number, number, number];
export const add = (a: Vec, b: Vec, s = 1): Vec => [a[0] + s * b[0], a[1] + s * b[1], a[2] + s * b[2]];
export const dot = (a: Vec, b: Vec): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
export const unit = (a: Vec): Vec => {
  const n = Math.sqrt(a[0] * a[0] + a[1] * a[1] + a[2] * a[2]) || 1;
  return [a[0] / n, a[1] / n, a[2] / n];
};
const cross = (a: Vec, b: Vec): Vec => [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]];

/** How the camera of a shot stands: its line of sight, its right and its down, and where it is. */
interface Eye {
  readonly viewAxis: Vec;
  readonly level: Vec;
  readonly down: Vec;
  readonly eye: Vec;
  readonly focalPx: number;
}

/** Stands the camera of a shot so that it looks at `middle` from above, tilted and rolled, as far off as fills the picture with something `wideMm` wide. */
export function eyeOf(shot: Shot, middle: Vec, wideMm: number): Eye {
  const long = Math.max(shot.width, shot.height);
  const focalPx = shot.focal * long;
  const [tilt, towards, roll] = [shot.tiltDeg, shot.tiltTowardsDeg, shot.rollDeg].map((v) => (v * Math.PI) / 180) as [
    number,
    number,
    number,
  ];
  const viewAxis = unit([Math.sin(tilt) * Math.cos(towards), Math.sin(tilt) * Math.sin(towards), Math.cos(tilt)]);
  const level = unit(cross([Math.sin(roll), Math.cos(roll), 0], viewAxis));
  const down = cross(viewAxis, level);
  return { viewAxis, level, down, eye: add(middle, viewAxis, -((focalPx * wideMm) / (shot.fill * long))), focalPx };
}

/** So many of its widths from its middle nothing of a lamp is left that a double holds beside the light of the room. */
const LAMP_ENDS = 2.6;

/** Light that comes from a direction: lamps overhead, ceiling, and the bench from the sides. `z` points down. */
export function surroundings(shot: Shot): (d: Vec) => Vec {
  const random = seeded(shot.seed * 17 + 5);
  const lamps = Array.from({ length: shot.lamps }, () => {
    const to = unit([1.5 * (random() - 0.5), 1.1 * (random() - 0.5), -0.9]);
    const wide = shot.lampWidth * (0.7 + 0.6 * random());
    return { to, wide, bright: 2.2 + 2.6 * random(), seenFrom: Math.cos(Math.min(Math.PI, LAMP_ENDS * wide)) };
  });
  const [held] = lamps;
  if (held && shot.lampAt) held.to = unit([shot.lampAt[0], -shot.lampAt[1], -0.9]);
  const warm: Vec = [1 + 0.22 * shot.lampWarmth, 1, 1 - 0.28 * shot.lampWarmth];
  const room = 0.22 + 0.2 * random();
  return (d) => {
    if (d[2] > 0.02) return [shot.benchColour[0] * 0.55, shot.benchColour[1] * 0.55, shot.benchColour[2] * 0.55];
    let light = room * (0.5 - 0.6 * d[2]);
    for (const l of lamps) {
      const cosine = dot(d, l.to);
      if (cosine < l.seenFrom) continue;
      const off = Math.acos(Math.min(1, cosine)) / l.wide;
      light += l.bright * Math.exp(-(off * off * off * off));
    }
    // Near the horizon the bench and its colour mix in.
    const low = Math.max(0, 1 + d[2] * 2.2) * 0.35;
    const own = light * (1 - low);
    const [r, g, b] = shot.benchColour;
    return [own * warm[0] + low * r * 0.8, own * warm[1] + low * g * 0.8, own * warm[2] + low * b * 0.8];
  };
}

/** Light that leaves the bench at a place (x, y mm), under the light from above, in the shadow of a part `away` mm off; `reach` mm is how far the shadow goes. */
export function benchLight(shot: Shot, skyward: Vec, p: Vec, away: number, reach: number, shade = 1): Vec {
  const shadow = 1 - 0.55 * Math.exp(-away / reach);
  let g = 1 + 0.06 * fractal(p[0] / 9, p[1] / 9, shot.seed);
  if (shot.bench === 'wood')
    g +=
      0.16 * smoothNoise(p[0] / 30 + p[1] / 40, p[1] / 1.4 + p[0] / 2.6, shot.seed) + 0.06 * smoothNoise(p[0] / 9, p[1] * 2, shot.seed + 1);
  if (shot.bench === 'cloth')
    g += 0.14 * Math.sin(p[0] * 7.1) * Math.sin(p[1] * 7.3) + 0.08 * lattice(Math.floor(p[0] * 4), Math.floor(p[1] * 4), shot.seed);
  if (shot.bench === 'concrete')
    g += 0.22 * fractal(p[0] / 4, p[1] / 4, shot.seed + 2) + 0.08 * lattice(Math.floor(p[0] * 3), Math.floor(p[1] * 3), shot.seed);
  if (shot.bench === 'steel') g += 0.1 * lattice(Math.floor(p[1] * 9), Math.floor(p[0] / 30), shot.seed);
  const level = 0.22 * g * shadow * shade;
  return [
    shot.benchColour[0] * level * (0.4 + skyward[0]),
    shot.benchColour[1] * level * (0.4 + skyward[1]),
    shot.benchColour[2] * level * (0.4 + skyward[2]),
  ];
}

/**
 * Light that leaves a machined metal at texel `i`: it mirrors what `mirror` returns, spread across the marks far more than along them; what is not metal scatters the light from above.
 * `inwards` is the normal towards the viewer's side, `along` the direction of the marks, `across` square to both.
 */
export function metalLight(
  maps: SurfaceMaps,
  i: number,
  d: Vec,
  frame: {
    readonly normal: Vec;
    readonly along: Vec;
    readonly across: Vec;
    readonly shift: number;
    readonly texelMm: number;
    readonly up: number;
  },
  mirror: (m: Vec) => Vec,
  skyward: Vec,
): Vec {
  const { normal, along, across, shift } = frame;
  const above = maps.height[Math.min(maps.height.length - 1, i + maps.columns)] ?? 0;
  const below = maps.height[Math.max(0, i - maps.columns)] ?? 0;
  const slope = (above - below) / (2 * frame.texelMm);
  const rough = maps.roughness[i]!;
  let [r, g, b] = [0, 0, 0];
  const taps = 8;
  for (let k = 0; k < taps; k++) {
    const spread = slope * 0.8 + ((k + 0.5 + shift) / taps - 0.5) * 2.4 * rough;
    const little = ((((k * 5) % taps) + 0.5 + shift) / taps - 0.5) * 0.9 * rough * rough;
    const n = unit([
      normal[0] + across[0] * spread + along[0] * little,
      normal[1] + across[1] * spread + along[1] * little,
      normal[2] + across[2] * spread + along[2] * little,
    ]);
    const light = mirror(unit(add(d, n, -2 * dot(d, n))));
    r += light[0];
    g += light[1];
    b += light[2];
  }
  const dull = maps.dull[i]!;
  const mirrored = (1 - dull) / taps;
  const scattered = dull * 0.55 * Math.max(0.15, frame.up);
  return [
    maps.colour[3 * i]! * (mirrored * r + scattered * skyward[0]),
    maps.colour[3 * i + 1]! * (mirrored * g + scattered * skyward[1]),
    maps.colour[3 * i + 2]! * (mirrored * b + scattered * skyward[2]),
  ];
}

/** From light to a file's pixels: exposure by the bright part, white balance, blur, shot and read noise, a shoulder, sRGB. */
export function expose(linear: Float32Array, shot: Shot): Pixels {
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
