import { engineTemplate } from '../engine/templates.js';
import { applyEntry } from '../entries/entries.js';
import { emptyCase } from '../ledger/state.js';
import { caseView, type StationView } from '../case/views.js';
import { develop } from '../photo/flatten.js';
import { sizeFromFrame } from '../photo/reading/onFrame.js';
import { cameraModelOf } from '../photo/reading/cameraModelOf.js';
import { surfaceMaps } from '../specimen/surfaceMaps.js';
import { USUAL_SHOT } from '../specimen/scene.js';
import { takeShell } from '../specimen/shellScene.js';
import { pictureMarks } from './pictureMarks.js';

const SHA = 'a'.repeat(64);
const PLACE = 'rod.2.shell.upper';
const { layout } = engineTemplate('inline-4-petrol')!;

/** A shell with what is said of it, and a picture of it. */
function shown(...more: Array<[kind: 'mark-made' | 'corners-set', body: object]>): StationView {
  let state = emptyCase('c');
  const put = (kind: string, station: string | null, body: object): void => {
    state = applyEntry(state, {
      id: `e${state.seq}`,
      kind: kind as 'remark',
      station,
      author: { id: 'a', name: 'A' },
      time: '2026-11-27T08:00:00Z',
      body: body as never,
      seq: state.seq + 1,
      hash: 'h',
    });
  };
  put('case-opened', null, { number: '1', title: 'x' });
  put('layout-set', null, { layout });
  for (const [kind, body] of more) put(kind, PLACE, body);
  return caseView(state)!.byId.get(PLACE)!;
}

const frame = shown().station.surface!;
const specimen = { seed: 5, radiusMm: frame.widthMm / Math.PI, widthMm: frame.heightMm, damages: [] };
const taken = takeShell(specimen, surfaceMaps(specimen, 480, 160), { ...USUAL_SHOT, width: 640, height: 480 });
const camera = (fineness: number) => {
  const found = cameraModelOf('shell', taken.pixels, taken.corners, sizeFromFrame('shell', frame), fineness);
  if (!found.ok) throw new Error(found.problem.sentence);
  return found.value;
};
const mesh = develop(camera(1), taken.pixels, 320);
const corners: ['corners-set', object] = ['corners-set', { sha256: SHA, corners: taken.corners }];
const stroke = (cls: string): ['mark-made', object] => [
  'mark-made',
  {
    mark: {
      id: 'm',
      shape: 'stroke',
      class: cls,
      points: [
        [0.3, 0.5],
        [0.6, 0.5],
      ],
      radiusMm: 4,
      made: 'found-so',
    },
  },
];

describe('marks on a picture', () => {
  it('are the outline alone where nothing is marked, and it runs through the corners', () => {
    const lines = pictureMarks(shown(corners), SHA, mesh);
    expect(lines.map((l) => l.kind)).toEqual(['outline']);
    const width = Math.hypot(taken.corners[3]![0] - taken.corners[0]![0], taken.corners[3]![1] - taken.corners[0]![1]);
    for (const [x, y] of taken.corners) {
      const nearest = Math.min(...lines[0]!.points.map(([px, py]) => Math.hypot(px - x, py - y)));
      expect(nearest).toBeLessThan(0.03 * width);
    }
  });
  it('go round what is damaged, inside the outline', () => {
    const edges = pictureMarks(shown(corners, stroke('lining')), SHA, mesh).filter((l) => l.kind === 'edge');
    expect(edges.length).toBeGreaterThan(8);
    const xs = edges.flatMap((e) => e.points.map(([x]) => x));
    const [left, right] = [Math.min(...taken.corners.map(([x]) => x)), Math.max(...taken.corners.map(([x]) => x))];
    expect(Math.min(...xs)).toBeGreaterThan(left);
    expect(Math.max(...xs)).toBeLessThan(right);
    // Every edge of cells belongs to a closed line: each of its ends meets another.
    const ends = new Map<string, number>();
    for (const e of edges)
      for (const [x, y] of [e.points[0]!, e.points[1]!]) {
        const key = `${x.toFixed(2)},${y.toFixed(2)}`;
        ends.set(key, (ends.get(key) ?? 0) + 1);
      }
    expect([...ends.values()].every((n) => n % 2 === 0)).toBe(true);
  });
  it('draw a score line as it was drawn', () => {
    const line: ['mark-made', object] = [
      'mark-made',
      {
        mark: {
          id: 'l',
          shape: 'line',
          class: 'lining',
          points: [
            [0.1, 0.4],
            [0.9, 0.4],
          ],
          radiusMm: 0.2,
          depth: 'nail',
          made: 'found-so',
        },
      },
    ];
    const lines = pictureMarks(shown(corners, line), SHA, mesh).filter((l) => l.kind === 'line');
    expect(lines).toHaveLength(1);
    expect(lines[0]!.points[0]![0]).toBeLessThan(lines[0]!.points[1]![0]);
  });
  it('lie where they lie when the part is looked for more coarsely, to a hundredth of its width', () => {
    const [fine, coarse] = [camera(1), camera(0.5)];
    const width = Math.hypot(taken.corners[3]![0] - taken.corners[0]![0], taken.corners[3]![1] - taken.corners[0]![1]);
    for (const u of [0.1, 0.3, 0.5, 0.7, 0.9])
      for (const v of [0.1, 0.5, 0.9]) {
        const [a, b] = [fine.project(u, v), coarse.project(u, v)];
        expect(Math.hypot(a[0] - b[0], a[1] - b[1])).toBeLessThan(0.01 * width);
      }
  });
});
