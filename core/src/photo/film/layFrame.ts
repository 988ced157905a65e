import type { Pixels } from '../flatten.js';
import { bilinear } from '../image/bilinear.js';
import { solved } from '../image/solved.js';
import { eachShrunk, shrunkSize } from '../image/shrink.js';
import { boxMean, type Field } from '../reading/field.js';
import { LINEAR } from '../reading/light.js';
import { wallPlace, wallSeen, type ScopeLens, type ScopePose } from './boreView.js';

/** Long side of the frames in which the scope is followed, pixels. */
const SIDE = 480;
/** Blurs from coarse to fine in which two frames are laid over each other, pixels. */
const BLURS = [6, 3, 1] as const;
/** Half width over which light is lamp and not wall, share of the long side. */
const LAMP_WIDE = 1 / 14;
/** Rings of the picture that are looked at, shares of half its short side, and places on them. */
const RINGS = { from: 0.45, to: 1.25, count: 26, places: 120 } as const;
/** What a difference of light counts half from. */
const STRANGE = 0.08;
/** How far a scope is usually tilted and off the axis: what a pose is held to, however little the wall shows. */
const USUAL = { tilt: 0.1, off: 0.15 } as const;
/** How strongly it is held. */
const HOLD = 0.02;
const ROUNDS = 8;
/** A frame with its light taken out, at each blur. */
export type Layers = readonly Field[];

/** A frame that others are compared with: places of the wall (cosine and sine of the arc, depth), and their light at each blur; NaN where the frame does not see them. */
export interface Key {
  readonly pose: ScopePose;
  readonly places: Float64Array;
  readonly values: readonly Float32Array[];
}

const figuresOf = ({ tilt, roll, off, depth }: ScopePose): number[] => [...tilt, roll, ...off, depth];
const poseOf = (f: readonly number[]): ScopePose => ({ tilt: [f[0]!, f[1]!], roll: f[2]!, off: [f[3]!, f[4]!], depth: f[5]! });
/** Steps by which a pose is moved to see what its figures do. */
const STEPS = [0.004, 0.004, 0.004, 0.006, 0.006, 0.006] as const;

/** Logarithm of the light of a frame, made small. */
export function lightOf(frame: Pixels): Field {
  const step = Math.max(1, Math.max(frame.width, frame.height) / SIDE);
  const [width, height] = shrunkSize(frame, step);
  const light: Field = { width, height, data: new Float32Array(width * height) };
  eachShrunk(frame, step, (i, r, g, b) => {
    light.data[i] = Math.log(0.2126 * LINEAR[r | 0]! + 0.7152 * LINEAR[g | 0]! + 0.0722 * LINEAR[b | 0]! + 0.01);
  });
  return light;
}

/** Light softened so far that what is left of it are the lamps. */
export function lampsOf(light: Field): Field {
  const wide = Math.round(LAMP_WIDE * Math.max(light.width, light.height));
  return boxMean(boxMean(light, wide, wide), wide, wide);
}

/** Light without what the lamps do, blurred more and less. */
export function layersOf(light: Field): Layers {
  const { width, height } = light;
  const low = lampsOf(light);
  const detail: Field = { width, height, data: light.data.map((v, i) => Math.max(-0.5, Math.min(0.5, v - low.data[i]!))) };
  return BLURS.map((r) => boxMean(boxMean(detail, r, r), r, r));
}

/** Lays a frame over the one it is compared with: damped least squares (Levenberg 1944, Marquardt 1963) on the light of the wall, from coarse to fine. */
export function laid(key: Key, layers: Layers, lens: ScopeLens, start: ScopePose): { readonly pose: ScopePose; readonly alike: number } {
  let pose = start;
  for (let level = 0; level < BLURS.length; level++) {
    let damping = 1e-2;
    let here = compared(key, layers, lens, pose, level);
    for (let round = 0; round < ROUNDS; round++) {
      const f = figuresOf(pose);
      const slopes = STEPS.map((step, k) => {
        const moved = compared(key, layers, lens, poseOf(f.map((v, j) => (j === k ? v + step : v))), level).off;
        return moved.map((v, i) => (v - here.off[i]!) / step);
      });
      const next = stepped(f, here, slopes, damping);
      if (!next) break;
      const there = compared(key, layers, lens, poseOf(next), level);
      if (there.cost < here.cost) {
        const gained = here.cost - there.cost;
        [pose, here] = [poseOf(next), there];
        damping = Math.max(1e-4, damping / 4);
        if (gained < 1e-4 * here.cost) break;
      } else if ((damping *= 6) > 1e4) break;
    }
    if (level === BLURS.length - 1) return { pose, alike: here.alike };
  }
  return { pose, alike: 0 };
}

interface Compared {
  /** Differences of light by place of the wall, NaN where one of the two frames does not see it. */
  readonly off: Float32Array;
  readonly weight: Float32Array;
  readonly cost: number;
  readonly alike: number;
}

/** Value of a field at a point of the picture; NaN outside it. */
function valueAt({ width, height, data }: Field, x: number, y: number): number {
  const px = x - 0.5;
  const py = y - 0.5;
  const x0 = Math.floor(px);
  const y0 = Math.floor(py);
  return x0 < 0 || y0 < 0 || x0 >= width - 1 || y0 >= height - 1 ? NaN : bilinear(data, y0 * width + x0, 1, width, px - x0, py - y0);
}

/** Keeps a frame that was seen from a pose, for others to be compared with. */
export function keyOf(pose: ScopePose, layers: Layers, lens: ScopeLens): Key {
  const { width, height } = lens;
  const seen = wallSeen(pose, lens);
  const size = RINGS.count * RINGS.places;
  const places = new Float64Array(3 * size);
  const values = layers.map(() => new Float32Array(size));
  for (let i = 0; i < size; i++) {
    const ring = Math.floor(i / RINGS.places);
    const r = (Math.min(width, height) / 2) * (RINGS.from + ((RINGS.to - RINGS.from) * ring) / (RINGS.count - 1));
    const turn = (2 * Math.PI * ((i % RINGS.places) + (ring % 2) / 2)) / RINGS.places;
    const [x, y] = [width / 2 + r * Math.cos(turn), height / 2 + r * Math.sin(turn)];
    const { arc, depth } = seen(x, y);
    places.set([Math.cos(arc), Math.sin(arc), depth], 3 * i);
    layers.forEach((layer, k) => (values[k]![i] = valueAt(layer, x, y)));
  }
  return { pose, places, values };
}

/** Compares a frame, seen from a pose, with a kept one at one of the blurs. */
export function compared({ places, values }: Key, layers: Layers, lens: ScopeLens, pose: ScopePose, level: number): Compared {
  const [from, to] = [values[level]!, layers[level]!];
  const place = wallPlace(pose, lens);
  const at = new Float64Array(2);
  const size = from.length;
  const off = new Float32Array(size).fill(NaN);
  const weight = new Float32Array(size);
  let [n, sa, sb, saa, sbb, sab, cost] = [0, 0, 0, 0, 0, 0, 0];
  for (let i = 0; i < size; i++) {
    const a = from[i]!;
    if (Number.isNaN(a)) continue;
    const b = place(places[3 * i]!, places[3 * i + 1]!, places[3 * i + 2]!, at) ? valueAt(to, at[0]!, at[1]!) : NaN;
    if (Number.isNaN(b)) continue;
    const d = b - a;
    const strange = (d / STRANGE) ** 2;
    off[i] = d;
    weight[i] = 1 / (1 + strange);
    cost += Math.log(1 + strange);
    n++;
    sa += a;
    sb += b;
    saa += a * a;
    sbb += b * b;
    sab += a * b;
  }
  if (n < size / 5) return { off, weight, cost: Infinity, alike: 0 };
  const spread = Math.sqrt((saa - (sa * sa) / n) * (sbb - (sb * sb) / n));
  return { off, weight, cost: cost / n + HOLD * held(pose), alike: spread > 0 ? (sab - (sa * sb) / n) / spread : 0 };
}

const held = ({ tilt, off }: ScopePose): number =>
  (tilt[0] ** 2 + tilt[1] ** 2) / USUAL.tilt ** 2 + (off[0] ** 2 + off[1] ** 2) / USUAL.off ** 2;

/** One damped step of least squares; null where nothing follows from the light. */
function stepped(f: readonly number[], here: Compared, slopes: readonly Float32Array[], damping: number): number[] | null {
  const count = f.length;
  const normal = Array.from({ length: count }, () => new Array<number>(count).fill(0));
  const right = new Array<number>(count).fill(0);
  const own = new Float64Array(count);
  let n = 0;
  for (let i = 0; i < here.off.length; i++) {
    const w = here.weight[i]!;
    if (w === 0) continue;
    let seen = true;
    for (let a = 0; a < count; a++) {
      const slope = slopes[a]![i]!;
      if (Number.isNaN(slope)) seen = false;
      own[a] = slope;
    }
    if (!seen) continue;
    n++;
    for (let a = 0; a < count; a++) {
      const g = w * own[a]!;
      const row = normal[a]!;
      for (let b = 0; b < count; b++) row[b]! += g * own[b]!;
      right[a]! += g * here.off[i]!;
    }
  }
  if (n === 0) return null;
  for (const [k, usual] of [USUAL.tilt, USUAL.tilt, 0, USUAL.off, USUAL.off, 0].entries())
    if (usual > 0) {
      const w = (HOLD * n * STRANGE ** 2) / usual ** 2;
      normal[k]![k]! += w;
      right[k]! += w * f[k]!;
    }
  for (let k = 0; k < count; k++) normal[k]![k]! *= 1 + damping;
  const by = solved(normal, right);
  return by && f.map((v, k) => v - by[k]!);
}
