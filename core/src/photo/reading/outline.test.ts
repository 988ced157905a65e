import type { Damage } from '../../specimen/damages.js';
import { takeRound, type RoundForm } from '../../specimen/roundScene.js';
import { USUAL_SHOT, type Shot } from '../../specimen/scene.js';
import { takeShell, type ShotPicture } from '../../specimen/shellScene.js';
import { surfaceMaps, type ShellSpecimen } from '../../specimen/surfaceMaps.js';
import type { Pixels } from '../flatten.js';
import type { Point } from '../homography.js';
import { findShell } from './outline.js';

const SHOT: Shot = { ...USUAL_SHOT, seed: 5, width: 640, height: 480, fill: 0.6 };

function take(change: Partial<Shot>, damages: readonly Damage[] = [], widthMm = 20): ShotPicture {
  const specimen: ShellSpecimen = { seed: 3, radiusMm: 26, widthMm, damages };
  return takeShell(specimen, surfaceMaps(specimen, 720, 240), { ...SHOT, ...change });
}

/** How far the corner that is furthest off lies from its place, share of the length. */
function offBy(found: readonly Point[], corners: readonly Point[]): number {
  const length = Math.hypot(corners[0]![0] - corners[3]![0], corners[0]![1] - corners[3]![1]);
  return Math.max(...found.map((p, i) => Math.hypot(p[0] - corners[i]![0], p[1] - corners[i]![1]))) / length;
}

function found(picture: Pixels): readonly Point[] {
  const r = findShell(picture);
  if (!r.ok) throw new Error(r.problem.sentence);
  return r.value;
}

/** A white card with four patches laid into the picture, upright, its left top corner here. */
function withCard({ width, height, data }: Pixels, left: number, top: number, wide: number): Pixels {
  const out = Uint8ClampedArray.from(data);
  const high = Math.round(wide * 0.62);
  const patches = [
    [235, 235, 232],
    [128, 128, 128],
    [52, 52, 54],
    [196, 124, 62],
  ] as const;
  for (let y = Math.max(0, top); y < Math.min(height, top + high); y++)
    for (let x = Math.max(0, left); x < Math.min(width, left + wide); x++) {
      const [u, v] = [((x - left) / wide) * 4.6 - 0.3, (y - top) / high];
      const patch = v > 0.22 && v < 0.8 && u > 0 && u < 4 && u % 1 < 0.85 ? patches[Math.floor(u)]! : ([240, 240, 238] as const);
      out.set([...patch, 255], (y * width + x) * 4);
    }
  return { width, height, data: out };
}

describe('outline of a half shell, found without help', () => {
  it.each<[string, Partial<Shot>, Damage[], number]>([
    [
      'on cloth of another colour, wiped to the lining',
      { bench: 'cloth', benchColour: [0.42, 0.12, 0.11], rollDeg: 9 },
      [{ kind: 'wipe', arc: 80, halfDeg: 40, amount: 1 }],
      22,
    ],
    ['on grey steel, as light as the part', { bench: 'steel', benchColour: [0.4, 0.4, 0.43], rollDeg: -12 }, [], 20],
    ['on concrete, leaning away', { bench: 'concrete', benchColour: [0.36, 0.35, 0.34], tiltDeg: 13, tiltTowardsDeg: 90 }, [], 16],
    [
      'on wood, leaning to its side, blackened over one end',
      { bench: 'wood', benchColour: [0.4, 0.28, 0.17], tiltDeg: 12, tiltTowardsDeg: 0 },
      [{ kind: 'heat', arc: 165, halfDeg: 90, most: 1.2 }],
      25,
    ],
  ])('lies within 5 % of its corners: %s', (_, change, damages, widthMm) => {
    const shot = take(change, damages, widthMm);
    expect(offBy(found(shot.pixels), shot.corners)).toBeLessThan(0.05);
  });

  it('is not drawn to a card that lies beside the part', () => {
    const shot = take({ fill: 0.45, bench: 'wood', benchColour: [0.4, 0.28, 0.17] });
    const lowest = Math.max(...shot.corners.map((p) => p[1]));
    const picture = withCard(shot.pixels, 30, Math.round(lowest + 40), 190);
    expect(offBy(found(picture), shot.corners)).toBeLessThan(0.05);
  });

  it('is the same when the light has a cast and when the picture is twice as large', () => {
    const shot = take({ rollDeg: 8 });
    const warm = shot.pixels.data.map((v, i) => (i % 4 === 0 ? v * 1.12 : i % 4 === 2 ? v * 0.86 : v));
    expect(offBy(found({ ...shot.pixels, data: warm }), shot.corners)).toBeLessThan(0.05);
    const large = take({ rollDeg: 8, width: 1280, height: 960 });
    expect(offBy(found(large.pixels), large.corners)).toBeLessThan(0.05);
  });

  it('has a second guess that comes another way, and says when there is none', () => {
    const shot = take({ rollDeg: 14 }, [{ kind: 'wipe', arc: 80, halfDeg: 40, amount: 1 }], 22);
    const second = findShell(shot.pixels, 2);
    if (!second.ok) throw new Error(second.problem.sentence);
    expect(offBy(second.value, shot.corners)).toBeLessThan(0.08);
    expect(second.value).not.toEqual(found(shot.pixels));
    const blank = { width: 400, height: 300, data: new Uint8ClampedArray(480_000).fill(128) };
    const none = findShell(blank, 2);
    expect(none).toMatchObject({ ok: false, problem: { code: 'outline-not-found' } });
    if (!none.ok) expect(none.problem.sentence).toContain('no other guess');
  });

  it('is not found on a bench alone, in a blank or in a picture that is too small, and says what to do', () => {
    const bench = take({ fill: 0.02, bench: 'wood', benchColour: [0.4, 0.28, 0.17] });
    const blank = { width: 400, height: 300, data: new Uint8ClampedArray(480_000).fill(128) };
    const card = withCard(blank, 60, 60, 260);
    for (const picture of [bench.pixels, blank, card]) {
      const r = findShell(picture);
      expect(r).toMatchObject({ ok: false, problem: { code: 'outline-not-found', field: 'corners' } });
      if (!r.ok) expect(r.problem.sentence).toContain('Mark its four corners');
    }
    expect(findShell({ width: 40, height: 30, data: new Uint8ClampedArray(4800) })).toMatchObject({
      ok: false,
      problem: { code: 'picture-small' },
    });
  });

  it.each<[RoundForm, number]>([
    ['journal', 7],
    ['journal', 10],
    ['piston', 8],
    ['piston', 9],
  ])('is not laid over a %s (piece %d), which is round from outside', (form, seed) => {
    const specimen = { seed, radiusMm: 30, widthMm: 24, spanDeg: 360, finish: 'ground-steel' as const, damages: [] };
    const shot = { ...SHOT, seed, rollDeg: ((seed * 5) % 17) - 8, fill: form === 'journal' ? 0.4 : 0.5 };
    const { pixels } = takeRound(specimen, surfaceMaps(specimen, 720, 120), shot, form, 180);
    expect(findShell(pixels)).toMatchObject({ ok: false, problem: { code: 'outline-not-found' } });
  });
});
