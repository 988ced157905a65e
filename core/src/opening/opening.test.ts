import fc from 'fast-check';
import { readCaseFile } from '../bundle/caseFile/read.js';
import { type CaseFile } from '../bundle/caseFile/format.js';
import { collectEvidence } from '../diagnosis/evidence.js';
import { feature } from '../cause/data/features.js';
import { cause } from '../cause/data/causes.js';
import { diagnose } from '../diagnosis/diagnose.js';
import { comparePair } from '../diagnosis/pair.js';
import { ENGINE_TEMPLATES, engineTemplate } from '../engine/templates.js';
import { checksFor, featuresOf, fieldKeys, OPENING_CHECKS } from './checks.js';
import { reportModel } from '../report/model.js';
import { featuresSetAside, notDone } from '../case/checksNotMade.js';
import { readAnswer } from './record.js';
import { compressionResult, turningResult } from './results.js';

const FOUR = engineTemplate('inline-4-petrol')!.layout;
const base: CaseFile = { format: 'true-ledger/case', version: 1, engine: { template: 'inline-4-petrol' } };
const view = (file: Partial<CaseFile>) => {
  const r = readCaseFile({ ...base, ...file });
  if (!r.ok) throw new Error(`${r.problem.field}: ${r.problem.sentence}`);
  return r.value.view;
};
const evidence = (file: Partial<CaseFile>) => new Map(collectEvidence(view(file)).map((e) => [e.feature.id, e]));
const dry = (values: readonly (number | string)[], field = 'dry') =>
  values.map((v, i) => ({ check: 'compression', field: `${field}.${i + 1}`, answer: String(v), unit: 'bar' }));

describe('the table of checks', () => {
  it('names only features that exist', () => {
    for (const id of OPENING_CHECKS.flatMap(featuresOf)) expect([id, feature(id)?.id]).toEqual([id, id]);
  });
  it.each(ENGINE_TEMPLATES.map((t) => [t.id, t.layout] as const))('%s: every check fits, every place can be answered', (_, layout) => {
    for (const c of checksFor(layout))
      for (const f of c.fields)
        for (const key of fieldKeys(f, layout)) {
          const raw = f.options ? [f.options[0]!.value] : f.quantity ? '1' : 'words';
          expect(readAnswer(layout, c.id, key, raw)).toMatchObject({ ok: true });
        }
  });
  it('asks an outboard neither for a dipstick nor for leak-down, and a pressure-fed engine not for premix', () => {
    const ids = checksFor(engineTemplate('outboard-twin')!.layout).map((c) => c.id);
    expect(ids).toEqual(expect.arrayContaining(['fuel', 'coolant', 'compression', 'turning']));
    expect(ids).not.toEqual(expect.arrayContaining(['dipstick']));
    expect(ids).not.toEqual(expect.arrayContaining(['leak-down']));
    expect(checksFor(FOUR).map((c) => c.id)).not.toContain('fuel');
  });
});

describe('an answer', () => {
  it.each<[string, string, string | string[], RegExp]>([
    ['dipstick', 'level', 'brimming', /not an answer/],
    ['dipstick', 'level', ['below', 'full'], /takes one answer/],
    ['dipstick', 'mood', 'full', /no place called/],
    ['fuel', 'look', 'lean', /no check called/],
    ['compression', 'dry.5', '10', /no place called/],
    ['compression', 'dry.1', 'ten', /not a figure/],
    ['compression', 'dry.1', '1800 bar', /cannot be right/],
    ['end-float', 'float', '25', /cannot be right/],
  ])('%s %s %j is refused with its reason', (check, field, raw, words) => {
    const r = readAnswer(FOUR, check, field, raw);
    expect(r.ok).toBe(false);
    if (!r.ok) expect(r.problem.sentence).toMatch(words);
  });
  it('keeps the text as typed beside the canonical value', () =>
    expect(readAnswer(FOUR, 'compression', 'dry.2', '150 psi')).toMatchObject({
      ok: true,
      value: { text: '150 psi', unit: 'psi', value: expect.closeTo(10.342, 3) },
    }));
});

describe('compression', () => {
  it('reads neighbours as the gasket, by bank', () => {
    expect(compressionResult(FOUR, [12, 8, 8.2, 12])?.adjacent).toEqual([2, 3]);
    expect(compressionResult(FOUR, [8, 12, 8.2, 12])?.adjacent).toBeNull();
    const v8 = engineTemplate('vee-8-petrol')!.layout;
    const eight = [12, 12, 12, 8, 8, 12, 12, 12];
    expect(compressionResult(v8, eight)?.adjacent).toBeNull();
  });
  it('is the same whatever is left out of the low list by rule: 15 % below the highest', () =>
    fc.assert(
      fc.property(fc.array(fc.double({ min: 2, max: 20, noNaN: true }), { minLength: 4, maxLength: 4 }), (values) => {
        const r = compressionResult(FOUR, values)!;
        const top = Math.max(...values);
        expect(r.low).toEqual(values.flatMap((v, i) => (v < top * 0.85 ? [i + 1] : [])));
        expect(r.spreadPercent).toBeGreaterThanOrEqual(0);
      }),
    ));
  it('tells rings from valves by the spoon of oil', () => {
    const r = compressionResult(FOUR, [12, 6, 12, 6], [null, 9, null, 6.1])!;
    expect(r.wetRise.map((w) => [w.cylinder, Math.round(w.percent)])).toEqual([
      [2, 50],
      [4, 2],
    ]);
    expect(r.words).toMatch(/oil lifts cylinder 2: rings or bore/);
  });
  it('says nothing about what was not read', () => expect(compressionResult(FOUR, [null, null, null, null])).toBeNull());
});

describe('turning torque', () => {
  const flat = Array.from({ length: 12 }, () => 20);
  it('finds the place that binds', () => {
    const notch = flat.map((v, i) => (i === 3 ? 44 : v));
    expect(turningResult(notch, flat)).toMatchObject({ notches: [90], medianAhead: 20 });
    expect(turningResult(flat, flat)?.words).toContain('nowhere above 1.6 times it');
  });
  it('needs three readings', () => expect(turningResult([20, 21], [])).toBeNull());
});

describe('evidence from before opening', () => {
  it('counts what was looked at and is not there', () => {
    const e = evidence({
      checks: [
        { check: 'dipstick', field: 'level', answer: 'full' },
        { check: 'dipstick', field: 'look', answer: ['milky'] },
      ],
    });
    expect(e.get('fluid.level-low')?.present).toBe(false);
    expect(e.get('fluid.milky')?.present).toBe(true);
    expect(e.get('fluid.fuel-smell')?.present).toBe(false);
    expect(evidence({}).has('fluid.level-low')).toBe(false);
  });
  it('says nothing of a check that was not made, whose reason the account tells', () => {
    const checks = [{ check: 'dipstick', field: 'not-done', answer: 'came drained' }];
    expect([...evidence({ checks }).keys()].filter((id) => id.startsWith('fluid.'))).toEqual([]);
    const seen = view({ checks });
    expect(notDone(seen, 'dipstick')).toBe('came drained');
    expect(notDone(seen, 'coolant')).toBeNull();
    const told = reportModel(seen, 'h', 1).sections.find((s) => s.id === 'opening')!;
    expect(told.blocks).toContainEqual({ kind: 'list', items: ['Dipstick: came drained'] });
  });
  it('asks no more for what only a check not made could show', () => {
    const asked = (checks: CaseFile['checks']) => featuresSetAside(view({ checks }));
    expect(asked([]).size).toBe(0);
    const drained = [{ check: 'dipstick', field: 'not-done', answer: 'came drained' }];
    expect(asked(drained).get('fluid.level-low')).toBe('came drained');
    const none = checksFor(FOUR).map((c) => ({ check: c.id, field: 'not-done', answer: 'came in boxes' }));
    const aside = asked(none);
    const offered = (checks: CaseFile['checks']) =>
      diagnose(view({ checks })).nextChecks.filter((n) => aside.has(n.feature) && !feature(n.feature)!.parts);
    expect(offered([]).length).toBeGreaterThan(0);
    expect(offered(none)).toEqual([]);
    const pair = (checks: CaseFile['checks']) =>
      comparePair(view({ checks }), cause('oil-low')!, cause('fuel-in-oil')!).find((s) => s.feature === 'fluid.level-low');
    expect(pair([])?.state).toBe('still possible');
    expect(pair(drained)).toMatchObject({ state: 'not done', why: expect.stringContaining('came drained') as string });
  });
  it('clears all cylinders only when most were looked into', () => {
    const clear = (n: number) => Array.from({ length: n }, (_, i) => ({ check: 'borescope', field: `seen.${i + 1}`, answer: ['clear'] }));
    expect(evidence({ checks: clear(1) }).has('seen.liquid-in-cylinder')).toBe(false);
    expect(evidence({ checks: clear(4) }).get('seen.liquid-in-cylinder')?.present).toBe(false);
  });
  it('does not let a clean filter outvote copper in the pan', () => {
    const e = evidence({
      findings: [{ station: 'pan.debris', grade: 3, patterns: ['copper-flake'] }],
      checks: [{ check: 'filter', field: 'found', answer: ['clean'] }],
    });
    expect(e.get('debris.copper')?.present).toBe(true);
  });
  it('judges pressure and end float against the case’s limit, else against a stated rule of thumb', () => {
    const low = { check: 'oil-pressure', field: 'hot-idle', answer: '0.9', unit: 'bar' };
    expect(evidence({ checks: [low] }).get('measured.pressure-low')?.present).toBe(false);
    const own = evidence({ checks: [low], limits: [{ quantity: 'oil-pressure.hot-idle', lower: 1.4, unit: 'bar' }] });
    expect(own.get('measured.pressure-low')?.present).toBe(true);
    const words = evidence({ checks: [{ check: 'end-float', field: 'float', answer: '0.42' }] }).get('measured.end-float-high')!.sources[0]!
      .words;
    expect(words).toMatch(/rule of thumb/);
  });
  it('is silent where the gauge cannot tell', () =>
    expect(evidence({ checks: [{ check: 'end-float', field: 'float', answer: '0.31' }] }).has('measured.end-float-high')).toBe(false));
  it('moves the differential: two low neighbours put the gasket first', () => {
    const d = diagnose(view({ checks: dry([12, 7, 7.2, 12]) }));
    expect(d.causes[0]?.id).toBe('gasket-fault');
  });
});
