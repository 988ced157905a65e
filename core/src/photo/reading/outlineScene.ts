import type { Pixels } from '../flatten.js';
import { placeOn } from '../outline/halfCylinder.js';
import { quantile } from './field.js';
import { apartFromBench, shrink, type Small } from './outlineParts.js';

/** Focal length taken, over the long side: what a phone has; the rims bow by it. */
const FOCAL = 1.6;
/** How a half cylinder lies: middle of the plane between its sides, distance of the sides, its length along the axis over that, roll and two tilts (radians). Pixels of the picture it is looked for in. */
export type Pose = readonly [x: number, y: number, across: number, ratio: number, roll: number, tiltAlong: number, tiltAcross: number];

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

/** A place of the part in the scene. */
type Model = ReturnType<typeof placeOn>;

export const modelOf = (pose: Pose, { small }: Scene): Model => placeOn([...pose, Math.log(FOCAL)], small);

/** What can be asked of a scene about a part that lies so. */
interface Asked {
  /** Pixel of a place of the part; −1 beyond the picture. */
  readonly at: (u: number, v: number, deep: number) => number;
  /** 0 to 1: how much two pixels stand against each other. */
  readonly stands: (i: number, j: number) => number;
  /** Notes that the bench should show at a pixel, and gives it back. */
  readonly bench: (i: number) => number;
  /** Share of what was compared that lies beyond the picture. */
  readonly outside: () => number;
  /** 0 to 1: how little what was said to be bench is like it, whatever the part itself looks like. */
  readonly strange: () => number;
}

export function askedOf(scene: Scene, pose: Pose): Asked {
  const { small, foreign } = scene;
  const model = modelOf(pose, scene);
  let [inside, outside, strange, asked] = [0, 0, 0, 0];
  return {
    at: (u, v, deep) => {
      const p = model(u, v, deep);
      const x = Math.round(p[0]);
      const y = Math.round(p[1]);
      return x < 0 || y < 0 || x >= small.width || y >= small.height ? -1 : y * small.width + x;
    },
    bench: (i) => {
      if (i >= 0) {
        const x = Math.min(foreign.width - 1, Math.round((i % small.width) * foreign.scale));
        const y = Math.min(foreign.height - 1, Math.round(Math.floor(i / small.width) * foreign.scale));
        strange += foreign.values[y * foreign.width + x]!;
        asked++;
      }
      return i;
    },
    stands: (i, j) => {
      if (i < 0 || j < 0) {
        outside++;
        return 0;
      }
      inside++;
      const d = stepBetween(small, i, j);
      return d / (d + scene.halfAt);
    },
    outside: () => outside / Math.max(1, inside + outside),
    strange: () => strange / Math.max(1, asked),
  };
}

/** 0 to 1: how much of what differs in lightness over the face differs from place to place along the arc, the same over the width: a cylinder mirrors so, a card and a bench do not. `way` is 1 for a hollow one, −1 for a full one. */
export function alongRun({ small }: Scene, at: (u: number, v: number, deep: number) => number, way: 1 | -1): number {
  let [sum, squares, between, n, columns] = [0, 0, 0, 0, 0];
  for (let arc = 12; arc <= 168; arc += 12) {
    const a = (arc * Math.PI) / 180;
    let [own, k] = [0, 0];
    for (const v of [-0.7, -0.35, 0, 0.35, 0.7]) {
      const i = at(-Math.cos(a), v, way * Math.sin(a));
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
