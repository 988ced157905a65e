import { collectEvidence } from '../../diagnosis/evidence.js';
import { checkEntry } from '../../gate/admit.js';
import { mergeLines, mergeReads, type SurfaceRead } from '../../damage/surfaceRead.js';
import { summariseMap, wearMap, type SurfaceMark } from '../../damage/wearMap.js';
import { stationsOf } from '../../engine/stations.js';
import { engineTemplate } from '../../engine/templates.js';
import { applyEntry } from '../../entries/entries.js';
import { emptyCase, type CaseState } from '../../ledger/state.js';
import { caseView, readAgainstSound } from '../../case/views.js';
import type { Damage } from '../../specimen/damages.js';
import { surfaceMaps, type ShellSpecimen } from '../../specimen/surfaceMaps.js';
import { USUAL_SHOT, type Shot } from '../../specimen/scene.js';
import { takeShell, type ShotPicture } from '../../specimen/shellScene.js';
import type { Pixels } from '../flatten.js';
import type { Point } from '../homography.js';
import { boxMean, components, field, quantile } from './field.js';
import { readingJson } from './readingJson.js';
import { onFrame, USUAL_TURN } from './onFrame.js';
import { MAP_COLUMNS, MAP_ROWS, type SurfaceReading } from './surfaceReading.js';
import { readSurface } from './readSurface.js';

const SIZE = { radiusMm: 26, widthMm: 20 };
const SHOT: Shot = {
  ...USUAL_SHOT,
  seed: 5,
  width: 760,
  height: 570,
  tiltDeg: 5,
  tiltTowardsDeg: 40,
  rollDeg: 6,
  bench: 'wood',
  benchColour: [0.4, 0.28, 0.17],
  lampWidth: 0.4,
};
const taken = new Map<string, { shot: ShotPicture; specimen: ShellSpecimen }>();
function take(damages: readonly Damage[], change: Partial<Shot> = {}, hole = false): ShotPicture {
  const key = JSON.stringify([damages, change, hole]);
  const known = taken.get(key);
  if (known) return known.shot;
  const specimen: ShellSpecimen = { seed: 3, ...SIZE, damages, ...(hole ? { hole: { arc: 60, axial: 0.5, diameterMm: 4 } } : {}) };
  const shot = takeShell(specimen, surfaceMaps(specimen, 960, 320), { ...SHOT, ...change });
  taken.set(key, { shot, specimen });
  return shot;
}
function read(shot: ShotPicture, change: { corners?: readonly Point[]; pixels?: Pixels; card?: readonly Point[] } = {}): SurfaceReading {
  const r = readSurface(
    'shell',
    change.pixels ?? shot.pixels,
    change.corners ?? shot.corners,
    SIZE,
    change.card ? { card: change.card } : {},
  );
  if (!r.ok) throw new Error(r.problem.sentence);
  return r.value;
}
const truthPercent = (damages: readonly Damage[], index: number): number => {
  const { truth } = surfaceMaps({ seed: 3, ...SIZE, damages }, 960, 320);
  return (truth.reduce((n, v) => n + (v === index ? 1 : 0), 0) / truth.length) * 100;
};
const changed = ({ width, height, data }: Pixels, f: (rgb: [number, number, number]) => [number, number, number]): Pixels => {
  const out = new Uint8ClampedArray(data.length);
  for (let i = 0; i < data.length; i += 4) {
    const [r, g, b] = f([data[i]!, data[i + 1]!, data[i + 2]!]);
    out.set([r, g, b, 255], i);
  }
  return { width, height, data: out };
};

const WIPE: Damage[] = [{ kind: 'wipe', arc: 105, halfDeg: 22, amount: 0.95 }];
const EDGE: Damage[] = [{ kind: 'edge', edge: 'rear', depth: 0.25, fromDeg: 35, toDeg: 145 }];
const SCORES: Damage[] = [
  { kind: 'score', axial: 0.25, fromDeg: 30, toDeg: 120, widthMm: 0.35, through: false },
  { kind: 'score', axial: 0.55, fromDeg: 50, toDeg: 150, widthMm: 0.55, through: true },
  { kind: 'score', axial: 0.8, fromDeg: 20, toDeg: 110, widthMm: 0.3, through: false },
];
const HEAT: Damage[] = [{ kind: 'heat', arc: 155, halfDeg: 85, most: 1.1 }];
const RUST: Damage[] = [{ kind: 'rust', arc: 110, halfDeg: 45, amount: 0.6 }];

describe('fields', () => {
  it('a box mean keeps a constant and the total of a spike', () => {
    const p = field(20, 10);
    p.data.fill(3);
    for (const v of boxMean(p, 3, 2).data) expect(v).toBeCloseTo(3, 5);
    const spike = field(21, 21);
    spike.data[10 * 21 + 10] = 9;
    const soft = boxMean(spike, 1, 1);
    expect(soft.data[10 * 21 + 10]).toBeCloseTo(1, 5);
    expect(soft.data.reduce((a, b) => a + b, 0)).toBeCloseTo(9, 4);
  });
  it('components are eight-connected, largest first', () => {
    const mask = Uint8Array.from([1, 0, 0, 0, 0, 1, 0, 1, 0, 0, 0, 1]);
    expect(components(mask, 4, 3).map((c) => c.area)).toEqual([2, 2]);
    expect(components(mask, 4, 3, 3)).toEqual([]);
  });
  it('a quantile of nothing is not a number', () => {
    expect(quantile(new Float32Array(0), 0.5)).toBeNaN();
    expect(quantile(Float32Array.from([5, 1, 3]), 0.5)).toBe(3);
  });
});

describe('a half shell is read from its picture', () => {
  it('finds nothing on a sound one', () => {
    const r = read(take([]));
    expect(r.summary.percent.lining).toBe(0);
    expect(r.summary.percent.heat).toBe(0);
    expect(r.lines.filter((l) => l.widthMm >= 0.15)).toEqual([]);
    expect(r.grade).toBeLessThanOrEqual(1);
    expect(r.confidence).toBeGreaterThan(0.6);
  });
  it.each([
    ['wiped to the lining', WIPE],
    ['worn at the rear edge', EDGE],
  ])('measures lining on one that is %s, at its place', (_, damages) => {
    const r = read(take(damages));
    const truth = truthPercent(damages, 1);
    expect(Math.abs(r.summary.percent.lining - truth)).toBeLessThan(3);
    expect(r.grade).toBe(3);
    expect(r.reason).toMatch(/lining exposed on \d+ % of the face.*3 Through/);
    if (damages === EDGE) expect(r.features.liningEdgeBias!).toBeGreaterThan(0.9);
    else expect(r.features.arcCentreDeg!).toBeGreaterThan(98);
  });
  it('counts scores and tells the one that went through', () => {
    const r = read(take(SCORES));
    expect(r.lines.filter((l) => l.widthMm >= 0.15)).toHaveLength(3);
    expect(r.lines.filter((l) => l.through).map((l) => Math.round(l.axial * 100) / 100)).toEqual([expect.closeTo(0.55, 1)]);
    for (const [i, d] of SCORES.entries()) {
      const line = [...r.lines].sort((a, b) => a.axial - b.axial)[i]!;
      expect(Math.abs(line.axial - (d as { axial: number }).axial)).toBeLessThan(0.04);
    }
  });
  it('tells heat from lining, and rust from copper', () => {
    const heat = read(take(HEAT)).summary.percent;
    expect(heat.heat).toBeGreaterThan(truthPercent(HEAT, 2) - 14);
    expect(heat.lining).toBeLessThan(1.5);
    const rust = read(take(RUST)).summary.percent;
    expect(rust.rust).toBeGreaterThan(truthPercent(RUST, 3) * 0.5);
    expect(rust.lining).toBeLessThan(rust.rust * 0.5);
  });
  it('leaves an oil hole out', () => {
    const r = read(take(WIPE, {}, true));
    expect(r.features.holes).toBe(1);
  });
  it.each([
    ['a warm cast of 15 % and a tilt of 14°', { gains: [1.15, 1, 0.85] as const, tiltDeg: 14, tiltTowardsDeg: 200 }],
    ['a cold cast of 15 % and a blurred lens', { gains: [0.87, 1, 1.15] as const, blurPx: 1.6 }],
    [
      'another bench and lamp and more noise',
      { bench: 'cloth' as const, benchColour: [0.4, 0.12, 0.1] as const, lamps: 2, lampWidth: 0.6, seed: 77, noise: 2.2 },
    ],
  ])('says much the same under %s', (_, change) => {
    const r = read(take(WIPE, change));
    expect(Math.abs(r.summary.percent.lining - truthPercent(WIPE, 1))).toBeLessThan(4);
    expect(r.grade).toBe(3);
  });
  it('finds the width of a face it is not told', () => {
    const shot = take(WIPE);
    const r = readSurface('shell', shot.pixels, shot.corners, { radiusMm: 26, widthMm: null });
    expect(r.ok && Math.abs(r.value.size.widthMm / 20 - 1)).toBeLessThan(0.05);
  });
});

describe('what cannot be read is said', () => {
  const shot = (): ShotPicture => take(WIPE);
  const problem = (pixels: Pixels, corners: readonly Point[]): string => {
    const r = readSurface('shell', pixels, corners, SIZE);
    return r.ok ? `graded ${r.value.grade}` : r.problem.code;
  };
  it.each([
    ['crossed corners', ([a, b, c, d]: readonly Point[]) => [a!, c!, b!, d!], 'corners-crossed'],
    ['corners on a line', (c: readonly Point[]) => c.map((_, i): Point => [100 + 50 * i, 100 + 50 * i]), 'corners-crossed'],
    ['a corner outside', ([a, b, c, d]: readonly Point[]) => [[-200, a![1]] as Point, b!, c!, d!], 'corners-outside'],
    ['three corners', (c: readonly Point[]) => c.slice(0, 3), 'corners-missing'],
    ['a corner that is no number', ([a, b, c]: readonly Point[]) => [a!, b!, c!, [NaN, 3] as Point], 'corners-missing'],
  ])('%s', (_, change, code) => expect(problem(shot().pixels, change(shot().corners))).toBe(code));
  it('a picture without colour', () => {
    const grey = changed(shot().pixels, ([r, g, b]) => {
      const v = Math.round((r + g + b) / 3);
      return [v, v, v];
    });
    expect(problem(grey, shot().corners)).toBe('picture-grey');
  });
  it('a picture of cloth', () => {
    const red = changed(shot().pixels, ([r]) => [Math.min(255, r + 60), r * 0.35, r * 0.3]);
    expect(problem(red, shot().corners)).toMatch(/picture-no-metal|graded null/);
  });
  it('a tiny picture, and a face far away', () => {
    expect(problem({ width: 20, height: 20, data: new Uint8ClampedArray(1600) }, shot().corners)).toBe('picture-small');
    const far = take(WIPE, { fill: 0.16 });
    expect(problem(far.pixels, far.corners)).toBe('picture-small');
  });
  it('over-exposed: no grade rather than a wrong one', () => {
    const white = changed(shot().pixels, (rgb) => rgb.map((v) => Math.min(255, v * 3 + 90)) as [number, number, number]);
    const r = readSurface('shell', white, shot().corners, SIZE);
    if (r.ok) {
      expect(r.value.grade).toBeNull();
      expect(r.value.reason).toMatch(/No grade is proposed.*over-exposed/);
    } else expect(r.problem.sentence.length).toBeGreaterThan(10);
  });
  it('corners on the bench beside the part', () => {
    const { pixels } = shot();
    const r = readSurface(
      'shell',
      pixels,
      [
        [60, 120],
        [60, 40],
        [260, 40],
        [260, 120],
      ],
      SIZE,
    );
    if (r.ok) expect(r.value.grade).toBeNull();
  });
});

it('answers as a file with every figure where it is documented', () => {
  const shot = take(WIPE);
  const json = readingJson(read(shot), { part: 'shell', corners: shot.corners, sizeAssumed: true }) as Record<string, unknown>;
  expect(Object.keys(json)).toEqual(
    expect.arrayContaining([
      'grade',
      'reason',
      'percent',
      'lines',
      'linesFrom015mm',
      'features',
      'map',
      'confidence',
      'doubts',
      'corners',
      'scale',
    ]),
  );
  const { shares, seen } = json['map'] as { shares: Record<string, number[][]>; seen: number[][] };
  expect(shares['lining']).toHaveLength(MAP_COLUMNS);
  expect(shares['lining']![0]).toHaveLength(MAP_ROWS);
  const mean = shares['lining']!.flat().reduce((s, v, i) => s + v * seen.flat()[i]!, 0) / seen.flat().reduce((a, b) => a + b, 0);
  expect(mean * 100).toBeCloseTo((json['percent'] as Record<string, number>)['lining']!, 0);
});

describe('a reading in the ledger', () => {
  const layout = engineTemplate('inline-4-petrol')!.layout;
  const frame = stationsOf(layout).find((s) => s.id === 'rod.1.shell.lower')!.surface!;
  const cells = frame.columns * frame.rows;
  const readOf = (share: number, change: Partial<SurfaceRead> = {}): SurfaceRead => ({
    sha256: 'a'.repeat(64),
    columns: frame.columns,
    rows: frame.rows,
    shares: { lining: Array(cells).fill(share) as number[] },
    seen: Array(cells).fill(100) as number[],
    lines: [{ fromDeg: 20, toDeg: 120, axial: 0.5, widthMm: 0.3, through: false }],
    crazedPercent: 0,
    specks: 0,
    confidence: 0.9,
    doubts: [],
    reader: '1',
    ...change,
  });
  class Case {
    state: CaseState = emptyCase('c');
    constructor() {
      this.add('case-opened', null, { number: '1', title: 't' });
      this.add('layout-set', null, { layout });
    }
    add(kind: never | string, station: string | null, body: object): string | null {
      const checked = checkEntry(kind as never, station, body, this.state);
      if (!checked.ok) return checked.problem.sentence;
      const seq = this.state.seq + 1;
      this.state = applyEntry(this.state, {
        id: `e${seq}`,
        kind: kind as never,
        station,
        body: body as never,
        author: { id: 'a', name: 'A' } as never,
        time: '2026-11-26T10:00:00Z',
        seq,
        hash: `h${seq}`,
      });
      return null;
    }
    get shell() {
      return caseView(this.state)!.byId.get('rod.1.shell.lower')!;
    }
  }

  it('proposes a grade and shows its wear, but counts as examined only when it is confirmed', () => {
    const c = new Case();
    expect(c.add('surface-read', 'rod.1.shell.lower', readOf(30))).toBeNull();
    expect(c.shell.state).toBe('not-examined');
    expect(c.shell.proposal).toMatchObject({ grade: 3 });
    expect(c.shell.summary!.percent.lining).toBeCloseTo(30, 5);
    expect(c.shell.summary!.lines.probe).toBe(1);
    c.add('grade-confirmed', 'rod.1.shell.lower', { grade: 3, proposed: 3, reason: '', book: '1' });
    expect(c.shell.state).toBe('findings');
    expect(c.shell.summary!.percent.lining).toBeCloseTo(30, 5);
  });
  it('is evidence once it is confirmed as a finding, and not before, nor when the builder calls the part sound', () => {
    const edge = readOf(0, { shares: { lining: Array.from({ length: cells }, (_, i) => (i < 2 * frame.columns ? 80 : 0)) }, lines: [] });
    const found = (c: Case): boolean =>
      collectEvidence(caseView(c.state)!).some((e) => e.feature.id === 'seen.edge-wear-rods' && e.present);
    const c = new Case();
    c.add('surface-read', 'rod.1.shell.lower', edge);
    expect(found(c)).toBe(false);
    c.add('grade-confirmed', 'rod.1.shell.lower', { grade: 3, proposed: 3, reason: '', book: '1' });
    expect(found(c)).toBe(true);
    const sound = new Case();
    sound.add('surface-read', 'rod.1.shell.lower', edge);
    sound.add('state-set', 'rod.1.shell.lower', { state: 'sound' });
    expect(found(sound)).toBe(false);
    // It is not passed over: the picture stands against the word, until a grade is confirmed, either way.
    const against = (): number | null => readAgainstSound(caseView(sound.state)!.byId.get('rod.1.shell.lower')!);
    expect(against()).toBe(3);
    sound.add('grade-confirmed', 'rod.1.shell.lower', { grade: 0, proposed: 3, reason: 'a reflection', book: '1' });
    expect(against()).toBeNull();
  });
  it('proposes nothing when it was not trusted', () => {
    const c = new Case();
    c.add('surface-read', 'rod.1.shell.lower', readOf(30, { confidence: 0.2, doubts: ['The face is too dark to read.'] }));
    expect(c.shell.proposal).toBeNull();
  });
  it('gives way to what a hand draws over it, and comes back when that is wiped', () => {
    const c = new Case();
    c.add('surface-read', 'rod.1.shell.lower', readOf(40));
    const stroke = (id: string, cls: SurfaceMark['class']): SurfaceMark => ({
      id,
      shape: 'stroke',
      class: cls,
      points: [
        [0, 0.5],
        [1, 0.5],
      ],
      radiusMm: frame.heightMm,
      made: 'found-so',
    });
    c.add('mark-made', 'rod.1.shell.lower', { mark: stroke('m1', 'sound') });
    expect(c.shell.summary!.percent.lining).toBeCloseTo(0, 3);
    expect(c.shell.readLines).toEqual([]);
    c.add('mark-made', 'rod.1.shell.lower', { mark: stroke('m2', 'erase') });
    expect(c.shell.summary!.percent.lining).toBeCloseTo(40, 3);
  });
  it.each([
    ['a map of another size', { seen: [100, 100] }, /cells has/],
    ['a share past everything', { shares: { lining: Array(cells).fill(101) as number[] } }, /must be less than or equal to 100/],
    ['a class nobody knows', { shares: { gold: Array(cells).fill(1) as number[] } as never }, /not allowed/],
  ])('is refused with %s', (_, change, words) =>
    expect(new Case().add('surface-read', 'rod.1.shell.lower', readOf(1, change))).toMatch(words),
  );

  it('merges pictures cell by cell, each from the one that saw it best, and one line once', () => {
    const left = readOf(10, { seen: Array.from({ length: cells }, (_, i) => (i % frame.columns < 18 ? 100 : 0)) });
    const right = readOf(50, { sha256: 'b'.repeat(64), seen: Array.from({ length: cells }, (_, i) => (i % frame.columns < 18 ? 30 : 90)) });
    const map = mergeReads([left, right])!;
    expect(map.shares.lining[0]).toBeCloseTo(0.1, 5);
    expect(map.shares.lining[frame.columns - 1]).toBeCloseTo(0.5, 5);
    expect(map.seen[frame.columns - 1]).toBeCloseTo(0.9, 5);
    expect(summariseMap(wearMap(frame, [], map), { hair: 0, probe: 0, nail: 0, through: 0 }).percent.lining).toBeGreaterThan(25);
    expect(mergeLines([left, right], [], 180, frame.heightMm)).toHaveLength(1);
    expect(mergeReads([])).toBeNull();
  });
  it('keeps whole percent of what was found', () => {
    const r = onFrame(read(take(EDGE)), 'shell', frame, USUAL_TURN, 'c'.repeat(64));
    expect(r.seen).toHaveLength(MAP_COLUMNS * MAP_ROWS);
    expect(Math.max(...r.shares.lining!)).toBe(100);
    expect(new Case().add('surface-read', 'rod.1.shell.lower', r)).toBeNull();
  });
});

describe('a face of one colour all over', () => {
  const everywhere = { arc: 90, halfDeg: 600 } as const;
  it.each([
    ['brown', [{ kind: 'heat', ...everywhere, most: 0.6 }]],
    ['blue', [{ kind: 'heat', ...everywhere, most: 0.95, blue: true }]],
  ] as const)('%s from end to end gets no grade, and is told to be taken again', (_, damages) => {
    const r = read(take([...damages]));
    expect(r.grade).toBeNull();
    expect(r.reason).toMatch(/sound metal has in no usual light/);
  });
  it('black from end to end gets none either: the parting faces beside it are bright', () => {
    const r = read(take([{ kind: 'heat', ...everywhere, most: 1.1 }]));
    expect(r.grade).toBeNull();
    expect(r.reason).toMatch(/far darker than the bare steel of its parting faces/);
  });
  it('of sound metal in a warm or a cold light is graded all the same', () => {
    for (const gains of [
      [1.14, 1, 0.87],
      [0.88, 1, 1.13],
    ] as const)
      expect(read(take([], { gains })).grade).toBe(0);
  });
  it('of lining is refused with what to do', () => {
    const shot = take([{ kind: 'wipe', arc: 90, halfDeg: 400, amount: 1.4 }]);
    const r = readSurface('shell', shot.pixels, shot.corners, SIZE);
    expect(r.ok ? '' : r.problem.sentence).toMatch(/If nothing sound is left of it, grade it by hand/);
  });
});
