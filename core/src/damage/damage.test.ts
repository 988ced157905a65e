import fc from 'fast-check';
import { FEATURES } from '../cause/data/features.js';
import { engineTemplate } from '../engine/templates.js';
import { stationsOf, type SurfaceFrame } from '../engine/stations.js';
import { GRADES, WEAR_CLASS_INFO, WEAR_CLASSES } from './classes.js';
import { GRADE_BOOK, proposeGrade } from './gradeBook.js';
import { PATTERNS, patternsFor } from './patterns.js';
import { damageShare, summariseWear, wearMap, type SurfaceMark } from './wearMap.js';

const stations = stationsOf(engineTemplate('inline-4-petrol')!.layout);
const frame = (id: string): SurfaceFrame => stations.find((s) => s.id === id)!.surface!;
const shell = frame('rod.1.shell.upper');
const stroke = (cls: SurfaceMark['class'], v: number, radiusMm: number, u: [number, number] = [0, 1]): SurfaceMark => ({
  id: `${cls}${v}`,
  shape: 'stroke',
  class: cls,
  points: [
    [u[0], v],
    [u[1], v],
  ],
  radiusMm,
  made: 'found-so',
});
const line = (depth: NonNullable<SurfaceMark['depth']>, v = 0.5): SurfaceMark => ({
  id: depth + v,
  shape: 'line',
  class: 'lining',
  points: [
    [0.1, v],
    [0.9, v],
  ],
  radiusMm: 0.15,
  depth,
  made: 'found-so',
});
const grade = (
  marks: SurfaceMark[],
  part: 'shell' | 'journal' | 'bore' = 'shell',
  f = shell,
  construction: 'trimetal' | 'aluminium-bimetal' = 'trimetal',
) => proposeGrade(part, construction, summariseWear(wearMap(f, marks), marks));

describe('wear map', () => {
  it('measures a band as its share of the face', () => {
    // A band of half the width along the whole arc.
    const marks = [stroke('lining', 0.5, shell.heightMm / 4)];
    expect(summariseWear(wearMap(shell, marks), marks).percent.lining).toBeCloseTo(50, -1);
    expect(summariseWear(wearMap(shell, []), []).percent.sound).toBe(100);
  });
  it('lets later marks cover earlier ones, wiping take them away and unseen leave the count', () => {
    const marks = [stroke('lining', 0.5, 3), stroke('heat', 0.5, 3)];
    expect(summariseWear(wearMap(shell, marks), marks).percent.lining).toBe(0);
    const wiped = [...marks, stroke('erase', 0.5, 4)];
    expect(summariseWear(wearMap(shell, wiped), wiped).percent.sound).toBe(100);
    const unseen = [stroke('lining', 0.25, 5), stroke('unseen', 0.75, shell.heightMm / 4)];
    const s = summariseWear(wearMap(shell, unseen), unseen);
    expect(s.seenPercent).toBeCloseTo(50, -1);
    expect(s.percent.lining).toBeGreaterThan(60);
  });
  it('has shares that add up in every seen cell', () => {
    const marks = fc.array(
      fc.record({
        id: fc.uuid(),
        shape: fc.constantFrom('stroke' as const, 'line' as const),
        class: fc.constantFrom(...WEAR_CLASSES, 'unseen' as const, 'erase' as const),
        points: fc.array(fc.tuple(fc.double({ min: 0, max: 1, noNaN: true }), fc.double({ min: 0, max: 1, noNaN: true })), {
          minLength: 1,
          maxLength: 4,
        }),
        radiusMm: fc.double({ min: 0.1, max: 20, noNaN: true }),
        made: fc.constant('found-so' as const),
      }),
      { maxLength: 6 },
    );
    fc.assert(
      fc.property(marks, (m) => {
        const map = wearMap(shell, m);
        let [off, most] = [0, 0];
        for (let cell = 0; cell < map.seen.length; cell++) {
          const sum = WEAR_CLASSES.reduce((s, c) => s + map.shares[c][cell]!, 0);
          off = Math.max(off, Math.abs(sum - (map.seen[cell]! > 0 ? 1 : 0)));
          most = Math.max(most, damageShare(map, cell));
        }
        expect(off).toBeLessThan(5e-6);
        expect(most).toBeLessThanOrEqual(1.0001);
      }),
      { numRuns: 40 },
    );
  });
  it('tells the edges apart, front and rear mirrored', () => {
    const at = (v: number): ReturnType<typeof summariseWear> =>
      summariseWear(wearMap(shell, [stroke('lining', v, 2)]), [stroke('lining', v, 2)]);
    expect(at(0.95).edgeBias).toBeCloseTo(1, 5);
    expect(at(0.05).edgeBias).toBeCloseTo(-1, 5);
    expect(at(0.5).edgeBias).toBeCloseTo(0, 1);
    expect(at(0.95).edgeShare.rear).toBeGreaterThan(0.9);
  });
  it('counts lines and takes only those through to the lining as area', () => {
    const marks = [line('hair', 0.2), line('probe', 0.4), line('through', 0.6)];
    const s = summariseWear(wearMap(shell, marks), marks);
    expect(s.lines).toEqual({ hair: 1, probe: 1, nail: 0, through: 1 });
    const none = [line('probe')];
    expect(summariseWear(wearMap(shell, none), none).percent.lining).toBe(0);
  });
  it('does not count a line made by us', () => {
    const ours = [{ ...line('nail'), made: 'by-us' as const }];
    expect(summariseWear(wearMap(shell, ours), ours).lines.nail).toBe(0);
  });
});

describe('grade book', () => {
  it.each([
    [[], 0],
    [[line('hair')], 1],
    [[stroke('lining', 0.5, 0.5, [0.4, 0.6])], 2],
    [[stroke('lining', 0.5, 3)], 3],
    [[stroke('lining', 0.5, 9)], 4],
    [[stroke('steel', 0.5, 1.5)], 3],
    [[stroke('polished', 0.5, 5)], 1],
  ] as Array<[SurfaceMark[], number]>)('case %#', (marks, expected) => expect(grade(marks).grade).toBe(expected));
  it('says why, with the edge and what was not seen', () => {
    const p = grade([stroke('lining', 0.92, 2), stroke('unseen', 0.1, 1.5)]);
    expect(p.reason).toMatch(
      /lining exposed on \d+ % of the face, \d+ % of it in the quarter at the rear edge; \d+ % not seen → 3 Through/,
    );
  });
  it('does not grade copper on an aluminium bimetal shell', () => {
    expect(grade([stroke('lining', 0.5, 3)], 'shell', shell, 'aluminium-bimetal').grade).toBe(0);
    expect(grade([stroke('scuffed', 0.5, 3)], 'shell', shell, 'aluminium-bimetal').grade).toBe(3);
  });
  it('grades a journal by nail and tint, a bore by scuffed arc', () => {
    const pin = frame('crank.pin.1');
    expect(grade([line('nail')], 'journal', pin).grade).toBe(3);
    expect(grade([stroke('heat', 0.5, 20)], 'journal', pin).grade).toBe(4);
    const bore = frame('bore.1');
    expect(grade([stroke('scuffed', 0.5, 3, [0.1, 0.12])], 'bore', bore).grade).toBe(2);
    expect(grade([stroke('scuffed', 0.5, 3, [0.1, 0.4])], 'bore', bore).grade).toBe(3);
  });
  it('never falls when more lining shows', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.2, max: 9, noNaN: true }), fc.double({ min: 0, max: 3, noNaN: true }), (r, more) =>
        expect(grade([stroke('lining', 0.5, r + more)]).grade).toBeGreaterThanOrEqual(grade([stroke('lining', 0.5, r)]).grade),
      ),
      { numRuns: 30 },
    );
  });
  it('is well formed: known classes, grades that rise with their threshold', () => {
    for (const rule of GRADE_BOOK.rules) {
      expect(GRADES).toContain(rule.grade);
      if (rule.on.kind !== 'lines') expect(WEAR_CLASSES).toContain(rule.on.class);
    }
  });
});

describe('data', () => {
  it('has brush keys that do not collide', () =>
    expect(new Set(WEAR_CLASSES.map((c) => WEAR_CLASS_INFO[c].key)).size).toBe(WEAR_CLASSES.length));
  it('has patterns with every text, a known feature and unique ids', () => {
    expect(new Set(PATTERNS.map((p) => p.id)).size).toBe(PATTERNS.length);
    const features = new Set(FEATURES.map((f) => f.id));
    for (const p of PATTERNS) {
      expect(features).toContain(p.feature);
      for (const words of [p.name, p.look, p.mechanism, p.ask]) expect(words.length).toBeGreaterThan(7);
      expect(p.parts.length).toBeGreaterThan(0);
    }
    expect(PATTERNS.length).toBeGreaterThanOrEqual(12);
    expect(patternsFor('shell').length).toBeGreaterThan(10);
  });
});
