import { seeded } from '../kit/seeded.js';
import { dividedByChance, groupShift, pairedShift, signedByChance } from './twoGroups.js';

/** Permeability of a membrane at term and at 12 to 26 weeks (Hollander & Wolfe 1973, p. 69). */
const TERM = [0.8, 0.83, 1.89, 1.04, 1.45, 1.38, 1.91, 1.64, 0.73, 1.46];
const EARLY = [1.15, 0.88, 0.9, 0.74, 1.21];
/** Hamilton depression scale, second less first visit (Hollander & Wolfe 1973, p. 29). */
const VISITS = [0.952, -0.147, 1.022, 0.43, 0.62, 0.59, 0.49, -0.08, 0.01];

describe('how far one group lies above another', () => {
  it('is the published shift of the published example', () => {
    const s = groupShift(TERM, EARLY)!;
    expect(s.shift).toBeCloseTo(0.305, 3);
    expect(s.low).toBeLessThan(0.305);
    expect(s.level).toBeGreaterThanOrEqual(0.9);
    const back = groupShift(EARLY, TERM)!;
    expect([back.shift, back.low, back.high, back.level]).toEqual([-s.shift, -s.high, -s.low, s.level]);
  });
  it.each([
    [2, 2, 1 - 2 / 6],
    [3, 3, 1 - 2 / 20],
    [4, 4, 1 - 4 / 70],
    [1, 5, 1 - 2 / 6],
  ])('%i and %i figures hold what can be counted by hand', (n, m, level) => {
    const up = (k: number): number[] => Array.from({ length: k }, (_, i) => i * 1.37);
    expect(groupShift(up(n), up(m))!.level).toBeCloseTo(level, 12);
  });
  it('holds the true shift as often as it says, whatever the shape', () => {
    const draw = seeded(4);
    const long = (): number => -Math.log(1 - draw());
    let held = 0;
    let level = 0;
    for (let t = 0; t < 1500; t++) {
      const s = groupShift(
        Array.from({ length: 6 }, () => long() + 0.7),
        Array.from({ length: 8 }, long),
      )!;
      level = s.level;
      if (s.low <= 0.7 && s.high >= 0.7) held++;
    }
    expect(held / 1500).toBeCloseTo(level, 1);
    expect(held / 1500).toBeGreaterThan(level - 0.025);
  });
  it('is nothing where a group is empty', () => {
    expect(groupShift([], [1])).toBeNull();
    expect(pairedShift([])).toBeNull();
  });
});

describe('differences within pairs', () => {
  it('have the shift of the middle of all means two by two', () => {
    const s = pairedShift(VISITS)!;
    expect(s.shift).toBeCloseTo(0.46, 2);
    expect([s.low <= s.shift, s.shift <= s.high]).toEqual([true, true]);
    expect(pairedShift([1, 2, 3, 4, 5])!.level).toBeCloseTo(1 - 2 / 32, 12);
    expect(pairedShift([3])).toMatchObject({ shift: 3, low: 3, high: 3, level: 0 });
  });
});

describe('what chance alone gives', () => {
  it('is counted way by way where they are few', () => {
    expect(dividedByChance([9, 8], [1, 2])).toEqual({ asMuch: 2, of: 6, exact: true });
    expect(dividedByChance([1, 1], [1, 1])).toEqual({ asMuch: 6, of: 6, exact: true });
    expect(signedByChance([1, 2, 3])).toEqual({ asMuch: 2, of: 8, exact: true });
  });
  it('is drawn where they are many, and near the count', () => {
    const draw = seeded(7);
    const a = Array.from({ length: 12 }, () => draw() + 0.35);
    const b = Array.from({ length: 14 }, draw);
    const drawn = dividedByChance(a, b);
    expect(drawn).toMatchObject({ of: 20_000, exact: false });
    const other = dividedByChance(a, b, 99);
    expect(Math.abs(drawn.asMuch - other.asMuch) / 20_000).toBeLessThan(0.01);
    const signs = signedByChance(Array.from({ length: 20 }, () => draw() - 0.1));
    expect(signs.exact).toBe(false);
    expect(signs.asMuch / signs.of).toBeLessThan(0.1);
  });
});
