import type { CameraModel } from '../cameraModel.js';
import type { Pixels } from '../flatten.js';
import type { Point } from '../homography.js';
import { quantile } from '../reading/field.js';
import { colourOf, type Neutral } from '../reading/light.js';

/** What lies beside a part, by its middle: log red over green, log green over blue, log of luminance. */
interface Beside extends Neutral {
  readonly light: number;
}

/**
 * What lies round a surface in its picture. `sides`: beyond its two sides, mostly the bench, which bare metal mirrors. `ends`: just beyond its two ends, the fillet or the next land.
 * `beyond`: further along the axis, on a journal the matt cheeks of the same steel. Null where the picture ends before it.
 */
export interface Surroundings {
  readonly sides: Beside | null;
  readonly ends: Beside | null;
  readonly beyond: Beside | null;
}

/** Rings that are looked at, as shares of half the surface's own size beyond its border. */
const RINGS = { sides: [0.12, 0.45], ends: [0.05, 0.16], beyond: [0.3, 0.8] } as const;
/** Places along each border, and steps outwards from it. */
const ALONG = 24;
const STEPS = 6;
/** Fewer places that are not over-exposed tell nothing. */
const LEAST = 20;

/** What lies round a surface in its picture; a few hundred pixels are read. */
export function surroundingsOf({ project }: CameraModel, picture: Pixels): Surroundings {
  const middle = project(0.5, 0.5);
  const look = (
    reach: readonly [number, number],
    borders: ReadonlyArray<(t: number) => readonly [from: Point, inner: Point]>,
  ): Beside | null => {
    const found: Array<[redness: number, yellowness: number, light: number]> = [];
    for (const border of borders)
      for (let k = 0; k < ALONG; k++) {
        const [from, inner] = border(0.15 + (0.7 * k) / (ALONG - 1));
        for (let s = 0; s < STEPS; s++) {
          const out = reach[0] + ((reach[1] - reach[0]) * s) / (STEPS - 1);
          const colour = colourAt(picture, from[0] + out * (from[0] - inner[0]), from[1] + out * (from[1] - inner[1]));
          if (colour) found.push(colour);
        }
      }
    if (found.length < LEAST) return null;
    const of = (k: 0 | 1 | 2): number =>
      quantile(
        Float32Array.from(found, (f) => f[k]),
        0.5,
      );
    return { redness: of(0), yellowness: of(1), light: of(2) };
  };
  const side =
    (u: 0 | 1) =>
    (t: number): readonly [Point, Point] => [project(u, t), project(0.5, t)];
  const end =
    (v: 0 | 1) =>
    (t: number): readonly [Point, Point] => [project(t, v), alongAxis(project(t, v), project(0.5, v), middle)];
  return {
    sides: look(RINGS.sides, [side(0), side(1)]),
    ends: look(RINGS.ends, [end(0), end(1)]),
    beyond: look(RINGS.beyond, [end(0), end(1)]),
  };
}

/** From a place on an end as far inwards as the middle of the surface lies from the middle of that end. */
const alongAxis = (at: Point, end: Point, middle: Point): Point => [at[0] + middle[0] - end[0], at[1] + middle[1] - end[1]];

/** Colour and light of a pixel of the picture; null outside it and where a channel is at its end. */
function colourAt({ width, height, data }: Pixels, x: number, y: number): [number, number, number] | null {
  const [px, py] = [Math.round(x - 0.5), Math.round(y - 0.5)];
  if (px < 0 || py < 0 || px >= width || py >= height) return null;
  const i = (py * width + px) * 4;
  const [r, g, b] = [data[i]!, data[i + 1]!, data[i + 2]!];
  return Math.max(r, g, b) >= 250 ? null : colourOf(r, g, b);
}
