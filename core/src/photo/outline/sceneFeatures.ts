import type { Pixels } from '../flatten.js';
import { eachShrunk, shrunkSize } from '../image/shrink.js';
import { boxMean, field, type Field } from '../reading/field.js';
import type { PixelFeatures } from '../segment/pixelFeatures.js';
import { LINEAR } from '../reading/light.js';
import { apartFromBench, shrink, type Small } from '../reading/outlineParts.js';

/** Long side of the picture in which surface is told from what lies beside it, pixels. */
export const SCENE_SIDE = 400;

/** Every so many pixels of a scene, each way, are asked: what is likely surface hardly changes from one to the next. */
export const ASKED = 2;
/** Pixels asked that count as a millimetre for the neighbourhoods in which the second network hears the first. */
export const SCENE_SCALE = 2;

/** A picture as it is looked at for a part: small, with the step of its pixels in the picture. */
export interface Scene extends Pixels {
  readonly step: number;
}

/** A picture made small: each pixel the mean of those it covers. */
export function sceneOf(picture: Pixels): Scene {
  const step = Math.max(1, Math.max(picture.width, picture.height) / SCENE_SIDE);
  const [width, height] = shrunkSize(picture, step);
  const data = new Uint8ClampedArray(width * height * 4);
  eachShrunk(picture, step, (i, r, g, b) => data.set([r, g, b, 255], 4 * i));
  return { width, height, data, step };
}

const COLOURS = ['redness', 'yellowness', 'light'] as const;
/** Neighbourhoods, pixels of the scene each way. */
const AROUND = [1, 4, 12, 32] as const;
/** Lengths along which a pixel is compared, either way of it. */
const REACHES = [3, 8] as const;
/** Directions in which light is smoothed, degrees: machining runs along one of them. */
const DIRECTIONS = [0, 45, 90, 135] as const;

/** What is told of a pixel, in order: logarithms of linear light over the middle of the picture, redness and yellowness (log R/G, log G/B). */
export const SCENE_FEATURES: readonly string[] = [
  ...COLOURS,
  ...AROUND.flatMap((r) => COLOURS.map((c) => `${c} within ${r}`)),
  ...[2, 5, 12].flatMap((r) => COLOURS.map((c) => `spread of ${c} within ${r}`)),
  ...REACHES.flatMap((r) => DIRECTIONS.map((d) => `step of light over ${r} at ${d}°`)),
  ...REACHES.map((r) => `step of colour over ${r}`),
  'apart from the bench',
  'apart from the bench within 4',
  'apart from the bench within 12',
  'redness over the border',
  'yellowness over the border',
  'light over the border',
  'from the middle',
  'from the border',
];

/** Features of every `ASKED`th pixel of a scene each way, `SCENE_FEATURES.length` a pixel. */
export function sceneFeatures(scene: Pixels): PixelFeatures {
  const { width, height, data } = scene;
  const size = width * height;
  const [red, yellow, light] = [field(width, height), field(width, height), field(width, height)];
  for (let i = 0; i < size; i++) {
    const [r, g, b] = [linear(data[4 * i]!), linear(data[4 * i + 1]!), linear(data[4 * i + 2]!)];
    red.data[i] = Math.log(r / g);
    yellow.data[i] = Math.log(g / b);
    light.data[i] = Math.log((r + g + b) / 3);
  }
  const border = borderOf(width, height);
  const edge = [red, yellow, light].map((p) => middleOf(border.map((i) => p.data[i]!)));
  const all = Array.from({ length: Math.floor(size / 7) }, (_, k) => light.data[7 * k]!);
  const mid = middleOf(all);
  for (let i = 0; i < size; i++) light.data[i]! -= mid;
  const small = shrink({ width, height, data: scene.data }, Math.max(width, height));
  const apart: Field = { width, height, data: benchDistance(small) };
  const colours = [red, yellow, light];
  const planes: Float32Array[] = [
    ...colours.map((p) => p.data),
    ...AROUND.flatMap((r) => colours.map((p) => boxMean(p, r, r).data)),
    ...[2, 5, 12].flatMap((r) => colours.map((p) => spreadOf(p, r))),
    ...REACHES.flatMap((r) => {
      const smooth = smoothed(light, r);
      return DIRECTIONS.map((d) => stepOf(smooth, r, d));
    }),
    ...REACHES.map((r) => colourStep(red, yellow, r)),
    apart.data,
    boxMean(apart, 4, 4).data,
    boxMean(apart, 12, 12).data,
    minus(red.data, edge[0]!),
    minus(yellow.data, edge[1]!),
    minus(light.data, edge[2]! - mid),
  ];
  const count = SCENE_FEATURES.length;
  const [wide, high] = [Math.floor(width / ASKED), Math.floor(height / ASKED)];
  const out = new Float32Array(wide * high * count);
  let k = 0;
  for (let j = 0; j < high; j++)
    for (let i = 0; i < wide; i++) {
      const [x, y] = [ASKED * i, ASKED * j];
      for (const plane of planes) out[k++] = plane[y * width + x]!;
      out[k++] = Math.hypot((x - width / 2) / width, (y - height / 2) / height);
      out[k++] = Math.exp(-Math.min(x, y, width - 1 - x, height - 1 - y) / 10);
    }
  return { width: wide, height: high, data: out, there: new Uint8Array(wide * high).fill(1) };
}

/** Light of a sRGB value, a little raised so that black has a logarithm. */
const linear = (v: number): number => LINEAR[v]! + 0.004;

function borderOf(width: number, height: number): number[] {
  const list: number[] = [];
  const wide = Math.round(0.06 * Math.min(width, height));
  for (let y = 0; y < height; y += 2)
    for (let x = 0; x < width; x += 2) if (x < wide || y < wide || x >= width - wide || y >= height - wide) list.push(y * width + x);
  return list;
}

const middleOf = (values: readonly number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1]!;

const minus = (plane: Float32Array, by: number): Float32Array => plane.map((v) => v - by);

/** 0 the bench to 1 nothing like it. */
const benchDistance = (small: Small): Float32Array => apartFromBench(small).map((d) => d / (d + 5));

/** Standard deviation within a box. */
function spreadOf(p: Field, r: number): Float32Array {
  const square = field(p.width, p.height);
  for (let i = 0; i < square.data.length; i++) square.data[i] = p.data[i]! * p.data[i]!;
  const mean = boxMean(p, r, r).data;
  const out = boxMean(square, r, r).data;
  for (let i = 0; i < out.length; i++) out[i] = Math.sqrt(Math.max(0, out[i]! - mean[i]! * mean[i]!));
  return out;
}

const smoothed = (p: Field, reach: number): Field => boxMean(p, Math.max(1, reach >> 2), Math.max(1, reach >> 2));

/** What a smoothed plane differs by from one side of a pixel to the other along a direction; its size, not its sign. */
function stepOf({ width, height, data }: Field, reach: number, degrees: number): Float32Array {
  const a = (degrees * Math.PI) / 180;
  const [dx, dy] = [Math.round(reach * Math.cos(a)), Math.round(reach * Math.sin(a))];
  const out = new Float32Array(width * height);
  for (let y = 0; y < height; y++) {
    const [before, after] = [clamp(y - dy, height) * width, clamp(y + dy, height) * width];
    for (let x = 0; x < width; x++) {
      const step = data[after + clamp(x + dx, width)]! - data[before + clamp(x - dx, width)]!;
      out[y * width + x] = step < 0 ? -step : step;
    }
  }
  return out;
}

function colourStep(red: Field, yellow: Field, reach: number): Float32Array {
  const [a, b] = [smoothed(red, reach), smoothed(yellow, reach)];
  const parts = [0, 90].flatMap((d) => [stepOf(a, reach, d), stepOf(b, reach, d)]);
  const out = new Float32Array(red.data.length);
  for (const p of parts) for (let i = 0; i < out.length; i++) out[i]! += p[i]! * p[i]!;
  for (let i = 0; i < out.length; i++) out[i] = Math.sqrt(out[i]!);
  return out;
}

const clamp = (v: number, n: number): number => Math.max(0, Math.min(n - 1, v));
