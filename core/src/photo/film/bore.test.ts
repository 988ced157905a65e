import { seeded } from '../../kit/seeded.js';
import { boreFrame, handDrawn } from '../../specimen/boreFilm.js';
import { USUAL_SHOT } from '../../specimen/scene.js';
import { surfaceMaps, type SurfaceSpecimen } from '../../specimen/surfaceMaps.js';
import type { Pixels } from '../flatten.js';
import { field } from '../reading/field.js';
import { readBore } from '../reading/readBore.js';
import { boreJson } from '../reading/boreJson.js';
import { endRound } from './boreEnds.js';
import { wallPlace, wallSeen, type ScopePose } from './boreView.js';
import { checkScope, drawnBy } from './checkScope.js';
import { scopeTracker, type ScopeTracker } from './scopeTracker.js';
import { boreStacker, type StackedBore } from './stackBore.js';

const RADIUS = 40;
const BORE: SurfaceSpecimen = {
  seed: 6,
  radiusMm: RADIUS,
  widthMm: 90,
  spanDeg: 360,
  finish: 'honed-iron',
  damages: [
    { kind: 'scuff', arc: 100, halfDeg: 22, from: 0.2, to: 0.9, amount: 1.3 },
    { kind: 'rust', arc: 260, halfDeg: 25, amount: 0.8 },
  ],
};
const SHOT = { ...USUAL_SHOT, width: 400, height: 300, focal: 0.5, exposure: 1, noise: 0.4 };
const FRAMES = 26;
const poses = handDrawn(FRAMES, 1.1, -0.5, { uneven: 0.4, strays: 0.03, tilts: 0.03, rolls: 0.06, exposed: 0.2 }, seeded(8));
const middle = (k: number): ScopePose => poses[k]![1]!;

describe('a borescope drawn out of a bore', () => {
  let frames: Pixels[];
  let tracker: ScopeTracker;
  let bore: StackedBore;
  beforeAll(() => {
    const maps = surfaceMaps(BORE, 1500, 560);
    frames = poses.map((p, k) => boreFrame(BORE, maps, SHOT, p, 60 + k));
    tracker = scopeTracker(90);
    frames.forEach((f, k) => tracker.take(f, k / 10));
    const stacker = boreStacker(tracker, RADIUS, 270)!;
    frames.forEach((f, k) => stacker.take(f, k / 10));
    bore = stacker.finish();
  });

  it('is followed to a fiftieth of its way, wherever it is tilted and rolled', () => {
    expect(checkScope(tracker)).toBeNull();
    const truth = middle(0).depth - middle(FRAMES - 1).depth;
    expect(Math.abs(drawnBy(tracker.frames) - truth)).toBeLessThan(0.02 * truth);
    for (const [k, f] of tracker.frames.entries()) {
      expect(f.alike).toBeGreaterThan(0.6);
      expect(Math.abs(f.pose.depth - (middle(k).depth - middle(0).depth))).toBeLessThan(0.04);
    }
  });

  it('gives the wall all round to scale, its far end found and level', () => {
    expect(bore.ends).toEqual({ near: false, far: true });
    // From the nearest that the corners of the picture saw of a deeper place to the piston below.
    expect(bore.heightMm).toBeGreaterThan(60);
    expect(bore.heightMm).toBeLessThan(90);
    expect(bore.widthMm).toBeCloseTo(2 * Math.PI * RADIUS, 6);
    expect(bore.seenShare).toBeGreaterThan(0.85);
  });

  it('is read like a strip: scuffing and rust at their arcs, a grade, no word of missing outlines', () => {
    const reading = readBore(bore);
    if (!reading.ok) throw new Error(reading.problem.sentence);
    const { map, summary, grade, doubts } = reading.value;
    const at = (name: 'scuffed' | 'rust', fromDeg: number, toDeg: number): number => {
      let [inside, all] = [0, 1e-9];
      map.shares[name].forEach((s, i) => {
        const deg = ((i % map.columns) + 0.5) * (360 / map.columns);
        const v = s * map.seen[i]!;
        all += v;
        if (deg > fromDeg && deg < toDeg) inside += v;
      });
      return inside / all;
    };
    expect(summary.percent.scuffed).toBeGreaterThan(1.5);
    expect(at('scuffed', 70, 130)).toBeGreaterThan(0.7);
    expect(summary.percent.rust).toBeGreaterThan(0.1);
    expect(at('rust', 225, 295)).toBeGreaterThan(0.9);
    expect(grade).not.toBeNull();
    expect(doubts.join(' ')).not.toMatch(/outline/);
  });

  it('takes a length that is known for that of the lens', () => {
    const reading = readBore(bore, 100);
    expect(reading.ok && reading.value.size.widthMm).toBe(100);
  });

  it('says in its answer how the scope was followed', () => {
    const reading = readBore(bore);
    if (!reading.ok) throw new Error(reading.problem.sentence);
    const json = boreJson(reading.value, {
      film: { seconds: 2.6, width: 400, height: 300 },
      bore,
      frames: tracker.frames,
      topDeg: 270,
      fieldOfView: { deg: 90, assumed: true },
      lengthMm: null,
      sizeAssumed: false,
    });
    expect(json).toMatchObject({
      format: 'true-ledger/unroll',
      made: 'drawn',
      part: 'bore',
      drawn: { topFirstFrameDeg: 270, fieldOfViewDeg: 90, fieldOfViewAssumed: true, nearEndSeen: false, farEndSeen: true },
      surface: { fromDeg: 0, toDeg: 360, nearEnd: 'top', lengthGiven: false },
    });
  });

  it('says of a scope that stands still that it did', () => {
    const still = scopeTracker(90);
    for (let k = 0; k < 12; k++) still.take(frames[0]!, k / 10);
    expect(checkScope(still)?.code).toBe('film-still');
  });

  it('is taken up where the wall comes into view, when a film begins with none of it', () => {
    const blank = (seed: number): Pixels => {
      const r = seeded(seed);
      const grey = (): number => 60 + 8 * r();
      return { width: 400, height: 300, data: Uint8ClampedArray.from({ length: 400 * 300 * 4 }, (_, i) => (i % 4 === 3 ? 255 : grey())) };
    };
    const late = scopeTracker(90);
    for (let k = 0; k < 3; k++) late.take(blank(k + 1), k / 10);
    frames.forEach((f, k) => late.take(f, (k + 3) / 10));
    const followed = late.frames.slice(7);
    expect(followed.filter((f) => f.alike > 0.6).length).toBeGreaterThan(0.9 * followed.length);
    const truth = middle(4).depth - middle(FRAMES - 1).depth;
    expect(Math.abs(drawnBy(followed) - truth)).toBeLessThan(0.05 * truth);
  });

  it('says of frames that have nothing to do with each other that the wall could not be followed', () => {
    const r = seeded(2);
    const noise = (): Pixels => ({ width: 160, height: 120, data: Uint8ClampedArray.from({ length: 160 * 120 * 4 }, () => 255 * r()) });
    const lost = scopeTracker(90);
    for (let k = 0; k < 12; k++) lost.take(noise(), k / 10);
    expect(checkScope(lost)?.code).toBe('film-lost');
  });

  it('says of a part that is lighter in its middle that it is no bore', () => {
    const lighter = {
      width: 80,
      height: 60,
      data: Float32Array.from({ length: 4800 }, (_, i) => -Math.hypot((i % 80) - 40, Math.floor(i / 80) - 30) / 20),
    };
    expect(checkScope({ frames: tracker.frames, lamp: () => lighter })?.code).toBe('film-no-bore');
  });

  it('says of a film that is too short that it is, and stacks nothing where no frame was seen', () => {
    expect(checkScope({ ...tracker, frames: tracker.frames.slice(0, 4) })?.code).toBe('film-short');
    expect(boreStacker(scopeTracker(90), RADIUS, 0)).toBeNull();
  });
});

describe('what a scope sees', () => {
  const lens = { width: 640, height: 480, focalPx: 320 };
  const pose: ScopePose = { tilt: [0.05, -0.08], roll: 0.3, off: [0.1, -0.05], depth: 0.7 };

  it('comes back to the same pixel from the wall', () => {
    for (const [x, y] of [
      [20, 30],
      [600, 400],
      [320, 20],
    ] as const) {
      const { arc, depth } = wallSeen(pose, lens)(x, y);
      const p = new Float64Array(2);
      expect(wallPlace(pose, lens)(Math.cos(arc), Math.sin(arc), depth, p)).toBe(true);
      expect(p[0]).toBeCloseTo(x, 6);
      expect(p[1]).toBeCloseTo(y, 6);
    }
  });

  it('is nothing behind the lens', () => {
    expect(wallPlace(pose, lens)(1, 0, -2, new Float64Array(2))).toBe(false);
  });
});

describe('the end of a wall', () => {
  const walled = (end: (x: number) => number, step: number): ReturnType<typeof field> => {
    const light = field(360, 200);
    for (let y = 0; y < 200; y++) for (let x = 0; x < 360; x++) light.data[y * 360 + x] = y < end(x) ? 0 : step;
    return light;
  };

  it('is found where light steps all round, also aslant', () => {
    const slant = (x: number): number => 120 + 14 * Math.sin((2 * Math.PI * x) / 360);
    const found = endRound(walled(slant, -0.5), 60, 190)!;
    for (let x = 0; x < 360; x += 20) expect(Math.abs(found[x]! - slant(x))).toBeLessThan(3);
  });

  it.each([
    ['hardly steps', 0.04, () => 120],
    ['does not go right round', -0.5, (x: number) => (x < 180 ? 120 : 400)],
  ])('is not found where it %s', (_, step, end) => {
    expect(endRound(walled(end, step), 60, 190)).toBeNull();
  });
});
