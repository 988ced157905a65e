import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { readCaseFile } from '../bundle/caseFile/read.js';
import { type CaseFile } from '../bundle/caseFile/format.js';
import { diagnose } from '../diagnosis/diagnose.js';
import type { EntryBodies, EntryKind } from '../entries/entries.js';
import { checkEntry } from '../gate/admit.js';
import { applyEntry } from '../entries/entries.js';
import { type CaseState } from '../ledger/state.js';
import { caseView, type CaseView } from '../case/views.js';
import { standingDispositions } from './dispositions.js';
import { machineSheet, machineSheetCsv, partsList } from './machineSheet.js';
import { pert, pertMean, simulateRoute, workingTime, type RouteLine } from './monteCarlo.js';
import { OPERATIONS } from '../workshop/operations.js';
import { priceBookCsv, priceBookSchema, readPriceCsv, STARTING_PRICES } from '../workshop/prices.js';
import { routesOf, type Route } from './routes.js';
import { ownDisposition } from './rules.js';
import { benchFinish, dateOf, planIcs, planTasks, spareWords, type Calendar, type Task } from './schedule.js';
import { tasksOf } from './tasks.js';

const open = (file: Partial<CaseFile>): CaseState => {
  const read = readCaseFile({ format: 'true-ledger/case', version: 1, engine: { template: 'inline-4-petrol' }, ...file });
  if (!read.ok) throw new Error(read.problem.sentence);
  return read.value.state;
};
const add = <K extends EntryKind>(state: CaseState, kind: K, station: string | null, body: EntryBodies[K]): CaseState => {
  const checked = checkEntry(kind, station, body, state);
  if (!checked.ok) throw new Error(checked.problem.sentence);
  return applyEntry(state, {
    id: `t${state.seq}`,
    kind,
    station,
    body,
    author: { id: 'a', name: 'Ada' },
    time: '',
    seq: state.seq + 1,
    hash: '',
  });
};
const of = (view: CaseView): Map<string, ReturnType<typeof standingDispositions>[number]> =>
  new Map(standingDispositions(view).map((d) => [d.station, d]));
const SPEC = { 'crank.pin': { minMm: 52.98, maxMm: 53, undersizesMm: [0.25, 0.5], source: 'test' } };
const PIN = ['front', 'mid', 'rear'].flatMap((plane) =>
  ['A', 'B'].map((axis) => ({ station: 'crank.pin.2', plane, axis, value: plane === 'mid' ? '52.90' : '52.93' })),
) as CaseFile['readings'];

describe('dispositions', () => {
  it('leave what nobody looked at on "check", never "reuse"', () => {
    for (const d of of(caseView(open({}))!).values()) expect(d.operation).toBe('check');
  });
  it('grind one pin, so all pins to that size, with shells of it; and say which evidence forced it', () => {
    const v = caseView(
      open({
        sound: ['crank.pin.*', 'rod.*.shell.*'],
        findings: [{ station: 'crank.pin.2', grade: 3, patterns: ['journal-scoring'] }],
        specs: SPEC,
        readings: PIN!,
      }),
    )!;
    const d = of(v);
    expect(d.get('crank.pin.2')).toMatchObject({ operation: 'grind', size: '−0.25 mm' });
    expect(d.get('crank.pin.4')).toMatchObject({ operation: 'grind', size: '−0.25 mm', because: ['crank.pin.2'] });
    expect(d.get('rod.4.shell.upper')).toMatchObject({ operation: 'replace', size: '−0.25 mm' });
    const sheet = machineSheet(v, standingDispositions(v));
    const pins = sheet.find((l) => l.part === 'Crankpins')!;
    expect(pins.quantity).toBe(4);
    expect(pins.sizeMm![0]).toBeCloseTo(52.73, 6);
    expect(pins.sizeMm![1]).toBeCloseTo(52.75, 6);
    expect(machineSheetCsv(sheet)).toMatch(/Crankpins,Grind undersize,52\.730,52\.750/);
    expect(partsList(v.layout, standingDispositions(v)).find((p) => p.key === 'rod-shells')).toMatchObject({
      quantity: 4,
      size: '−0.25 mm',
    });
  });
  it('rebore one bore, so all, with new pistons and rings', () => {
    const d = of(
      caseView(
        open({
          sound: ['bore.*', 'rings.*.pack', 'piston.*.crown'],
          findings: [{ station: 'bore.3', grade: 3, patterns: ['bore-scuff-band'] }],
        }),
      )!,
    );
    expect(d.get('bore.1')?.operation).toBe('rebore');
    expect(d.get('rings.4.pack')?.operation).toBe('replace');
    expect(d.get('piston.2.crown')?.operation).toBe('replace');
    expect(d.get('gasket.head')?.operation).toBe('replace');
  });
  it('clean every oilway and replace the cooler where metal went round, and check a housing whose shell turned', () => {
    const d = of(caseView(open({ findings: [{ station: 'rod.2.shell.upper', grade: 4, patterns: ['spun-shell'] }] }))!);
    expect(d.get('oil.gallery')?.operation).toBe('clean');
    expect(d.get('oil.cooler')?.operation).toBe('replace');
    expect(d.get('rod.2')?.operation).toBe('resize');
    expect(d.get('rod.3')?.operation).toBe('check');
  });
  it('follow the builder’s word, which forces in its turn, and keep what was proposed', () => {
    const state = add(open({ sound: ['bore.*'] }), 'disposition-set', 'bore.2', {
      operation: 'rebore',
      size: '+0.50 mm',
      reason: 'taper by hand',
    });
    const d = of(caseView(state)!);
    expect(d.get('bore.2')).toMatchObject({ confirmed: true, by: 'Ada', reason: 'taper by hand', proposed: { operation: 'reuse' } });
    expect(d.get('bore.1')?.operation).toBe('rebore');
  });
  it('follow the school: a line that catches a nail is ground, or measured', () => {
    const file: Partial<CaseFile> = {
      findings: [
        {
          station: 'crank.pin.1',
          grade: 2,
          marks: [
            {
              id: 'l',
              shape: 'line',
              class: 'polished',
              points: [
                [0.1, 0.5],
                [0.9, 0.5],
              ],
              radiusMm: 0.1,
              depth: 'nail',
              made: 'found-so',
            },
          ],
        },
      ],
    };
    expect(of(caseView(open(file))!).get('crank.pin.1')?.operation).toBe('grind');
    const measured = add(open(file), 'school-set', null, { question: 'scored-journal', position: 'measure', reason: '' });
    expect(of(caseView(measured)!).get('crank.pin.1')?.operation).toBe('polish');
  });
  it('refuse an operation nobody knows', () => {
    expect(checkEntry('disposition-set', 'bore.1', { operation: 'pray', size: '', reason: '' }, open({})).ok).toBe(false);
    expect(OPERATIONS).toContain('keep');
  });
});

describe('Monte Carlo', () => {
  const triple = fc.tuple(
    fc.double({ min: 0, max: 1000, noNaN: true }),
    fc.double({ min: 0, max: 500, noNaN: true }),
    fc.double({ min: 0, max: 500, noNaN: true }),
  );
  it('draws a PERT whose mean is (a + 4m + b) / 6', () => {
    fc.assert(
      fc.property(triple, ([low, more, most]) => {
        const e = { low, likely: low + more, high: low + more + most };
        let seed = 7;
        const draw = pert(e, () => (seed = (seed * 1103515245 + 12345) % 2147483648) / 2147483648 || 1e-9);
        let [sum, least, greatest] = [0, Infinity, -Infinity];
        for (let k = 0; k < 4000; k++) {
          const x = draw();
          [sum, least, greatest] = [sum + x, Math.min(least, x), Math.max(greatest, x)];
        }
        expect(least).toBeGreaterThanOrEqual(low - 1e-9);
        expect(greatest).toBeLessThanOrEqual(e.high + 1e-9);
        expect(Math.abs(sum / 4000 - pertMean(e))).toBeLessThan(0.03 * (e.high - low) + 1e-6);
      }),
      { numRuns: 15 },
    );
  });
  const lines: RouteLine[] = [
    { what: 'shells', kind: 'part', quantity: 4, cost: { low: 20, likely: 25, high: 40 }, days: { low: 2, likely: 4, high: 12 } },
    { what: 'grind', kind: 'machine', quantity: 4, cost: { low: 50, likely: 60, high: 90 }, days: { low: 4, likely: 8, high: 20 } },
  ];
  const weekdays: Calendar = { from: '2026-11-30', hoursPerDay: 6, workdays: [1, 2, 3, 4, 5] };
  const work: Task[] = [
    { id: 'strip', name: 'strip', where: 'bench', hours: 5, days: 0, after: [], share: 0.4 },
    { id: 'shells', name: 'shells', where: 'parts', hours: 0, days: 5, after: [], range: lines[0]!.days },
    { id: 'grind', name: 'grind', where: 'machine shop', hours: 0, days: 9, after: ['strip'], range: lines[1]!.days },
    { id: 'assemble', name: 'assemble', where: 'bench', hours: 9, days: 0, after: ['grind', 'shells'], share: 0.6 },
  ];
  const options = {
    seed: 42,
    draws: 10_000,
    tasks: work,
    calendar: weekdays,
    hourCost: { low: 75, likely: 80, high: 90 },
    deadlineDays: 21,
  };
  const hours = { low: 10, likely: 14, high: 26 };
  it('has the mean cost of the closed form, ordered quantiles, and the same figures for the same seed', () => {
    const s = simulateRoute(lines, hours, options);
    const closed = 4 * pertMean(lines[0]!.cost) + 4 * pertMean(lines[1]!.cost) + pertMean(hours) * pertMean(options.hourCost);
    expect(Math.abs(s.cost.mean - closed) / closed).toBeLessThan(0.01);
    expect(s.cost.p10).toBeLessThan(s.cost.p50);
    expect(s.days.p50).toBeLessThan(s.days.p90);
    expect(s.histogram.counts.reduce((a, b) => a + b, 0)).toBe(10_000);
    expect(simulateRoute(lines, hours, options)).toEqual(s);
    expect(simulateRoute(lines, hours, { ...options, seed: 43 }).cost.mean).not.toBe(s.cost.mean);
  });
  it('ends with the plan when nothing is uncertain', () => {
    const certain = { low: 14, likely: 14, high: 14 };
    const tasks = work.map((t): Task =>
      t.where === 'bench' ? { ...t, hours: 14 * t.share! } : { ...t, range: { low: t.days, likely: t.days, high: t.days } },
    );
    const plan = planTasks(tasks, weekdays);
    const s = simulateRoute([], certain, { ...options, draws: 3, tasks });
    expect(plan.ok && plan.value.length / 24).toBeCloseTo(s.days.p50, 9);
  });
  it('counts days on the calendar: a bench open one day a week takes longer than one open every day', () => {
    const on = (workdays: number[]): number => simulateRoute(lines, hours, { ...options, calendar: { ...weekdays, workdays } }).days.p50;
    expect(on([1])).toBeGreaterThan(on([1, 2, 3, 4, 5]) + 5);
    expect(on([1, 2, 3, 4, 5, 6, 7])).toBeLessThanOrEqual(on([1, 2, 3, 4, 5]));
  });
  it('keeps working time as the plan does', () =>
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.integer({ min: 1, max: 7 }), { minLength: 1 }),
        fc.integer({ min: 1, max: 24 }),
        fc.double({ min: 0, max: 900, noNaN: true }),
        fc.double({ min: 0.25, max: 200, noNaN: true }),
        fc.integer({ min: 1, max: 28 }),
        (workdays, hoursPerDay, from, more, day) => {
          const calendar = { from: `2026-02-${String(day).padStart(2, '0')}`, hoursPerDay, workdays };
          const { worked, at } = workingTime(calendar);
          expect(at(worked(from) + more)).toBeCloseTo(benchFinish(calendar, from, more), 5);
        },
      ),
    ));
  it('meets a later deadline no less often', () => {
    const share = (deadlineDays: number): number => simulateRoute(lines, hours, { ...options, deadlineDays }).inTime!;
    expect(share(10)).toBeLessThanOrEqual(share(20));
    expect(share(20)).toBeLessThanOrEqual(share(60));
    expect(simulateRoute([], hours, { ...options, deadlineDays: null }).inTime).toBeNull();
  });
});

describe('routes', () => {
  const file = JSON.parse(readFileSync(join(__dirname, '../../../bench/cases/tuning/main-two-blind.json'), 'utf8')) as CaseFile;
  const read = readCaseFile(file);
  if (!read.ok) throw new Error(read.problem.sentence);
  const v = read.value.view;
  const routes = routesOf(v, diagnose(v), standingDispositions(v), STARTING_PRICES);
  it('stand side by side, each with lines, what it leaves and its risk of the same again', () => {
    expect(routes.map((r) => r.id)).toEqual(['repair', 'rebuild', 'short-engine', 'used-engine', 'new-engine', 'run-on']);
    for (const r of routes) {
      expect(r.lines.length).toBeGreaterThan(0);
      expect(r.repeatRisk).toBeGreaterThanOrEqual(0);
      expect(r.repeatRisk).toBeLessThanOrEqual(1);
      expect(r.unpriced).toEqual([]);
    }
    const risk = (id: string): number => routes.find((r) => r.id === id)!.repeatRisk;
    expect(risk('run-on')).toBeGreaterThan(0.9);
    expect(risk('rebuild')).toBeLessThan(risk('repair'));
    expect(routes.find((r) => r.id === 'repair')!.unmended.join()).toMatch(/not examined/);
  });
  describe('with a main that has turned', () => {
    const turned = (position: string | null): CaseView =>
      caseView(
        open({
          findings: [{ station: 'main.3.shell.lower', grade: 4, patterns: ['spun-shell'] }],
          ...(position ? { schools: { 'spun-main': position } } : {}),
        }),
      )!;
    const of = (position: string | null): Route[] => {
      const view = turned(position);
      return routesOf(view, diagnose(view), standingDispositions(view), STARTING_PRICES);
    };
    const lines = (routes: readonly Route[], id: string): string[] => routes.find((r) => r.id === id)!.lines.map((l) => l.what);
    it('line-bore the block by default, and carry that it may turn again', () => {
      const routes = of(null);
      for (const id of ['repair', 'rebuild']) {
        expect(lines(routes, id)).toContain('Main line, line-bored');
        expect(routes.find((r) => r.id === id)!.riskWords.join()).toContain('a main has turned');
      }
      expect(lines(routes, 'new-engine')).not.toContain('Main line, line-bored');
    });
    it('sleeve the housing where the shop does', () => expect(lines(of('sleeve'), 'repair')).toContain('Main housing sleeved'));
    it('offer no route that keeps the block where the shop condemns it', () =>
      expect(of('condemn').map((r) => r.id)).toEqual(['short-engine', 'used-engine', 'new-engine', 'run-on']));
    it('say so at the shell', () =>
      expect(ownDisposition(turned('condemn'), turned('condemn').byId.get('main.3.shell.lower')!)).toMatchObject({
        operation: 'replace',
        school: 'spun-main',
      }));
    it('ask for none of it when a rod shell turned', () => {
      const view = caseView(open({ findings: [{ station: 'rod.3.shell.lower', grade: 4, patterns: ['spun-shell'] }] }))!;
      expect(lines(routesOf(view, diagnose(view), standingDispositions(view), STARTING_PRICES), 'repair')).not.toContain(
        'Main line, line-bored',
      );
    });
  });
  it('name what the book has no price for instead of leaving it out silently', () => {
    const thin = { ...STARTING_PRICES, lines: STARTING_PRICES.lines.filter((l) => l.key !== 'short-engine') };
    expect(routesOf(v, diagnose(v), standingDispositions(v), thin).find((r) => r.id === 'short-engine')!.unpriced).toEqual([
      'short-engine',
    ]);
  });
});

describe('the price book', () => {
  it('goes out and in as CSV without loss', () => {
    const back = readPriceCsv(priceBookCsv(STARTING_PRICES), STARTING_PRICES.date, STARTING_PRICES.version);
    expect(back.ok && back.value).toEqual(STARTING_PRICES);
    expect(priceBookSchema.validate(STARTING_PRICES).error).toBeUndefined();
  });
  const csv = priceBookCsv({ ...STARTING_PRICES, lines: STARTING_PRICES.lines.slice(0, 2) });
  it.each<[string, string, RegExp]>([
    ['a price below nothing', csv.replace(/,74,78,86,/, ',-1,78,86,'), /Line 2.*greater than or equal to 0/],
    ['a price beyond reason', csv.replace(/,74,78,86,/, ',74,78,1e12,'), /Line 2.*less than or equal to/],
    ['likely above worst', csv.replace(/,74,78,86,/, ',74,99,86,'), /Line 2/],
    ['currencies mixed', csv.replace('EUR', 'XTS'), /mixes currencies \(XTS, EUR\)/],
    ['a column missing', csv.replace('likely', 'x'), /column likely is missing/],
    ['a line twice', `${csv}${csv.split('\n')[1]}\n`, /stands twice/],
    ['words for a figure', csv.replace(/,74,78,86,/, ',a lot,78,86,'), /Line 2/],
  ])('refuses %s', (_, text, words) => {
    const r = readPriceCsv(text, '2026-11-27', '2');
    expect(r.ok ? '' : r.problem.sentence).toMatch(words);
  });
});

describe('the schedule', () => {
  const calendar: Calendar = { from: '2026-11-30', hoursPerDay: 8, workdays: [1, 2, 3, 4, 5] };
  const bench = (id: string, hours: number, ...after: string[]): Task => ({ id, name: id, where: 'bench', hours, days: 0, after });
  const away = (id: string, days: number, ...after: string[]): Task => ({ id, name: id, where: 'parts', hours: 0, days, after });
  it('runs bench hours over working days, not over the weekend', () => {
    expect(benchFinish(calendar, 0, 8)).toBe(8);
    expect(benchFinish(calendar, 0, 12)).toBe(24 + 4);
    expect(benchFinish(calendar, 4 * 24, 10)).toBe(7 * 24 + 2);
    expect(dateOf(calendar, 24 + 4)).toBe('2026-12-01T12:00');
  });
  it('finds the critical path and the float of an example worked by hand', () => {
    // strip 8 h (Mon), wash 4 h (Tue noon); grind 5 days from Tue 4 h = Sun; shells 3 days from the start = Thu; measure 2 h on Mon, assemble 8 h to Tue 2 h.
    const plan = planTasks(
      [
        bench('strip', 8),
        bench('wash', 4, 'strip'),
        away('grind', 5, 'wash'),
        away('shells', 3),
        bench('measure', 2, 'grind', 'shells'),
        bench('assemble', 8, 'measure'),
      ],
      calendar,
    );
    if (!plan.ok) throw new Error(plan.problem.sentence);
    const by = new Map(plan.value.tasks.map((t) => [t.id, t]));
    expect(by.get('wash')!.finish).toBe(28);
    expect(by.get('grind')!.finish).toBe(28 + 120);
    expect(by.get('measure')!.finish).toBe(7 * 24 + 2);
    expect(plan.value.length).toBe(8 * 24 + 2);
    // The shells are there on Thursday and decide nothing; the grinder does, although the bench is shut when he is back.
    expect(plan.value.tasks.filter((t) => t.critical).map((t) => t.id)).toEqual(['strip', 'wash', 'grind', 'measure', 'assemble']);
    expect(spareWords(by.get('grind')!)).toBe('on the critical path, 0.8 days to spare until the bench opens');
    expect(spareWords(by.get('assemble')!)).toBe('on the critical path');
    expect(spareWords(by.get('shells')!)).toBe('4.0 days to spare');
    // The grinder is back on Sunday hour 4, the bench opens on Monday: 20 h to spare; shells would do from Friday.
    expect(by.get('grind')!.float).toBeCloseTo(20, 1);
    expect(by.get('shells')!.float).toBeCloseTo(7 * 24 - 72, 1);
  });
  it('refuses a loop by its names, and a task that waits for nothing known', () => {
    const loop = planTasks([bench('a', 1, 'b'), bench('b', 1, 'a')], calendar);
    expect(loop.ok ? '' : loop.problem.sentence).toMatch(/a → b → a|b → a → b/);
    const lost = planTasks([bench('a', 1, 'z')], calendar);
    expect(lost.ok ? '' : lost.problem.sentence).toMatch(/waits for "z"/);
    expect(planTasks([bench('a', 1)], { ...calendar, workdays: [] }).ok).toBe(false);
  });
  it('moves what follows when a task is moved by hand', () => {
    const moved = planTasks([bench('a', 4), { ...bench('b', 4, 'a'), notBeforeHours: 48 }], calendar);
    expect(moved.ok && moved.value.tasks.find((t) => t.id === 'b')!.start).toBe(48);
  });
  it('makes a plan of every route and writes it as iCalendar with lines that fold', () => {
    const v = caseView(open({ findings: [{ station: 'bore.3', grade: 3, patterns: ['bore-scuff-band'] }] }))!;
    const d = standingDispositions(v);
    for (const r of routesOf(v, diagnose(v), d, STARTING_PRICES)) {
      const plan = planTasks(tasksOf(v, r, STARTING_PRICES), calendar);
      if (!plan.ok) throw new Error(plan.problem.sentence);
      const ics = planIcs(plan.value, calendar, '2026-001; winch, slip', '2026-11-27T05:00:00Z');
      expect(ics.split('\r\n').every((l) => l.length <= 75)).toBe(true);
      expect(ics.match(/BEGIN:VEVENT/g)!.length).toBe(plan.value.tasks.length);
      expect(ics).toContain('SUMMARY:2026-001\\; winch\\, slip');
    }
  });
});
