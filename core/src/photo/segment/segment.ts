import type { Developed } from '../flatten.js';
import type { Lit, Neutral, Seen } from '../reading/light.js';
import { components } from '../reading/field.js';
import { layerAt, LAYERS, type Layered } from '../reading/layers.js';
import { crackNet } from './crackNet.js';
import { classify, type Classifier } from './classifier.js';
import { pixelFeatures, reduced } from './pixelFeatures.js';

/** Pixels of the developed surface that the classifier looks at as one: it was trained on sixths of a millimetre. */
const CLASSIFIED_BY = 3;
/** How many times likelier a speck is taken to be than the networks hold it: specks are so few and small that they hardly count in training, and to miss one is worse than to see one too many. */
const SPECKS_COUNT = 8;
/** Least size of a speck, mm². */
const SPECK_MM2 = 0.02;

/** Tells the classes of a developed surface apart by a trained classifier. `white` is the colour that white has in this light, null when unknown. */
export function segment(classifier: Classifier, flat: Developed, seen: Seen, lit: Lit, pxPerMm: number, white: Neutral | null): Layered {
  const small = reduced(flat.pixels, CLASSIFIED_BY);
  const scale = pxPerMm / CLASSIFIED_BY;
  const planes = classify(classifier, pixelFeatures(small, scale, cosines(flat, small.width), white), scale);
  liken(planes, classifier.classes.indexOf('embedded'), SPECKS_COUNT);
  const { width, height } = flat.pixels;
  const layer = new Uint8Array(width * height);
  const sure = new Float32Array(width * height);
  const at = classifier.classes.map(layerAt);
  const unseen = layerAt('unseen');
  const value = between(planes, small.width, small.height);
  for (let y = 0; y < height; y++) {
    value.row((y + 0.5) / CLASSIFIED_BY - 0.5);
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      const [best, most] = value.best((x + 0.5) / CLASSIFIED_BY - 0.5);
      layer[i] = seen.there[i] ? at[best]! : unseen;
      sure[i] = most;
    }
  }
  const masked = (name: 'embedded' | 'void', least: number): number => {
    const mask = Uint8Array.from(layer, (l) => (LAYERS[l] === name ? 1 : 0));
    return components(mask, width, height, Math.round(least * pxPerMm ** 2)).filter(
      (c) => name === 'embedded' || (c.left > 2 && c.right < width - 3 && c.top > 2 && c.bottom < height - 3),
    ).length;
  };
  // What is hidden is no surface to anybody.
  for (let y = 0; y < small.height; y++)
    for (let x = 0; x < small.width; x++)
      if (!seen.there[(CLASSIFIED_BY * y + 1) * width + CLASSIFIED_BY * x + 1]) for (const plane of planes) plane[y * small.width + x] = 0;
  return {
    layer,
    sure,
    chances: { width: small.width, height: small.height, classes: classifier.classes, planes },
    specks: masked('embedded', SPECK_MM2),
    ...crackNet(lit, layer, pxPerMm),
    voids: masked('void', 3),
  };
}

/** Makes one class so many times likelier against all others. */
function liken(planes: readonly Float32Array[], at: number, times: number): void {
  const plane = planes[at];
  if (!plane) return;
  for (let i = 0; i < plane.length; i++) {
    const sum = 1 + (times - 1) * plane[i]!;
    for (const p of planes) p[i]! /= sum;
    plane[i]! *= times;
  }
}

/** Cosine of the angle of view half way up the surface, by column. */
function cosines({ cosine, columns, rows }: Developed, width: number): Float32Array {
  const row = Math.floor(rows / 2) * columns;
  return Float32Array.from({ length: width }, (_, x) => {
    const c = Math.min(columns - 1.001, Math.max(0, ((x + 0.5) / width) * columns - 0.5));
    const a = Math.floor(c);
    return cosine[row + a]! * (1 - c + a) + cosine[row + a + 1]! * (c - a);
  });
}

/** The strongest of several planes at places between their pixels (bilinear). */
function between(
  planes: readonly Float32Array[],
  width: number,
  height: number,
): { readonly row: (y: number) => void; readonly best: (x: number) => readonly [plane: number, value: number] } {
  const rows = planes.map(() => new Float32Array(width));
  const out: [number, number] = [0, 0];
  return {
    row: (y) => {
      const low = Math.min(height - 1, Math.max(0, Math.floor(y)));
      const high = Math.min(height - 1, low + 1);
      const f = Math.min(1, Math.max(0, y - low));
      planes.forEach((plane, k) => {
        const to = rows[k]!;
        for (let x = 0; x < width; x++) to[x] = plane[low * width + x]! * (1 - f) + plane[high * width + x]! * f;
      });
    },
    best: (x) => {
      const low = Math.min(width - 1, Math.max(0, Math.floor(x)));
      const high = Math.min(width - 1, low + 1);
      const f = Math.min(1, Math.max(0, x - low));
      out[1] = -1;
      for (let k = 0; k < rows.length; k++) {
        const v = rows[k]![low]! * (1 - f) + rows[k]![high]! * f;
        if (v > out[1]) {
          out[0] = k;
          out[1] = v;
        }
      }
      return out;
    },
  };
}
