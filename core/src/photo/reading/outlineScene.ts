import type { Pixels } from '../flatten.js';
import { placeOn } from '../outline/halfCylinder.js';
import { quantile } from './field.js';
import { apartFromBench, shrink, type Small } from './outlineParts.js';

/** Focal length taken, over the long side: what a phone has; the rims bow by it. */
const FOCAL = 1.6;
/** Share of the radius that wall and parting face take at each end (1.5 to 2 mm of 25). */
const WALL = 0.07;
/** How much it tells against a pose that what lies beside it is not like the bench. */
const STRANGE = 0.5;
/** How much it tells for a pose that its face is the same over its width. */
const RUN = 0.2;

/** How a half shell lies: middle of its parting plane, length from parting line to parting line, width over length, roll and two tilts (radians). Pixels of the picture it is looked for in. */
export type Pose = readonly [x: number, y: number, length: number, ratio: number, roll: number, tiltLong: number, tiltAcross: number];

/** A picture made small for the outline to be held against, with what its bench looks like. */
export interface Scene {
  readonly small: Small;
  readonly long: number;
  /** A step as large as what the bench does by itself counts half. */
  readonly halfAt: number;
  /** 0 what lies along the border of the picture to 1 nothing like it. */
  readonly foreign: Foreign;
}

interface Foreign {
  readonly width: number;
  readonly height: number;
  readonly values: Float32Array;
  /** Its pixels by a pixel of the scene. */
  readonly scale: number;
}

/** `like` lends what it found out about the bench. */
export function sceneOf(picture: Pixels, side: number, like?: Scene): Scene {
  const small = shrink(picture, side);
  const { width, height } = small;
  // What neighbours differ by all over the picture: the grain of the bench.
  const steps: number[] = [];
  const reach = Math.max(2, Math.round(side / 60));
  for (let y = 0; y < height; y += 5)
    for (let x = 0; x + reach < width; x += 5) steps.push(stepBetween(small, y * width + x, y * width + x + reach));
  return {
    small,
    long: Math.max(width, height),
    halfAt: 7 + 1.6 * quantile(Float32Array.from(steps), 0.5),
    foreign: like
      ? { ...like.foreign, scale: small.step / like.small.step }
      : { width, height, values: apartFromBench(small).map((d) => d / (d + 5)), scale: 1 },
  };
}

function stepBetween({ values }: Small, i: number, j: number): number {
  const light = values[3 * i]! - values[3 * j]!;
  const red = values[3 * i + 1]! - values[3 * j + 1]!;
  const blue = values[3 * i + 2]! - values[3 * j + 2]!;
  return Math.sqrt(light * light + 2 * red * red + 2 * blue * blue);
}

/** A place of the half shell in the scene. */
type Model = ReturnType<typeof placeOn>;

export const modelOf = (pose: Pose, { small }: Scene): Model => placeOn([...pose, Math.log(FOCAL)], small);

/** 0 to 1: how much of the outline stands against what lies beside it, a little more for what is larger. `reach` is how far beside, share of the half length; `gap` the degrees between places asked. */
export function worthOf(scene: Scene, pose: Pose, reach: number, gap: number): number {
  const { small, long, foreign } = scene;
  const [, , length, ratio] = pose;
  if (ratio < 0.2 || ratio > 0.75 || length < 0.2 * long || length > 0.98 * long) return 0;
  const model = modelOf(pose, scene);
  const at = (u: number, v: number, deep: number): number => {
    const p = model(u, v, deep);
    const x = Math.round(p[0]);
    const y = Math.round(p[1]);
    return x < 0 || y < 0 || x >= small.width || y >= small.height ? -1 : y * small.width + x;
  };
  let [inside, outside] = [0, 0];
  // What lies beside the part is the bench, whatever the part itself looks like.
  let [strange, asked] = [0, 0];
  const bench = (i: number): number => {
    if (i >= 0) {
      const x = Math.min(foreign.width - 1, Math.round((i % small.width) * foreign.scale));
      const y = Math.min(foreign.height - 1, Math.round(Math.floor(i / small.width) * foreign.scale));
      strange += foreign.values[y * foreign.width + x]!;
      asked++;
    }
    return i;
  };
  const stands = (i: number, j: number): number => {
    if (i < 0 || j < 0) {
      outside++;
      return 0;
    }
    inside++;
    const d = stepBetween(small, i, j);
    return d / (d + scene.halfAt);
  };
  const beside = reach / ratio;
  let rims = 0;
  let n = 0;
  for (let arc = 6; arc <= 174; arc += gap) {
    const [u, deep] = [-Math.cos((arc * Math.PI) / 180), Math.sin((arc * Math.PI) / 180)];
    for (const v of [-1, 1]) rims += stands(at(u, v * (1 - beside), deep), bench(at(u, v * (1 + beside), deep)));
    n += 2;
  }
  let ends = 0;
  let m = 0;
  for (const side of [-1, 1])
    for (const v of [-0.75, -0.375, 0, 0.375, 0.75]) {
      const face = at(side * (1 - 0.5 * reach), v, Math.sqrt(1 - (1 - 0.5 * reach) ** 2));
      const wall = at(side * (1 + 0.5 * WALL), v, 0);
      ends += 0.5 * (stands(face, wall) + stands(wall, bench(at(side * (1 + WALL + reach), v, 0))));
      bench(at(side * (1 + WALL + 3 * reach), v, 0));
      m++;
    }
  if (outside > 0.12 * (inside + outside)) return 0;
  // The coarse search asks only for what stands against the bench.
  const run = gap > 10 ? 0 : RUN * alongRun(scene, at);
  return run + ((2 * rims) / n + ends / m) / 3 - STRANGE * (strange / Math.max(1, asked)) + 0.08 * Math.log(length / long);
}

/** 0 to 1: how much of what differs in lightness over the face differs from place to place along the arc, the same over the width: a hollow cylinder mirrors so, a card and a bench do not. */
function alongRun({ small }: Scene, at: (u: number, v: number, deep: number) => number): number {
  let [sum, squares, between, n, columns] = [0, 0, 0, 0, 0];
  for (let arc = 12; arc <= 168; arc += 12) {
    const a = (arc * Math.PI) / 180;
    let [own, k] = [0, 0];
    for (const v of [-0.7, -0.35, 0, 0.35, 0.7]) {
      const i = at(-Math.cos(a), v, Math.sin(a));
      if (i < 0) continue;
      const light = small.values[3 * i]!;
      own += light;
      squares += light * light;
      k++;
    }
    if (k === 0) continue;
    sum += own;
    between += (own * own) / k;
    n += k;
    columns++;
  }
  if (columns < 4) return 0;
  const mean = (sum * sum) / n;
  return Math.max(0, (between - mean) / (squares - mean + 25 * n));
}
