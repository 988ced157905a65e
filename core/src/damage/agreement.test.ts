import fc from 'fast-check';
import { agreement } from './agreement.js';
import type { Grade } from './classes.js';

describe('agreement of two hands', () => {
  it('full agreement is 1, and one place says nothing', () => {
    expect(
      agreement([
        [0, 0],
        [3, 3],
        [2, 2],
      ]),
    ).toEqual({ places: 3, equal: 3, withinOne: 3, kappa: 1 });
    expect(agreement([[3, 2]]).kappa).toBeNull();
    expect(
      agreement([
        [2, 2],
        [2, 2],
      ]).kappa,
    ).toBeNull();
  });
  it('a worked example', () => {
    // Grades 0, 0, 4, 4 against 0, 4, 0, 4: half right, half as wrong as can be, which is what chance gives.
    expect(
      agreement([
        [0, 0],
        [0, 4],
        [4, 0],
        [4, 4],
      ]).kappa,
    ).toBeCloseTo(0, 12);
    // One step off on one of four: observed 1/16/4, by chance (from the margins) 0.28125.
    const r = agreement([
      [0, 0],
      [1, 2],
      [3, 3],
      [4, 4],
    ]);
    expect(r).toMatchObject({ equal: 3, withinOne: 4 });
    expect(r.kappa!).toBeGreaterThan(0.9);
  });
  it('does not ask who was first, and never passes 1', () =>
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 0, max: 4 }), fc.integer({ min: 0, max: 4 })), { minLength: 2, maxLength: 40 }),
        (list) => {
          const pairs = list as Array<[Grade, Grade]>;
          const a = agreement(pairs);
          const b = agreement(pairs.map(([x, y]) => [y, x] as const));
          if (a.kappa === null) expect(b.kappa).toBeNull();
          else {
            expect(a.kappa).toBeCloseTo(b.kappa!, 9);
            expect(a.kappa).toBeLessThanOrEqual(1 + 1e-12);
          }
        },
      ),
    ));
});
