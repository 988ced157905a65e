import { takeFlat, type FlatForm } from '../../specimen/flatScene.js';
import { USUAL_SHOT } from '../../specimen/scene.js';
import { surfaceMaps, type SurfaceSpecimen } from '../../specimen/surfaceMaps.js';
import { hideBorder } from './frameChecks.js';
import { findDisc } from './outlineDisc.js';
import { readSurface } from './readSurface.js';

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

  it('but no crown with the hole of a washer', () => {
    const found = findDisc('crown', taken('ring').pixels);
    expect(found.ok ? '' : found.problem.code).toBe('outline-not-found');
  });

  it('but no ring without a hole, and nothing that reaches out of the picture', () => {
    const whole = findDisc('thrust', taken('disc').pixels);
    expect(whole.ok ? '' : whole.problem.code).toBe('outline-not-found');
    const cut = takeFlat(CROWN, surfaceMaps(CROWN, 300, 120), { ...SHOT, fill: 1.2 }, 'disc');
    const found = findDisc('crown', cut.pixels);
    expect(found.ok ? '' : found.problem.sentence).toMatch(/No crown was found/);
  });
});

describe('a crown is read from its picture', () => {
  it('for its deposit and what is missing of it, and gets no grade', () => {
    const burnt: SurfaceSpecimen = {
      ...CROWN,
      damages: [
        { kind: 'deposit', arc: 90, halfDeg: 150, axial: 0.5, axialHalf: 0.85, amount: 0.9 },
        { kind: 'gone', arc: 100, axial: 0.55, radiusMm: 10, ragged: 0.1 },
      ],
    };
    const { pixels, corners } = takeFlat(burnt, surfaceMaps(burnt, 800, 800), { ...SHOT, width: 1000, height: 750 }, 'disc');
    const r = readSurface('crown', pixels, corners, { radiusMm: 43, widthMm: null });
    if (!r.ok) throw new Error(r.problem.sentence);
    const { summary, grade, doubts, reason, features, lines } = r.value;
    expect(summary.percent.deposit).toBeGreaterThan(40);
    expect(summary.percent.missing).toBeGreaterThan(1);
    expect(summary.percent.missing).toBeLessThan(12);
    // The corners of its square are no face that was not seen.
    expect(summary.seenPercent).toBeGreaterThan(92);
    expect(lines).toEqual([]);
    expect(features.arcCentreDeg).toBeNull();
    expect(grade).toBeNull();
    expect(reason).toMatch(/No grade is proposed/);
    expect(doubts.join(' ')).toMatch(/Crowns are told only coarsely/);
  });
});

describe('the border of what was found without help', () => {
  it('is not read; the two sides of a whole turn are one place and no border', () => {
    const left = (allRound: boolean): { side: number; end: number } => {
      const there = new Uint8Array(100 * 60).fill(1);
      hideBorder(there, 100, 60, allRound);
      return { side: there[30 * 100]!, end: there[50]! };
    };
    expect(left(false)).toEqual({ side: 0, end: 0 });
    expect(left(true)).toEqual({ side: 1, end: 0 });
  });
});
