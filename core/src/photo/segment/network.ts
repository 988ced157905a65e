import { boxMean } from '../reading/field.js';
import type { PixelFeatures } from './pixelFeatures.js';

/** A layer of a network: `weights` output by output. */
export interface NetworkLayer {
  readonly inputs: number;
  readonly outputs: number;
  readonly weights: Float32Array;
  readonly bias: Float32Array;
}

/** A network of rectified layers with a softmax at its end, and what every input is brought to zero mean and unit spread by. */
export interface Network {
  readonly mean: Float32Array;
  readonly spread: Float32Array;
  readonly layers: readonly NetworkLayer[];
}

/** Rows of figures, one a pixel. */
export interface Rows {
  readonly count: number;
  readonly data: Float32Array;
}

/** A layer laid out for the sums: weights in double precision, padded to whole twos of outputs. */
interface ReadyLayer {
  readonly inputs: number;
  readonly outputs: number;
  readonly weights: Float64Array;
  readonly bias: Float64Array;
}

/** The layers with what brings inputs to zero mean and unit spread taken into the first of them. */
function ready({ mean, spread, layers }: Network): ReadyLayer[] {
  return layers.map(({ inputs, outputs, weights, bias }, k) => {
    const twos = Math.ceil(outputs / 2) * 2;
    const layer = { inputs, outputs, weights: new Float64Array(twos * inputs), bias: new Float64Array(twos) };
    for (let o = 0; o < outputs; o++) {
      layer.bias[o] = bias[o]!;
      for (let i = 0; i < inputs; i++) {
        const w = weights[o * inputs + i]! / (k === 0 ? spread[i]! : 1);
        layer.weights[o * inputs + i] = w;
        if (k === 0) layer.bias[o]! -= w * mean[i]!;
      }
    }
    return layer;
  });
}

/** Rows that go through a layer side by side: every weight that is fetched serves them all. */
const ABREAST = 4;

/** `to` = bias + weights · `from` for `ABREAST` rows, two outputs at a time; figures of one input or output of all rows lie together. */
function sumsOf({ inputs, weights, bias }: ReadyLayer, from: Float64Array, to: Float64Array): void {
  for (let o = 0; o < bias.length; o += 2) {
    let [a0, a1, a2, a3] = [bias[o]!, bias[o]!, bias[o]!, bias[o]!];
    let [b0, b1, b2, b3] = [bias[o + 1]!, bias[o + 1]!, bias[o + 1]!, bias[o + 1]!];
    const [wa, wb] = [o * inputs, (o + 1) * inputs];
    for (let i = 0, k = 0; i < inputs; i++, k += ABREAST) {
      const u = weights[wa + i]!;
      const v = weights[wb + i]!;
      const x0 = from[k]!;
      const x1 = from[k + 1]!;
      const x2 = from[k + 2]!;
      const x3 = from[k + 3]!;
      a0 += u * x0;
      a1 += u * x1;
      a2 += u * x2;
      a3 += u * x3;
      b0 += v * x0;
      b1 += v * x1;
      b2 += v * x2;
      b3 += v * x3;
    }
    const k = o * ABREAST;
    to[k] = a0;
    to[k + 1] = a1;
    to[k + 2] = a2;
    to[k + 3] = a3;
    to[k + 4] = b0;
    to[k + 5] = b1;
    to[k + 6] = b2;
    to[k + 7] = b3;
  }
}

/** Probability of every class, one plane a class, for each row. */
export function probabilitiesOf(network: Network, { count, data }: Rows): Float32Array[] {
  const layers = ready(network);
  const size = data.length / count;
  const last = layers.at(-1)!;
  const classes = last.outputs;
  const planes = Array.from({ length: classes }, () => new Float32Array(size));
  const rows = new Float64Array(count * ABREAST);
  const values = layers.map((l) => new Float64Array(l.bias.length * ABREAST));
  const out = values.at(-1)!;
  for (let first = 0; first < size; first += ABREAST) {
    const abreast = Math.min(ABREAST, size - first);
    for (let r = 0; r < abreast; r++) for (let i = 0, at = (first + r) * count; i < count; i++) rows[i * ABREAST + r] = data[at + i]!;
    let from = rows;
    for (let k = 0; k < layers.length; k++) {
      const to = values[k]!;
      sumsOf(layers[k]!, from, to);
      if (k < layers.length - 1) for (let o = 0; o < to.length; o++) if (to[o]! < 0) to[o] = 0;
      from = to;
    }
    for (let r = 0; r < abreast; r++) {
      let most = -Infinity;
      for (let c = 0; c < classes; c++) most = Math.max(most, out[c * ABREAST + r]!);
      let sum = 0;
      for (let c = 0; c < classes; c++) sum += out[c * ABREAST + r] = Math.exp(out[c * ABREAST + r]! - most);
      for (let c = 0; c < classes; c++) planes[c]![first + r] = out[c * ABREAST + r]! / sum;
    }
  }
  return planes;
}

/** Neighbourhoods in which the second network hears what the first said, mm. */
const CONTEXT_MM = [0.8, 3.5] as const;

/** How many figures `contextOf` adds for so many classes. */
export const contextCount = (classes: number): number => (2 + CONTEXT_MM.length) * classes;

/** Auto-context (Tu & Bai 2010): the features of a pixel and what the first network said of it, around it and on the whole. */
export function contextOf({ width, height, data }: PixelFeatures, planes: readonly Float32Array[], pxPerMm: number): Rows {
  const size = width * height;
  const count = data.length / size;
  const around = CONTEXT_MM.flatMap((mm) => {
    const r = Math.max(1, Math.round(mm * pxPerMm));
    return planes.map((plane) => boxMean({ width, height, data: plane }, r, r).data);
  });
  const whole = planes.map((plane) => plane.reduce((a, b) => a + b, 0) / size);
  const told = [...planes, ...around];
  const wide = count + contextCount(planes.length);
  const out = new Float32Array(size * wide);
  for (let i = 0; i < size; i++) {
    out.set(data.subarray(i * count, (i + 1) * count), i * wide);
    let k = i * wide + count;
    for (const plane of told) out[k++] = plane[i]!;
    for (const share of whole) out[k++] = share;
  }
  return { count: wide, data: out };
}
