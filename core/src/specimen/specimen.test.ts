import { engineTemplate } from '../engine/templates.js';
import { stationsOf } from '../engine/stations.js';
import { wearMap } from '../damage/wearMap.js';
import { seeded } from '../kit/seeded.js';
import { fractal, lattice, smoothNoise } from './noise.js';
import { temperTint } from './paintOther.js';
import { FORM_NAMES, FORM_SURFACE, RECIPES, recipeSpecimen, SEVERITIES, SPECIMEN_FORMS } from './recipes.js';
import { USUAL_SHOT } from './scene.js';
import { takeRound } from './roundScene.js';
import { MAP_CLASSES, type SurfaceMaps } from './sheet.js';
import { surfaceMaps } from './surfaceMaps.js';

const share = (maps: SurfaceMaps): number =>
  maps.truth.reduce((n, c) => n + (c === 0 || MAP_CLASSES[c] === 'hole' ? 0 : 1), 0) / maps.truth.length;
const texture = (maps: SurfaceMaps): number => [maps.colour, maps.roughness].reduce((s, list) => s + list.reduce((a, v) => a + v, 0), 0);

describe('recipes', () => {
  it('name every pattern once, on a form of the studio', () => {
    expect(new Set(RECIPES.map((r) => r.pattern)).size).toBe(RECIPES.length);
    for (const r of RECIPES) {
      expect(SPECIMEN_FORMS).toContain(r.form);
      expect(FORM_NAMES[r.form]).toBeTruthy();
      expect(FORM_SURFACE[r.form].radiusMm).toBeGreaterThan(0);
    }
    for (const form of SPECIMEN_FORMS) expect(RECIPES.some((r) => r.form === form)).toBe(true);
  });
  it.each(RECIPES.filter((r) => !r.debris).map((r) => [r.pattern, r] as const))(
    '%s paints, and differs from the bare part',
    (_, recipe) => {
      const bare = surfaceMaps({ ...recipeSpecimen(recipe, 2), damages: [] }, 240, 80);
      const painted = SEVERITIES.map((s) => surfaceMaps(recipeSpecimen(recipe, s), 240, 80));
      for (const maps of painted) {
        expect(maps.colour.every((v) => v >= 0 && v < 2)).toBe(true);
        for (const list of [maps.roughness, maps.dull, maps.height]) expect(list.every(Number.isFinite)).toBe(true);
        expect(maps.truth.every((c) => c < MAP_CLASSES.length)).toBe(true);
      }
      expect(texture(painted[1]!)).not.toBe(texture(bare));
      // What covers ground covers more of it, the farther gone it is.
      if (share(painted[2]!) > 0.02 && share(painted[0]!) < 0.8) expect(share(painted[2]!)).toBeGreaterThan(share(painted[0]!));
    },
  );
  it('the same piece is the same surface, another piece another', () => {
    const recipe = RECIPES.find((r) => r.pattern === 'wiping')!;
    const one = (seed: number): Uint8Array => surfaceMaps(recipeSpecimen(recipe, 2, seed), 240, 80).truth;
    expect(one(4)).toEqual(one(4));
    expect(one(4)).not.toEqual(one(5));
  });
});

describe('painting', () => {
  const base = { seed: 3, radiusMm: 25, widthMm: 24, spanDeg: 360, finish: 'ground-steel' as const };
  it('temper colours go straw, brown, purple, blue', () => {
    expect(temperTint(0)).toEqual([1, 1, 1]);
    const [straw, brown, purple, blue] = [0.2, 0.38, 0.6, 0.8].map(temperTint);
    expect(straw![2]).toBeLessThan(straw![1]);
    expect(brown![0] / brown![2]).toBeGreaterThan(2);
    expect(purple![0]).toBeGreaterThan(purple![1]);
    expect(blue![2]).toBeGreaterThan(2 * blue![0]);
  });
  it('a ring of heat goes all the way round and stays at its height', () => {
    const maps = surfaceMaps(
      { ...base, damages: [{ kind: 'temper', arc: 180, halfDeg: 180, axial: 0.5, axialHalf: 0.25, most: 0.9 }] },
      360,
      60,
    );
    const heat = MAP_CLASSES.indexOf('heat');
    for (let x = 0; x < 360; x += 10) {
      expect(maps.truth[30 * 360 + x]).toBe(heat);
      expect(maps.truth[5 * 360 + x]).toBe(0);
    }
  });
  it('what lies round the end of a turn is painted on both sides of it', () => {
    const maps = surfaceMaps(
      { ...base, damages: [{ kind: 'pits', arc: 0, halfDeg: 20, axial: 0.5, axialHalf: 0.3, count: 120, mostMm: 1 }] },
      360,
      60,
    );
    const missing = MAP_CLASSES.indexOf('missing');
    const in0 = maps.truth.filter((c, i) => c === missing && i % 360 < 30).length;
    const in1 = maps.truth.filter((c, i) => c === missing && i % 360 >= 330).length;
    expect(in0).toBeGreaterThan(20);
    expect(in1).toBeGreaterThan(20);
  });
  it('a printed layer is no damage, a hole is a hole', () => {
    const maps = surfaceMaps(
      {
        ...base,
        finish: 'turned-aluminium',
        damages: [{ kind: 'coat', fromDeg: 100, toDeg: 200, from: 0.2, to: 0.8 }],
        hole: { arc: 90, axial: 0.5, diameterMm: 6 },
      },
      360,
      60,
    );
    expect(share(maps)).toBe(0);
    expect(maps.truth[30 * 360 + 90]).toBe(MAP_CLASSES.indexOf('hole'));
    expect(maps.dull[30 * 360 + 150]).toBeGreaterThan(0.4);
  });
  it('a wear map of a journal becomes temper colours and bronze, not copper lining', () => {
    const frame = stationsOf(engineTemplate('inline-4-petrol')!.layout).find((s) => s.part === 'journal')!.surface!;
    const stroke = (cls: 'heat' | 'transfer', u: number) => ({
      id: cls,
      shape: 'stroke' as const,
      class: cls,
      points: [
        [u, 0.2],
        [u, 0.8],
      ] as const,
      radiusMm: 8,
      made: 'found-so' as const,
    });
    const map = wearMap(frame, [stroke('heat', 0.3), stroke('transfer', 0.7)]);
    const maps = surfaceMaps({ ...base, damages: [{ kind: 'wear', map }] }, 360, 60);
    const found = new Set([...maps.truth].map((c) => MAP_CLASSES[c]));
    expect(found.has('transfer')).toBe(true);
    expect(found.has('heat')).toBe(true);
    expect(found.has('lining')).toBe(false);
  });
});

describe('noise', () => {
  it('is the same for the same seed and stays within its range', () => {
    const a = seeded(9);
    const b = seeded(9);
    for (let k = 0; k < 200; k++) {
      const v = a();
      expect(v).toBe(b());
      expect(v >= 0 && v < 1).toBe(true);
      for (const n of [lattice(k, 3, 1), smoothNoise(k / 7, 2.5, 1), fractal(k / 5, 1.2, 4)]) expect(Math.abs(n)).toBeLessThanOrEqual(1);
    }
  });
});

describe('the round scene', () => {
  it('shows what faces the camera and hides what does not', () => {
    const specimen = { seed: 3, radiusMm: 25, widthMm: 24, spanDeg: 360, finish: 'ground-steel' as const, damages: [] };
    const taken = takeRound(specimen, surfaceMaps(specimen, 360, 60), { ...USUAL_SHOT, width: 160, height: 120, fill: 0.4 }, 'journal', 90);
    expect(taken.cosine(90, 0.5)).toBeGreaterThan(0.95);
    expect(taken.cosine(270, 0.5)).toBe(0);
    const [x, y] = taken.project(90, 0.5);
    expect(Math.hypot(x - 80, y - 60)).toBeLessThan(12);
    // The front end lies below, the arc grows to the right.
    expect(taken.project(90, 0)[1]).toBeGreaterThan(taken.project(90, 1)[1]);
    expect(taken.project(120, 0.5)[0]).toBeGreaterThan(taken.project(60, 0.5)[0]);
    const colours = new Set<number>();
    for (let i = 0; i < taken.pixels.data.length; i += 4) colours.add(taken.pixels.data[i]!);
    expect(colours.size).toBeGreaterThan(60);
  });
});
