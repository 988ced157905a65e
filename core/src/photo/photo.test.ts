import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { wearMap } from '../damage/wearMap.js';
import { engineTemplate } from '../engine/templates.js';
import { stationsOf } from '../engine/stations.js';
import { USUAL_SHOT } from '../specimen/scene.js';
import { takeShell } from '../specimen/shellScene.js';
import { surfaceMaps } from '../specimen/surfaceMaps.js';
import { develop } from './flatten.js';
import { shellCamera } from './cameraModel.js';
import { homography, isConvex, type Point } from './homography.js';
import { projectShell, shellPose, viewCosine } from './shellPose.js';

interface Geometry {
  id: string;
  size: [number, number];
  part: { inner_radius: number; running_face_length: number };
  corners: Point[];
  nodes: Array<[number, number, [number, number]]>;
  cosine: Array<[number, number, number, number]>;
}
const shells = JSON.parse(readFileSync(join(__dirname, '../../test-data/shell-geometry.json'), 'utf8')) as Geometry[];
const RADIUS = shells[0]!.part.inner_radius;
const WIDTH = shells[0]!.part.running_face_length;

describe('homography', () => {
  it('takes the four points where they belong', () => {
    const from: Point[] = [
      [0, 0],
      [0, 10],
      [20, 10],
      [20, 0],
    ];
    const to: Point[] = [
      [101, 400],
      [120, 130],
      [480, 150],
      [530, 410],
    ];
    const h = homography(from, to);
    if (!h.ok) throw new Error('no homography');
    const m = h.value;
    from.forEach(([x, y], i) => {
      const w = m[6] * x + m[7] * y + m[8];
      expect((m[0] * x + m[1] * y + m[2]) / w).toBeCloseTo(to[i]![0], 6);
      expect((m[3] * x + m[4] * y + m[5]) / w).toBeCloseTo(to[i]![1], 6);
    });
  });
  it('refuses corners on one line or crossed', () => {
    expect(
      homography(
        [
          [0, 0],
          [1, 1],
          [2, 2],
          [3, 3],
        ],
        [
          [0, 0],
          [1, 0],
          [2, 0],
          [3, 1],
        ],
      ).ok,
    ).toBe(false);
    expect(
      isConvex([
        [0, 0],
        [10, 10],
        [10, 0],
        [0, 10],
      ]),
    ).toBe(false);
    expect(
      isConvex([
        [0, 10],
        [0, 0],
        [10, 0],
        [10, 10],
      ]),
    ).toBe(true);
  });
});

describe('shell pose', () => {
  it.each(shells.map((s) => [s.id, s] as const))('%s: face nodes fall where the truth has them, from four corners alone', (_, s) => {
    const pose = shellPose(s.corners, { width: s.size[0], height: s.size[1] }, s.part.inner_radius, s.part.running_face_length);
    if (!pose.ok) throw new Error(pose.problem.sentence);
    const span = Math.hypot(s.corners[0]![0] - s.corners[3]![0], s.corners[0]![1] - s.corners[3]![1]);
    const errors = s.nodes.map(([a, b, [x, y]]) => {
      const [px, py] = projectShell(pose.value, a * 5, b / 12);
      return Math.hypot(px - x, py - y) / span;
    });
    expect(Math.max(...errors)).toBeLessThan(0.045);
    expect(errors.reduce((p, q) => p + q, 0) / errors.length).toBeLessThan(0.025);
  });
  it.each(shells.map((s) => [s.id, s] as const))('%s: says of most cells rightly whether they face the camera', (_, s) => {
    const pose = shellPose(s.corners, { width: s.size[0], height: s.size[1] }, s.part.inner_radius, s.part.running_face_length);
    if (!pose.ok) throw new Error(pose.problem.sentence);
    const off = s.cosine.filter(
      ([a, b, cosine, visible]) => visible > 0.95 && Math.abs(viewCosine(pose.value, (a + 0.5) * 5, (b + 0.5) / 12) - cosine) > 0.12,
    );
    expect(off.length).toBeLessThan(s.cosine.length * 0.1);
  });
  it('refuses mirrored and crossed corners with a sentence', () => {
    const c = shells[0]!.corners;
    const size = { width: 1600, height: 1200 };
    const mirrored = shellPose([c[3]!, c[2]!, c[1]!, c[0]!], size, RADIUS, WIDTH);
    expect(mirrored.ok ? '' : mirrored.problem.code).toBe('corners-mirrored');
    const crossed = shellPose([c[0]!, c[2]!, c[1]!, c[3]!], size, RADIUS, WIDTH);
    expect(crossed.ok ? '' : crossed.problem.code).toBe('corners-crossed');
    expect(shellPose(c.slice(0, 3), size, RADIUS, WIDTH).ok).toBe(false);
  });
});

describe('flattening a specimen', () => {
  const frame = stationsOf(engineTemplate('inline-4-petrol')!.layout).find((s) => s.id === 'main.1.shell.upper')!.surface!;
  const radius = frame.widthMm / Math.PI;
  const map = wearMap(frame, [
    {
      id: 'm',
      shape: 'stroke',
      class: 'lining',
      points: [
        [0.25, 0.75],
        [0.75, 0.75],
      ],
      radiusMm: 4,
      made: 'found-so',
    },
  ]);
  const specimen = { seed: 3, radiusMm: radius, widthMm: frame.heightMm, damages: [{ kind: 'wear', map }] as const };
  const drawn = takeShell(specimen, surfaceMaps(specimen, 480, 160), { ...USUAL_SHOT, width: 480, height: 360, focal: 1.44 });
  it('brings painted lining back to its place', () => {
    const pose = shellPose(drawn.corners, drawn.pixels, radius, frame.heightMm);
    if (!pose.ok) throw new Error(pose.problem.sentence);
    const flat = develop(shellCamera(pose.value), drawn.pixels, 360);
    const colour = (u: number, v: number): number => {
      const at = (Math.round((1 - v) * (flat.pixels.height - 1)) * flat.pixels.width + Math.round(u * (flat.pixels.width - 1))) * 4;
      return flat.pixels.data[at]! - flat.pixels.data[at + 2]!;
    };
    expect(colour(0.5, 0.75)).toBeGreaterThan(50);
    expect(Math.abs(colour(0.5, 0.2))).toBeLessThan(25);
    expect(flat.pxPerMm.middle).toBeGreaterThan(flat.pxPerMm.side);
  });
  it('marks what lies outside the picture as not seen', () => {
    const pose = shellPose(
      drawn.corners.map(([x, y]) => [x - 200, y] as const),
      drawn.pixels,
      radius,
      frame.heightMm,
    );
    if (!pose.ok) throw new Error(pose.problem.sentence);
    expect(develop(shellCamera(pose.value), drawn.pixels, 180).notSeenPercent).toBeGreaterThan(10);
  });
  it('the same specimen is the same picture', () => {
    const small = { ...USUAL_SHOT, width: 120, height: 90 };
    const again = (seed: number) => takeShell({ ...specimen, seed }, surfaceMaps({ ...specimen, seed }, 240, 80), small).pixels.data;
    expect(again(3)).toEqual(again(3));
    expect(again(3)).not.toEqual(again(4));
  });
});
