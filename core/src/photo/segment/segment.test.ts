import fc from 'fast-check';
import type { Pixels } from '../flatten.js';
import { classifierOf } from './classifier.js';
import { classifierFor } from './classifiers.js';
import { contextCount, contextOf, probabilitiesOf, type Network } from './network.js';
import type { CameraModel } from '../cameraModel.js';
import { FEATURE_NAMES, pixelFeatures, reduced, SURROUNDED_FEATURES } from './pixelFeatures.js';
import { surroundingsOf } from './surroundings.js';

const of = (width: number, height: number, colour: (x: number, y: number) => readonly [number, number, number]): Pixels => {
  const data = new Uint8ClampedArray(width * height * 4).fill(255);
  for (let y = 0; y < height; y++) for (let x = 0; x < width; x++) data.set(colour(x, y), (y * width + x) * 4);
  return { width, height, data };
};
const grey = of(60, 24, (x) => [120 + x, 120 + x, 120 + x]);
const featureOf = (name: string, pixels: Pixels, at: number, white: { redness: number; yellowness: number } | null = null): number =>
  pixelFeatures(pixels, 6, new Float32Array(pixels.width).fill(1), white).data[
    at * FEATURE_NAMES.length + FEATURE_NAMES.indexOf(name)
  ] as number;

describe('a picture made smaller', () => {
  it('holds the mean of what each pixel covers', () => {
    const small = reduced(
      of(6, 3, (x, y) => [x < 3 ? 30 : 90, 10 * y, 0]),
      3,
    );
    expect([small.width, small.height]).toEqual([2, 1]);
    expect([...small.data]).toEqual([30, 10, 0, 255, 90, 10, 0, 255]);
  });
  it('is no surface where any of what it covers is none', () => {
    const pixels = of(6, 3, () => [50, 50, 50]);
    pixels.data[3] = 0;
    expect([...reduced(pixels, 3).data].filter((_, k) => k % 4 === 3)).toEqual([0, 255]);
  });
});

describe('features of a pixel', () => {
  it('have a name each, and no name twice', () => {
    expect(new Set(FEATURE_NAMES).size).toBe(FEATURE_NAMES.length);
    const { data, there } = pixelFeatures(grey, 6, new Float32Array(60).fill(1), null);
    expect(data).toHaveLength(there.length * FEATURE_NAMES.length);
    expect(data.every(Number.isFinite)).toBe(true);
  });
  it('are over the colour of white where it is known', () => {
    const warm = of(60, 24, () => [180, 120, 80]);
    const white = { redness: featureOf('redness', warm, 0), yellowness: featureOf('yellowness', warm, 0) };
    expect(white.redness).toBeGreaterThan(0.5);
    expect(featureOf('redness', warm, 5, white)).toBeCloseTo(0);
    expect(featureOf('yellowness', warm, 5, white)).toBeCloseTo(0);
    expect(featureOf('white is known', warm, 5, white)).toBe(1);
  });
  it('take no colour from what is over-exposed', () => {
    const lamp = of(60, 24, (x) => (x < 30 ? [200, 100, 60] : [255, 255, 255]));
    expect(featureOf('redness within 4.5 mm', lamp, 12 * 60 + 31)).toBeCloseTo(featureOf('redness', lamp, 0), 1);
    expect(featureOf('red at its end', lamp, 12 * 60 + 50)).toBeCloseTo(1);
  });
  it('are finite for any picture', () =>
    fc.assert(
      fc.property(fc.uint8Array({ minLength: 20 * 8 * 4, maxLength: 20 * 8 * 4 }), (bytes) => {
        const { data } = pixelFeatures({ width: 20, height: 8, data: new Uint8ClampedArray(bytes) }, 6, new Float32Array(20), null);
        expect(data.every(Number.isFinite)).toBe(true);
      }),
      { numRuns: 20 },
    ));
});

const net: Network = {
  mean: Float32Array.from([1, -2]),
  spread: Float32Array.from([2, 0.5]),
  layers: [
    { inputs: 2, outputs: 3, weights: Float32Array.from([1, 0, 0, 1, -1, 1]), bias: Float32Array.from([0, 0.5, 0]) },
    { inputs: 3, outputs: 2, weights: Float32Array.from([1, 2, 0, 0, 1, 3]), bias: Float32Array.from([0.1, -0.1]) },
  ],
};

describe('a network', () => {
  it('gives the softmax of its rectified layers', () => {
    const [a, b] = probabilitiesOf(net, { count: 2, data: Float32Array.from([3, -1.5]) });
    // Inputs (1, 1); hidden (1, 1.5, 0); out (1 + 3 + 0.1, 1.5 − 0.1).
    expect(a![0]).toBeCloseTo(1 / (1 + Math.exp(1.4 - 4.1)), 5);
    expect(a![0]! + b![0]!).toBeCloseTo(1, 6);
  });
  it('hears what was said of a pixel, round it and on the whole', () => {
    const features = pixelFeatures(grey, 6, new Float32Array(60).fill(1), null);
    const said = new Float32Array(60 * 24);
    said[12 * 60 + 30] = 1;
    const { count, data } = contextOf(features, [said], 6);
    expect(count).toBe(FEATURE_NAMES.length + contextCount(1));
    const [here, near, far, whole] = data.slice((12 * 60 + 30) * count + FEATURE_NAMES.length, (12 * 60 + 31) * count);
    expect(here).toBe(1);
    expect(near).toBeCloseTo(1 / 121);
    expect(far).toBeLessThan(near!);
    expect(whole).toBeCloseTo(1 / 1440);
  });
});

describe('a kept classifier', () => {
  it('says so when its figures do not fit its layers', () =>
    expect(() => classifierOf({ classes: ['sound', 'void'], hidden: [2], figures: btoa('\0'.repeat(4000)) }, FEATURE_NAMES.length)).toThrow(
      /holds 1000 figures, \d+ are needed/,
    ));
  it.each(['shell', 'journal', 'skirt', 'crown'] as const)('of a %s is whole', (part) => {
    const { classes, stages } = classifierFor(part);
    expect(classes[0]).toBe('sound');
    expect(classes.at(-1)).toBe('void');
    for (const stage of stages) expect(stage.layers.every((l) => l.weights.every(Number.isFinite))).toBe(true);
  });
});

describe('what lies round a surface', () => {
  // A face of 40 by 40 pixels in the middle of a picture of 100: green to its sides, blue beyond its ends.
  const [from, to] = [30, 70];
  const picture = of(100, 100, (x, y) => (y < from || y >= to ? [60, 60, 120] : x < from || x >= to ? [60, 120, 60] : [150, 150, 150]));
  const camera = (shift: number): CameraModel => ({
    widthMm: 20,
    heightMm: 20,
    spanDeg: 180,
    project: (u, v) => [from + 40 * u + shift, to - 40 * v],
    cosine: () => 1,
  });

  it('is told apart by its sides and its ends', () => {
    const { sides, ends, beyond } = surroundingsOf(camera(0), picture);
    expect(sides!.redness).toBeLessThan(-1);
    expect(sides!.yellowness).toBeGreaterThan(1);
    for (const end of [ends, beyond]) {
      expect(end!.redness).toBeCloseTo(0);
      expect(end!.yellowness).toBeLessThan(-1);
    }
  });

  it('is not known where the picture ends before it or is over-exposed', () => {
    expect(surroundingsOf(camera(500), picture)).toEqual({ sides: null, ends: null, beyond: null });
    expect(
      surroundingsOf(
        camera(0),
        of(100, 100, () => [255, 255, 255]),
      ).sides,
    ).toBeNull();
  });

  it('becomes figures of every pixel, the surface itself where it is not known', () => {
    const features = pixelFeatures(grey, 6, new Float32Array(60).fill(1), null, {
      sides: { redness: 0.5, yellowness: 0.25, light: -1 },
      ends: null,
      beyond: null,
    });
    const at = (name: string): number => features.data[SURROUNDED_FEATURES.indexOf(name)]!;
    expect(features.data.length).toBe(60 * 24 * SURROUNDED_FEATURES.length);
    expect(at('redness of its sides')).toBeCloseTo(0.5);
    expect(at('yellowness of its sides')).toBeCloseTo(0.25);
    expect(at('redness of its ends')).toBeCloseTo(0, 1);
  });
});
