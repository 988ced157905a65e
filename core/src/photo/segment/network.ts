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

/** A layer laid out for the sums: weights in double precision, padded to whole fours of outputs. */
interface ReadyLayer {
  readonly inputs: number;
  readonly outputs: number;
  readonly weights: Float64Array;
  readonly bias: Float64Array;
}

/** The layers with what brings inputs to zero mean and unit spread taken into the first of them. */
function ready({ mean, spread, layers }: Network): ReadyLayer[] {
  return layers.map(({ inputs, outputs, weights, bias }, k) => {
    const fours = Math.ceil(outputs / 4) * 4;
    const layer = { inputs, outputs, weights: new Float64Array(fours * inputs), bias: new Float64Array(fours) };
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

/** `to` = bias + weights · `from`, four outputs side by side. */
function sumsOf({ inputs, weights, bias }: ReadyLayer, from: Float64Array, to: Float64Array): void {
  for (let o = 0; o < bias.length; o += 4) {
    let [a, b, c, d] = [bias[o]!, bias[o + 1]!, bias[o + 2]!, bias[o + 3]!];
    const [w0, w1, w2, w3] = [o * inputs, (o + 1) * inputs, (o + 2) * inputs, (o + 3) * inputs];
    for (let i = 0; i < inputs; i++) {
      const x = from[i]!;
      a += weights[w0 + i]! * x;
      b += weights[w1 + i]! * x;
      c += weights[w2 + i]! * x;
      d += weights[w3 + i]! * x;
    }
    to[o] = a;
    to[o + 1] = b;
    to[o + 2] = c;
    to[o + 3] = d;
  }
}

/** Probability of every class, one plane a class, for each row. */
export function probabilitiesOf(network: Network, { count, data }: Rows): Float32Array[] {
  const layers = ready(network);
  const size = data.length / count;
  const last = layers.at(-1)!;
  const classes = last.outputs;
  const planes = Array.from({ length: classes }, () => new Float32Array(size));
  const row = new Float64Array(count);
  const values = layers.map((l) => new Float64Array(l.bias.length));
  const out = values.at(-1)!;
  for (let r = 0; r < size; r++) {
    for (let i = 0, at = r * count; i < count; i++) row[i] = data[at + i]!;
    let from = row;
    for (let k = 0; k < layers.length; k++) {
      const to = values[k]!;
      sumsOf(layers[k]!, from, to);
      if (k < layers.length - 1) for (let o = 0; o < to.length; o++) if (to[o]! < 0) to[o] = 0;
      from = to;
    }
    let most = -Infinity;
    for (let c = 0; c < classes; c++) most = Math.max(most, out[c]!);
    let sum = 0;
    for (let c = 0; c < classes; c++) sum += out[c] = Math.exp(out[c]! - most);
    for (let c = 0; c < classes; c++) planes[c]![r] = out[c]! / sum;
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
