import { FILM_MAPS } from './filmMaps.js';
import type { FilmBoundary } from './reynolds.js';
import { shortImpedance, type Vector } from './shortBearing.js';

/**
 * Which answer of Reynolds' equation: of finite width with the pressure leaving the film level (Reynolds) or cut at zero (Gümbel), or that of the short bearing without flow round it (Ocvirk), which is
 * cut at zero too.
 */
export const FILM_MODELS = ['reynolds', 'gumbel', 'short'] as const satisfies ReadonlyArray<FilmBoundary | 'short'>;
export type FilmModel = (typeof FILM_MODELS)[number];

/** What the film does under a load of unit size. */
export interface FilmAnswer {
  /** Mobility along the load and a quarter turn on from it (Booker): squeeze velocity μ L D / (F c (c/R)²). */
  along: number;
  across: number;
  /** Highest pressure over the load on the projected area, F / (L D). */
  peak: number;
}

/**
 * Kept of a film by eccentricity ratio ε and the angle φ from the eccentricity to the load: natural logarithms of A = M∥ π (L/D)² / (1 − ξ)^(5/2), B = M⊥ π² (L/D)² / (4 ε sin φ (1 − ξ)^(3/2)) with
 * ξ = ε cos φ, and of the peak pressure ratio. A and B are near one for a short bearing, for which Booker gave them as one.
 */
export const KEPT = 3;

/**
 * The angle over which a film is kept, rad: that of the velocity from the eccentricity if A and B were one. Where the film is thin it spreads the few degrees in which everything changes.
 */
export const spread = (eccentricity: number, phi: number): number =>
  phi + Math.atan2(4 * eccentricity * Math.sin(phi), Math.PI * (1 - eccentricity * Math.cos(phi)));

/** The angle to the load that is spread to `angle`, 0 to π. */
export function gathered(eccentricity: number, angle: number): number {
  let [low, high] = [0, Math.PI];
  for (let pass = 0; pass < 50; pass++) {
    const phi = (low + high) / 2;
    if (spread(eccentricity, phi) < angle) low = phi;
    else high = phi;
  }
  return (low + high) / 2;
}

/** The map of one width ratio, or of the short bearing, drawn fine so that it can be looked up straight. */
export interface FilmMap {
  readonly model: FilmModel;
  readonly widthRatio: number;
  readonly fine: Float64Array;
}

/** Steps of the fine map: spread angle, 1° each, and −ln (1 − ε). */
const ANGLES = 180;
const DEPTH_STEP = 0.04;
const DEPTHS = Math.round(FILM_MAPS.depth.last / DEPTH_STEP);

/** Eccentricity ratio whose thinnest film is e^(−depth) of the clearance. */
export const eccentricityAt = (depth: number): number => -Math.expm1(-depth);

/** The film of a bearing of this width over diameter. Outside the widths that were solved the nearest is taken; between the points of the shipped maps cubic in angle and depth (Catmull–Rom). */
export function filmMap(model: FilmModel, widthRatio: number): FilmMap {
  const { depth, anglesDeg } = FILM_MAPS;
  const angles = Math.round(ANGLES / anglesDeg) + 1;
  const coarse = model === 'short' ? shipped('short') : atWidth(shipped(model), depth.count * angles * KEPT, widthRatio);
  // First along the angle, in which the maps are even at both ends, then along the depth, in which they go on straight.
  const wide = ANGLES + 1;
  const rows = new Float64Array(depth.count * wide * KEPT);
  for (let k = 0; k < KEPT; k++)
    for (let d = 0; d < depth.count; d++) {
      const at = (a: number): number => coarse[(d * angles + (a < 0 ? -a : a > angles - 1 ? 2 * (angles - 1) - a : a)) * KEPT + k]!;
      for (let a = 0; a < wide; a++) {
        const cell = Math.min(angles - 2, Math.floor(a / anglesDeg));
        rows[(d * wide + a) * KEPT + k] = catmullRom(a / anglesDeg - cell, at(cell - 1), at(cell), at(cell + 1), at(cell + 2));
      }
    }
  const row = wide * KEPT;
  const fine = new Float64Array((DEPTHS + 1) * row);
  for (let d = 0; d <= DEPTHS; d++) {
    const along = ((d * DEPTH_STEP) / depth.last) * (depth.count - 1);
    const cell = Math.min(depth.count - 2, Math.floor(along));
    for (let i = 0; i < row; i++) {
      const [b, c] = [rows[cell * row + i]!, rows[(cell + 1) * row + i]!];
      const before = cell > 0 ? rows[(cell - 1) * row + i]! : 2 * b - c;
      const after = cell + 2 < depth.count ? rows[(cell + 2) * row + i]! : 2 * c - b;
      fine[d * row + i] = catmullRom(along - cell, before, b, c, after);
    }
  }
  return { model, widthRatio, fine };
}

/** Looks the film up; writes into `answer`, since it is asked some ten thousand times a cycle. `eccentricity` below 1, `angle` from it to the load in radians. */
export function askFilm({ fine, widthRatio }: FilmMap, eccentricity: number, angle: number, answer: FilmAnswer): void {
  const turned = Math.abs(angle - 2 * Math.PI * Math.round(angle / (2 * Math.PI)));
  const side = Math.sin(angle) < 0 ? -1 : 1;
  const depth = Math.min(DEPTHS - 1e-9, -Math.log1p(-eccentricity) / DEPTH_STEP);
  const [sin, cos] = [Math.sin(turned), Math.cos(turned)];
  const gap = 1 - eccentricity * cos;
  const round = Math.min(ANGLES - 1e-9, ((turned + Math.atan2(4 * eccentricity * sin, Math.PI * gap)) * ANGLES) / Math.PI);
  const d = Math.floor(depth);
  const a = Math.floor(round);
  const [u, v] = [depth - d, round - a];
  const row = (ANGLES + 1) * KEPT;
  const at = d * row + a * KEPT;
  const of = (k: number): number =>
    (1 - u) * ((1 - v) * fine[at + k]! + v * fine[at + KEPT + k]!) + u * ((1 - v) * fine[at + row + k]! + v * fine[at + row + KEPT + k]!);
  const root = Math.sqrt(gap);
  const width = Math.PI * widthRatio * widthRatio;
  answer.along = (Math.exp(of(0)) * gap * gap * root) / width;
  answer.across = (side * 4 * Math.exp(of(1)) * eccentricity * sin * gap * root) / (width * Math.PI);
  answer.peak = Math.exp(of(2));
}

/** What is kept of a film whose force and peak are known for a velocity at `beta`: force as a multiple of μ V L³ R / c³, peak pressure over the load on the projected area. */
export function keptOf(widthRatio: number, eccentricity: number, beta: number, force: Vector, peak: number): [number, number, number] {
  const phi = Math.atan2(force[1], force[0]);
  const mobility = 1 / (2 * widthRatio * widthRatio * Math.hypot(force[0], force[1]));
  const gap = 1 - eccentricity * Math.cos(phi);
  const width = Math.PI * widthRatio * widthRatio;
  const along = (mobility * Math.cos(beta - phi) * width) / gap ** 2.5;
  const across = (mobility * Math.sin(beta - phi) * width * Math.PI) / (4 * eccentricity * Math.sin(phi) * gap ** 1.5);
  return [Math.log(along), Math.log(across), Math.log(peak)];
}

/** Angle of the velocity for which the load of a short bearing lies at `phi` from the eccentricity, 0 to π. */
export function shortBeta(eccentricity: number, phi: number): number {
  if (phi <= 0) return 0;
  if (phi >= Math.PI) return Math.PI;
  let [low, high] = [0, Math.PI];
  for (let pass = 0; pass < 60; pass++) {
    const beta = (low + high) / 2;
    const [x, y] = shortImpedance(eccentricity, beta);
    if (Math.atan2(y, x) < phi) low = beta;
    else high = beta;
  }
  return (low + high) / 2;
}

/** Highest pressure of the short film, as `shortImpedance` has its force, per projected area: 3 cos (a − β) / (1 − ε cos a)³ at its greatest. */
export function shortPeak(eccentricity: number, beta: number): number {
  const at = (a: number): number => Math.cos(a - beta) / (1 - eccentricity * Math.cos(a)) ** 3;
  let best = beta;
  for (let i = -90; i <= 90; i++) {
    const a = beta + (i * Math.PI) / 180;
    if (at(a) > at(best)) best = a;
  }
  for (let step = Math.PI / 360; step > 1e-7; step /= 2) for (const a of [best - step, best + step]) if (at(a) > at(best)) best = a;
  return 3 * at(best);
}

/** The map of one width between those that were solved; `per` figures to each. */
function atWidth(values: Float64Array, per: number, widthRatio: number): Float64Array {
  const { widthRatios } = FILM_MAPS;
  const x = Math.log(Math.min(widthRatios.at(-1)!, Math.max(widthRatios[0]!, widthRatio)));
  const logs = widthRatios.map(Math.log);
  const near = Math.min(Math.max(0, logs.findIndex((l) => l >= x) - 2), widthRatios.length - 4);
  const own = new Float64Array(per);
  for (let k = near; k < near + 4; k++) {
    let weight = 1;
    for (let o = near; o < near + 4; o++) if (o !== k) weight *= (x - logs[o]!) / (logs[k]! - logs[o]!);
    for (let i = 0; i < per; i++) own[i]! += weight * values[k * per + i]!;
  }
  return own;
}

const catmullRom = (t: number, a: number, b: number, c: number, d: number): number =>
  b + (t / 2) * (c - a + t * (2 * a - 5 * b + 4 * c - d + t * (3 * (b - c) + d - a)));

/** Shipped figures, whole numbers of `FILM_MAPS.unit`, two bytes each, low byte first, in base 64. */
function shipped(model: FilmModel): Float64Array {
  const bytes = Uint8Array.from(atob(FILM_MAPS[model]), (c) => c.charCodeAt(0));
  const view = new DataView(bytes.buffer);
  return Float64Array.from({ length: bytes.length / 2 }, (_, i) => view.getInt16(2 * i, true) * FILM_MAPS.unit);
}
