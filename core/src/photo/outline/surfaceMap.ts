import type { Pixels } from '../flatten.js';
import type { Point } from '../homography.js';
import { classify, type Classifier } from '../segment/classifier.js';
import { ASKED, SCENE_SCALE, sceneFeatures, sceneOf } from './sceneFeatures.js';

/** Log odds beyond which a pixel says no more. */
const SURE = 3;

/** How likely every place of a picture is the surface of a part: a small picture of it. */
export interface SurfaceMap {
  readonly width: number;
  readonly height: number;
  /** −1 surely beside it to 1 surely surface. */
  readonly odds: Float32Array;
  /** Running sums of the odds along each row and each column: entry 0 is 0, entry k the sum of the first k; one more than its pixels a line. */
  readonly rows: Float64Array;
  readonly columns: Float64Array;
  /** Sum of the odds that are above 0. */
  readonly surface: number;
  /** Pixels of the picture that one of the map covers, along a side. */
  readonly step: number;
}

/** Asks a classifier what of a picture is surface. */
export function surfaceMapOf(classifier: Classifier, picture: Pixels): SurfaceMap {
  const scene = sceneOf(picture);
  const asked = sceneFeatures(scene);
  const [surface, beside] = classify(classifier, asked, SCENE_SCALE);
  const { width, height } = asked;
  const odds = surface!.map((p, i) => Math.max(-1, Math.min(1, Math.log((p + 1e-6) / (beside![i]! + 1e-6)) / SURE)));
  return mapOfOdds({ width, height, odds, step: ASKED * scene.step });
}

/** A map of odds with what is summed of it beforehand. */
export function mapOfOdds(map: Omit<SurfaceMap, 'rows' | 'columns' | 'surface'>): SurfaceMap {
  const { width, height, odds } = map;
  const [rows, columns] = [new Float64Array(height * (width + 1)), new Float64Array(width * (height + 1))];
  let surface = 0;
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const o = odds[y * width + x]!;
      rows[y * (width + 1) + x + 1] = rows[y * (width + 1) + x]! + o;
      columns[x * (height + 1) + y + 1] = columns[x * (height + 1) + y]! + o;
      if (o > 0) surface += o;
    }
  return { ...map, rows, columns, surface };
}

/**
 * Sum of the odds inside a closed line (even-odd rule), its points in pixels of the map. Taken along the rows and along the columns and halved: along the rows alone a level line could move by most of a pixel and
 * nothing would change.
 */
export function sumInside({ width, height, rows, columns }: SurfaceMap, line: readonly Point[]): number {
  return (sumAlong(rows, width, height, line, 0) + sumAlong(columns, height, width, line, 1)) / 2;
}

/** The same along lines of pixels that run in direction `k` (0 x, 1 y), `long` pixels each, `count` of them. */
function sumAlong(sums: Float64Array, long: number, count: number, line: readonly Point[], k: 0 | 1): number {
  const across = 1 - k;
  let [least, most] = [Infinity, -Infinity];
  for (const p of line) {
    least = Math.min(least, p[across]!);
    most = Math.max(most, p[across]!);
  }
  const [from, to] = [Math.max(0, Math.floor(least)), Math.min(count, Math.ceil(most))];
  // Where the line cuts each of them, in order: an edge is walked once, over the lines of pixels it crosses.
  const places = line.length;
  const cuts = new Float64Array(Math.max(0, to - from) * places);
  const found = new Uint16Array(Math.max(0, to - from));
  for (let e = 0; e < line.length; e++) {
    const [a, b] = [line[e]!, line[e + 1 === line.length ? 0 : e + 1]!];
    const [low, high] = a[across]! < b[across]! ? [a[across]!, b[across]!] : [b[across]!, a[across]!];
    // Those whose middle lies from `low` on and before `high`.
    for (let l = Math.max(from, Math.ceil(low - 0.5)); l < to && l + 0.5 < high; l++) {
      const cut = a[k] + ((l + 0.5 - a[across]!) / (b[across]! - a[across]!)) * (b[k] - a[k]);
      const own = (l - from) * places;
      let i = own + found[l - from]!++;
      for (; i > own && cuts[i - 1]! > cut; i--) cuts[i] = cuts[i - 1]!;
      cuts[i] = cut;
    }
  }
  let total = 0;
  for (let l = from; l < to; l++) {
    const first = l * (long + 1);
    const own = (l - from) * places;
    for (let i = 0; i + 1 < found[l - from]!; i += 2)
      total += upTo(sums, first, long, cuts[own + i + 1]!) - upTo(sums, first, long, cuts[own + i]!);
  }
  return total;
}

/** Sum of a line of pixels up to `x`, a part of a pixel by its share; its running sums begin at `first`. */
function upTo(sums: Float64Array, first: number, long: number, x: number): number {
  const q = Math.max(0, Math.min(long, x));
  const i = Math.min(long - 1, Math.floor(q));
  return sums[first + i]! + (q - i) * (sums[first + i + 1]! - sums[first + i]!);
}
