import { seeded } from '../../kit/seeded.js';
import type { Pixels } from '../flatten.js';
import { LAYERS, type Layer, type Layered } from './layer.js';
import { readLayers } from './layers.js';
import { neutralColour, seenOf } from './light.js';
import { correctIllumination } from './illumination.js';
import { findLines, type FoundLine } from './lines.js';

// A developed face made up pixel by pixel, 60 × 18 mm: what lies there, how brightly it is lit, and how a camera that clips hands it out.
const PX_PER_MM = 12;
const WIDTH = 60 * PX_PER_MM;
const HEIGHT = 18 * PX_PER_MM;

type Rgb = readonly [number, number, number];
const METAL: Rgb = [0.5, 0.5, 0.5];
const COPPER: Rgb = [0.5, 0.26, 0.13];
const BROWN: Rgb = [0.34, 0.24, 0.165];
const BLACK: Rgb = [0.022, 0.021, 0.02];

interface Face {
  /** Reflectance at a place, mm along the arc and across it. */
  readonly at?: (x: number, y: number) => Rgb;
  /** Light by place along the arc, 1 usual. */
  readonly light?: (x: number) => number;
  readonly cast?: Rgb;
}

function picture({ at = () => METAL, light = () => 1, cast = [1, 1, 1] }: Face): Pixels {
  const random = seeded(7);
  const data = new Uint8ClampedArray(WIDTH * HEIGHT * 4).fill(255);
  for (let y = 0; y < HEIGHT; y++)
    for (let x = 0; x < WIDTH; x++) {
      const grain = 1 + 0.03 * (random() - 0.5);
      const [mm, across] = [(x + 0.5) / PX_PER_MM, (y + 0.5) / PX_PER_MM];
      at(mm, across).forEach((reflected, k) => {
        const linear = Math.min(1, reflected * light(mm) * grain * cast[k as 0 | 1 | 2]);
        data[(y * WIDTH + x) * 4 + k] = 255 * (linear <= 0.0031308 ? 12.92 * linear : 1.055 * linear ** (1 / 2.4) - 0.055);
      });
    }
  return { width: WIDTH, height: HEIGHT, data };
}

function read(face: Face): {
  layered: Layered;
  lines: readonly FoundLine[];
  share: (name: Layer) => number;
  at: (x: number, y: number) => Layer;
} {
  const seen = seenOf(picture(face));
  const lit = correctIllumination(seen, neutralColour(seen)!);
  const layered = readLayers(seen, lit, PX_PER_MM);
  const { layer } = layered;
  return {
    layered,
    lines: findLines(seen, layered, PX_PER_MM, PX_PER_MM),
    share: (name) => layer.reduce((n, l) => n + (LAYERS[l] === name ? 1 : 0), 0) / layer.length,
    at: (x, y) => LAYERS[layer[Math.floor(y * PX_PER_MM) * WIDTH + Math.floor(x * PX_PER_MM)]!]!,
  };
}

/** Light with a lamp's reflection of a half width, mm, round a place. */
const lamp =
  (place: number, half: number, most: number) =>
  (x: number): number =>
    1 + (most - 1) * Math.exp(-(((x - place) / half) ** 4));
const inside = (x: number, y: number, [x0, x1, y0, y1]: readonly [number, number, number, number]): boolean =>
  x >= x0 && x < x1 && y >= y0 && y < y1;

describe('under a lamp that takes red and green to their end', () => {
  const patch = [24, 36, 5, 13] as const;
  const worn = (x: number, y: number): Rgb => (inside(x, y, patch) ? COPPER : METAL);

  it('lining is told by the blue that is left, sound metal beside it is bridged', () => {
    const r = read({ at: worn, light: lamp(30, 6, 4.2) });
    expect(r.at(30, 9)).toBe('lining');
    expect(r.at(30, 2.5)).toBe('sound');
    expect(r.at(30, 15.5)).toBe('sound');
    const truth = (12 * 8) / (60 * 18);
    expect(Math.abs(r.share('lining') - truth)).toBeLessThan(0.02);
  });
  it.each([
    ['warm', [1.1, 1, 0.84]],
    ['cold', [0.9, 1, 1.12]],
  ] as const)('sound metal in %s light is no lining', (_, cast) => {
    const r = read({ light: lamp(30, 6, 3), cast });
    expect(r.share('lining')).toBe(0);
    expect(r.share('heat')).toBe(0);
  });
  it('what is so bright that no channel tells is taken from both sides when they agree, else it is not seen', () => {
    const half = (x: number): Rgb => (x > 30 && x < 45 ? COPPER : METAL);
    const r = read({ at: half, light: lamp(30, 4, 60) });
    expect(r.at(30, 9)).toBe('unseen');
    expect(r.at(42, 9)).toBe('lining');
    expect(read({ light: lamp(30, 4, 60) }).share('unseen')).toBe(0);
  });
});

describe('heat', () => {
  const between = (a: Rgb, b: Rgb, t: number): Rgb => {
    const s = Math.min(1, Math.max(0, t));
    return [0, 1, 2].map((k) => a[k as 0 | 1 | 2] ** (1 - s) * b[k as 0 | 1 | 2] ** s) as unknown as Rgb;
  };
  const heated = (x: number): Rgb => (x < 18 ? between(BLACK, BROWN, (x - 10) / 6) : between(BROWN, METAL, (x - 18) / 8));
  it('is found where it goes from edge to edge, through brown to black', () => {
    const r = read({ at: heated });
    expect(r.at(6, 9)).toBe('heat');
    expect(r.at(17, 9)).toBe('heat');
    expect(r.at(40, 9)).toBe('sound');
    expect(r.share('lining')).toBeLessThan(0.01);
  });
  it('is not what metal mirrors: a dark place with nothing brown beside it, or a brown bench with nothing black', () => {
    expect(read({ light: (x) => (x > 22 && x < 34 ? 0.06 : 1) }).share('heat')).toBe(0);
    const bench = (x: number): Rgb => (x < 16 ? [0.13, 0.1, 0.075] : METAL);
    expect(read({ at: bench }).share('heat')).toBe(0);
  });
});

describe('what lies at the parting lines', () => {
  it('is no finding when it stays there', () => {
    const r = read({ at: (x, y) => (x < 2 && y > 3 && y < 15 ? COPPER : METAL) });
    expect(r.share('lining')).toBe(0);
  });
  it('nor are small patches in the corners, but wear that goes on inwards is', () => {
    expect(read({ at: (x, y) => (x < 4 && y < 1.4 ? COPPER : METAL) }).share('lining')).toBe(0);
    expect(read({ at: (x, y) => (x < 25 && y < 3 ? COPPER : METAL) }).share('lining')).toBeGreaterThan(0.05);
  });
});

describe('lines', () => {
  const groove =
    (colour: Rgb, width: number, from = 10, to = 50) =>
    (x: number, y: number): Rgb =>
      inside(x, y, [from, to, 9 - width / 2, 9 + width / 2]) ? colour : METAL;
  const DARK: Rgb = [0.2, 0.2, 0.2];

  it('a dark groove has not gone through; one with a warmer bottom has, however narrow', () => {
    const dark = read({ at: groove(DARK, 0.3) }).lines;
    expect(dark).toHaveLength(1);
    expect(dark[0]!.through).toBe(false);
    const fine = read({ at: groove([0.24, 0.15, 0.1], 0.25) }).lines;
    expect(fine).toHaveLength(1);
    expect(fine[0]!.through).toBe(true);
  });
  it('a groove that is dark here and down to the lining there is one line', () => {
    const both = (x: number, y: number): Rgb => groove(x < 30 ? DARK : COPPER, x < 30 ? 0.3 : 0.6)(x, y);
    const { lines } = read({ at: both });
    expect(lines).toHaveLength(1);
    expect(lines[0]!.through).toBe(true);
    expect(lines[0]!.toDeg - lines[0]!.fromDeg).toBeGreaterThan(110);
  });
  it('two grooves at one height with half the face between them are two', () => {
    const { lines } = read({ at: (x, y) => (x < 20 || x > 40 ? groove(DARK, 0.3, 8, 52)(x, y) : METAL) });
    expect(lines).toHaveLength(2);
  });
  it('a strip of lining along the edge is edge wear, not a line that went through', () => {
    const r = read({ at: (x, y) => (x > 8 && x < 50 && y < 1.1 ? COPPER : METAL) });
    expect(r.lines).toEqual([]);
    expect(r.share('lining')).toBeGreaterThan(0.02);
  });
});
