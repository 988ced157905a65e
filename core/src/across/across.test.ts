import { caseView } from '../case/views.js';
import { outcomeAgainstAccount } from '../case/outcome.js';
import { cause } from '../cause/data/causes.js';
import { engineTags } from '../engine/tags.js';
import { engineTemplate } from '../engine/templates.js';
import { applicableModel, diagnose } from '../diagnosis/diagnose.js';
import { readCaseFile } from '../bundle/caseFile/read.js';
import { caseFileOf } from '../bundle/caseFile/write.js';
import { wilson } from '../statistics/wilson.js';
import { written } from '../testing/write.js';
import { askedEvents, outcomesAsked } from './asked.js';
import { bulletinOf } from './bulletin.js';
import { caseFacts, type CaseFacts } from './facts.js';
import { shopPriors, shrunk, TABLE_WEIGHS } from './priors.js';
import { acrossStatistics, type CountedCase } from './statistics.js';

// What many cases say: shares with their intervals, how right the shop and the program were, and priors that begin at the table and end at the shop's own cases.
const FACTS: CaseFacts = {
  family: 'inline-4-petrol',
  familyName: 'Inline four',
  confirmed: ['oil-low'],
  proven: null,
  program: [['oil-low', 0.8]],
  outcome: null,
  places: [],
  patterns: [],
  hands: [],
  reader: [],
  cost: null,
  days: null,
  givenBack: null,
  words: '',
};
let n = 0;
const one = (facts: Partial<CaseFacts>, engine: string | null = null): CountedCase => ({
  id: `c${++n}`,
  number: `2026-${n}`,
  title: 'A case',
  engine,
  facts: { ...FACTS, ...facts },
});
type Step = readonly [kind: string, station: string | null, body: object];
const outcome = (on: string, more: object): Step => [
  'outcome-set',
  null,
  { on, outcome: 'proved', by: 'later-strip', cause: null, service: null, cost: null, days: null, note: '', ...more },
];
const confirmed: Step = ['cause-decided', null, { cause: 'oil-low', decision: 'confirmed', reason: 'dry' }];

describe('a share with its interval', () => {
  it('is that of Wilson', () => {
    // 8 of 10 at 90 %: 0.5410 to 0.9305 (Wilson's formula worked by hand).
    const { low, high } = wilson(8, 10);
    expect(low).toBeCloseTo(0.541, 3);
    expect(high).toBeCloseTo(0.931, 3);
    expect(wilson(0, 0)).toMatchObject({ low: 0, high: 1 });
    expect(wilson(0, 5).low).toBe(0);
    expect(wilson(5, 5).high).toBeCloseTo(1, 12);
  });
});

describe('the facts of a case', () => {
  it('hold what was proved, what was promised and what it came to, and its words', () => {
    const quote: Step = [
      'quote-sent',
      null,
      { quote: 'q1', route: 'rebuild', currency: 'EUR', cost: 1000, costHigh: 1500, days: 5, daysHigh: 9, note: '' },
    ];
    const state = written(
      confirmed,
      quote,
      ['pattern-set', 'rod.2.shell.upper', { pattern: 'wiping', present: true }],
      ['grade-confirmed', 'rod.2.shell.upper', { grade: 3, proposed: 2, reason: 'x', book: '1' }],
      outcome('2026-11-01', { cost: 1300, days: 6, note: 'opened again by another shop' }),
    );
    const facts = caseFacts(caseView(state)!);
    expect(facts).toMatchObject({
      confirmed: ['oil-low'],
      proven: ['oil-low'],
      cost: [1000, 1300],
      days: [5, 6],
      reader: [[2, 3]],
      patterns: ['wiping'],
    });
    expect(facts.places).toEqual([['rod.2.shell.upper', expect.any(String), 3]]);
    expect(facts.words).toMatch(/Wiping|wiping/);
    expect(facts.words).toContain('opened again by another shop');
  });

  it('go by the last word on the cause: proved, disproved, or what it was instead', () => {
    const proven = (...steps: Step[]): CaseFacts['proven'] => caseFacts(caseView(written(confirmed, ...steps))!).proven;
    expect(proven()).toBeNull();
    expect(proven(outcome('2026-05-01', { outcome: 'ran-on' }))).toBeNull();
    expect(proven(outcome('2026-05-01', {}))).toEqual(['oil-low']);
    expect(proven(outcome('2026-05-01', {}), outcome('2026-08-01', { outcome: 'disproved' }))).toBeNull();
    expect(proven(outcome('2026-05-01', {}), outcome('2026-08-01', { outcome: 'disproved', cause: 'surge' }))).toEqual(['surge']);
    expect(proven(outcome('2026-05-01', {}), outcome('2026-05-01', { outcome: null }))).toBeNull();
    // What failed the second time may be another thing altogether.
    expect(proven(outcome('2026-05-01', {}), outcome('2026-08-01', { outcome: 'failed-again', cause: 'surge' }))).toEqual(['oil-low']);
    // Two who tell of one day do not write over each other.
    expect(proven(outcome('2026-05-01', {}), outcome('2026-05-01', { outcome: 'ran-on', by: 'owner' }))).toEqual(['oil-low']);
  });

  it('leave a signed account as it was, and ask for an amendment', () => {
    const signed: Step = [
      'account-signed',
      null,
      { version: 1, head: 'a'.repeat(64), entries: 3, sha256: 'b'.repeat(64), reason: '', template: 'internal', sections: {} },
    ];
    const view = caseView(written(confirmed, signed, outcome('2026-12-24', { outcome: 'disproved', cause: 'surge', by: 'court' })))!;
    expect(outcomeAgainstAccount(view)).toMatch(/Version 1 .* signed before the outcome of 2026-12-24 disproved its cause/);
    expect(view.signed).toHaveLength(1);
    expect(outcomeAgainstAccount(caseView(written(confirmed, signed, outcome('2026-12-24', {})))!)).toBeNull();
  });
});

describe('what many cases say', () => {
  it('counts causes and parts by kind of engine, what was proved before what was confirmed, with the cases behind each', () => {
    const all = [one({}), one({}), one({ proven: ['surge'] }), one({ family: 'v8', familyName: 'V8', confirmed: [] })];
    const s = acrossStatistics(all);
    expect(s.families.map((f) => [f.family, f.cases, f.judged])).toEqual([
      ['inline-4-petrol', 3, 3],
      ['v8', 1, 0],
    ]);
    expect(s.families[0]!.causes).toMatchObject([
      { key: 'oil-low', k: 2, n: 3, cases: [all[0]!.id, all[1]!.id] },
      { key: 'surge', k: 1, n: 3 },
    ]);
    expect(s.families[1]!.causes).toEqual([]);
  });

  it('tells how right builder and program were, without varnish', () => {
    const right = Array.from({ length: 8 }, () => one({ proven: ['oil-low'], program: [['oil-low', 0.8]] }));
    const wrong = Array.from({ length: 2 }, () => one({ proven: ['surge'], program: [['oil-low', 0.8], ['surge', 0.1]] })); // prettier-ignore
    const s = acrossStatistics([...right, ...wrong, one({})]);
    expect(s.proven).toBe(10);
    expect([s.builder.k, s.builder.n, s.program.k, s.program.n]).toEqual([8, 10, 8, 10]);
    expect(s.logScore).toBeCloseTo((8 * Math.log2(0.8) + 2 * Math.log2(0.1)) / 10, 12);
    const bin = s.reliability.find((b) => b.from === 0.7)!;
    expect([bin.k, bin.n]).toEqual([8, 10]);
    expect(bin.said).toBeCloseTo(0.8, 12);
    // What the program never named had a chance it did not tell: that counts against it.
    expect(acrossStatistics([one({ proven: ['torsion'], program: [] })]).logScore).toBeLessThan(-6);
    expect(acrossStatistics([]).logScore).toBeNull();
  });

  it('makes nothing of few promises, and a median of enough', () => {
    const paid = (came: number): CountedCase => one({ cost: [1000, came] });
    expect(acrossStatistics([1, 2, 3, 4].map((k) => paid(k * 1000))).cost).toBeNull();
    expect(acrossStatistics([900, 1000, 1100, 1300, 2000].map(paid)).cost).toMatchObject({ n: 5, median: 1.1 });
  });

  it('finds engines that failed again of the same cause', () => {
    const s = acrossStatistics([one({}, 'E-1'), one({}, 'E-1'), one({ confirmed: ['surge'] }, 'E-1'), one({}, 'E-2'), one({})]);
    expect(s.repeats).toMatchObject([{ engine: 'E-1', cause: 'oil-low', cases: [expect.any(String), expect.any(String)] }]);
  });
});

describe('priors of the shop', () => {
  it('are the table with no case, and the shop’s own share with many', () => {
    expect(shrunk(0.1, TABLE_WEIGHS, 0, 0)).toBe(0.1);
    expect(shrunk(0.1, TABLE_WEIGHS, 70_000, 100_000)).toBeCloseTo(0.7, 3);
    expect(shopPriors([one({}), one({})], 'inline-4-petrol', '2026-12-01')).toBeNull();
    const few = shopPriors([one({ proven: ['surge'] })], 'inline-4-petrol', '2026-12-01')!;
    const many = shopPriors(
      Array.from({ length: 400 }, () => one({ proven: ['surge'] })),
      'inline-4-petrol',
      '2026-12-01',
    )!;
    expect(few.factors['surge']).toBeGreaterThan(1);
    expect(few.factors['surge']).toBeLessThan(many.factors['surge']!);
    // Who proves one cause sees the others less often than the table holds.
    expect(many.factors['oil-low']).toBeLessThan(0.3);
    const moved = (many.factors['surge']! * cause('surge')!.priorOdds) / (1 + many.factors['surge']! * cause('surge')!.priorOdds);
    expect(moved).toBeGreaterThan(0.9);
  });

  it('come to the share of the kind’s own cases where the table holds other odds for it', () => {
    const cases = Array.from({ length: 3000 }, (_, i) => one({ family: 'inline-4-diesel', proven: [i % 10 < 3 ? 'detonation' : 'surge'] }));
    const { layout } = engineTemplate('inline-4-diesel')!;
    const { causes, odds } = applicableModel(engineTags(layout));
    const table = odds[causes.findIndex((c) => c.id === 'detonation')]!;
    expect(table).not.toBe(cause('detonation')!.priorOdds);
    const moved = table * shopPriors(cases, 'inline-4-diesel', '2026-12-01')!.factors['detonation']!;
    expect(moved / (1 + moved)).toBeCloseTo(0.3, 2);
  });

  it('never make a cause impossible, however many cases had none of it', () => {
    const many = Array.from({ length: 50_000 }, () => one({ proven: ['surge'] }));
    const priors = shopPriors(many, 'inline-4-petrol', '2026-12-01')!;
    expect(Math.min(...Object.values(priors.factors))).toBe(0.01);
    expect(Math.max(...Object.values(priors.factors))).toBeLessThanOrEqual(1000);
    expect(caseView(written(['priors-taken', null, { priors }]))!.priors).toBeDefined();
  });

  it('count a kind of engine for itself, shrunk towards the shop', () => {
    const cases = [
      ...Array.from({ length: 10 }, () => one({ proven: ['oil-low'] })),
      ...Array.from({ length: 10 }, () => one({ family: 'v8', proven: ['surge'] })),
    ];
    const [four, eight] = ['inline-4-petrol', 'v8'].map((f) => shopPriors(cases, f, '2026-12-01')!.factors);
    const shop = shopPriors(cases, 'single', '2026-12-01')!.factors;
    expect(eight!['surge']).toBeGreaterThan(shop['surge']!);
    expect(four!['surge']).toBeLessThan(shop['surge']!);
  });

  it('move where a case begins, are kept with it, and can be switched off', () => {
    const priors = { cases: 30, ofFamily: 9, family: 'inline-4-petrol', on: '2026-12-01', factors: { surge: 6 } };
    const share = (...steps: Step[]): number => diagnose(caseView(written(...steps))!).causes.find((c) => c.id === 'surge')!.probability;
    const [table, moved, off] = [
      share(),
      share(['priors-taken', null, { priors }]),
      share(['priors-taken', null, { priors }], ['priors-taken', null, { priors: null }]),
    ];
    expect(moved).toBeGreaterThan(2 * table);
    expect(off).toBeCloseTo(table, 12);
    const state = written(['priors-taken', null, { priors }]);
    const again = readCaseFile(JSON.parse(JSON.stringify(caseFileOf(state, caseView(state)!))));
    if (!again.ok) throw new Error(again.problem.sentence);
    expect(diagnose(again.value.view).causes.find((c) => c.id === 'surge')!.probability).toBeCloseTo(moved, 12);
    expect(readCaseFile({ ...caseFileOf(state, caseView(state)!), priors: { ...priors, factors: { nobody: 2 } } })).toMatchObject({
      ok: false,
      problem: { field: 'priors.priors.factors.nobody' },
    });
  });
});

describe('a bulletin of a kind of engine', () => {
  it('says where to begin, with the cases by number alone, and nothing of few', () => {
    const all = [...Array.from({ length: 5 }, () => one({ places: [['rod.1.shell.upper', 'shell', 3]] })), one({ confirmed: ['surge'] })];
    const numberOf = (id: string): string => all.find((c) => c.id === id)!.number;
    const [family] = acrossStatistics(all).families;
    const bulletin = bulletinOf(family!, numberOf)!;
    expect(bulletin.lines.join(' ')).toContain(`5 of 6`);
    expect(bulletin.lines.join(' ')).toContain(all[0]!.number);
    // What came once is no habit.
    expect(bulletin.lines.join(' ')).not.toMatch(/surge/i);
    expect(bulletin.looks.length).toBeGreaterThan(0);
    expect(bulletin.looks.every((l) => l.minutes > 0 && l.step.length > 3)).toBe(true);
    expect(JSON.stringify(bulletin)).not.toContain('A case');
    expect(bulletinOf(acrossStatistics(all.slice(0, 4)).families[0]!, numberOf)).toBeNull();
  });
});

describe('what became of it', () => {
  it('is asked for at set times after an engine was given back, once each, and no more when it is known', () => {
    const given = (more: Partial<CaseFacts>): CountedCase => one({ givenBack: '2026-01-01', ...more });
    const due = (facts: Partial<CaseFacts>, today: string): string[] => outcomesAsked([given(facts)], today).map((a) => a.due);
    expect(due({}, '2026-01-20')).toEqual([]);
    expect(due({}, '2026-02-05')).toEqual(['2026-01-31']);
    expect(due({}, '2026-08-01')).toEqual(['2026-06-30']);
    const ran = { on: '2026-07-02', outcome: 'ran-on', by: 'owner' };
    expect(due({ outcome: ran }, '2026-08-01')).toEqual([]);
    expect(due({ outcome: ran }, '2027-01-02')).toEqual(['2027-01-01']);
    expect(due({ outcome: { ...ran, outcome: 'proved' } }, '2027-01-02')).toEqual([]);
    expect(outcomesAsked([one({})], '2027-01-02')).toEqual([]);
    const [asked] = askedEvents(outcomesAsked([given({})], '2026-02-05'));
    expect(asked).toMatchObject({ start: '2026-01-31', summary: expect.stringContaining('ask what became of it') as string });
    expect(asked!.description).toContain('nothing heard since');
  });
});
