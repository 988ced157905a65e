import type { Pixels } from '../flatten.js';
import { boxMean, field, type Field } from '../reading/field.js';
import { neutralColour, seenOf, type Neutral, type Seen } from '../reading/light.js';
import type { Surroundings } from './surroundings.js';

/** A developed surface as the classifier looks at it: a row of figures for every pixel. */
export interface PixelFeatures {
  readonly width: number;
  readonly height: number;
  /** `FEATURE_NAMES.length` figures a pixel, pixel after pixel. */
  readonly data: Float32Array;
  /** 1 where the picture shows the surface. */
  readonly there: Uint8Array;
}

/** A picture made smaller by a whole number, so that what is told of a pixel is told of all it covers. */
export function reduced({ width, height, data }: Pixels, by: number): Pixels {
  const [w, h] = [Math.floor(width / by), Math.floor(height / by)];
  const out = new Uint8ClampedArray(w * h * 4);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      let [r, g, b, there] = [0, 0, 0, 1];
      for (let dy = 0; dy < by; dy++)
        for (let dx = 0; dx < by; dx++) {
          const at = ((by * y + dy) * width + by * x + dx) * 4;
          r += data[at]!;
          g += data[at + 1]!;
          b += data[at + 2]!;
          if (data[at + 3] === 0) there = 0;
        }
      const to = (y * w + x) * 4;
      out[to] = r / by / by;
      out[to + 1] = g / by / by;
      out[to + 2] = b / by / by;
      out[to + 3] = there * 255;
    }
  return { width: w, height: h, data: out };
}

const COLOURS = ['redness', 'yellowness', 'light'] as const;
/** Neighbourhoods a pixel is told from, mm: what a blur leaves together, a speck or score, a patch. */
const AROUND_MM = [0.4, 1.3, 4.5] as const;
/** Half length along the run over which a score is alike, mm. */
const RUN_MM = 3;
/** How far light and colour spread round a pixel. */
const SPREADS = [
  ['light', 0.4],
  ['light', 1.3],
  ['yellowness', 1.3],
] as const;
const ofWhole = (name: string): string => `${name} of the whole`;
const GLOBAL = [
  ...['redness', 'yellowness'].map((c) => ofWhole(`${c} of the mode`)),
  ofWhole('share of the mode'),
  ...['redness', 'yellowness'].flatMap((c) => [10, 50, 90].map((q) => ofWhole(`${c}, ${q} %`))),
  ...[10, 50].map((q) => ofWhole(`light, ${q} %`)),
  'white is known',
];

/** What is told of a pixel, in order. Redness and yellowness are over white where it is known, light over the bright part of the face; logarithms of linear light. */
export const FEATURE_NAMES: readonly string[] = [
  ...COLOURS,
  ...AROUND_MM.flatMap((mm) => COLOURS.map((c) => `${c} within ${mm} mm`)),
  ...['along the run', 'in its column', 'in its row'].flatMap((where) => COLOURS.map((c) => `${c} ${where}`)),
  ...SPREADS.map(([c, mm]) => `spread of ${c} within ${mm} mm`),
  ...['red', 'green', 'blue'].map((c) => `${c} at its end`),
  'over the mode, redness',
  'over the mode, yellowness',
  'at an edge, 0.4 mm',
  'at an edge, 1.5 mm',
  'at a side, 4°',
  'at a side, 15°',
  'cosine of view',
  ...GLOBAL,
];

const PLACES = ['sides', 'ends', 'beyond'] as const satisfies ReadonlyArray<keyof Surroundings>;

/** What is told of every pixel where the surroundings of the surface are looked at too. */
export const SURROUNDED_FEATURES: readonly string[] = [
  ...FEATURE_NAMES,
  ...PLACES.flatMap((place) => COLOURS.map((c) => `${c} of its ${place}`)),
];

/**
 * Features of every pixel of a developed surface (front edge at the bottom). `cosine` is that of the angle of view by column, `white` the colour that white has in this light (a card), null when unknown.
 * With `surroundings` they are `SURROUNDED_FEATURES`, else `FEATURE_NAMES`.
 */
export function pixelFeatures(
  pixels: Pixels,
  pxPerMm: number,
  cosine: ArrayLike<number>,
  white: Neutral | null,
  surroundings: Surroundings | null = null,
): PixelFeatures {
  const seen: Seen = seenOf(pixels);
  const { width, height } = seen.light;
  const size = width * height;
  const clear = field(width, height);
  const there = field(width, height);
  for (let i = 0; i < size; i++) {
    there.data[i] = seen.there[i]!;
    clear.data[i] = seen.there[i] && !seen.clipped[i] ? 1 : 0;
  }
  const bright = quantilesOf(seen.light, there, [0.85])[0]!;
  const red = lessBy(seen.redness, white?.redness ?? 0);
  const yellow = lessBy(seen.yellowness, white?.yellowness ?? 0);
  const light = lessBy(seen.light, bright);
  const reds = quantilesOf(red, clear, [0.1, 0.5, 0.9]);
  const yellows = quantilesOf(yellow, clear, [0.1, 0.5, 0.9]);
  const lights = quantilesOf(light, there, [0.1, 0.5]);
  const found = neutralColour(seen);
  const mode = found
    ? { red: found.redness - (white?.redness ?? 0), yellow: found.yellowness - (white?.yellowness ?? 0), share: found.share }
    : { red: reds[1]!, yellow: yellows[1]!, share: 0 };
  const px = (mm: number): number => Math.max(1, Math.round(mm * pxPerMm));
  const means = (rx: number, ry: number): Float32Array[] => [
    meanOf(red, clear, rx, ry, reds[1]!),
    meanOf(yellow, clear, rx, ry, yellows[1]!),
    meanOf(light, there, rx, ry, lights[1]!),
  ];
  const planes = [
    red.data,
    yellow.data,
    light.data,
    ...AROUND_MM.flatMap((mm) => means(px(mm), px(mm))),
    ...means(px(RUN_MM), 0),
    ...means(px(0.5), height),
    ...means(width, px(0.3)),
    ...SPREADS.map(([c, mm]) => spreadOf(c === 'light' ? light : yellow, px(mm))),
    ...[0, 1, 2].map((channel) => atItsEnd(pixels, channel, px(0.4))),
  ];
  // What is not in the picture is taken for what most of the surface shows.
  const beside = (place: keyof Surroundings): number[] => {
    const b = surroundings?.[place];
    return b
      ? [b.redness - (white?.redness ?? 0), b.yellowness - (white?.yellowness ?? 0), b.light - bright]
      : [mode.red, mode.yellow, lights[1]!];
  };
  const global = [
    mode.red,
    mode.yellow,
    mode.share,
    ...reds,
    ...yellows,
    ...lights,
    white ? 1 : 0,
    ...(surroundings ? PLACES.flatMap(beside) : []),
  ];
  const count = (surroundings ? SURROUNDED_FEATURES : FEATURE_NAMES).length;
  const data = new Float32Array(size * count);
  for (let x = 0; x < width; x++) {
    const u = (x + 0.5) / width;
    const side = Math.min(u, 1 - u) * 180;
    const [side4, side15, view] = [Math.exp(-side / 4), Math.exp(-side / 15), cosine[x]!];
    for (let y = 0; y < height; y++) {
      const edge = (Math.min(y, height - 1 - y) + 0.5) / pxPerMm;
      const i = y * width + x;
      let k = i * count;
      for (const plane of planes) data[k++] = plane[i]!;
      data[k++] = red.data[i]! - mode.red;
      data[k++] = yellow.data[i]! - mode.yellow;
      data[k++] = Math.exp(-edge / 0.4);
      data[k++] = Math.exp(-edge / 1.5);
      data[k++] = side4;
      data[k++] = side15;
      data[k++] = view;
      for (const g of global) data[k++] = g;
    }
  }
  return { width, height, data, there: seen.there };
}

function lessBy(p: Field, by: number): Field {
  const out = field(p.width, p.height);
  for (let i = 0; i < out.data.length; i++) out.data[i] = p.data[i]! - by;
  return out;
}

/** Mean over a box of the pixels that count, `otherwise` where none does. */
function meanOf(p: Field, weight: Field, rx: number, ry: number, otherwise: number): Float32Array {
  const product = field(p.width, p.height);
  for (let i = 0; i < product.data.length; i++) product.data[i] = (p.data[i]! - otherwise) * weight.data[i]!;
  const sum = boxMean(product, rx, ry).data;
  const of = boxMean(weight, rx, ry).data;
  const out = new Float32Array(sum.length);
  for (let i = 0; i < out.length; i++) out[i] = otherwise + sum[i]! / (of[i]! + 0.02);
  return out;
}

/** Quantiles of what counts; zeros where nothing does. */
function quantilesOf(p: Field, weight: Field, at: readonly number[]): number[] {
  const values = new Float32Array(p.data.length);
  let n = 0;
  for (let i = 0; i < values.length; i += 3) if (weight.data[i]) values[n++] = p.data[i]!;
  const sorted = values.subarray(0, n).sort();
  return at.map((q) => (n === 0 ? 0 : sorted[Math.min(n - 1, Math.floor(q * n))]!));
}

/** Standard deviation within a box. */
function spreadOf(p: Field, r: number): Float32Array {
  const square = field(p.width, p.height);
  for (let i = 0; i < square.data.length; i++) square.data[i] = p.data[i]! ** 2;
  const mean = boxMean(p, r, r).data;
  const of = boxMean(square, r, r).data;
  const out = new Float32Array(mean.length);
  for (let i = 0; i < out.length; i++) out[i] = Math.sqrt(Math.max(0, of[i]! - mean[i]! ** 2));
  return out;
}

/** Share of the pixels round a place whose channel is at its end. */
function atItsEnd({ width, height, data }: Pixels, channel: number, r: number): Float32Array {
  const ends = field(width, height);
  for (let i = 0; i < ends.data.length; i++) ends.data[i] = data[4 * i + channel]! >= 250 ? 1 : 0;
  return boxMean(ends, r, r).data;
}
