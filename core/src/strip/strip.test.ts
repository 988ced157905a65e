import fc from 'fast-check';
import { readCaseFile } from '../bundle/caseFile/read.js';
import { type CaseFile } from '../bundle/caseFile/format.js';
import { feature } from '../cause/data/features.js';
import { collectEvidence } from '../diagnosis/evidence.js';
import { diagnose } from '../diagnosis/diagnose.js';
import type { NextCheck } from '../diagnosis/nextCheck.js';
import { ENGINE_TEMPLATES, engineTemplate } from '../engine/templates.js';
import { stationsOf } from '../engine/stations.js';
import { checkEntry } from '../gate/admit.js';
import { easingResult } from './easing.js';
import { capPattern, fastenerResult, headPattern } from './fasteners.js';
import { HOLD_RECORDS } from './holds.js';
import { brokenBy, moveStep, stripPlan } from './plan.js';
import { lostBySteps, reasonsGiven, stripStanding } from '../case/stripStanding.js';
import { wayTo } from '../case/wayTo.js';
import { checksFor } from '../opening/checks.js';

const layoutOf = (id: string) => engineTemplate(id)!.layout;
const ids = (template: string): string[] => stripPlan(layoutOf(template)).steps.map((s) => s.id);
const base: CaseFile = { format: 'true-ledger/case', version: 1, engine: { template: 'inline-4-petrol' } };
const opened = (file: Partial<CaseFile>) => {
  const r = readCaseFile({ ...base, ...file });
  if (!r.ok) throw new Error(`${r.problem.field}: ${r.problem.sentence}`);
  return r.value;
};

/** What nothing would show any more once a step is done. */
const nextAt = (file: Partial<CaseFile>, step: string): string[] => wayTo(opened(file).view, step).loses.map((h) => h.id);

describe('plans as data', () => {
  it.each(ENGINE_TEMPLATES.map((t) => [t.id, t.layout] as const))(
    '%s: in a possible order, known places, known holds, no name twice',
    (_, layout) => {
      const plan = stripPlan(layout);
      expect(
        brokenBy(
          plan.steps,
          plan.steps.map((s) => s.id),
        ),
      ).toBeNull();
      expect(new Set(plan.steps.map((s) => s.id)).size).toBe(plan.steps.length);
      const places = new Set(stationsOf(layout).map((s) => s.id));
      for (const s of plan.steps) {
        for (const shot of s.shots) if (shot.station !== '' && !places.has(shot.station)) throw new Error(`${s.id} wants ${shot.station}`);
        for (const before of s.after) if (!plan.byId.has(before)) throw new Error(`${s.id} waits for ${before}, which is not there`);
        expect(s.how.length).toBeGreaterThan(10);
      }
      expect(plan.steps[0]!.id).toBe('arrival');
      expect(plan.steps.at(-1)!.id).toBe('wash');
    },
  );
  it('an overhead-cam V8: cams of both banks before their heads, shared pins, five main caps', () => {
    const v8 = ids('vee-8-petrol');
    for (const id of ['cams-0', 'cams-1', 'head-0', 'head-1', 'rod-cap-8', 'main-cap-5']) expect(v8).toContain(id);
    expect(v8.indexOf('cams-1')).toBeLessThan(v8.indexOf('head-1'));
    expect(v8).not.toContain('rockers');
    expect(v8.filter((id) => id.startsWith('liner-'))).toEqual([]);
  });
  it('a pushrod six with wet liners: rockers and followers in order, liners measured and drawn, camshaft last', () => {
    const six = ids('inline-6-diesel');
    expect(six.filter((id) => id.startsWith('liner-'))).toHaveLength(6);
    expect(six.indexOf('rockers')).toBeLessThan(six.indexOf('head-0'));
    expect(six.indexOf('followers')).toBeGreaterThan(six.indexOf('head-0'));
    expect(six.indexOf('camshaft')).toBeGreaterThan(six.indexOf('crank'));
    expect(six).not.toContain('timing');
    const liner = stripPlan(layoutOf('inline-6-diesel')).byId.get('liner-3')!;
    expect(liner.holds.map((h) => h.id)).toContain('liner-height');
  });
  it('a splash single: side cover and dipper, no filter, pump, pan or main caps', () => {
    const single = ids('single-splash');
    expect(single).toEqual(expect.arrayContaining(['side-cover', 'rod-cap-1']));
    for (const id of ['filter', 'pickup', 'pan', 'roll', 'main-cap-1', 'galleries', 'drain-coolant']) expect(single).not.toContain(id);
    expect(
      stripPlan(layoutOf('single-splash'))
        .byId.get('rod-cap-1')!
        .holds.map((h) => h.id),
    ).toContain('dipper');
  });
  it('a premix twin: barrels and case halves, fuel instead of oil, the crank stays pressed up', () => {
    const twin = ids('twin-premix');
    expect(twin).toEqual(expect.arrayContaining(['drain-fuel', 'exhaust-port', 'barrel-2', 'case']));
    for (const id of ['drain-oil', 'covers', 'rod-cap-1', 'main-cap-1', 'pan']) expect(twin).not.toContain(id);
  });
  it('an outboard: off its leg first, the impeller looked at', () => {
    const outboard = ids('outboard-twin');
    expect(outboard.indexOf('powerhead')).toBeLessThan(outboard.indexOf('head-0'));
    expect(ids('twin-premix')).not.toContain('powerhead');
  });
  it('a flat engine: pins before the halves part, no main caps', () => {
    const flat = ids('flat-4-petrol');
    expect(flat.indexOf('pin-4')).toBeLessThan(flat.indexOf('case'));
    expect(flat.some((id) => id.startsWith('main-cap'))).toBe(false);
    expect(flat.indexOf('rod-cap-1')).toBeGreaterThan(flat.indexOf('crank'));
  });
  it('a ladder frame replaces the main caps', () => {
    const plan = stripPlan({ ...layoutOf('inline-4-petrol'), ladderFrame: true });
    expect(plan.byId.has('ladder')).toBe(true);
    expect(plan.byId.has('main-cap-1')).toBe(false);
  });
  it('names only features that exist', () => expect(HOLD_RECORDS.flatMap((r) => r.features).filter((f) => !feature(f))).toEqual([]));
});

describe('order', () => {
  const plan = stripPlan(layoutOf('inline-4-petrol'));
  const order = plan.steps.map((s) => s.id);
  it('moves what is free and refuses what is not, naming the reason', () => {
    const free = moveStep(plan, 'pan', order.indexOf('covers'));
    expect(free).toMatchObject({ ok: true });
    const bound = moveStep(plan, 'head-0', 0);
    expect(bound.ok).toBe(false);
    if (!bound.ok) expect(bound.problem.sentence).toMatch(/"Head off" cannot come before/);
  });
  it('keeps the builder’s order, takes in new steps, and never follows an impossible one', () => {
    const moved = moveStep(plan, 'pan', order.indexOf('covers'));
    if (!moved.ok) throw new Error();
    expect(stripPlan(layoutOf('inline-4-petrol'), moved.value).steps.map((s) => s.id)).toEqual(moved.value);
    fc.assert(
      fc.property(fc.shuffledSubarray(order), (wanted) => {
        const made = stripPlan(layoutOf('inline-4-petrol'), wanted);
        expect(made.steps).toHaveLength(order.length);
        expect(
          brokenBy(
            made.steps,
            made.steps.map((s) => s.id),
          ),
        ).toBeNull();
      }),
      { numRuns: 60 },
    );
  });
});

describe('holds', () => {
  it('count what the next possible steps would destroy', () => {
    const fresh = stripStanding(opened({}).view);
    expect(fresh.started).toBe(false);
    expect(fresh.atRisk.map((i) => i.id)).toEqual([]);
    const safe = stripStanding(opened({ strip: { done: ['isolate'] } }).view);
    expect(safe.atRisk.map((i) => i.id)).toEqual(expect.arrayContaining(['oil-level', 'oil-look', 'coolant']));
  });
  it('are settled by the real thing: an answer, pictures, torques, a cap', () => {
    const view = opened({
      checks: [{ check: 'dipstick', field: 'level', answer: 'below' }],
      strip: {
        bolts: [
          { pattern: 'rod.1', position: 'a', value: '48' },
          { pattern: 'rod.1', position: 'b', value: '50' },
        ],
        caps: [{ cap: 'rod.1', number: '1', agrees: true }],
      },
    }).view;
    const step = stripStanding(view).steps.find((s) => s.step.id === 'rod-cap-1')!;
    const state = (id: string) => step.holds.find((h) => h.item.id === id)?.state;
    expect(state('cap-torque:rod.1')).toBe('recorded');
    expect(state('cap-marks:rod.1')).toBe('recorded');
    expect(state('rod-play')).toBe('open');
    expect(
      stripStanding(view)
        .steps.find((s) => s.step.id === 'drain-oil')!
        .holds.find((h) => h.item.id === 'oil-level')?.state,
    ).toBe('recorded');
  });
  it('passed over, they are lost, and the cause engine stops asking', () => {
    const asks = (file: Partial<CaseFile>): string[] => diagnose(opened(file).view).nextChecks.map((n) => n.feature);
    const hint: Partial<CaseFile> = {
      intake: { complaint: 'low-pressure' },
      findings: [{ station: 'rod.2.shell.upper', grade: 3, patterns: ['wiping'] }],
    };
    expect(asks(hint)).toContain('fluid.level-low');
    const lost = opened({ ...hint, strip: { done: ['isolate', 'turn'], lost: ['oil-level'] } });
    expect(stripStanding(lost.view).lostFeatures.has('fluid.level-low')).toBe(true);
    expect(asks({ ...hint, strip: { done: ['isolate', 'turn'], lost: ['oil-level'] } })).not.toContain('fluid.level-low');
  });
  it('are asked for first by a look that would destroy them, and by none where they are recorded', () => {
    const began: Partial<CaseFile> = { strip: { done: ['arrival', 'isolate'] }, intake: { complaint: 'knock' } };
    const noted = checksFor(layoutOf('inline-4-petrol')).map((c) => ({ check: c.id, field: 'not-done', answer: 'came in boxes' }));
    /** The first look that opens something, once all that can be had without is answered. */
    const inside = [...Array(60)].reduce<{ evidence: { feature: string; present: boolean }[]; found: NextCheck | null }>(
      (so, _) => {
        if (so.found) return so;
        const [next] = diagnose(opened({ ...began, checks: noted, evidence: so.evidence }).view).nextChecks;
        if (!next || next.opens.length > 0) return { ...so, found: next ?? null };
        return { ...so, evidence: [...so.evidence, { feature: next.feature, present: false }] };
      },
      { evidence: [], found: null },
    ).found!;
    expect(inside.minutesInAll).toBeGreaterThanOrEqual(inside.minutes + 10 * inside.opens.length);
    expect(inside.bitsPerMinute).toBeCloseTo(inside.bits / inside.minutesInAll, 9);
    // Set aside with a reason, nothing of the checks is asked for first.
    expect(inside.first.flatMap((r) => r.tells)).not.toContain('fluid.level-low');
    const open = nextAt(began, 'rod-cap-1');
    expect(open).toEqual(expect.arrayContaining(['oil-level', 'compression']));
    const read: Partial<CaseFile> = { checks: [{ check: 'dipstick', field: 'level', answer: 'between' }] };
    expect(nextAt({ ...began, ...read }, 'rod-cap-1')).not.toContain('oil-level');
    // A part that was looked at was laid bare, whether or not anybody ticked the steps.
    expect(nextAt({ sound: ['rod.1.shell.upper'] }, 'rod-cap-1')).toEqual([]);
  });
  it('are lost as well when every step that destroys them is done without a word', () => {
    const view = opened({ strip: { done: ['isolate', 'turn', 'drain-oil'] } }).view;
    expect(stripStanding(view).lost.map((i) => i.id)).toEqual(expect.arrayContaining(['oil-level', 'oil-look', 'oil-sample']));
  });
  it('a feature with several chances is lost with the last of them', () => {
    const one = stripStanding(opened({ strip: { lost: ['cap-marks:rod.1'] } }).view);
    expect(one.lostFeatures.has('measured.cap-mismatch')).toBe(false);
  });
  it('an item that comes again is not lost yet', () => {
    const standing = stripStanding(opened({ strip: { done: ['isolate'] } }).view);
    expect(lostBySteps(standing, ['turn'])).toEqual([]);
    expect(lostBySteps(standing, ['drain-oil']).map((i) => i.id)).toEqual(['oil-sample']);
    const later = stripStanding(opened({ strip: { done: ['isolate', 'turn'] } }).view);
    expect(lostBySteps(later, ['drain-oil']).map((i) => i.id)).toEqual(['oil-level', 'oil-look', 'oil-sample']);
  });
  it('of many steps at once is what none that stays guards, each thing once', () => {
    const standing = stripStanding(opened({ strip: { done: ['isolate'] } }).view);
    const both = lostBySteps(standing, ['turn', 'drain-oil']).map((i) => i.id);
    expect(both).toEqual(expect.arrayContaining(['oil-level', 'oil-look', 'oil-sample']));
    expect(new Set(both).size).toBe(both.length);
    const all = lostBySteps(
      standing,
      standing.steps.map((s) => s.step.id),
    );
    expect(all.length).toBeGreaterThan(20);
    expect(lostBySteps(standing, ['no-such-step'])).toEqual([]);
  });
  it('reasons given before are offered again, the last first, each once', () => {
    const { view } = opened({ strip: { done: ['isolate'] } });
    const note = (text: string, seq: number): never => ({ value: { note: text }, version: { seq } }) as never;
    const given = {
      ...view,
      steps: new Map([
        ['a', note('came in boxes', 3)],
        ['b', note('', 9)],
      ]),
      holds: new Map([
        ['c', note('no oil in it', 5)],
        ['d', note('came in boxes', 7)],
      ]),
    };
    expect(reasonsGiven(given)).toEqual(['came in boxes', 'no oil in it']);
  });
  it('what was gone before us cannot be lost by us', () => {
    const view = opened({ states: { 'main.*.shell.*': 'before-us' } }).view;
    const shells = stripStanding(view).steps.find((s) => s.step.id === 'shells')!;
    expect(new Set(shells.holds.map((h) => h.state))).toEqual(new Set(['gone']));
  });
});

describe('fasteners', () => {
  it('are drawn for every head and eased from the ends', () => {
    const head = headPattern(layoutOf('inline-4-petrol'), 0);
    expect(head.positions).toHaveLength(10);
    expect(new Set(head.easing).size).toBe(10);
    const x = new Map(head.positions.map((p) => [p.id, p.x]));
    const middle = head.widthMm / 2;
    const away = head.easing.map((id) => Math.abs(x.get(id)! - middle));
    expect(away[0]).toBeCloseTo(Math.max(...away), 6);
    expect(Math.min(...away.slice(-2))).toBeCloseTo(Math.min(...away), 6);
  });
  it('find the pair that does not pull together', () => {
    const cap = capPattern('main.2', 'Main cap 2', 58, 21, false);
    expect(fastenerResult(cap, [{ position: 'a', newtonMetre: 60 }])).toBeNull();
    expect(
      fastenerResult(cap, [
        { position: 'a', newtonMetre: 60 },
        { position: 'b', newtonMetre: 58 },
      ])?.uneven,
    ).toEqual([]);
    const uneven = fastenerResult(cap, [
      { position: 'a', newtonMetre: 60 },
      { position: 'b', newtonMetre: 30 },
    ])!.uneven;
    expect(uneven[0]).toMatchObject({ pair: 'main', positions: ['a', 'b'] });
    expect(uneven[0]!.percent).toBeCloseTo(66.7, 1);
  });
});

describe('easing caps', () => {
  const e = (...values: Array<[string, number]>) => easingResult(values.map(([cap, newtonMetre]) => ({ cap, newtonMetre })));
  it('names the cap that binds', () => {
    const r = e(['', 80], ['main.1', 74], ['main.2', 70], ['main.3', 22], ['main.4', 18])!;
    expect(r.binding).toBe('main.3');
    expect(r.drops.map((d) => d.drop)).toEqual([6, 4, 48, 4]);
  });
  it('names none when no drop stands out', () => expect(e(['', 80], ['main.1', 60], ['main.2', 40], ['main.3', 20])!.binding).toBeNull());
  it('waits for the first cap', () => expect(e(['', 80])).toBeNull());
  it('becomes evidence', () => {
    const view = opened({
      strip: {
        easing: [
          ['', '80'],
          ['main.1', '76'],
          ['main.2', '20'],
        ].map(([cap, value]) => ({ cap: cap!, value: value! })),
      },
    }).view;
    const found = collectEvidence(view).find((x) => x.feature.id === 'measured.cap-binding');
    expect(found?.present).toBe(true);
    expect(found?.sources[0]?.words).toContain('main.2');
  });
});

describe('what the ledger refuses', () => {
  it('a first impression once the strip has started', () => {
    const { state } = opened({ strip: { done: ['isolate'] } });
    const r = checkEntry('intake-set', null, { field: 'firstImpression', value: 'oil-low' }, state);
    expect(r.ok).toBe(false);
    if (!r.ok) expect(r.problem.code).toBe('first-impression-locked');
    expect(checkEntry('intake-set', null, { field: 'firstImpression', value: 'oil-low' }, opened({}).state).ok).toBe(true);
  });
  it.each<[string, 'step-set' | 'bolt-torque' | 'ease-torque' | 'check-set', object]>([
    ['a step the engine lacks', 'step-set', { step: 'rockers', state: 'done', note: '' }],
    ['a bolt the head lacks', 'bolt-torque', { pattern: 'head-0', position: '99', text: '50', unit: 'N·m', newtonMetre: 50 }],
    ['a torque that does not follow from its text', 'ease-torque', { index: 0, cap: '', text: '50', unit: 'lb·ft', newtonMetre: 50 }],
    [
      'a check value that does not follow from its text',
      'check-set',
      { check: 'end-float', field: 'float', text: '0.2', chosen: [], value: 0.4, unit: 'mm' },
    ],
  ])('%s', (_, kind, body) => expect(checkEntry(kind, null, body, opened({}).state).ok).toBe(false));
});
