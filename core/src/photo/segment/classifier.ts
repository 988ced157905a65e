import type { PixelFeatures } from './pixelFeatures.js';
import { contextCount, contextOf, probabilitiesOf, type Network, type NetworkLayer } from './network.js';
import type { Layer } from '../reading/layer.js';

/** A classifier as it is kept: what `bench/segment/train.mjs` found, all figures as 32-bit floats in base64. */
export interface KeptClassifier {
  /** What a pixel may be; the last is no surface. */
  readonly classes: readonly Layer[];
  /** Widths of the layers between inputs and classes. */
  readonly hidden: readonly number[];
  readonly figures: string;
}

/** A classifier ready for use: what a pixel is by itself, and what it is among its neighbours. */
export interface Classifier {
  readonly classes: readonly Layer[];
  readonly stages: readonly [Network, Network];
}

/** Takes a kept classifier apart; `features` is how many figures it is told of a pixel. Throws when its figures do not fit its layers. */
export function classifierOf({ classes, hidden, figures }: KeptClassifier, features: number): Classifier {
  const bytes = Uint8Array.from(atob(figures), (c) => c.charCodeAt(0));
  const all = new Float32Array(bytes.buffer);
  let at = 0;
  const take = (n: number): Float32Array => {
    at += n;
    return all.subarray(at - n, at);
  };
  const stage = (inputs: number): Network => {
    const sizes = [inputs, ...hidden, classes.length];
    return {
      mean: take(inputs),
      spread: take(inputs),
      layers: sizes.slice(1).map((outputs, k): NetworkLayer => {
        const n = sizes[k]!;
        return { inputs: n, outputs, weights: take(n * outputs), bias: take(outputs) };
      }),
    };
  };
  const stages = [stage(features), stage(features + contextCount(classes.length))] as const;
  if (at !== all.length) throw new Error(`a classifier holds ${all.length} figures, ${at} are needed`);
  return { classes, stages };
}

/** Probability of every class by pixel, one plane a class. */
export function classify({ stages }: Classifier, features: PixelFeatures, pxPerMm: number): Float32Array[] {
  const count = stages[0].mean.length;
  const first = probabilitiesOf(stages[0], { count, data: features.data });
  return probabilitiesOf(stages[1], contextOf(features, first, pxPerMm));
}
