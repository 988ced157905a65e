import { takeFlat, type FlatForm } from '../../specimen/flatScene.js';
import { USUAL_SHOT } from '../../specimen/scene.js';
import { surfaceMaps, type SurfaceSpecimen } from '../../specimen/surfaceMaps.js';
import { findDisc } from './outlineDisc.js';

const SHOT = { ...USUAL_SHOT, width: 400, height: 300, fill: 0.55, tiltDeg: 6, tiltTowardsDeg: 40, bench: 'concrete' as const };
const CROWN: SurfaceSpecimen = { seed: 3, radiusMm: 43, widthMm: 86, acrossMm: 86, spanDeg: 180, finish: 'cast-aluminium', damages: [] };
const WASHER: SurfaceSpecimen = { seed: 4, radiusMm: 32, widthMm: 8, spanDeg: 360, finish: 'overlay', damages: [] };

const taken = (form: FlatForm): ReturnType<typeof takeFlat> =>
  takeFlat(form === 'disc' ? CROWN : WASHER, surfaceMaps(form === 'disc' ? CROWN : WASHER, 300, 120), SHOT, form);

describe('a round flat face is found in its picture', () => {
  it.each([
    ['crown', 'disc'],
    ['thrust', 'ring'],
  ] as const)('a %s by its ellipse', (part, form) => {
    const { pixels, corners } = taken(form);
    const found = findDisc(part, pixels);
    if (!found.ok) throw new Error(found.problem.sentence);
    const middle = (c: typeof corners): readonly number[] => [0, 1].map((k) => c.reduce((s, p) => s + p[k as 0 | 1], 0) / 4);
    const side = Math.hypot(corners[3]![0] - corners[0]![0], corners[3]![1] - corners[0]![1]);
    const [a, b] = [middle(found.value), middle(corners)];
    expect(Math.hypot(a[0]! - b[0]!, a[1]! - b[1]!)).toBeLessThan(0.025 * side);
    const own = Math.hypot(found.value[3]![0] - found.value[0]![0], found.value[3]![1] - found.value[0]![1]);
    expect(Math.abs(own / side - 1)).toBeLessThan(0.05);
  });

  it('but no ring without a hole, and nothing that reaches out of the picture', () => {
    const whole = findDisc('thrust', taken('disc').pixels);
    expect(whole.ok ? '' : whole.problem.code).toBe('outline-not-found');
    const cut = takeFlat(CROWN, surfaceMaps(CROWN, 300, 120), { ...SHOT, fill: 1.2 }, 'disc');
    const found = findDisc('crown', cut.pixels);
    expect(found.ok ? '' : found.problem.sentence).toMatch(/No crown was found/);
  });
});
