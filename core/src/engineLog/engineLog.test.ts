import { dueEvents, dueOf } from './due.js';
import { ENGINE, Log } from '../testing/engineLog.js';
import { standingLines } from './lines.js';
import { readResultsCsv } from './resultsCsv.js';
import { profileOf, wearRate } from './samples.js';
import { healthyOil, type TrueOil } from './standInLaboratory.js';
import { iCalendar } from '../kit/iCalendar.js';

// An engine's log through its years: what rises is said at once, what came wrong from a laboratory is held back, and one clean sample clears nothing.
describe('a log', () => {
  it('shows what stands: a later line in place of an earlier, nothing of what was taken back, in the order of days', () => {
    const log = new Log().level('2024-03-01', 120, 0.5).level('2024-02-01', 100, 0.9);
    log.add('level', '2024-03-01', 120, { share: 0.7, look: null, stick: '', note: 'read again' }, 'l1');
    log.add('note', '2024-04-01', null, { words: 'wrong engine' }).add('struck', '2024-04-01', null, { why: 'wrong engine' }, 'l4');
    expect(standingLines(log.lines).map((l) => [l.kind, l.day, l.body])).toEqual([
      ['level', '2024-02-01', expect.objectContaining({ share: 0.9 })],
      ['level', '2024-03-01', expect.objectContaining({ share: 0.7 })],
    ]);
    expect(log.lines).toHaveLength(5);
  });

  it('names hours that run back, references used twice, and a result without a sample', () => {
    const log = new Log().level('2024-01-01', 500, 1).level('2024-02-01', 480, 1).level('2024-03-01', 520, 1);
    log.add('sample', '2024-03-02', 520, { reference: 'S-0001', drawn: 'pan', laboratory: '' });
    log.add('sample', '2024-04-02', 540, { reference: 'S-0001', drawn: 'pan', laboratory: '' });
    log.add('result', '2024-04-12', null, {
      reference: 'S-0002',
      reported: '2024-04-12',
      laboratory: '',
      figures: { Fe: 1 },
      insisted: false,
    });
    expect(log.read().doubts.map((d) => d.words)).toEqual([
      expect.stringMatching(/runs back: 480 h on 2024-02-01, after 500 h on 2024-01-01/),
      expect.stringMatching(/S-0001 was given to a sample of 2024-03-02 already/),
      expect.stringMatching(/result came for S-0002, and no sample of this engine has that reference\.$/),
    ]);
    const others = [{ mark: 'E-9', profile: null, references: ['S-0002'] }];
    expect(log.read(others).doubts.at(-1)!.words).toMatch(
      /has that reference: it is a sample of E-9\. Take it back here and write it there\.$/,
    );
  });
});

describe('the level', () => {
  it('that rises is said at once, with its rate, and what was topped up taken off', () => {
    const log = new Log().change('2024-01-01', 0).level('2024-01-02', 2, 1);
    log.level('2024-02-01', 40, 0.8).add('top-up', '2024-02-01', 40, { litres: 0.4, oil: 'Harbour 15W-40' });
    expect(log.level('2024-02-20', 60, 0.95).finding('level-rising')).toBeUndefined();
    const said = log.level('2024-03-01', 80, 1.25).finding('level-rising')!;
    // From 0.95 of 2 l to 1.25 of it in 20 h; what was put in before both is no rise.
    expect(said).toMatch(/0\.6 l more than on 2024-02-20.*3\.00 l in 100 h.*coolant or fuel/);
    expect(log.level('2024-03-02', 82, 1.4, 'milky').finding('level-rising')).toMatch(/Its look says water or coolant/);
    expect(log.read().findings.find((f) => f.id === 'level-rising')).toMatchObject({
      weight: 'now',
      feature: { id: 'fluid.level-high', present: true },
    });
    const air = new Log({ ...ENGINE, cooling: 'air' }).level('2024-01-02', 2, 0.5).level('2024-02-02', 20, 0.9);
    expect(air.finding('level-rising')).toMatch(/It is fuel until/);
  });

  it('on two sticks is not held together, and a change of oil begins anew', () => {
    const log = new Log().level('2024-01-01', 0, 0.2, 'dark', 'old').level('2024-01-05', 5, 0.9, 'dark', 'new');
    expect([log.finding('level-rising'), log.finding('two-sticks')]).toEqual([undefined, expect.stringMatching(/2 sticks \(old, new\)/)]);
    const changed = new Log().level('2024-01-01', 0, 0.1).change('2024-01-02', 1).level('2024-01-02', 1, 1);
    expect(changed.finding('level-rising')).toBeUndefined();
    expect(changed.read().levels.map((s) => s.points.length)).toEqual([1, 1]);
  });

  it('gives the consumption of every filling, and says when it is no more what it was', () => {
    const log = new Log();
    const used = [0.4, 0.42, 0.38, 0.41, 0.4];
    [...used, 0.9].forEach((litres, i) => {
      log
        .change(`2024-0${i + 1}-01`, 100 * i)
        .level(`2024-0${i + 1}-01`, 100 * i, 1)
        .level(`2024-0${i + 1}-20`, 100 * i + 100, 1 - litres / ENGINE.marksL);
      if (i === used.length - 1) expect(log.finding('consumption')).toBeUndefined();
    });
    expect(log.read().consumption.map((c) => Number(c.rate.toFixed(2)))).toEqual([...used, 0.9]);
    expect(log.finding('consumption')).toMatch(/0\.90 l in 100 h, against 0\.40 as a rule/);
  });

  it('in km is told for 1000 km', () => {
    const log = new Log({ ...ENGINE, counter: 'km' })
      .change('2024-01-01', 10_000)
      .level('2024-01-01', 10_000, 1)
      .level('2024-03-01', 14_000, 0);
    expect(log.read().consumption[0]!.rate).toBeCloseTo(0.5, 12);
  });
});

describe('the gauge', () => {
  it('that comes down is told by what it always showed, and the change is dated', () => {
    const log = new Log();
    [1.6, 1.5, 1.6, 1.7, 1.6, 1.5].forEach((bar, i) => log.add('pressure', `2023-0${i + 1}-01`, 50 * i, { state: 'hot-idle', bar }));
    expect(log.read().findings).toEqual([]);
    [0.9, 0.8, 0.9, 0.8, 0.9, 0.9].forEach((bar, i) => log.add('pressure', `2024-0${i + 1}-01`, 400 + 50 * i, { state: 'hot-idle', bar }));
    expect(log.finding('pressure-change-hot-idle')).toMatch(/changed by 2024-01-01: 1\.6 bar before, 0\.9 since/);
    const sudden = new Log();
    [1.6, 1.5, 1.6, 1.7, 1.6, 1.5, 0.7].forEach((bar, i) => sudden.add('pressure', `2023-0${i + 1}-01`, null, { state: 'hot-idle', bar }));
    expect(sudden.read().findings[0]).toMatchObject({ id: 'pressure-hot-idle', weight: 'now', feature: { id: 'told.pressure-low-hot' } });
  });
});

describe('a result', () => {
  it('is made good for the hours and for what was topped up', () => {
    expect(wearRate(ENGINE, { inOil: 200, topUpL: 0 }, 20)).toBeCloseTo(10, 12);
    // With a whole filling made up evenly, the oil holds 1 − e⁻¹ of what came off.
    expect(wearRate(ENGINE, { inOil: 100, topUpL: 9 }, 10 * (1 - Math.exp(-1)))).toBeCloseTo(10, 12);
    expect(wearRate(ENGINE, { inOil: 100, topUpL: 1e-7 }, 10)).toBeCloseTo(10, 6);
    expect([wearRate(ENGINE, { inOil: 3, topUpL: 0 }, 10), wearRate(ENGINE, { inOil: null, topUpL: 0 }, 10)]).toEqual([null, null]);
  });

  it('that is clean clears nothing by itself, and three of them speak only for even wear', () => {
    expect(new Log().years(1).finding('clean')).toMatch(/One clean sample cannot clear the bearings/);
    const read = new Log().years(4).read();
    expect(read.findings.find((f) => f.id === 'clean')).toMatchObject({
      words: expect.stringMatching(/last 3 samples are clean/),
      feature: { trend: true },
    });
    expect(read.samples.every((s) => s.counts)).toBe(true);
  });

  it('is held against the engine’s own history once there is one, and pairs of metals are read as where they come from', () => {
    const healthy = healthyOil(ENGINE);
    const worse: TrueOil = { ...healthy, wear: { ...healthy.wear, Cu: 7, Pb: 6 } };
    const young = new Log().years(1);
    young.change('2020-12-01', 250).sample(50, '2020-12-20', 490, 240, worse);
    // Below what the kind allows, and no history of its own yet: watched at most.
    expect(young.read().samples.at(-1)!.sources).toEqual([]);
    const old = new Log().years(7);
    old.change('2024-05-01', 1750).sample(51, '2024-06-01', 1995, 245, worse);
    const last = old.read().samples.at(-1)!;
    expect(last.sources.map((s) => s.id)).toEqual(['shells']);
    expect(last.verdicts.find((v) => v.species === 'Cu')).toMatchObject({ word: 'beyond', from: 'own history', perService: true });
    expect(old.finding('source-shells')).toMatch(/bearing shells: copper .* lead /);
  });

  it.each<[string, Partial<TrueOil['wear']>, Partial<TrueOil['other']>, string]>([
    ['coolant', {}, { Na: 300, K: 120 }, 'coolant'],
    ['dirt', { Al: 14 }, { Si: 80 }, 'dirt'],
    ['rings', { Fe: 60, Cr: 9 }, {}, 'rings'],
    ['pistons', { Al: 15 }, {}, 'piston'],
    ['sealant', {}, { Si: 80 }, 'sealant'],
    ['fuel', {}, { fuel: 6 }, 'fuel'],
    ['a cooler', { Cu: 21 }, {}, 'copper-alone'],
  ])('tells %s by what rises together', (_, wear, other, source) => {
    const healthy = healthyOil(ENGINE);
    const log = new Log().change('2024-01-01', 0);
    log.sample(1, '2024-02-01', 200, 200, {
      wear: { ...healthy.wear, ...(wear as TrueOil['wear']) },
      other: { ...healthy.other, ...(other as TrueOil['other']) },
    });
    expect(log.read().samples[0]!.sources.map((s) => s.id)).toEqual([source]);
  });

  it('comes to limits of its own in an engine that always lies near those of its kind', () => {
    const healthy = healthyOil(ENGINE);
    const log = new Log();
    for (let k = 0; k < 7; k++)
      log
        .change(`20${20 + k}-01-01`, 250 * k)
        .sample(k, `20${20 + k}-06-01`, 250 * k + 245, 245, { ...healthy, wear: { ...healthy.wear, Fe: 18 } });
    const iron = log.read().samples.map((s) => s.verdicts.find((v) => v.species === 'Fe')!);
    expect([iron[0]!.word, iron[0]!.from]).toEqual(['watch', 'its kind']);
    expect([iron.at(-1)!.word, iron.at(-1)!.from]).toEqual(['within', 'own history']);
  });

  const petrol = healthyOil({ ...ENGINE, fuel: 'petrol' });
  it.each<[string, (log: Log) => Log, RegExp, object | undefined]>([
    [
      'a decimal point that slipped',
      (log) => log.sample(20, '2024-06-01', 1240, 240, healthyOil(ENGINE), 'slipped'),
      /zinc is about ten times/,
      { figures: { Zn: expect.closeTo(1150, -3) as number } },
    ],
    [
      'other units',
      (log) => log.sample(20, '2024-06-01', 1240, 240, healthyOil(ENGINE), 'other-units'),
      /Nearly every element is .* in other units/,
      { figures: expect.objectContaining({ Ca: expect.closeTo(3100, -3) as number }) as object },
    ],
    [
      'another engine’s oil',
      (log) => log.sample(20, '2024-06-01', 1240, 240, petrol),
      /is what E-9 has in it: the references were swapped/,
      { engine: 'E-9' },
    ],
    [
      'a figure no oil holds',
      (log) => log.sample(20, '2024-06-01', 1240, 240, { ...healthyOil(ENGINE), other: { ...healthyOil(ENGINE).other, visc100: 400 } }),
      /viscosity at 100 °C \d+ mm²\/s is more than used oil holds/,
      undefined,
    ],
  ])('with %s is held back, counts nowhere, and says what would put it right', (_, spoil, words, offer) => {
    const log = spoil(new Log().years(4).change('2024-05-01', 1000));
    const read = log.read([
      {
        mark: 'E-9',
        profile: profileOf(new Log({ ...ENGINE, fuel: 'petrol' }).years(3).lines.filter((l) => l.kind === 'result')),
        references: [],
      },
    ]);
    const last = read.samples.at(-1)!;
    expect(last.counts).toBe(false);
    expect(last.verdicts).toEqual([]);
    expect(last.doubts.map((d) => d.words).join(' ')).toMatch(words);
    if (offer) expect(last.doubts.find((d) => d.offer)!.offer).toEqual(offer);
    expect(read.findings.find((f) => f.id.startsWith('held-'))!.words).toMatch(/is held back/);
    // Somebody who looked at it and lets it stand has the last word.
    const held = last.result!;
    log.add('result', held.day, null, { ...held.body, insisted: true }, held.id);
    expect(log.read().samples.at(-1)!.counts).toBe(true);
  });

  it('of another oil that was filled in is no swap', () => {
    const log = new Log().years(4).change('2024-05-01', 1000, 'Quay 10W-30').sample(21, '2024-06-01', 1240, 240, petrol);
    expect(log.read().samples.at(-1)!.doubts).toEqual([]);
  });

  it('before its sample, or a second one, is held back', () => {
    const log = new Log().years(1).add('sample', '2024-06-01', 300, { reference: 'S-0077', drawn: 'tube', laboratory: '' });
    log.add('result', '2024-06-03', null, {
      reference: 'S-0077',
      reported: '2024-05-20',
      laboratory: '',
      figures: { Fe: 10 },
      insisted: false,
    });
    expect(log.read().samples.at(-1)!.doubts[0]!.words).toMatch(/reported on 2024-05-20, before the sample was drawn on 2024-06-01/);
    log.add('result', '2024-06-03', null, {
      reference: 'S-0077',
      reported: '2024-06-20',
      laboratory: '',
      figures: { Fe: 90 },
      insisted: false,
    });
    expect(log.read().samples.at(-1)!.doubts[0]!.words).toMatch(/Another result for S-0077/);
  });
});

describe('results as a laboratory sends them', () => {
  const read = (csv: string): unknown => {
    const r = readResultsCsv(csv);
    return r.ok ? r.value : r.problem.sentence;
  };
  it('are read with their units, a decimal comma, and what lies under the limit as half of it', () => {
    expect(read('reference;reported;laboratory;Fe (ppm);water [mg/kg];visc100 cSt;Pb\ns-1001;2024-03-31;North;12,5;800;14,1;<2\n')).toEqual(
      [{ reference: 'S-1001', reported: '2024-03-31', laboratory: 'North', figures: { Fe: 12.5, water: 0.08, visc100: 14.1, Pb: 1 } }],
    );
  });
  it.each([
    ['', /holds no result/],
    ['reference,reported,Fe\n', /holds no result/],
    ['reported,Fe\n2024-03-31,1', /reference is missing/],
    ['reference,reported\nS-1001,2024-03-31', /no column of figures/],
    ['reference,reported,Xx\nS-1001,2024-03-31,1', /"Xx" is none known/],
    ['reference,reported,Fe bar\nS-1001,2024-03-31,1', /"bar" is no unit of iron/],
    ['reference,reported,Fe,Fe ppm\nS-1001,2024-03-31,1,1', /stands there twice/],
    ['reference,reported,Fe\nS-1001,31.3.2024,1', /Row 1: "31\.3\.2024" is no day/],
    ['reference,reported,Fe\nS-1001,2024-03-31,many', /"many" under Fe is no figure/],
    ['reference,reported,Fe\nS-1001,2024-03-31,-4', /no figure/],
    ['reference,reported,Fe\nlong reference of nobody,2024-03-31,4', /no reference of a sample/],
    ['reference,reported,Fe\nS-1001,2024-03-31,', /has no figure/],
  ])('are refused whole: %j', (csv, words) => expect(read(csv)).toMatch(words));
});

describe('what is due', () => {
  it('follows from the last look, the pace of the engine and samples without a result', () => {
    const log = new Log().change('2024-01-01', 0).level('2024-01-01', 0, 1).level('2024-04-10', 100, 0.8);
    log.add('sample', '2024-04-10', 100, { reference: 'S-0055', drawn: 'tube', laboratory: 'North' });
    const due = dueOf(ENGINE, standingLines(log.lines), '2024-04-20');
    expect(due.map((d) => [d.what, d.day])).toEqual([
      ['result', '2024-04-24'],
      ['level', '2024-05-10'],
      ['oil-change', '2024-09-07'],
    ]);
    const ics = iCalendar(dueEvents(due, 'E-7 Launch'), 'Due', '2024-04-20T10:00:00Z');
    expect(ics).toContain('DTSTART;VALUE=DATE:20240424');
    expect(ics.split('\r\n').every((l) => Buffer.byteLength(l) <= 75)).toBe(true);
    // Two years later nobody is asked to read a stick any more.
    expect(dueOf(ENGINE, standingLines(log.lines), '2026-04-20').map((d) => d.what)).toEqual(['result']);
    expect(dueOf(ENGINE, [], '2026-04-20')).toEqual([]);
  });
});
