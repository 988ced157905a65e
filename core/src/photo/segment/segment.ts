import type { Developed } from '../flatten.js';
import type { Neutral, Seen } from '../reading/light.js';
import type { Lit } from '../reading/illumination.js';
import { components, maskWhere, type Component } from '../reading/field.js';
import { layerAt, type Chances, type Layered } from '../reading/layer.js';
import { crackNet } from './crackNet.js';
import { classify, type Classifier } from './classifier.js';
import { pixelFeatures, reduced } from './pixelFeatures.js';
import type { Surroundings } from './surroundings.js';

/** Pixels of the developed surface that the classifier looks at as one: it was trained on sixths of a millimetre. */
const CLASSIFIED_BY = 3;
/** How many times likelier a speck is taken to be than the networks hold it: specks are so few and small that they hardly count in training, and to miss one is worse than to see one too many. */
const SPECKS_COUNT = 8;
/** Least size of a speck, mm². */
const SPECK_MM2 = 0.02;
/** Least size of an oil hole, mm². */
const HOLE_MM2 = 3;

/** What is known of the light of a picture: the colour that white has in it, and what lies round the surface; null for what is not known. */
export interface Setting {
  readonly white: Neutral | null;
  readonly surroundings: Surroundings | null;
}

/** Tells the classes of a developed surface apart by a trained classifier. */
export function segment(classifier: Classifier, flat: Developed, seen: Seen, lit: Lit, pxPerMm: number, setting: Setting): Layered {
  return layersByChance(chancesOf(classifier, flat, pxPerMm, setting), seen, lit, pxPerMm);
}

/** How likely each class is at every place of a developed surface, on a smaller picture of it. */
function chancesOf(classifier: Classifier, flat: Developed, pxPerMm: number, { white, surroundings }: Setting): Chances {
  const small = reduced(flat.pixels, CLASSIFIED_BY);
  const scale = pxPerMm / CLASSIFIED_BY;
  const planes = classify(classifier, pixelFeatures(small, scale, cosines(flat, small.width), white, surroundings), scale);
  liken(planes, classifier.classes.indexOf('embedded'), SPECKS_COUNT);
  return { width: small.width, height: small.height, classes: classifier.classes, planes };
}

/** The likeliest layer of every pixel; `chances` are taken away where nothing is seen. */
function layersByChance(chances: Chances, seen: Seen, lit: Lit, pxPerMm: number): Layered {
  const { classes, planes } = chances;
  const { width, height } = seen.light;
  const [byX, byY] = [width / chances.width, height / chances.height];
  const layer = new Uint8Array(width * height);
  const sure = new Float32Array(width * height);
  const at = classes.map(layerAt);
  const unseen = layerAt('unseen');
  const value = between(planes, chances.width, chances.height);
  for (let y = 0; y < height; y++) {
    value.row((y + 0.5) / byY - 0.5);
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      const [best, most] = value.best((x + 0.5) / byX - 0.5);
      layer[i] = seen.there[i] ? at[best]! : unseen;
      sure[i] = most;
    }
  }
  // What is hidden is no surface to anybody.
  for (let y = 0; y < chances.height; y++)
    for (let x = 0; x < chances.width; x++)
      if (!seen.there[Math.floor((y + 0.5) * byY) * width + Math.floor((x + 0.5) * byX)])
        for (const plane of planes) plane[y * chances.width + x] = 0;
  return { layer, sure, chances, ...countsOf(layer, width, height, pxPerMm), ...crackNet(lit, layer, pxPerMm) };
}

/** Specks, and oil holes that lie wholly on a surface told apart into layers. */
export function countsOf(
  layer: Uint8Array,
  width: number,
  height: number,
  pxPerMm: number,
): { readonly specks: number; readonly voids: number } {
  const pieces = (name: 'embedded' | 'void', least: number): Component[] => {
    const at = layerAt(name);
    return components(
      maskWhere(layer, (l) => l === at),
      width,
      height,
      Math.round(least * pxPerMm ** 2),
    );
  };
  return {
    specks: pieces('embedded', SPECK_MM2).length,
    voids: pieces('void', HOLE_MM2).filter((c) => c.left > 2 && c.right < width - 3 && c.top > 2 && c.bottom < height - 3).length,
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
