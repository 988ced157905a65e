import { ENGINE_TEMPLATES, engineTemplate } from '../engine/templates.js';
import type { CaseView } from '../case/views.js';
import type { Gauge } from '../units/gauge.js';
import type { SheetLine } from '../measure/sheets/line.js';
import { specOfPlace } from './caseMeasure.js';
import { clearancesAfter, gradeFromReadings, reboreEffect, sizeForAll } from './consequences.js';
import { boreWall, clearanceRun, cutEffects, deckMap, ovalThrough, repeatsOf } from './maps.js';
import { placeOutcome, type Take } from '../measure/program/outcome.js';
import { measureProgram, placeOf } from '../measure/program/program.js';
import { roundOf, roundsOf } from '../measure/program/rounds.js';
import type { SheetSpec } from '../measure/program/specs.js';

const FOUR = engineTemplate('inline-4-petrol')!.layout;
const MIC: Gauge = {
  id: 'mic',
  name: 'Micrometer',
  kind: 'outside-micrometer',
  resolutionMm: 0.001,
  expandedUncertaintyMm: 0.003,
  repeatabilityMm: 0.0014,
};

/** Just as much of a case as the bench needs: readings by place, specifications by kind. */
function caseWith(readings: Record<string, Record<string, number>>, specs: Record<string, SheetSpec>): CaseView {
  const entries = (id: string): unknown[] =>
    Object.entries(readings[id] ?? {}).map(([cell, value]) => ({
      value: { sheet: id.split('/')[1], cell, take: 1, value, gauge: MIC, text: String(value), unit: 'mm', insisted: false },
      version: { entry: `${id}${cell}`, time: '2026-11-25T10:00:00Z' },
    }));
  const byId = new Map<string, { readings: unknown[] }>();
  for (const p of measureProgram(FOUR))
    if (p.station) byId.set(p.station, { readings: [...(byId.get(p.station)?.readings ?? []), ...entries(p.id)] });
  return {
    caseId: JSON.stringify([readings, specs]),
    layout: FOUR,
    byId,
    readings: [],
    specs: Object.fromEntries(Object.entries(specs).map(([k, spec]) => [k, { value: { spec } }])),
    limits: undefined,
  } as unknown as CaseView;
}

describe('the specification of a place', () => {
  const endFloat = measureProgram(FOUR).find((p) => p.kind === 'end-float')!;
  const limits = (lower: number | null, upper: number | null): CaseView['limits'] =>
    ({ value: { sheet: null, limits: [{ quantity: 'end-float', lower, upper, unit: 'mm' }] } }) as unknown as CaseView['limits'];
  it('made of an entered limit is one object as long as the limit is', () => {
    const view = { specs: {}, limits: limits(0.1, 0.3) } as unknown as CaseView;
    const spec = specOfPlace(view, endFloat);
    expect(spec?.limits).toEqual({ endFloat: { lower: 0.1, upper: 0.3 } });
    expect(specOfPlace({ ...view }, endFloat)).toBe(spec);
    expect(specOfPlace({ ...view, limits: limits(0.1, 0.4) }, endFloat)?.limits).toEqual({ endFloat: { lower: 0.1, upper: 0.4 } });
  });
  it('is none without a limit, and the entered one goes before', () => {
    expect(specOfPlace({ specs: {}, limits: limits(null, null) } as unknown as CaseView, endFloat)).toBeNull();
    const own = { limits: {} } as SheetSpec;
    const view = { specs: { [endFloat.spec]: { value: { spec: own } } }, limits: limits(0.1, 0.3) } as unknown as CaseView;
    expect(specOfPlace(view, endFloat)).toBe(own);
  });
});

describe('rounds', () => {
  it.each(ENGINE_TEMPLATES.map((t) => [t.id, t.layout] as const))('%s: every place is in one round, of one sheet', (_, layout) => {
    const rounds = roundsOf(layout);
    expect(rounds.flatMap((r) => r.places).length).toBe(measureProgram(layout).length);
    for (const round of rounds) {
      expect(new Set(round.places.map((p) => p.kind)).size).toBe(1);
      expect(roundOf(layout, round.places[0]!)).toBe(round);
    }
    expect(new Set(rounds.map((r) => r.id)).size).toBe(rounds.length);
  });
});

describe('the oval through the axes of a bore', () => {
  const read = (axes: Record<string, number>): Array<{ deg: number; mm: number }> =>
    Object.entries(axes).map(([deg, mm]) => ({ deg: Number(deg), mm }));
  it.each([
    ['one axis is a circle', { 90: 84.02 }],
    ['two axes', { 90: 84.05, 0: 84.02 }],
    ['two between', { 45: 84.05, 135: 84.02 }],
    ['three', { 0: 84.01, 45: 84.02, 90: 84.05 }],
    ['four', { 0: 84.01, 45: 84.02, 90: 84.05, 135: 84.04 }],
  ])('goes through every reading: %s', (_, axes) => {
    const oval = ovalThrough(read(axes));
    for (const [deg, mm] of Object.entries(axes)) expect(oval(Number(deg))).toBeCloseTo(mm, 9);
    expect(oval(20)).toBeCloseTo(oval(200), 9);
  });
  it('finds an ellipse again between the axes', () => {
    const true_ = (deg: number): number => 84.03 + 0.02 * Math.cos((2 * (deg - 30) * Math.PI) / 180);
    const oval = ovalThrough([0, 45, 90, 135].map((deg) => ({ deg, mm: true_(deg) })));
    for (let deg = 0; deg < 180; deg += 7) expect(oval(deg)).toBeCloseTo(true_(deg), 9);
  });
});

describe('maps', () => {
  const bore = placeOf(FOUR, 'bore.1', 'bore')!;
  const [top, second] = [...new Set(bore.cells.flatMap((c) => (c.item?.['depthMm'] === undefined ? [] : [String(c.item['depthMm'])])))];
  it('a bore wall has a row a depth, from the top, and nothing where nothing was read', () => {
    expect(boreWall(bore, new Map([['unworn', 84]]))).toBeNull();
    const wall = boreWall(
      bore,
      new Map([
        [`${second}.A`, 84.02],
        [`${top}.A`, 84.06],
        [`${top}.B`, 84.03],
        ['unworn', 84.001],
      ]),
    )!;
    expect(wall.depthsMm).toEqual([Number(top), Number(second)]);
    expect(wall.unwornMm).toBe(84.001);
    expect(wall.mm[0]![18]).toBeCloseTo(84.06, 9);
    expect(wall.mm[0]![0]).toBeCloseTo(84.03, 9);
    expect(new Set(wall.mm[1]!.map((v) => v.toFixed(9))).size).toBe(1);
  });
  it('a deck that lies askew but flat has no height over its plane; a dish keeps its depth', () => {
    const deck = placeOf(FOUR, 'gasket.head', 'deck.1')!;
    const points = deck.cells.filter((c) => c.item?.['xMm'] !== undefined);
    const at = (f: (x: number, y: number) => number): Map<string, number> =>
      new Map(points.map((c) => [c.key, f(Number(c.item!['xMm']), Number(c.item!['yMm']))]));
    const tilted = deckMap(
      deck,
      at((x, y) => 0.1 + 0.0004 * x - 0.0007 * y),
      MIC,
    )!;
    expect(Math.max(...tilted.mm.flat().map((v) => Math.abs(v!)))).toBeLessThan(1e-9);
    const xs = tilted.xs;
    const middle = (xs[0]! + xs.at(-1)!) / 2;
    const dished = deckMap(
      deck,
      at((x) => 0.0004 * x + 0.05 * (Math.abs(x - middle) / middle)),
      MIC,
    )!;
    expect(dished.cutMm).toBeGreaterThan(0.04);
    expect(deckMap(deck, new Map([[points[0]!.key, 0]]), MIC)).toBeNull();
  });
  it('a cut raises the ratio, more for more, until it takes the chamber', () => {
    const [none, small, large, all] = cutEffects(FOUR, [0, 0.1, 0.5, 50]);
    expect(none!.ratio).toBeCloseTo(FOUR.compressionRatio, 9);
    expect(small!.ratio!).toBeGreaterThan(none!.ratio!);
    expect(large!.ratio!).toBeGreaterThan(small!.ratio!);
    expect(all!.ratio).toBeNull();
  });
  it('clearances stand along the crank with the limits of their own kind', () => {
    const gauged = { 'housing.vertical': 62.06, upper: 1.99, lower: 1.99, journal: 58.0 };
    const view = caseWith(
      { 'main.1.shell.lower/shell-clearance': gauged, 'main.3.shell.lower/shell-clearance': gauged },
      { 'main.clearance': { limits: { vertical: { lower: 0.03, upper: 0.07 } }, source: 's' } },
    );
    const run = clearanceRun(view);
    expect(run.gauged.map((p) => [p.place.short, Number(p.line.value.toFixed(6)), p.lower, p.upper])).toEqual([
      ['Main 1', 0.08, 0.03, 0.07],
      ['Main 3', 0.08, 0.03, 0.07],
    ]);
    expect(run.strip).toEqual([]);
  });
  it('repeats are told by cell in the order they were taken', () => {
    const entry = (cell: string, take: number, value: number | null): never => ({ value: { cell, take, value } }) as never;
    expect(repeatsOf([entry('a', 2, 1.2), entry('a', 1, 1.1), entry('b', 1, 5), entry('c', 1, null), entry('c', 2, 3)])).toEqual([
      { cell: 'a', values: [1.1, 1.2] },
    ]);
  });
});

describe('what follows', () => {
  const PIN: SheetSpec = { minMm: 52.984, maxMm: 53, outOfRoundMaxMm: 0.008, undersizesMm: [0.25, 0.5], source: 'sheet 4' };
  const journal = (mm: number): Record<string, number> => ({ 'front.A': mm, 'front.B': mm, 'rear.A': mm, 'rear.B': mm });

  it('one undersize fits all pins: the least of them decides', () => {
    const view = caseWith({ 'crank.pin.1/journal': journal(52.99), 'crank.pin.3/journal': journal(52.72) }, { 'crank.pin': PIN });
    const plan = sizeForAll(view, 'crank.pin')!;
    // 52.992 − 0.25 = 52.742 is above the least reading; 52.492 clears it by 0.228, of which 0.050 is cleaned up.
    expect(plan).toMatchObject({ stepMm: 0.5, worst: 'Pin 3', measured: 2, of: 4 });
    expect(plan.finishMm!.map((v) => Number(v.toFixed(3)))).toEqual([52.484, 52.5]);
    expect(sizeForAll(caseWith({ 'crank.pin.1/journal': journal(52.1) }, { 'crank.pin': PIN }), 'crank.pin')).toMatchObject({
      stepMm: null,
    });
    expect(sizeForAll(caseWith({}, { 'crank.pin': PIN }), 'crank.pin')).toBeNull();
    expect(sizeForAll(caseWith({ 'crank.pin.1/journal': journal(52.9) }, {}), 'crank.pin')).toBeNull();
  });
  it('the deepest mark of any pin is cleaned up too', () => {
    // 52.99 clears −0.25 (52.742) by 0.248; a mark of 0.13 needs twice that, 0.26: the next step.
    const plan = (mark: number): number | null =>
      sizeForAll(caseWith({ 'crank.pin.1/journal': { ...journal(52.99), deepestMark: mark } }, { 'crank.pin': PIN }), 'crank.pin')!.stepMm;
    expect(plan(0.1)).toBe(0.25);
    expect(plan(0.13)).toBe(0.5);
    expect(plan(0.4)).toBeNull();
    const alone = placeOutcome(
      placeOf(FOUR, 'crank.pin.1', 'journal')!,
      [{ cell: 'deepestMark', take: 1, value: 0.1, gauge: MIC, time: '' }],
      PIN,
    );
    expect([alone.outcome, alone.problem]).toEqual([null, null]);
  });
  it('a rebore: displacement by the square of the bore, ratio with the chamber kept', () => {
    const r = reboreEffect({ ...FOUR, boreMm: 80, strokeMm: 100, cylinders: 4, compressionRatio: 9 }, 0.5);
    expect(r.displacementCm3[0]).toBeCloseTo(4 * ((Math.PI * 8 ** 2) / 4) * 10, 6);
    expect(r.displacementCm3[1] / r.displacementCm3[0]).toBeCloseTo((80.5 / 80) ** 2, 9);
    // V_c = V/8 stays: 1 + 8·(80.5/80)².
    expect(r.ratio[1]).toBeCloseTo(1 + 8 * (80.5 / 80) ** 2, 9);
    expect(reboreEffect(FOUR, 0).ratio[1]).toBeCloseTo(FOUR.compressionRatio, 9);
  });
  it('clearance after the grind is housing less new walls less the finish band, whatever the step', () => {
    const specs = {
      'crank.main': { minMm: 57.98, maxMm: 58, undersizesMm: [0.25], source: 's' },
      'main.clearance': { newWallMm: 2, limits: { vertical: { lower: 0.025, upper: 0.07 } }, source: 's' },
    };
    const view = caseWith(
      { 'main.2.shell.lower/shell-clearance': { 'housing.vertical': 62.055, upper: 1.98, lower: 1.98, journal: 57.95 } },
      specs,
    );
    const [after] = clearancesAfter(view, 'main');
    expect(after!.place.short).toBe('Main 2');
    expect(after!.mm.map((v) => Number(v.toFixed(3)))).toEqual([0.055, 0.075]);
    expect(after!.words).toMatch(/loose end is above 0.070/);
    expect(clearancesAfter(caseWith({}, specs), 'main')).toEqual([]);
  });

  describe('a grade', () => {
    const pin = placeOf(FOUR, 'crank.pin.1', 'journal')!;
    const grade = (mm: number, spec: SheetSpec | null): ReturnType<typeof gradeFromReadings> => {
      const takes = Object.entries(journal(mm)).map(([cell, value]): Take => ({ cell, take: 1, value, gauge: MIC, time: '' }));
      return gradeFromReadings(placeOutcome(pin, takes, spec));
    };
    it('past a maker’s limit is 3, near one 2, a measured loss inside it 2, none where no gauge finds anything', () => {
      expect(grade(52.9, PIN)).toMatchObject({ grade: 3, reason: expect.stringMatching(/least: 52.900 is past the lower limit/) });
      expect(grade(52.985, PIN)).toMatchObject({ grade: 2 });
      expect(grade(52.995, PIN)).toBeNull();
      expect(grade(52.9, null)).toBeNull();
    });
    it('never rises as the part is larger', () => {
      const grades = Array.from({ length: 60 }, (_, i) => grade(52.95 + i * 0.001, PIN)?.grade ?? 0);
      for (let i = 1; i < grades.length; i++) expect(grades[i]!).toBeLessThanOrEqual(grades[i - 1]!);
    });
    it('a rule of thumb passes no limit', () => {
      const line: SheetLine = {
        id: 'gap',
        name: 'End gap',
        value: 1,
        unit: 'mm',
        expanded: 0.01,
        at: '',
        verdict: { word: 'outside', side: 'upper', reason: 'r', reference: 'rule of thumb', source: 't' },
      };
      const ring = placeOf(FOUR, 'rings.1.pack', 'ring.top')!;
      const outcome = { sheet: 'ring', lines: [line], says: [], missing: [], questions: [] };
      expect(gradeFromReadings({ place: ring, outcome } as never)).toMatchObject({
        grade: 2,
        reason: expect.stringMatching(/no maker's limit/),
      });
    });
  });
});

describe('a bore that was read in part', () => {
  const bore = placeOf(FOUR, 'bore.1', 'bore')!;
  const depths = [...new Set(bore.cells.flatMap((c) => (c.item?.['depthMm'] === undefined ? [] : [String(c.item['depthMm'])])))];
  const outcome = (values: Record<string, number>) =>
    placeOutcome(
      bore,
      Object.entries(values).map(([cell, value]): Take => ({ cell, take: 1, value, gauge: MIC, time: '' })),
      null,
    );
  const ids = (o: ReturnType<typeof outcome>): string[] => o.outcome?.lines.map((l) => l.id) ?? [];

  it('by its deepest mark alone waits for diameters', () => {
    const o = outcome({ deepestMark: 0.05 });
    expect(o.outcome).toBeNull();
    expect(o.waiting).toEqual([`${o.wanted} more readings`]);
    expect(o.problem).toBeNull();
  });
  it('at one place gives its size and says what is missing for everything else', () => {
    const o = outcome({ [`${depths[0]}.A`]: 84.02 });
    expect(ids(o)).toEqual(['greatest']);
    expect(o.outcome!.missing).toEqual([
      'the unworn reference, so no wear',
      'a second axis, so no ovality',
      'a second depth, so no taper',
      'a middle depth, so no form',
    ]);
  });
  it('gives each result as soon as it can: wear and ridge, ovality, taper, form', () => {
    const one = { [`${depths[0]}.A`]: 84.05, unworn: 84.01 };
    expect(ids(outcome(one))).toEqual(['greatest', 'wear', 'ridge']);
    const round = { ...one, [`${depths[0]}.B`]: 84.03 };
    expect(ids(outcome(round))).toContain('ovality');
    const down = { ...one, [`${depths[3]}.A`]: 84.07 };
    const taper = outcome(down).outcome!.lines.find((l) => l.id === 'taper')!;
    expect([taper.value.toFixed(3), taper.at]).toEqual(['-0.020', 'axis A, wider at the bottom']);
    const form = outcome({ ...down, [`${depths[1]}.A`]: 84.03 }).outcome!.lines.find((l) => l.id === 'form')!;
    expect([form.value.toFixed(3), form.at]).toEqual(['-0.030', 'axis A, narrower in the middle']);
    const barrel = outcome({ ...down, [`${depths[1]}.A`]: 84.09 }).outcome!.lines.find((l) => l.id === 'form')!;
    expect(barrel.at).toBe('axis A, wider in the middle');
  });
  it('refuses nothing and less as a size, naming the cell', () => {
    const o = outcome({ [`${depths[0]}.A`]: 0 });
    expect(o.outcome).toBeNull();
    expect(o.problem).toMatchObject({ code: 'reading-impossible', field: expect.stringContaining('below the deck') as string });
  });
  it('is brought to 20 °C where the temperature was read', () => {
    const cold = outcome({ [`${depths[0]}.A`]: 84.02, temperatureC: 0 }).outcome!.lines[0]!.value;
    const usual = outcome({ [`${depths[0]}.A`]: 84.02, temperatureC: 20 }).outcome!.lines[0]!.value;
    expect(usual).toBeCloseTo(84.02, 9);
    // Iron shrinks less than the steel of the gauge: read cold, it was measured too small a gauge's millimetre.
    expect(cold).toBeCloseTo((84.02 * (1 - 11.5e-6 * 20)) / (1 - 10.5e-6 * 20), 9);
  });
});

describe('a clearance that borrows', () => {
  it('counts nothing of its own until something is read there', () => {
    const place = placeOf(FOUR, 'rod.1.shell.lower', 'shell-clearance')!;
    const o = placeOutcome(place, [], null, new Map([['journal', { value: 49.98, gauge: MIC }]]));
    expect([o.own, o.values.size, o.outcome]).toEqual([0, 1, null]);
  });
  it('says of a strip that was not crushed why there is no clearance', () => {
    const place = placeOf(FOUR, 'rod.1.shell.lower', 'crushed-strip')!;
    const take = (cell: string, value: number): Take => ({ cell, take: 1, value, gauge: MIC, time: '' });
    const o = placeOutcome(place, [take('thread', 0.25), take('width.front', 0.2)], null);
    expect(o.problem?.sentence).toMatch(/was not crushed there/);
    expect(placeOutcome(place, [take('thread', 0.25), take('width.front', 0.9)], null).outcome!.lines.map((l) => l.id)).toEqual([
      'strip.front',
      'clearance',
    ]);
  });
  it('needs four places not on one line for a plane, and waits till then', () => {
    const deck = placeOf(FOUR, 'gasket.head', 'deck.1')!;
    const row = deck.cells.filter((c) => c.item?.['yMm'] === 0);
    const read = (cells: typeof row) =>
      placeOutcome(
        deck,
        cells.map((c, i): Take => ({ cell: c.key, take: 1, value: i / 100, gauge: MIC, time: '' })),
        null,
      );
    expect(read(row)).toMatchObject({ outcome: null, problem: null });
    expect(read(row).waiting[0]).toMatch(/more readings/);
    expect(read(deck.cells.filter((c) => c.item?.['xMm'] !== undefined)).outcome!.lines[0]!.id).toBe('flatness');
  });
});
