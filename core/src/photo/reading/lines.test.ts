import { seeded } from '../../kit/seeded.js';
import { layerAt, type Layered } from './layer.js';
import { seenOf } from './light.js';
import { findLines, type FoundLine } from './lines.js';

const PX = 18;
const [WIDTH, HEIGHT] = [50 * PX, 20 * PX];

/** A face of turned grey metal; `look` gives by arc (0–1) and axis (mm from the rear edge) how dark and how copper-coloured it is there. */
function linesOf(
  look: (u: number, mm: number) => { dark?: number; copper?: number },
  more: { lined?: boolean; layer?: string } = {},
): FoundLine[] {
  const r = seeded(5);
  const turned = Float32Array.from({ length: HEIGHT }, () => 0.05 * (r() - 0.5));
  const data = new Uint8ClampedArray(WIDTH * HEIGHT * 4).fill(255);
  for (let y = 0; y < HEIGHT; y++)
    for (let x = 0; x < WIDTH; x++) {
      const { dark = 0, copper = 0 } = look((x + 0.5) / WIDTH, (y + 0.5) / PX);
      const light = 150 * Math.exp((turned[y]! + 0.1 * (r() - 0.5) - dark) / 2.2);
      data.set([light * (1 + 0.1 * copper), light * (1 - 0.2 * copper), light * (1 - 0.45 * copper)], (y * WIDTH + x) * 4);
    }
  const layered: Layered = {
    layer: new Uint8Array(WIDTH * HEIGHT).fill(layerAt((more.layer ?? 'sound') as 'sound')),
    sure: new Float32Array(WIDTH * HEIGHT).fill(1),
    specks: 0,
    crazed: 0,
    net: new Uint8Array(WIDTH * HEIGHT),
    voids: 0,
  };
  return findLines(seenOf({ width: WIDTH, height: HEIGHT, data }), layered, PX, 14, 180, { lined: more.lined ?? true });
}

const groove = (mm: number, at: number, width: number): number => Math.max(0, 1 - (Math.abs(mm - at) / (width / 2)) ** 2);

describe('scores along the run', () => {
  it('are found where they lie, as wide as they are', () => {
    const [line, ...more] = linesOf((u, mm) => ({ dark: u > 0.2 && u < 0.8 ? 0.5 * groove(mm, 8, 0.4) : 0 }));
    expect(more).toEqual([]);
    expect(line!.axial).toBeCloseTo(1 - 8 / 20, 2);
    expect(line!.fromDeg).toBeCloseTo(36, -1);
    expect(line!.toDeg).toBeCloseTo(144, -1);
    expect(line!.widthMm).toBeGreaterThan(0.26);
    expect(line!.widthMm).toBeLessThan(0.5);
    expect(line!.through).toBe(false);
  });
  it('are none where metal is only turned', () => expect(linesOf(() => ({}))).toEqual([]));
  it('are none where a face goes from light to dark, sharply or not', () => {
    expect(linesOf((_, mm) => ({ dark: mm > 9 ? 0.6 : 0 }))).toEqual([]);
    expect(linesOf((_, mm) => ({ dark: 0.6 / (1 + Math.exp((9 - mm) * 2)) }))).toEqual([]);
  });
  it('are none where a soft seam is dark, as between two temper colours', () =>
    expect(linesOf((_, mm) => ({ dark: 0.35 * Math.exp(-(((mm - 9) / 0.7) ** 2)) }))).toEqual([]));
  it('are none where they are short', () =>
    expect(linesOf((u, mm) => ({ dark: u > 0.4 && u < 0.52 ? 0.5 * groove(mm, 8, 0.3) : 0 }))).toEqual([]));
  it('do not hide each other however many they are', () => {
    const at = Array.from({ length: 24 }, (_, k) => 1 + k * 0.77);
    const found = linesOf((_, mm) => ({ dark: at.reduce((sum, a) => sum + 0.5 * groove(mm, a, 0.26), 0) }));
    expect(Math.abs(found.length - at.length)).toBeLessThanOrEqual(1);
  });
  it('go on under glare and across a gap, and are one', () => {
    const found = linesOf((u, mm) => ({ dark: Math.abs(u - 0.5) < 0.08 ? 0 : 0.5 * groove(mm, 8, 0.3) }));
    expect(found).toHaveLength(1);
    expect(found[0]!.toDeg - found[0]!.fromDeg).toBeGreaterThan(150);
  });
  it('went through where the lining shows in them, on parts that have one', () => {
    const stripe = (u: number, mm: number): { copper: number } => ({ copper: u > 0.2 && u < 0.8 && Math.abs(mm - 8) < 0.2 ? 1 : 0 });
    expect(linesOf(stripe).map((l) => l.through)).toEqual([true]);
    expect(linesOf(stripe, { lined: false }).filter((l) => l.through)).toEqual([]);
  });
  it('are not looked for where there is no surface', () =>
    expect(linesOf((_, mm) => ({ dark: 0.5 * groove(mm, 8, 0.4) }), { layer: 'void' })).toEqual([]));
});
