import fc from 'fast-check';
import { homography, type Point } from './homography.js';
import { corrected, PART_TAG, parseTagText, project, readTag, renderTag, tagDistanceMm, tagText } from './partTag.js';
import { refineTagCorners } from './tagRefine.js';
import { clockDoubt } from './takenAt.js';

const CASE = '0f8fad5b-d9cb-469f-a165-70867728950e';
/** A checkered stand-in for the modules with the three finder squares; the code itself is read by a library, not here. */
const SIDE = 37;
const MODULES = Array.from({ length: SIDE }, (_, j) =>
  Array.from({ length: SIDE }, (_, i) => {
    const [x, y] = [i < 8 ? i : i - (SIDE - 7), j < 8 ? j : j - (SIDE - 7)];
    const inFinder = x >= -1 && x <= 7 && y >= -1 && y <= 7 && (i < 8 || j < 8);
    if (!inFinder) return (i * 7 + j * 3) % 2 === 0;
    const ring = Math.max(Math.abs(x - 3), Math.abs(y - 3));
    return ring <= 1 || ring === 3;
  }),
);
const toLinear = (v: number): number => (v / 255 <= 0.04045 ? v / 255 / 12.92 : ((v / 255 + 0.055) / 1.055) ** 2.4);
const toSrgb = (v: number): number => 255 * (v <= 0.0031308 ? 12.92 * v : 1.055 * v ** (1 / 2.4) - 0.055);

/** The tag in a picture: warped by a homography, with gains in linear light. */
function photograph(corners: readonly Point[], cast: readonly number[], size = 900) {
  const tag = renderTag(MODULES, 8);
  const { x, y, size: s } = PART_TAG.code;
  const back = homography(corners, [
    [x, y],
    [x + s, y],
    [x + s, y + s],
    [x, y + s],
  ]);
  if (!back.ok) throw new Error();
  const data = new Uint8ClampedArray(size * size * 4).fill(255);
  const shown = cast.map((c) => Uint8ClampedArray.from({ length: 256 }, (_, v) => toSrgb(Math.min(1, toLinear(v) * c))));
  for (let py = 0; py < size; py++)
    for (let px = 0; px < size; px++) {
      const [mx, my] = project(back.value, [px + 0.5, py + 0.5]);
      const tx = Math.floor(mx * 8);
      const ty = Math.floor(my * 8);
      const inside = tx >= 0 && ty >= 0 && tx < tag.width && ty < tag.height;
      for (let k = 0; k < 3; k++) {
        const v = inside ? tag.data[(ty * tag.width + tx) * 4 + k]! : 90;
        data[(py * size + px) * 4 + k] = shown[k]![v]!;
      }
    }
  return { width: size, height: size, data };
}

describe('the text of a tag', () => {
  it('reads back', () => {
    expect(parseTagText(tagText({ caseId: CASE, station: 'rod.2.shell.upper' }))).toEqual({ caseId: CASE, station: 'rod.2.shell.upper' });
  });
  it('is nothing but a tag: hostile or foreign codes are none', () => {
    for (const text of [
      '',
      'https://elsewhere.example/',
      "TL1:'; DROP TABLE cases;--",
      `TL1:${'g'.repeat(32)}:bore.1`,
      `${tagText({ caseId: CASE, station: 'bore.1' })}<script>`,
    ])
      expect(parseTagText(text)).toBeNull();
    fc.assert(
      fc.property(fc.string({ maxLength: 90 }), (text) => {
        const read = parseTagText(text);
        if (read) expect(tagText(read)).toBe(text);
      }),
    );
  });
});

describe('a tag in a picture', () => {
  const corners: Point[] = [
    [210, 260],
    [430, 275],
    [415, 500],
    [200, 470],
  ];
  it('gives the gains that take a cast out', () => {
    fc.assert(
      fc.property(fc.tuple(...[0, 1, 2].map(() => fc.double({ min: 0.6, max: 1, noNaN: true }))), (cast) => {
        const reading = readTag(photograph(corners, cast), corners);
        if (!reading.ok) throw new Error(reading.problem.sentence);
        const seen = [0, 1, 2].map((k) => toSrgb(toLinear(150) * cast[k]!)) as [number, number, number];
        for (const v of corrected(seen, reading.value.gains)) expect(Math.abs(v - 150)).toBeLessThan(2);
      }),
      { numRuns: 8 },
    );
  });
  it('gives the scale in its own plane, whatever the tilt', () => {
    const plane = homography(
      [
        [4, 4],
        [30, 4],
        [30, 30],
        [4, 30],
      ],
      corners,
    );
    if (!plane.ok) throw new Error();
    const a = project(plane.value, [36, 17]);
    const b = project(plane.value, [56, 17]);
    expect(tagDistanceMm(corners, a, b)).toBeCloseTo(20, 6);
  });
  it('says so when its patches are covered', () => {
    const shot = photograph(corners, [1, 1, 1]);
    for (let y = 0; y < 900; y++) for (let x = 440; x < 900; x++) shot.data.fill(90, (y * 900 + x) * 4, (y * 900 + x) * 4 + 3);
    const reading = readTag(shot, corners);
    expect(reading.ok).toBe(false);
    if (!reading.ok) expect(reading.problem.sentence).toMatch(/covered or cut off/);
  });
});

describe('the corners of a code, found again', () => {
  const truth: Point[] = [
    [210.3, 260.7],
    [430.9, 275.2],
    [415.1, 500.6],
    [200.4, 470.8],
  ];
  const worst = (found: readonly Point[]): number => Math.max(...found.map(([x, y], k) => Math.hypot(x - truth[k]![0], y - truth[k]![1])));
  const shot = photograph(truth, [1, 0.92, 0.85]);
  it('come within a third of a pixel from wherever a reader put them', () => {
    const off = fc.double({ min: -3, max: 3, noNaN: true });
    fc.assert(
      fc.property(fc.array(fc.tuple(off, off), { minLength: 4, maxLength: 4 }), (offs) => {
        const given = truth.map(([x, y], k): Point => [x + offs[k]![0], y + offs[k]![1]]);
        expect(worst(refineTagCorners(shot, given, SIDE))).toBeLessThan(0.34);
      }),
      { numRuns: 12 },
    );
  });
  it('do without the bar and the patches when these are covered', () => {
    const covered = { ...shot, data: shot.data.slice() };
    for (let y = 0; y < 900; y++) for (let x = 450; x < 900; x++) covered.data.fill(90, (y * 900 + x) * 4, (y * 900 + x) * 4 + 3);
    const given = truth.map(([x, y]): Point => [x + 1.5, y - 1]);
    expect(worst(refineTagCorners(covered, given, SIDE))).toBeLessThan(0.5);
  });
  it('stay as given where nothing printed is seen', () => {
    const blank = { ...shot, data: new Uint8ClampedArray(shot.data.length).fill(140) };
    expect(refineTagCorners(blank, truth, SIDE)).toBe(truth);
    const outside = truth.map(([x, y]): Point => [x + 5000, y]);
    expect(refineTagCorners(shot, outside, SIDE)).toBe(outside);
  });
});

describe('the clock of a camera', () => {
  it.each([
    ['2026-11-25T10:00:00Z', null],
    ['2031-01-01T00:00:00Z', /later than it arrived/],
    ['1999-12-31T00:00:00Z', /never set/],
    [null, null],
    ['not a date', null],
  ])('%s', (taken, words) => {
    const doubt = clockDoubt(taken, '2026-11-25T12:00:00Z');
    if (words === null) expect(doubt).toBeNull();
    else expect(doubt).toMatch(words);
  });
});
