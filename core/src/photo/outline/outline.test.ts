import { classifierOf } from '../segment/classifier.js';
import type { Point } from '../homography.js';
import { fitCylinder, startsFrom } from './fitCylinder.js';
import { seenCylinder, type CylinderPose } from './halfCylinder.js';
import { ASKED, SCENE_FEATURES, SCENE_SIDE, sceneFeatures, sceneOf } from './sceneFeatures.js';
import { mapOfOdds, sumInside, type SurfaceMap } from './surfaceMap.js';

const WHOLE = { width: 200, height: 150 };

/** A map in which nothing but the inside of some outlines is surface. */
function drawn(...lines: readonly (readonly Point[])[]): SurfaceMap {
  const inside = (x: number, y: number, line: readonly Point[]): boolean => {
    let odd = false;
    line.forEach(([ax, ay], k) => {
      const [bx, by] = line[(k + 1) % line.length]!;
      if (ay > y !== by > y && x < ax + ((y - ay) / (by - ay)) * (bx - ax)) odd = !odd;
    });
    return odd;
  };
  const odds = Float32Array.from({ length: WHOLE.width * WHOLE.height }, (_, i) =>
    lines.some((l) => inside((i % WHOLE.width) + 0.5, Math.floor(i / WHOLE.width) + 0.5, l)) ? 1 : -1,
  );
  return mapOfOdds({ ...WHOLE, odds, step: 1 });
}

const farthest = (a: readonly Point[], b: readonly Point[]): number =>
  Math.max(...a.map((p, k) => Math.hypot(p[0] - b[k]![0], p[1] - b[k]![1])));

describe('a half cylinder in a picture', () => {
  it('shows bowed ends: those of a shell and a journal bow opposite ways when both are tilted alike', () => {
    const pose: CylinderPose = [100, 75, 90, 0.5, 0, 0.3, 0, Math.log(1.6)];
    const middle = (hollow: boolean): number => {
      const { line, corners } = seenCylinder(hollow, pose, WHOLE);
      const front = line.slice(0, line.length / 2);
      return front[front.length >> 1]![1] - (corners[0]![1] + corners[3]![1]) / 2;
    };
    expect(Math.sign(middle(true))).toBe(-Math.sign(middle(false)));
    expect(Math.abs(middle(true))).toBeGreaterThan(5);
  });

  it('sums the odds inside a line to the area of what is surely surface', () => {
    const square: Point[] = [
      [20, 20],
      [60, 20],
      [60, 50],
      [20, 50],
    ];
    const map = drawn(square);
    expect(sumInside(map, square)).toBeCloseTo(40 * 30, 6);
    // Half of it beside: as much surface as none.
    expect(
      sumInside(
        map,
        square.map(([x, y]): Point => [x + 20, y]),
      ),
    ).toBeCloseTo(0, 6);
    // A line that leaves the picture counts what is in it.
    expect(
      sumInside(map, [
        [-50, 20],
        [40, 20],
        [40, 50],
        [-50, 50],
      ]),
    ).toBeCloseTo(20 * 30 - 20 * 30, 6);
  });
});

describe('laying a half cylinder into what is likely surface', () => {
  it.each<readonly [string, boolean, CylinderPose]>([
    ['a shell square on', true, [100, 70, 110, 0.42, 0.1, 0.05, 0, Math.log(1.6)]],
    ['a shell tilted and turned', true, [90, 80, 95, 0.4, -0.3, 0.3, 0.05, Math.log(1.9)]],
    ['a journal', false, [105, 72, 70, 0.6, 0.2, -0.15, 0, Math.log(1.5)]],
  ])('finds the corners of %s', (_, hollow, pose) => {
    const { line, corners } = seenCylinder(hollow, pose, WHOLE);
    const map = drawn(line);
    const [found] = fitCylinder(map, hollow, WHOLE, startsFrom(map, hollow));
    expect(found!.worth).toBeGreaterThan(0.97);
    expect(farthest(found!.corners, corners)).toBeLessThan(0.035 * pose[2]);
  });

  it('leaves out a card that is taken for surface beside it, and offers no two guesses alike', () => {
    const { line, corners } = seenCylinder(true, [80, 75, 100, 0.42, 0, 0.2, 0, Math.log(1.6)], WHOLE);
    const map = drawn(line, [
      [150, 60],
      [165, 60],
      [165, 80],
      [150, 80],
    ]);
    const found = fitCylinder(map, true, WHOLE, startsFrom(map, true));
    expect(farthest(found[0]!.corners, corners)).toBeLessThan(3.5);
    found.slice(1).forEach((other) => expect(farthest(other.corners, found[0]!.corners)).toBeGreaterThan(5));
  });
});

describe('the features of a picture', () => {
  it('are as many as their names for every pixel asked, and finite in the dark and the blinding', () => {
    const data = new Uint8ClampedArray(4 * 900 * 600);
    for (let i = 0; i < data.length; i++) data[i] = i % 4 === 3 ? 255 : i < data.length / 2 ? 0 : 255;
    const scene = sceneOf({ width: 900, height: 600, data });
    expect(Math.max(scene.width, scene.height)).toBe(SCENE_SIDE);
    const f = sceneFeatures(scene);
    expect([f.width, f.height]).toEqual([scene.width / ASKED, Math.floor(scene.height / ASKED)]);
    expect(f.data).toHaveLength(f.width * f.height * SCENE_FEATURES.length);
    expect(f.data.every(Number.isFinite)).toBe(true);
  });

  it('refuses a classifier that was trained on others', () => {
    expect(() => classifierOf({ classes: ['sound', 'void'], hidden: [2], figures: btoa('12345678') }, SCENE_FEATURES.length)).toThrow(
      /figures/,
    );
  });
});
