import type { WearClass } from '../damage/classes.js';

/** Classes a rendered specimen knows the truth of, in the order of its map. */
export const MAP_CLASSES = [
  'sound',
  'lining',
  'heat',
  'rust',
  'embedded',
  'hole',
  'scuffed',
  'transfer',
  'deposit',
  'missing',
  'steel',
] as const;
export type MapClass = Exclude<WearClass, 'polished'> | 'hole';
export const classAt = (name: MapClass): number => MAP_CLASSES.indexOf(name);

export type Rgb = readonly [number, number, number];
/** Reflectance at normal incidence, linear red, green, blue. */
export const WHITE_METAL: Rgb = [0.6, 0.595, 0.585];
export const COPPER: Rgb = [0.74, 0.4, 0.245];
/** A lining with more tin: yellower. */
export const BRONZE_LINING: Rgb = [0.7, 0.47, 0.235];
export const STEEL: Rgb = [0.56, 0.565, 0.57];
export const IRON: Rgb = [0.44, 0.43, 0.42];
export const ALUMINIUM: Rgb = [0.66, 0.665, 0.67];
export const RUST: Rgb = [0.33, 0.105, 0.022];
export const SOOT: Rgb = [0.03, 0.028, 0.026];

/** Surface of a specimen as textures over arc (columns) and axis (rows, 0 front): what a renderer needs and what is true. */
export interface SurfaceMaps {
  readonly columns: number;
  readonly rows: number;
  /** Arc of the columns, degrees; a flat surface counts 180. */
  readonly spanDeg: number;
  /** Index into `MAP_CLASSES`. */
  readonly truth: Uint8Array;
  /** Reflectance at normal incidence, linear red, green, blue by texel. */
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

type Each = (i: number, arc: number, axial: number, x: number, y: number) => void;

/** The textures while they are painted. */
export interface Sheet extends SurfaceMaps {
  lines: number;
  specks: number;
  readonly seed: number;
  /** Millimetres of a degree of arc, and of the whole axis. */
  readonly arcMm: number;
  readonly widthMm: number;
  readonly random: () => number;
  /** A soft layer over copper lining; else bare metal of one kind. */
  readonly lined: boolean;
  /** What shows where the soft layer is gone. */
  readonly lining: Rgb;
  readonly put: (i: number, colour: Rgb, shade: number) => void;
  readonly tint: (i: number, by: Rgb) => void;
  /** Every texel with its place. */
  readonly each: (f: Each) => void;
  /** Texels within a box of arc (degrees, may lie round the end of a full turn) and axis. */
  readonly within: (fromDeg: number, toDeg: number, from: number, to: number, f: Each) => void;
}

/** Distance on the arc, degrees; round the end where the surface is a full turn. */
export function arcOff(s: Pick<SurfaceMaps, 'spanDeg'>, a: number, b: number): number {
  const off = Math.abs(a - b);
  return s.spanDeg >= 360 ? Math.min(off, 360 - off) : off;
}

export function emptySheet(
  about: {
    readonly seed: number;
    readonly spanDeg: number;
    readonly arcMm: number;
    readonly widthMm: number;
    readonly lined: boolean;
    readonly lining: Rgb;
  },
  columns: number,
  rows: number,
  random: () => number,
): Sheet {
  const size = columns * rows;
  const colour = new Float32Array(size * 3);
  const { spanDeg } = about;
  const at = (x: number, y: number, f: Each): void => f(y * columns + x, ((x + 0.5) / columns) * spanDeg, (y + 0.5) / rows, x, y);
  return {
    ...about,
    columns,
    rows,
    truth: new Uint8Array(size),
    colour,
    roughness: new Float32Array(size),
    dull: new Float32Array(size),
    height: new Float32Array(size),
    lines: 0,
    specks: 0,
    random,
    put: (i, c, shade) => {
      for (let k = 0; k < 3; k++) colour[3 * i + k] = c[k as 0 | 1 | 2] * shade;
    },
    tint: (i, by) => {
      for (let k = 0; k < 3; k++) colour[3 * i + k]! *= by[k as 0 | 1 | 2];
    },
    each: (f) => {
      for (let y = 0; y < rows; y++) for (let x = 0; x < columns; x++) at(x, y, f);
    },
    within: (fromDeg, toDeg, from, to, f) => {
      const x0 = Math.floor((fromDeg / spanDeg) * columns);
      const x1 = Math.ceil((toDeg / spanDeg) * columns);
      const y1 = Math.min(rows - 1, Math.ceil(to * rows));
      const round = spanDeg >= 360;
      for (let y = Math.max(0, Math.floor(from * rows)); y <= y1; y++)
        for (let k = round ? x0 : Math.max(0, x0); k <= (round ? x1 : Math.min(columns - 1, x1)); k++)
          at(((k % columns) + columns) % columns, y, f);
    },
  };
}
