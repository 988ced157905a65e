import { seeded } from '../../kit/seeded.js';
import { handLed, lampFrame, type LampFrame } from '../../specimen/lampFilm.js';
import { USUAL_SHOT } from '../../specimen/scene.js';
import { surfaceMaps, type ShellSpecimen } from '../../specimen/surfaceMaps.js';
import type { Pixels } from '../flatten.js';
import { cameraModelOf } from '../reading/cameraModelOf.js';
import { checkLamp, readLamp } from '../reading/readLamp.js';
import { seenOf } from '../reading/light.js';
import { develop } from '../flatten.js';
import { lampGatherer, type LampSurface } from './lampFilm.js';
import { registrar } from './register.js';
import { hasWalls, reliefOf, reliefPicture, shareSeen, type Relief } from './relief.js';

const SPECIMEN: ShellSpecimen = { seed: 5, radiusMm: 25, widthMm: 20, damages: [{ kind: 'wipe', arc: 95, halfDeg: 22, amount: 0.8 }] };
const SIZE = { radiusMm: 25, widthMm: 20 };
const SHOT = { ...USUAL_SHOT, width: 400, height: 300, lampWidth: 0.3, exposure: 1.2, seed: 9 };
const MAPS = surfaceMaps(SPECIMEN, 720, 240);
const LED = handLed(14, { wide: 0.5, shakePx: 2 }, seeded(3));
const taken = (f: LampFrame, k: number) => lampFrame(SPECIMEN, MAPS, SHOT, f, 50 + k);
const FRAMES = LED.map(taken);
const first = FRAMES[0]!;
const camera = (() => {
  const found = cameraModelOf('shell', first.pixels, first.corners, SIZE);
  if (!found.ok) throw new Error(found.problem.sentence);
  return found.value;
})();

function gathered(frames: readonly Pixels[]): LampSurface {
  const gatherer = lampGatherer(camera, frames[0]!);
  frames.forEach((f) => gatherer.take(f));
  return gatherer.finish();
}

const glareShare = (picture: Pixels): number => {
  const { glare, there } = seenOf(develop(camera, picture, 400).pixels);
  return glare.reduce((a, b) => a + b, 0) / there.reduce((a, b) => a + b, 0);
};

describe('a lamp that is led over a half shell', () => {
  const lamp = gathered(FRAMES.map((f) => f.pixels));

  it('lays every frame over the first to half a pixel, though light wanders over the part', () => {
    const register = registrar(first.pixels, camera);
    FRAMES.forEach(({ pixels }, k) => {
      const { moved } = register(pixels);
      expect(Math.hypot(moved[0] - LED[k]!.strayed[0], moved[1] - LED[k]!.strayed[1])).toBeLessThan(0.5);
    });
    expect(lamp).toMatchObject({ framesUsed: 14, framesLost: 0 });
  });

  it('gives a picture without glare, whose lining is what was painted', () => {
    expect(glareShare(first.pixels)).toBeGreaterThan(0.03);
    expect(glareShare(lamp.picture)).toBeLessThan(0.005);
    const reading = readLamp('shell', lamp, camera, first.corners, SIZE);
    if (!reading.ok) throw new Error(reading.problem.sentence);
    const painted = MAPS.truth.filter((t) => t === 1).length / MAPS.truth.length;
    expect(Math.abs(reading.value.summary.percent.lining - 100 * painted)).toBeLessThan(4);
    expect(reading.value.seenShare).toBeGreaterThan(0.95);
    expect(reading.value.walls).toHaveLength(reading.value.lines.length);
  });

  it('leaves out a frame in which something else is seen', () => {
    const blank = { ...first.pixels, data: new Uint8ClampedArray(first.pixels.data.length).fill(120) };
    const hidden = gathered([...FRAMES.slice(0, 10).map((f) => f.pixels), blank]);
    expect(hidden).toMatchObject({ framesUsed: 10, framesLost: 1 });
  });

  it('is drawn as a relief of the size of the face, clear where nothing was seen', () => {
    const relief = reliefOf(lamp, camera, 300);
    const picture = reliefPicture(relief);
    expect([picture.width, picture.height]).toEqual([300, Math.round((300 * camera.heightMm) / camera.widthMm)]);
    expect(shareSeen(relief)).toBeGreaterThan(0.95);
    expect(picture.data.filter((v, i) => i % 4 === 3 && v === 255).length / relief.seen.length).toBeCloseTo(shareSeen(relief), 6);
  });
});

describe('what stands against a film of a led lamp', () => {
  const base: LampSurface = {
    ...gathered(FRAMES.slice(0, 2).map((f) => f.pixels)),
    framesUsed: 30,
    framesLost: 0,
    wandered: { across: 0.2, along: 0.1 },
  };
  it.each([
    ['nothing', {}, null],
    ['too few frames', { framesUsed: 6 }, 'film-short'],
    ['a phone that moved', { framesUsed: 11, framesLost: 19 }, 'film-moved'],
    ['a lamp that stood', { wandered: { across: 0.01, along: 0.01 } }, 'film-still'],
  ])('%s', (_, change, code) => {
    expect(checkLamp({ ...base, ...change })?.code ?? null).toBe(code);
  });
});

describe('walls of a line', () => {
  const [width, height, pxPerMm] = [400, 160, 8];
  const line = { fromDeg: 40, toDeg: 140, axial: 0.5, widthMm: 1, through: false };
  const lamp = { wandered: { across: 0.2, along: 0.1 } } as LampSurface;
  /** A face whose slope is noise, with a profile across the line. */
  function faced(profile: (fromMiddlePx: number) => number, filmPxPerMm = 12): Relief {
    const random = seeded(7);
    const data = Float32Array.from(
      { length: width * height },
      (_, i) => 0.02 * (random() - 0.5) + profile(Math.floor(i / width) - height / 2),
    );
    const slope = { width, height, data };
    return { slope, height: slope, seen: new Uint8Array(width * height).fill(1), pxPerMm, filmPxPerMm };
  }
  const odd = (d: number): number => (Math.abs(d) <= 5 ? Math.sign(d) * 0.08 : 0);
  const even = (d: number): number => (Math.abs(d) <= 4 ? -0.1 : 0);

  it('are seen where its two sides grow lighter by turns, whichever way', () => {
    expect(hasWalls(faced(odd), lamp, line, 180)).toBe(true);
    expect(
      hasWalls(
        faced((d) => -odd(d)),
        lamp,
        line,
        180,
      ),
    ).toBe(true);
  });
  it('are not where both do the same, or nothing is there', () => {
    expect(hasWalls(faced(even), lamp, line, 180)).toBe(false);
    expect(
      hasWalls(
        faced(() => 0),
        lamp,
        line,
        180,
      ),
    ).toBe(false);
    // A light that fades over the face is no wall.
    expect(
      hasWalls(
        faced((d) => 0.002 * d),
        lamp,
        line,
        180,
      ),
    ).toBe(false);
  });
  it('are not told of a line too narrow in the film, seen too little, or a lamp not led along the axis', () => {
    expect(hasWalls(faced(odd, 3), lamp, line, 180)).toBeNull();
    expect(hasWalls({ ...faced(odd), seen: new Uint8Array(width * height) }, lamp, line, 180)).toBeNull();
    expect(hasWalls(faced(odd), { ...lamp, wandered: { across: 0.2, along: 0.01 } }, line, 180)).toBeNull();
  });
});
