import { stationsOf } from '../../engine/stations.js';
import { engineTemplate } from '../../engine/templates.js';
import type { Damage } from '../../specimen/damages.js';
import { takeShell } from '../../specimen/shellScene.js';
import { takeRound, type RoundForm, type RoundPicture } from '../../specimen/roundScene.js';
import { USUAL_SHOT } from '../../specimen/scene.js';
import { MAP_CLASSES, type SurfaceMaps } from '../../specimen/sheet.js';
import { surfaceMaps, type SurfaceSpecimen } from '../../specimen/surfaceMaps.js';
import { develop } from '../flatten.js';
import type { Point } from '../homography.js';
import { roundPoint, roundPose } from '../roundPose.js';
import { toPicture, toSurface } from '../mesh.js';
import { discCamera, flatCamera, ringCamera } from '../cameraModel.js';
import { roundPoseByRun } from './focal.js';
import { findOutline } from './findOutline.js';
import { fromPicture, inPicture, onFrame, showsPieceOfTurn, sizeFromFrame, type Turn } from './onFrame.js';
import { readPicture } from './readPicture.js';
import { readSurface } from './readSurface.js';
import { cameraModelOf } from './cameraModelOf.js';
import type { SurfaceReading } from './surfaceReading.js';

const FACING = 180;
const JOURNAL: SurfaceSpecimen = { seed: 7, radiusMm: 25, widthMm: 24, spanDeg: 360, finish: 'ground-steel', damages: [] };
const PISTON: SurfaceSpecimen = { seed: 9, radiusMm: 43, widthMm: 36, spanDeg: 360, finish: 'turned-aluminium', damages: [] };

const known = new Map<string, { picture: RoundPicture; maps: SurfaceMaps }>();
function take(form: RoundForm, damages: readonly Damage[]): { picture: RoundPicture; maps: SurfaceMaps } {
  const key = form + JSON.stringify(damages);
  const before = known.get(key);
  if (before) return before;
  const specimen = { ...(form === 'journal' ? JOURNAL : PISTON), damages };
  const maps = surfaceMaps(specimen, 2400, 400);
  const shot = {
    ...USUAL_SHOT,
    seed: 12,
    width: 600,
    height: 450,
    focal: 1.6,
    fill: form === 'journal' ? 0.4 : 0.5,
    tiltDeg: 5,
    tiltTowardsDeg: 100,
    rollDeg: 6,
    benchColour: [0.32, 0.31, 0.3] as const,
    bench: 'concrete' as const,
  };
  const made = { picture: takeRound(specimen, maps, shot, form, FACING), maps };
  known.set(key, made);
  return made;
}
function read(form: RoundForm, damages: readonly Damage[]): SurfaceReading {
  const { picture } = take(form, damages);
  const r = readSurface(form === 'journal' ? 'journal' : 'skirt', picture.pixels, picture.corners, {
    radiusMm: form === 'journal' ? 25 : 43,
    widthMm: null,
  });
  if (!r.ok) throw new Error(r.problem.sentence);
  return r.value;
}
/** True percent of a class over what the camera sees. */
function truth(form: RoundForm, damages: readonly Damage[], name: (typeof MAP_CLASSES)[number]): number {
  const { picture, maps } = take(form, damages);
  let [n, of] = [0, 0];
  for (let y = 0; y < maps.rows; y += 3)
    for (let x = 0; x < maps.columns; x += 3) {
      const arc = ((x + 0.5) / maps.columns) * 360;
      if (Math.abs(arc - FACING) > 90 || picture.cosine(arc, (y + 0.5) / maps.rows) < 0.2) continue;
      of++;
      if (maps.truth[y * maps.columns + x] === MAP_CLASSES.indexOf(name)) n++;
    }
  return (100 * n) / of;
}

const SCORES: Damage[] = [0.2, 0.45, 0.75].map((axial) => ({ kind: 'score', axial, fromDeg: 0, toDeg: 360, widthMm: 0.4, through: false }));
const RING: Damage[] = [{ kind: 'temper', arc: 180, halfDeg: 180, axial: 0.5, axialHalf: 0.3, most: 0.85 }];
const SMEAR: Damage[] = [{ kind: 'transfer', arc: 180, halfDeg: 40, axial: 0.5, axialHalf: 0.25, cover: 0.4, metal: 'bronze' }];
const RUSTY: Damage[] = [{ kind: 'rust', arc: 175, halfDeg: 50, amount: 0.6 }];
const SCUFF: Damage[] = [{ kind: 'scuff', arc: 175, halfDeg: 22, from: 0.1, to: 0.8, amount: 1.1 }];
const COAT: Damage[] = [{ kind: 'coat', fromDeg: 145, toDeg: 215, from: 0.1, to: 0.9 }];

describe('the pose of a round part', () => {
  const pose = { focalPx: 1500, centre: [480, 360] as Point };
  it('is found from its four corners at the right tilt', () => {
    const { picture } = take('journal', SCORES);
    const found = roundPoseByRun(picture.corners, picture.pixels, 25);
    if (!found.ok) throw new Error(found.problem.sentence);
    expect(found.value.widthMm).toBeGreaterThan(23);
    expect(found.value.widthMm).toBeLessThan(25);
    expect(found.value.misfitPx).toBeLessThan(1);
    // A score is found at the height at which it was cut, on both sides alike.
    for (const phi of [-50, 0, 50]) {
      const [x, y] = roundPoint(found.value, phi, 0.45);
      const [tx, ty] = picture.project(FACING + phi, 0.45);
      expect(Math.hypot(x - tx, y - ty)).toBeLessThan(9);
    }
  });
  it('takes a misfit of nothing for corners it made itself', () => {
    const corners: Point[] = [
      [380, 480],
      [380, 240],
      [580, 240],
      [580, 480],
    ];
    const first = roundPose(corners, pose.centre, 25, pose.focalPx, 0);
    if (!first.ok) throw new Error(first.problem.sentence);
    const { limitDeg } = first.value;
    const own = (
      [
        [-1, 0],
        [-1, 1],
        [1, 1],
        [1, 0],
      ] as const
    ).map(([side, v]) => roundPoint(first.value, side * limitDeg, v));
    const again = roundPose(own, pose.centre, 25, pose.focalPx, 0);
    expect(again.ok && again.value.misfitPx).toBeLessThan(1e-3);
    expect(again.ok && again.value.widthMm).toBeCloseTo(first.value.widthMm, 3);
  });
  it.each([
    ['crossed', [0, 2, 1, 3], 'corners-crossed'],
    ['mirrored', [3, 2, 1, 0], 'corners-mirrored'],
  ])('refuses %s corners', (_, order, code) => {
    const c: Point[] = [
      [380, 480],
      [380, 240],
      [580, 240],
      [580, 480],
    ];
    const r = roundPose(
      order.map((k) => c[k]!),
      pose.centre,
      25,
      pose.focalPx,
      0,
    );
    expect(r.ok ? '' : r.problem.code).toBe(code);
  });
});

describe('a journal is read from its picture', () => {
  it('finds nothing on a sound one', () => {
    const r = read('journal', []);
    for (const c of ['heat', 'transfer', 'rust', 'scuffed'] as const) expect(r.summary.percent[c]).toBe(0);
    expect(r.lines).toEqual([]);
    expect(r.grade).toBe(0);
  });
  it('counts scores at their heights', () => {
    const r = read('journal', SCORES);
    expect(r.lines.map((l) => Math.round(l.axial * 20) / 20).sort()).toEqual([0.2, 0.45, 0.75]);
    expect(r.grade).toBe(2);
    expect(r.features.linesPercent).toBeGreaterThan(2);
  });
  it('tells one blued from end to end and all round by the cheeks beside it', () => {
    const r = read('journal', [{ kind: 'temper', arc: FACING, halfDeg: 180, axial: 0.5, axialHalf: 0.9, most: 0.9 }]);
    expect(r.summary.percent.heat).toBeGreaterThan(90);
    expect(r.grade).toBe(4);
  });
  it('measures a ring of temper colours past golden brown, and does not take straw for transfer', () => {
    const r = read('journal', RING);
    expect(Math.abs(r.summary.percent.heat - truth('journal', RING, 'heat'))).toBeLessThan(4);
    expect(r.summary.percent.transfer).toBeLessThan(0.5);
    expect(r.grade).toBe(3);
  });
  it('tells bronze from rust', () => {
    const bronze = read('journal', SMEAR);
    expect(Math.abs(bronze.summary.percent.transfer - truth('journal', SMEAR, 'transfer'))).toBeLessThan(4);
    expect(bronze.summary.percent.rust).toBeLessThan(0.5);
    const rust = read('journal', RUSTY);
    expect(rust.summary.percent.rust).toBeGreaterThan(0.5 * truth('journal', RUSTY, 'rust'));
    expect(rust.summary.percent.transfer).toBeLessThan(0.3 * rust.summary.percent.rust);
    // There is no lining to go through to, and what is warm is a smear or rust.
    for (const r of [bronze, rust]) expect(r.lines.filter((l) => l.through)).toEqual([]);
  });
});

describe('a skirt is read from its picture', () => {
  it('finds nothing on a sound one, and takes a printed layer for no damage', () => {
    expect(read('piston', []).summary.percent.scuffed).toBe(0);
    expect(read('piston', COAT).summary.percent.scuffed).toBeLessThan(0.5);
  });
  it('measures scuffing within four points, at its arc', () => {
    const r = read('piston', SCUFF);
    expect(Math.abs(r.summary.percent.scuffed - truth('piston', SCUFF, 'scuffed'))).toBeLessThan(4);
    expect(Math.abs(r.features.arcCentreDeg! - 85)).toBeLessThan(12);
    expect(r.reason).toMatch(/scuffed over \d+ % of the arc/);
  });
});

describe('the wrong part', () => {
  it('a half shell taken for a journal or a skirt is told by the bow of its ends, and gets no grade', () => {
    const specimen = { seed: 6, radiusMm: 25, widthMm: 20, damages: [{ kind: 'wipe', arc: 90, halfDeg: 30, amount: 1 }] as const };
    const taken = takeShell(specimen, surfaceMaps(specimen, 720, 240), { ...USUAL_SHOT, width: 800, height: 600 });
    for (const part of ['journal', 'skirt'] as const) {
      const r = readSurface(part, taken.pixels, taken.corners, { radiusMm: 25, widthMm: null });
      if (!r.ok) throw new Error(r.problem.sentence);
      expect(r.value.grade).toBeNull();
      expect(r.value.reason).toMatch(/ends bow as those of a hollow half/);
    }
    const right = readSurface('shell', taken.pixels, taken.corners, { radiusMm: 25, widthMm: 20 });
    expect(right.ok && right.value.doubts.join(' ')).not.toMatch(/ends bow/);
  });
  it('a journal taken for a half shell is doubted', () => {
    const { picture } = take('journal', SCORES);
    const r = readSurface('shell', picture.pixels, picture.corners, { radiusMm: 25, widthMm: 24 });
    expect(r.ok ? r.value.doubts.join(' ') : r.problem.sentence).toMatch(
      /ends bow as those of a round part|corners do not lie|No bare metal/,
    );
  });
});

describe('a piston is found in its picture', () => {
  it('by its sides, its foot and the lowest groove, near enough to be read', () => {
    // On a bench of another colour than the metal; on grey concrete it is a guess.
    const specimen = { ...PISTON, damages: SCUFF };
    const shot = { ...USUAL_SHOT, seed: 5, width: 900, height: 675, focal: 1.6, fill: 0.46, tiltDeg: 4, tiltTowardsDeg: 80, rollDeg: 5 };
    const picture = takeRound(specimen, surfaceMaps(specimen, 1200, 240), shot, 'piston', FACING);
    const found = findOutline('skirt', picture.pixels);
    if (!found.ok) throw new Error(found.problem.sentence);
    const wide = Math.hypot(picture.corners[3]![0] - picture.corners[0]![0], picture.corners[3]![1] - picture.corners[0]![1]);
    found.value.forEach(([x, y], k) =>
      expect(Math.hypot(x - picture.corners[k]![0], y - picture.corners[k]![1])).toBeLessThan(0.16 * wide),
    );
    const r = readSurface('skirt', picture.pixels, found.value, { radiusMm: 43, widthMm: null }, { cornersProposed: true });
    expect(r.ok && r.value.doubts.join(' ')).toMatch(/corners were found without help/);
  });
  it('is not found where there is none, and other parts are marked by hand', () => {
    const plain = { width: 400, height: 300, data: new Uint8ClampedArray(400 * 300 * 4).fill(120) };
    for (const [part, code] of [
      ['skirt', 'outline-not-found'],
      ['journal', 'outline-not-found'],
      ['crown', 'outline-not-found'],
      ['thrust', 'outline-not-found'],
      ['bore', 'corners-missing'],
    ] as const) {
      const r = findOutline(part, plain);
      expect(r.ok ? '' : r.problem.code).toBe(code);
    }
    for (const part of ['skirt', 'journal', 'crown', 'thrust'] as const) {
      const tiny = findOutline(part, { width: 20, height: 20, data: new Uint8ClampedArray(1600) });
      expect(tiny.ok ? '' : tiny.problem.code).toBe('picture-small');
    }
  });
});

describe('which arc of a journal faces the camera', () => {
  const pin = stationsOf(engineTemplate('inline-4-petrol')!.layout).find((s) => s.part === 'journal')!;
  const doubts = (turn: Turn | null): string => {
    const { picture } = take('journal', []);
    const task = { sha256: '0'.repeat(64), corners: picture.corners, original: picture.pixels, part: 'journal' as const };
    const r = readPicture(picture.pixels, { ...task, frame: pin.surface!, turn, construction: 'trimetal' });
    return r.ok ? r.value.read.doubts.join(' ') : r.problem.sentence;
  };
  it('is doubted for as long as nobody said it', () => {
    expect(doubts(null)).toMatch(/Which arc faces the camera nobody said: 180° is taken/);
    expect(doubts({ facingDeg: 90, arcDeg: 90 })).not.toMatch(/Which arc/);
  });
});

describe('a journal is found in its picture', () => {
  it('between its cheeks, near enough to be read', () => {
    const blued: Damage = { kind: 'temper', arc: FACING, halfDeg: 180, axial: 0.5, axialHalf: 0.35, most: 0.85 };
    const { picture } = take('journal', [blued]);
    const found = findOutline('journal', picture.pixels);
    if (!found.ok) throw new Error(found.problem.sentence);
    const [a, , , d] = picture.corners;
    const long = Math.hypot(d![0] - a![0], d![1] - a![1]);
    // Which end is the front one nobody can see.
    const off = [0, 2].map((turn) =>
      Math.max(
        ...picture.corners.map((p, k) => Math.hypot(p[0] - found.value[(k + turn) % 4]![0], p[1] - found.value[(k + turn) % 4]![1])),
      ),
    );
    expect(Math.min(...off)).toBeLessThan(0.1 * long);
    const r = readSurface('journal', picture.pixels, found.value, { radiusMm: 25, widthMm: null }, { cornersProposed: true });
    expect(r.ok && r.value.summary.percent.heat).toBeGreaterThan(10);
    // Another guess lies elsewhere, or there is none.
    const other = findOutline('journal', picture.pixels, 2);
    const apart = other.ok
      ? Math.max(...other.value.map((p, k) => Math.hypot(p[0] - found.value[k]![0], p[1] - found.value[k]![1])))
      : Infinity;
    expect(apart).toBeGreaterThan(0.1 * long);
  });
});

describe('flat faces', () => {
  const square: Point[] = [
    [100, 500],
    [100, 100],
    [500, 100],
    [500, 500],
  ];
  it('a ring is rolled out from its top, clockwise, from the inner edge outwards', () => {
    const r = ringCamera(square, 30, 24);
    if (!r.ok) throw new Error(r.problem.sentence);
    expect(r.value.project(0, 1)[0]).toBeCloseTo(300, 3);
    expect(r.value.project(0, 1)[1]).toBeCloseTo(100, 3);
    expect(r.value.project(0.25, 1)[0]).toBeCloseTo(500, 3);
    expect(r.value.project(0.25, 0)[0]).toBeCloseTo(300 + (200 * 24) / 30, 3);
    expect(r.value.cosine(0.3, 0.5)).toBeCloseTo(1, 2);
    expect(ringCamera(square, 30, 31).ok).toBe(false);
  });
  it('outside its circle a crown is no surface, and a leaning face says how much it leans', () => {
    const crown = discCamera(square, 80);
    if (!crown.ok) throw new Error(crown.problem.sentence);
    expect(crown.value.cosine(0.02, 0.02)).toBe(0);
    expect(crown.value.cosine(0.5, 0.5)).toBeCloseTo(1, 2);
    const leaning = flatCamera(
      square.map(([x, y]): Point => [x, 300 + (y - 300) * 0.5]),
      80,
      80,
    );
    expect(leaning.ok && leaning.value.cosine(0.5, 0.5)).toBeCloseTo(0.5, 2);
  });
  it('a face that is not in the picture is transparent there', () => {
    const r = flatCamera(
      square.map(([x, y]): Point => [x - 300, y]),
      80,
      80,
    );
    if (!r.ok) throw new Error(r.problem.sentence);
    const flat = develop(r.value, { width: 600, height: 600, data: new Uint8ClampedArray(600 * 600 * 4).fill(200) }, 100, 10, 10);
    expect(flat.pixels.data[3]).toBe(0);
    expect(flat.notSeenPercent).toBeGreaterThan(30);
  });
});

describe('a picture on the frame of its place', () => {
  const layout = engineTemplate('inline-4-petrol')!.layout;
  const frameOf = (part: string) => stationsOf(layout).find((s) => s.part === part)!.surface!;
  it('a journal fills the half turn that faced the camera, over the end of the turn too', () => {
    const frame = frameOf('journal');
    const r = read('journal', SCORES);
    const kept = onFrame(r, 'journal', frame, { facingDeg: 350, arcDeg: 90 }, 'a'.repeat(64));
    expect(kept.columns).toBe(frame.columns);
    expect(kept.seen[Math.floor(frame.columns / 2)]).toBe(0);
    expect(kept.seen[6 * frame.columns + frame.columns - 1]).toBe(100);
    expect(kept.seen[6 * frame.columns]).toBe(100);
    // Each score runs over 0° and is kept as two lines.
    expect(kept.lines.length).toBeGreaterThan(r.lines.length);
    for (const l of kept.lines) expect(l.toDeg).toBeLessThanOrEqual(360);
  });
  it('a place goes to the picture and back again, on every part', () => {
    const corners: Point[] = [
      [200, 480],
      [215, 160],
      [505, 150],
      [520, 490],
    ];
    const picture = { width: 720, height: 640, data: new Uint8ClampedArray(720 * 640 * 4).fill(120) };
    for (const part of ['shell', 'journal', 'skirt', 'bore', 'thrust'] as const) {
      const frame = frameOf(part);
      const turn = { facingDeg: 200, arcDeg: 80 };
      const camera = cameraModelOf(part, picture, corners, sizeFromFrame(part, frame, turn));
      if (!camera.ok) throw new Error(camera.problem.sentence);
      const flat = develop(camera.value, picture, 200, 72, 24);
      for (const [u, v] of [
        [0.5, 0.5],
        [0.42, 0.3],
        [0.61, 0.8],
      ] as const) {
        const [x, y] = toPicture(flat, u, v);
        const [px, py] = camera.value.project(u, v);
        expect(Math.hypot(x - px, y - py)).toBeLessThan(1);
        const back = toSurface(flat, x, y)!;
        expect(Math.abs(back[0] - u)).toBeLessThan(0.01);
        expect(Math.abs(back[1] - v)).toBeLessThan(0.02);
        const onIt = fromPicture(part, frame, turn, u, v);
        expect(inPicture(part, frame, turn, ...onIt)!.map((n) => Math.round(n * 1e6) / 1e6)).toEqual([u, v]);
      }
      expect(toSurface(flat, 2, 2)).toBeNull();
    }
  });
  it('turns what is drawn from the top over, and leaves shells as they are', () => {
    expect(inPicture('skirt', frameOf('skirt'), { facingDeg: 0, arcDeg: 90 }, 0.3, 0.1)).toEqual([0.3, 0.9]);
    expect(inPicture('shell', frameOf('shell'), { facingDeg: 0, arcDeg: 90 }, 0.3, 0.1)).toEqual([0.3, 0.1]);
    expect(inPicture('bore', frameOf('bore'), { facingDeg: 90, arcDeg: 60 }, 0.25, 0)![0]).toBeCloseTo(0.5, 6);
    expect(inPicture('bore', frameOf('bore'), { facingDeg: 90, arcDeg: 60 }, 0.6, 0)).toBeNull();
    expect(showsPieceOfTurn('skirt')).toBe(false);
  });
  it('every part that is flattened has a size and a camera from its frame', () => {
    const square: Point[] = [
      [200, 480],
      [200, 160],
      [520, 160],
      [520, 480],
    ];
    const picture = { width: 720, height: 640, data: new Uint8ClampedArray(720 * 640 * 4).fill(120) };
    for (const part of ['shell', 'journal', 'skirt', 'bore', 'thrust', 'crown'] as const) {
      const camera = cameraModelOf(part, picture, square, sizeFromFrame(part, frameOf(part)));
      if (!camera.ok) throw new Error(`${part}: ${camera.problem.sentence}`);
      const [x, y] = camera.value.project(0.5, 0.5);
      expect(x).toBeGreaterThan(150);
      expect(x).toBeLessThan(570);
      expect(y).toBeGreaterThan(100);
      expect(y).toBeLessThan(640);
    }
  });
});
