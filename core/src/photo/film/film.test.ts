import { seeded } from '../../kit/seeded.js';
import { USUAL_SHOT } from '../../specimen/scene.js';
import { surfaceMaps, type SurfaceSpecimen } from '../../specimen/surfaceMaps.js';
import { handTurned, turnFilm } from '../../specimen/turnFilm.js';
import type { CameraModel } from '../cameraModel.js';
import { cameraModelOf } from '../reading/cameraModelOf.js';
import { WHOLE_TURN } from '../reading/onFrame.js';
import { readPicture } from '../reading/readPicture.js';
import { readTurn } from '../reading/readTurn.js';
import { checkTurn, settleTurn, turnJoiner, turnTracker, type JoinedTurn, type SettledTurn } from './index.js';

const SPECIMEN: SurfaceSpecimen = {
  seed: 3,
  radiusMm: 25,
  widthMm: 24,
  spanDeg: 360,
  finish: 'ground-steel',
  damages: [
    { kind: 'temper', arc: 80, halfDeg: 60, axial: 0.5, axialHalf: 0.5, most: 0.9 },
    { kind: 'score', axial: 0.3, fromDeg: 20, toDeg: 150, widthMm: 0.5, through: false },
    // What hands and oil leave on any journal.
    ...[20, 75, 130, 170, 205, 240, 275, 310, 345].map(
      (arc, k) => ({ kind: 'temper', arc, halfDeg: 9, axial: 0.2 + 0.15 * (k % 5), axialHalf: 0.22, most: 0.24 }) as const,
    ),
  ],
  hole: { arc: 255, axial: 0.5, diameterMm: 5 },
};
const SHOT = { ...USUAL_SHOT, width: 240, height: 180, fill: 0.64, tiltDeg: 3, rollDeg: 2, noise: 0.5 };

interface Filmed {
  readonly camera: CameraModel;
  readonly settled: SettledTurn;
  /** Turned by frame, as it was filmed. */
  readonly truth: readonly number[];
  readonly joined: () => JoinedTurn;
}

function filmed(turnDeg: number, frames: number, specimen = SPECIMEN): Filmed {
  const film = turnFilm(specimen, surfaceMaps(specimen, 1080, 120), SHOT, 'journal');
  const hand = handTurned(frames, 30, turnDeg, { uneven: 0.3, shakePx: 0.7, exposed: 0.3 }, seeded(5));
  const all = hand.map((f, k) => film.frame(f, 40 + k));
  const found = cameraModelOf('journal', all[0]!, film.corners, { radiusMm: specimen.radiusMm, widthMm: null });
  if (!found.ok) throw new Error(found.problem.sentence);
  const tracker = turnTracker(found.value);
  all.forEach((frame, k) => tracker.take(frame, k / 15));
  const settled = settleTurn(tracker.seen, tracker.map);
  const middle = (k: number): number => (hand[k]!.facingDeg[0] + hand[k]!.facingDeg[1]) / 2;
  return {
    camera: found.value,
    settled,
    truth: hand.map((_, k) => middle(k) - middle(0)),
    joined: () => {
      const joiner = turnJoiner(found.value, settled, middle(0), 1);
      all.forEach((frame, k) => joiner.take(frame, k / 15));
      return joiner.finish();
    },
  };
}

describe('a journal that is turned a little more than once', () => {
  const { settled, truth, joined } = filmed(395, 80);
  const surface = joined();

  it('is followed to a few degrees all the way', () => {
    const off = settled.frames.map((f) => Math.abs(f.turnedDeg - truth[Math.round(f.timeS * 15)]!));
    expect(Math.max(...off)).toBeLessThan(6);
    expect(checkTurn(settled)).toBeNull();
  });
  it('closes on itself, and by how much it failed to is said', () => {
    expect(settled.closingErrorDeg).not.toBeNull();
    expect(Math.abs(settled.closingErrorDeg!)).toBeLessThan(8);
  });
  it('read again as a filed picture gives the pictures of its stages', () => {
    const { width, height } = surface.pixels;
    const stages: string[] = [];
    const read = readPicture(
      surface.pixels,
      {
        sha256: 'a'.repeat(64),
        corners: [
          [0, height],
          [0, 0],
          [width, 0],
          [width, height],
        ],
        original: { width, height },
        part: 'journal',
        frame: {
          columns: 72,
          rows: 6,
          uSpanDeg: 360,
          widthMm: 50 * Math.PI,
          heightMm: 24,
          vFrom: 'front edge',
          vTo: 'rear edge',
          uFrom: '0°',
          uTo: '360°',
        },
        turn: WHOLE_TURN,
        construction: 'unknown',
      },
      undefined,
      ({ name, pixels }) => {
        expect(pixels.width).toBeGreaterThan(pixels.height);
        stages.push(name);
      },
    );
    if (!read.ok) throw new Error(read.problem.sentence);
    expect(read.value.read.columns).toBe(72);
    expect(stages).toEqual(['developed', 'light', 'colour', 'sure', 'layers', 'lines']);
  });
  it('is joined all round, blue on one side and its oil hole where it lies', () => {
    expect(surface.seenShare).toBeGreaterThan(0.98);
    const { width, height, data } = surface.pixels;
    const at = (arc: number, axial: number): number[] => {
      const i = 4 * (Math.round((1 - axial) * (height - 1)) * width + Math.round((arc / 360) * width));
      return [...data.slice(i, i + 3)];
    };
    const [red, , blue] = at(80, 0.5);
    const [plainRed, , plainBlue] = at(225, 0.8);
    expect(blue! / red!).toBeGreaterThan(1.3 * (plainBlue! / plainRed!));
    const darkest = Array.from({ length: 360 }, (_, arc) => ({ arc, light: at(arc, 0.5)[1]! })).sort((a, b) => a.light - b.light)[0]!;
    expect(Math.abs(darkest.arc - 255)).toBeLessThan(8);
  });
  it('is read all round: the damage lies on one arc', () => {
    const reading = readTurn('journal', surface, settled);
    if (!reading.ok) throw new Error(reading.problem.sentence);
    const { summary, damage } = reading.value;
    expect(summary.seenPercent).toBeGreaterThan(90);
    expect(summary.percent.heat).toBeGreaterThan(8);
    expect(damage!.fromDeg).toBeGreaterThan(0);
    expect(damage!.toDeg).toBeLessThan(190);
    expect(damage!.insidePercent).toBeGreaterThan(5 * damage!.outsidePercent);
  });
});

describe('a turn that is hardly known', () => {
  const { settled, joined } = filmed(170, 34);
  const surface = joined();

  it('gets no grade where most of it was guessed', () => {
    const reading = readTurn('journal', surface, { ...settled, guessed: [{ fromS: 0, toS: 2, deg: 120 }] });
    expect(reading.ok && reading.value.grade).toBeNull();
    expect(reading.ok && reading.value.reason).toMatch(/Over 120° the surface showed too little to follow/);
  });
  it('is not said to have closed when only its surface is at hand', () => {
    const reading = readTurn('journal', surface, null);
    expect(reading.ok && reading.value.doubts.join(' ')).toMatch(/Read again from the made surface/);
  });
});

describe('a film that shows less', () => {
  it('of half a turn is joined as far as it goes and does not close', () => {
    const { settled, joined } = filmed(170, 34);
    expect(settled.closingErrorDeg).toBeNull();
    const surface = joined();
    expect(surface.seenShare).toBeGreaterThan(0.6);
    expect(surface.seenShare).toBeLessThan(0.95);
    const reading = readTurn('journal', surface, settled);
    expect(reading.ok && reading.value.doubts.join(' ')).toMatch(/of the turn are not seen/);
  });
  it('of a part that lies still says so', () => expect(checkTurn(filmed(2, 22).settled)?.sentence).toMatch(/does not turn|turned only/));
  it('of a few frames says so', () => expect(checkTurn(filmed(60, 8).settled)?.code).toBe('film-short'));
  it('of a surface that bears no mark does not close on itself', () => {
    const { settled } = filmed(380, 34, { ...SPECIMEN, damages: [], hole: undefined } as SurfaceSpecimen);
    expect(settled.closingErrorDeg === null || checkTurn(settled) !== null).toBe(true);
  });
});
