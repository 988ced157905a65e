import { caseView, type CaseView } from '../case/views.js';
import { fedBy, oilRoute } from '../engine/oilRoute.js';
import { engineTemplate } from '../engine/templates.js';
import { caseOf } from '../testing/caseOf.js';
import { write, openedCase } from '../testing/write.js';
import { collectEvidence, toObservation } from './evidence.js';
import { openSpread } from './openSpread.js';
import { correlation, spreadFindings } from './spread.js';

// Where damage lies over the engine: each rule is told from grades alone, and says nothing while too little was examined.
function graded(grades: Readonly<Record<string, number>>, template = 'inline-4-petrol'): CaseView {
  let state = openedCase(template);
  const all = caseView(state)!.stations.map((s) => s.station.id);
  for (const [pattern, grade] of Object.entries(grades)) {
    const fits = new RegExp(`^${pattern.replaceAll('.', '\\.').replaceAll('*', '[^.]+')}$`);
    const ids = all.filter((id) => fits.test(id));
    if (ids.length === 0) throw new Error(`${pattern} matches no place of ${template}`);
    for (const id of ids) state = write(state, 'grade-confirmed', id, { grade, proposed: null, reason: '', book: '1' });
  }
  return caseView(state)!;
}
const of = (grades: Readonly<Record<string, number>>, template?: string): Readonly<Record<string, boolean>> =>
  Object.fromEntries(Object.entries(spreadFindings(graded(grades, template))).map(([id, f]) => [id, f.present]));
const SHELLS = { 'rod.*.shell.*': 0, 'main.*.shell.*': 0 };

describe('a branch before the filter', () => {
  const branched = (grades: Readonly<Record<string, number>>): unknown => {
    const findings = Object.entries(grades).map(([station, grade]) => ({ station, grade }));
    const view = caseOf({ engine: { template: 'inline-4-petrol', unfiltered: ['main.2'] }, findings });
    return spreadFindings(view)['spread.unfiltered-worse']?.present;
  };
  const others = { 'main.1.shell.lower': 0, 'main.3.shell.lower': 1, 'rod.4.shell.upper': 0 };
  it('is told where it alone is hurt, denied where the rest is too, and silent while only one side was seen', () => {
    expect(branched({ ...others, 'main.2.shell.lower': 3, 'rod.2.shell.upper': 1 })).toBe(true);
    expect(branched({ ...others, 'main.2.shell.lower': 3, 'main.4.shell.lower': 2 })).toBe(false);
    expect(branched({ 'main.2.shell.lower': 3 })).toBeUndefined();
    expect(branched(others)).toBeUndefined();
  });
});

describe('how many bearings', () => {
  it('one alone, or all alike, or neither', () => {
    expect(of({ ...SHELLS, 'rod.2.shell.lower': 3 })).toMatchObject({ 'spread.one-bearing': true, 'spread.all-bearings': false });
    expect(of({ 'rod.*.shell.*': 3, 'main.*.shell.*': 2 })).toMatchObject({ 'spread.one-bearing': false, 'spread.all-bearings': true });
    // Between half and four of five nothing is said of all.
    const most = of({ ...SHELLS, 'rod.*.shell.lower': 3, 'main.1.shell.lower': 3, 'main.2.shell.lower': 3 });
    expect(most['spread.one-bearing']).toBe(false);
    expect(most).not.toHaveProperty('spread.all-bearings');
  });

  it('is not said while fewer than six in ten were examined', () => {
    expect(of({ 'rod.2.shell.*': 3, 'rod.1.shell.*': 0 })).not.toHaveProperty('spread.one-bearing');
    expect(of(SHELLS)).not.toHaveProperty('spread.one-bearing');
  });

  it('one main and the pins it feeds', () => {
    const fed = fedBy(oilRoute(engineTemplate('inline-4-petrol')!.layout), 'main.2');
    expect(fed.length).toBeGreaterThan(0);
    const family = Object.fromEntries(fed.map((rod) => [`${rod}.shell.lower`, 3]));
    expect(of({ ...SHELLS, 'main.2.shell.lower': 3, ...family })['spread.main-and-its-pins']).toBe(true);
    // One bearing beyond the family, and it keeps to it no longer.
    expect(of({ ...SHELLS, 'main.2.shell.lower': 3, ...family, 'main.5.shell.lower': 3 })['spread.main-and-its-pins']).toBe(false);
    expect(of({ ...SHELLS, 'rod.1.shell.lower': 3, 'rod.4.shell.lower': 3 })['spread.main-and-its-pins']).toBe(false);
  });

  it('both rods of one shared pin, in a V', () => {
    const v8 = 'vee-8-petrol';
    const view = graded({ ...SHELLS, 'rod.1.shell.lower': 3 }, v8);
    const bank = view.stations
      .filter((s) => s.station.part === 'shell' && s.station.carries === 'rod' && s.station.half === 'lower')
      .map((s) => s.station.id);
    const pairs = bank
      .slice(1)
      .map((id) => spreadFindings(graded({ ...SHELLS, 'rod.1.shell.lower': 3, [id]: 3 }, v8))['spread.two-on-one-pin']!.present);
    // Exactly one other rod shares the pin of the first.
    expect(pairs.filter(Boolean)).toHaveLength(1);
  });
});

describe('rods and mains', () => {
  it('are held against each other by their mean grades', () => {
    expect(of({ 'rod.*.shell.*': 3, 'main.*.shell.*': 0 })).toMatchObject({
      'spread.rods-worse': true,
      'spread.mains-worse': false,
      'spread.rods-only': true,
      'spread.mains-only': false,
    });
    expect(of({ 'rod.*.shell.*': 0, 'main.*.shell.*': 3 })).toMatchObject({
      'spread.rods-worse': false,
      'spread.mains-worse': true,
      'spread.rods-only': false,
      'spread.mains-only': true,
    });
    expect(of({ 'rod.*.shell.*': 2, 'main.*.shell.*': 2 })).toMatchObject({ 'spread.rods-worse': false, 'spread.mains-worse': false });
  });

  it('centre mains are worse only when they are worse than either end', () => {
    expect(of({ ...SHELLS, 'main.3.shell.lower': 3 })['spread.centre-mains']).toBe(true);
    expect(of({ ...SHELLS, 'main.3.shell.lower': 3, 'main.5.shell.lower': 3 })['spread.centre-mains']).toBe(false);
  });

  it('halves are told once two damaged bearings have both examined', () => {
    expect(of({ ...SHELLS, 'rod.1.shell.upper': 3, 'rod.2.shell.upper': 3 })).toMatchObject({
      'spread.upper-halves': true,
      'spread.lower-halves': false,
    });
    expect(of({ ...SHELLS, 'main.1.shell.lower': 3, 'main.2.shell.lower': 3 })).toMatchObject({
      'spread.upper-halves': false,
      'spread.lower-halves': true,
    });
    expect(of({ ...SHELLS, 'main.1.shell.lower': 3 })).not.toHaveProperty('spread.upper-halves');
  });

  it('along the oil route damage grows, fades, or does neither', () => {
    const even = of({ 'rod.*.shell.*': 2, 'main.*.shell.*': 2 });
    expect(even).toMatchObject({ 'spread.grows-along-route': false, 'spread.fades-along-route': false });
    // By the number of the main a bearing is fed from: the last is the farthest from the pump.
    const by = (grade: (main: number) => number): Record<string, number> => ({
      ...Object.fromEntries([1, 2, 3, 4, 5].map((n) => [`main.${n}.shell.*`, grade(n)])),
      ...Object.fromEntries([1, 2, 3, 4].map((n) => [`rod.${n}.shell.*`, grade(n + 1)])),
    });
    expect(of(by((n) => Math.min(4, n - 1)))).toMatchObject({ 'spread.grows-along-route': true, 'spread.fades-along-route': false });
    expect(of(by((n) => 5 - n))).toMatchObject({ 'spread.grows-along-route': false, 'spread.fades-along-route': true });
  });
});

describe('pistons and the rest', () => {
  const TOP = { 'piston.*.skirt.*': 0, 'bore.*': 0, 'piston.*.crown': 0 };

  it('all pistons, or one', () => {
    expect(of({ 'piston.*.skirt.*': 3 })).toMatchObject({ 'spread.all-pistons': true, 'spread.one-piston': false });
    const one = Object.keys(graded({}).stations).length > 0 ? graded({}).stations.find((s) => s.station.part === 'skirt')!.station.id : '';
    expect(of({ 'piston.*.skirt.*': 0, [one]: 3 })).toMatchObject({ 'spread.all-pistons': false, 'spread.one-piston': true });
  });

  it('neighbouring bores, and not those two apart', () => {
    expect(of({ ...TOP, 'bore.2': 3, 'bore.3': 3 })['spread.neighbour-bores']).toBe(true);
    expect(of({ ...TOP, 'bore.1': 3, 'bore.3': 3 })['spread.neighbour-bores']).toBe(false);
    expect(of({ ...TOP, 'bore.1': 3 })['spread.neighbour-bores']).toBe(false);
  });

  it('one cylinder, unless a main is hurt too', () => {
    expect(of({ ...TOP, 'bore.2': 3, 'piston.2.crown': 2 })['spread.one-cylinder']).toBe(true);
    expect(of({ ...TOP, 'bore.2': 3, 'main.1.shell.lower': 3 })['spread.one-cylinder']).toBe(false);
  });

  it('above or below the crank', () => {
    expect(of({ ...TOP, ...SHELLS, 'bore.2': 3 })).toMatchObject({ 'spread.bearings-clean': true, 'spread.pistons-clean': false });
    expect(of({ ...TOP, ...SHELLS, 'rod.2.shell.lower': 3 })).toMatchObject({
      'spread.bearings-clean': false,
      'spread.pistons-clean': true,
    });
  });

  it('valve gear alone', () => {
    const cam = graded({}).stations.find((s) => s.station.part === 'cam')!.station.id;
    expect(of({ ...TOP, ...SHELLS, [cam]: 3 })['spread.top-end-only']).toBe(true);
    expect(of({ ...TOP, ...SHELLS, [cam]: 3, 'rod.2.shell.lower': 3 })['spread.top-end-only']).toBe(false);
  });

  it('pistons get worse towards one end', () => {
    const cylinders = { 'piston.1.skirt.*': 0, 'piston.2.skirt.*': 1, 'piston.3.skirt.*': 2, 'piston.4.skirt.*': 3 };
    expect(of(cylinders)['spread.hot-cylinders']).toBe(true);
    expect(of({ 'piston.1.skirt.*': 2, 'piston.2.skirt.*': 0, 'piston.3.skirt.*': 0, 'piston.4.skirt.*': 2 })['spread.hot-cylinders']).toBe(
      false,
    );
  });

  it('nothing anywhere is said only when most running parts were looked at', () => {
    expect(of({ 'bore.1': 0 })).not.toHaveProperty('spread.nothing-found');
    expect(of({ ...TOP, ...SHELLS, 'crank.*.*': 0, 'rings.*.pack': 0 })['spread.nothing-found']).toBe(true);
    expect(of({ 'bore.1': 2 })['spread.nothing-found']).toBe(false);
  });
});

describe('correlation', () => {
  it('is Pearson’s: one along a line, minus one against it, none where a side does not vary', () => {
    expect(correlation([1, 2, 3], [2, 4, 6])).toBeCloseTo(1, 12);
    expect(correlation([1, 2, 3], [6, 4, 2])).toBeCloseTo(-1, 12);
    expect(correlation([1, 2, 3], [5, 5, 5])).toBe(0);
    // Anscombe 1973, first set.
    const x = [10, 8, 13, 9, 11, 14, 6, 4, 12, 7, 5];
    const y = [8.04, 6.95, 7.58, 8.81, 8.33, 9.96, 7.24, 4.26, 10.84, 4.82, 5.68];
    expect(correlation(x, y)).toBeCloseTo(0.81642, 5);
  });
});

describe('light marks, where there is nothing else', () => {
  const light = (half: 'upper' | 'lower', grade = 1): CaseView =>
    caseOf({
      findings: [
        ...[1, 2, 3, 4].flatMap((r) => [
          { station: `rod.${r}.shell.${half}`, grade: 1 },
          { station: `rod.${r}.shell.${half === 'upper' ? 'lower' : 'upper'}`, grade: 0 },
        ]),
        ...[1, 2, 3, 4, 5].flatMap((m) => [
          { station: `main.${m}.shell.upper`, grade: 0 },
          { station: `main.${m}.shell.lower`, grade: m === 1 ? grade : 0 },
        ]),
      ],
    });

  it('say on which half they lie, faintly, and never what they do not show', () => {
    const found = spreadFindings(light('upper', 0));
    expect(found['spread.upper-halves']).toMatchObject({ present: true, faint: true });
    expect(found['spread.lower-halves']).toBeUndefined();
    expect(found['spread.rods-worse']).toMatchObject({ present: true, faint: true });
    expect(spreadFindings(light('lower', 0))['spread.lower-halves']).toMatchObject({ present: true, faint: true });
  });

  it('say nothing beside a bearing of grade 2', () => {
    expect(spreadFindings(light('upper', 3))['spread.upper-halves']?.faint).toBeUndefined();
  });
});

describe('spread over places that are open', () => {
  const openAt = (among: readonly string[], count: number | null): CaseView =>
    caseOf({
      version: 2,
      sound: ['rod.*.shell.*', 'main.*.shell.*'],
      sights: [{ sight: 'spun-shell', among, of: count, grade: 4 }],
    });

  it('is in expectation over every place it may be at', () => {
    const open = openSpread(openAt(['main.2.shell.lower', 'main.3.shell.lower', 'main.4.shell.lower', 'main.1.shell.lower'], 1));
    // Three of the four are mains in the middle.
    expect(open['spread.centre-mains']).toMatchObject({ there: 0.75, not: 0.25 });
    expect(open['spread.one-bearing']).toMatchObject({ there: 1, not: 0 });
  });

  it('weighs less than the same place known, and as much where every placement agrees', () => {
    const item = (among: readonly string[]): number => {
      const found = collectEvidence(openAt(among, 1)).find((e) => e.feature.id === 'spread.centre-mains')!;
      const o = toObservation(found);
      return o.ifPresent / Math.max(1e-12, o.ifAbsent);
    };
    expect(item(['main.1.shell.lower', 'main.3.shell.lower'])).toBeCloseTo(1, 9);
    expect(item(['main.2.shell.lower', 'main.3.shell.lower'])).toBeGreaterThan(1e6);
    expect(item(['main.1.shell.lower', 'main.2.shell.lower', 'main.3.shell.lower'])).toBeCloseTo(2, 9);
  });

  it('is as before where nothing is open', () => {
    const view = caseOf({ sound: ['rod.*.shell.*', 'main.*.shell.*'], findings: [{ station: 'main.3.shell.lower', grade: 3 }] });
    for (const [id, { finding, there, not }] of Object.entries(openSpread(view))) {
      expect(finding).toEqual(spreadFindings(view)[id]);
      expect([there, not]).toEqual(finding.present ? [1, 0] : [0, 1]);
    }
  });
});
