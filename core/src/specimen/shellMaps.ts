import type { WearClass } from '../damage/classes.js';
import type { WearMap } from '../damage/wearMap.js';
import { fractal, lattice, seeded, smoothNoise, smoothstep } from './noise.js';

/** Damage of a shell half, on the developed surface: arc in degrees, axial 0 front to 1 rear. */
export type ShellDamage =
  | { readonly kind: 'polish'; readonly arc: number; readonly halfDeg: number; readonly amount: number }
  | { readonly kind: 'wipe'; readonly arc: number; readonly halfDeg: number; readonly amount: number }
  | { readonly kind: 'edge'; readonly edge: 'front' | 'rear'; readonly depth: number; readonly fromDeg: number; readonly toDeg: number }
  | {
      readonly kind: 'score';
      readonly axial: number;
      readonly fromDeg: number;
      readonly toDeg: number;
      readonly widthMm: number;
      readonly through: boolean;
    }
  | { readonly kind: 'fatigue'; readonly arc: number; readonly halfDeg: number; readonly axial: number; readonly lost: number }
  | { readonly kind: 'heat'; readonly arc: number; readonly halfDeg: number; readonly most: number }
  | { readonly kind: 'rust'; readonly arc: number; readonly halfDeg: number; readonly amount: number }
  | { readonly kind: 'specks'; readonly count: number }
  /** Whatever a wear map says, torn along the run. */
  | { readonly kind: 'wear'; readonly map: WearMap };

export interface ShellSpecimen {
  readonly seed: number;
  readonly radiusMm: number;
  readonly widthMm: number;
  readonly damages: readonly ShellDamage[];
  /** Oil hole, if the half has one. */
  readonly hole?: { readonly arc: number; readonly axial: number; readonly diameterMm: number };
}

export const MAP_CLASSES = ['sound', 'lining', 'heat', 'rust', 'embedded', 'hole'] as const;
export type MapClass = Extract<WearClass, 'sound' | 'lining' | 'heat' | 'rust' | 'embedded'> | 'hole';

/** Surface of a specimen as textures over arc (columns, 0–180°) and axis (rows, 0 front): what a renderer needs and what is true. */
export interface ShellMaps {
  readonly columns: number;
  readonly rows: number;
  /** Index into `MAP_CLASSES`. */
  readonly truth: Uint8Array;
  /** Reflectance at normal sight, linear red, green, blue by texel. */
  readonly colour: Float32Array;
  readonly roughness: Float32Array;
  /** 0 bare metal … 1 not a metal. */
  readonly dull: Float32Array;
  /** Height over the running face, mm. */
  readonly height: Float32Array;
  /** Lines of at least 0.15 mm. */
  readonly lines: number;
  readonly specks: number;
}

const WHITE_METAL = [0.6, 0.595, 0.585] as const;
const COPPER = [0.74, 0.4, 0.245] as const;

/** Paints damage onto a shell half. Pure; the same specimen gives the same maps. */
export function shellMaps(s: ShellSpecimen, columns = 1440, rows = 480): ShellMaps {
  const size = columns * rows;
  const truth = new Uint8Array(size);
  const colour = new Float32Array(size * 3);
  const roughness = new Float32Array(size);
  const dull = new Float32Array(size);
  const height = new Float32Array(size);
  const arcMm = (Math.PI * s.radiusMm) / 180;
  const random = seeded(s.seed);
  const put = (i: number, c: readonly [number, number, number], shade: number): void => {
    for (let k = 0; k < 3; k++) colour[3 * i + k] = c[k]! * shade;
  };
  for (let y = 0; y < rows; y++)
    for (let x = 0; x < columns; x++) {
      const i = y * columns + x;
      // Machining runs round the bore: long along the arc, fine across it.
      const run = 0.7 * lattice(y, Math.floor(x / 260), s.seed) + 0.5 * smoothNoise(x / 90, y * 0.9, s.seed + 3);
      put(i, WHITE_METAL, 1 + 0.09 * run + 0.04 * fractal(x / 120, y / 60, s.seed + 5));
      roughness[i] = 0.3 + 0.03 * run;
      height[i] = 0.0008 * run;
    }
  let lines = 0;
  let specks = 0;
  const each = (f: (i: number, arc: number, axial: number, x: number, y: number) => void): void => {
    for (let y = 0; y < rows; y++)
      for (let x = 0; x < columns; x++) f(y * columns + x, ((x + 0.5) / columns) * 180, (y + 0.5) / rows, x, y);
  };
  const bare = (i: number, x: number, y: number, seed: number): void => {
    truth[i] = 1;
    put(i, COPPER, 0.92 + 0.1 * fractal(x / 60, y / 12, seed));
    roughness[i] = 0.36;
    height[i] = -0.012;
  };
  s.damages.forEach((d, n) => {
    const seed = s.seed * 31 + n * 7 + 11;
    if (d.kind === 'polish')
      each((i, arc) => {
        roughness[i]! -= 0.16 * d.amount * smoothstep(1, 0.4, Math.abs(arc - d.arc) / d.halfDeg);
      });
    if (d.kind === 'wipe')
      each((i, arc, axial, x, y) => {
        const reach = Math.abs(arc - d.arc) / d.halfDeg;
        const row =
          0.34 * smoothNoise(axial * 26, d.arc, seed) +
          0.3 * lattice(y, Math.floor(x / 200), seed + 1) * smoothNoise(x / 160, y * 0.5, seed + 2);
        if (reach + row < d.amount) bare(i, x, y, seed);
      });
    if (d.kind === 'edge')
      each((i, arc, axial, x, y) => {
        if (arc < d.fromDeg || arc > d.toDeg) return;
        const t = (arc - d.fromDeg) / (d.toDeg - d.fromDeg);
        const depth =
          d.depth * Math.sin(Math.PI * t) ** 0.6 * (1 + 0.25 * fractal(arc / 14, 0, seed)) + 0.02 * lattice(y, Math.floor(x / 120), seed);
        if ((d.edge === 'front' ? axial : 1 - axial) < depth) bare(i, x, y, seed);
      });
    if (d.kind === 'score') {
      if (d.widthMm >= 0.15) lines++;
      each((i, arc, axial, x, y) => {
        if (arc < d.fromDeg || arc > d.toDeg) return;
        const end = Math.min(1, (arc - d.fromDeg) / 5, (d.toDeg - arc) / 5);
        const off = Math.abs(axial - d.axial) * s.widthMm;
        const half = (d.widthMm / 2) * (0.55 + 0.45 * end) * (1 + 0.12 * smoothNoise(arc / 6, 0, seed));
        if (off > half) return;
        const deep = 1 - (off / half) ** 2;
        height[i]! -= 0.03 * deep;
        if (d.through && off < half * 0.92) bare(i, x, y, seed);
        else for (let k = 0; k < 3; k++) colour[3 * i + k]! *= 1 - 0.5 * deep * (0.6 + 0.4 * end);
      });
    }
    if (d.kind === 'fatigue') fatigue(d, seed);
    if (d.kind === 'wear') wear(d.map, seed);
    if (d.kind === 'heat')
      each((i, arc, axial, x, y) => {
        const t =
          d.most * smoothstep(1, 0.1, Math.abs(arc - d.arc + 4 * fractal(axial * 3, arc / 30, seed)) / d.halfDeg) +
          0.04 * lattice(y, Math.floor(x / 300), seed);
        if (t <= 0.04) return;
        const straw = smoothstep(0.05, 0.3, t);
        const brown = smoothstep(0.28, 0.62, t);
        const black = smoothstep(0.55, 0.95, t);
        const at = [0, 1, 2].map((k) => {
          let v = colour[3 * i + k]!;
          v *= 1 - straw * [0.03, 0.12, 0.34][k]!;
          v *= 1 - brown * [0.42, 0.55, 0.62][k]!;
          return v * (1 - black) + 0.022 * black;
        }) as [number, number, number];
        put(i, at, 1);
        if (t > 0.3) truth[i] = 2;
      });
    if (d.kind === 'rust')
      each((i, arc, axial, x, y) => {
        const region = smoothstep(1, 0.3, Math.hypot((arc - d.arc) / d.halfDeg, (axial - 0.5) / 0.55));
        const f = fractal((arc * arcMm) / 1.1, (axial * s.widthMm) / 1.1, seed, 4);
        if (f * 0.9 + region * 0.55 - 0.62 < 0.28 - 0.3 * d.amount) return;
        truth[i] = 3;
        put(i, [0.33, 0.105, 0.022], 0.6 + 0.6 * fractal(x / 14, y / 14, seed + 9));
        roughness[i] = 0.9;
        dull[i] = 0.95;
        height[i] = -0.02;
      });
    if (d.kind === 'specks')
      for (let k = 0; k < d.count; k++) {
        const r = 0.12 + 0.3 * random() ** 2;
        const [cx, cy] = [random() * columns, (0.04 + 0.92 * random()) * rows];
        const [rx, ry] = [(r / arcMm / 180) * columns, (r / s.widthMm) * rows];
        specks++;
        for (let y = Math.max(0, Math.floor(cy - 1.6 * ry)); y <= Math.min(rows - 1, cy + 1.6 * ry); y++)
          for (let x = Math.max(0, Math.floor(cx - 1.6 * rx)); x <= Math.min(columns - 1, cx + 1.6 * rx); x++) {
            const q = Math.hypot((x - cx) / rx, (y - cy) / ry) * (1 + 0.25 * smoothNoise(x / 3, y / 3, seed));
            const i = y * columns + x;
            if (q < 1) {
              truth[i] = 4;
              put(i, [0.06, 0.055, 0.05], 1);
              dull[i] = 0.6;
            } else if (q < 1.5) height[i]! += 0.012 * (1.5 - q);
          }
      }
  });
  if (s.hole) {
    const [rx, ry] = [s.hole.diameterMm / 2 / arcMm, s.hole.diameterMm / 2 / s.widthMm];
    each((i, arc, axial) => {
      if (((arc - s.hole!.arc) / rx) ** 2 + ((axial - s.hole!.axial) / ry) ** 2 <= 1) truth[i] = 5;
    });
  }
  return { columns, rows, truth, colour, roughness, dull, height, lines, specks };

  function wear({ columns: w, rows: h, shares }: WearMap, seed: number): void {
    const between = (list: Float32Array, arc: number, axial: number): number => {
      const u = Math.max(0, Math.min(w - 1.001, (arc / 180) * w - 0.5));
      const v = Math.max(0, Math.min(h - 1.001, axial * h - 0.5));
      const [a, b] = [Math.floor(u), Math.floor(v)];
      const [fu, fv] = [u - a, v - b];
      const at = (x: number, y: number): number => list[Math.min(h - 1, y) * w + Math.min(w - 1, x)]!;
      return (at(a, b) * (1 - fu) + at(a + 1, b) * fu) * (1 - fv) + (at(a, b + 1) * (1 - fu) + at(a + 1, b + 1) * fu) * fv;
    };
    each((i, arc, axial, x, y) => {
      const torn =
        0.5 +
        0.3 * smoothNoise(arc / 9, axial * 34, seed) +
        0.22 * lattice(y, Math.floor(x / 180), seed + 1) * smoothNoise(x / 140, y * 0.5, seed + 2);
      const patchy = 0.5 + 0.62 * fractal((arc * arcMm) / 1.2, (axial * s.widthMm) / 1.2, seed + 4);
      roughness[i]! -= 0.12 * between(shares.polished, arc, axial);
      const lining = between(shares.lining, arc, axial) + between(shares.scuffed, arc, axial);
      const heat = between(shares.heat, arc, axial);
      if (heat > 0.05) {
        const t = heat * (0.9 + 0.2 * torn);
        const black = smoothstep(0.45, 0.95, t);
        const brown = smoothstep(0.05, 0.5, t);
        put(
          i,
          [0, 1, 2].map((k) => WHITE_METAL[k]! * (1 - brown * [0.35, 0.5, 0.72][k]!) * (1 - black) + 0.022 * black) as [
            number,
            number,
            number,
          ],
          1,
        );
        if (t > 0.3) truth[i] = 2;
      }
      if (lining > 0.03 && torn < lining * 1.12 - 0.06) bare(i, x, y, seed);
      const steel = between(shares.steel, arc, axial);
      if (steel > 0.05 && torn < steel) put(i, [0.33, 0.34, 0.36], 1);
      const rust = between(shares.rust, arc, axial);
      if (rust > 0.02 && patchy < rust * 1.1) {
        truth[i] = 3;
        put(i, [0.33, 0.105, 0.022], 0.6 + 0.6 * fractal(x / 14, y / 14, seed + 9));
        dull[i] = 0.95;
        roughness[i] = 0.9;
      }
      const dirt = between(shares.embedded, arc, axial) + between(shares.deposit, arc, axial);
      if (dirt > 0.02 && 0.5 + 0.5 * smoothNoise((arc * arcMm) / 0.35, (axial * s.widthMm) / 0.35, seed + 6) > 1.02 - 0.35 * dirt) {
        truth[i] = 4;
        put(i, [0.06, 0.055, 0.05], 1);
        dull[i] = 0.6;
      }
    });
  }

  function fatigue(d: Extract<ShellDamage, { kind: 'fatigue' }>, seed: number): void {
    // Cells of a Voronoi net about a millimetre wide; cracks where the two nearest seeds are as far.
    const cell = 1.15;
    each((i, arc, axial, x, y) => {
      const inside = smoothstep(
        1,
        0.75,
        Math.hypot((arc - d.arc) / d.halfDeg, (axial - d.axial) / 0.42) + 0.2 * fractal(arc / 8, axial * 8, seed),
      );
      if (inside <= 0.02) return;
      const [px, py] = [(arc * arcMm) / cell, (axial * s.widthMm) / cell];
      const [gx, gy] = [Math.floor(px), Math.floor(py)];
      let [first, second, owner] = [9, 9, 0];
      for (let oy = -1; oy <= 1; oy++)
        for (let ox = -1; ox <= 1; ox++) {
          const [cx, cy] = [gx + ox, gy + oy];
          const dist = Math.hypot(cx + 0.5 + 0.45 * lattice(cx, cy, seed) - px, cy + 0.5 + 0.45 * lattice(cx, cy, seed + 1) - py);
          if (dist < first) [second, first, owner] = [first, dist, cx * 7919 + cy];
          else if (dist < second) second = dist;
        }
      const lost = lattice(owner, 3, seed) * 0.5 + 0.5 < d.lost * inside;
      if (lost) {
        bare(i, x, y, seed);
        roughness[i] = 0.55;
        height[i] = -0.15;
      } else if (second - first < 0.1 * inside && inside > 0.3) {
        for (let k = 0; k < 3; k++) colour[3 * i + k]! *= 0.28;
        height[i] = -0.05;
      }
    });
  }
}
