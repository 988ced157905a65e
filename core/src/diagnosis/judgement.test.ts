import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { readCaseFile } from '../bundle/caseFile/read.js';
import { caseFileOf } from '../bundle/caseFile/write.js';
import { type CaseFile } from '../bundle/caseFile/format.js';
import { PATTERNS, pattern } from '../damage/patterns.js';
import { matchFinding } from '../case/matchFinding.js';
import { positionOf, SCHOOLS, schoolsAt } from '../damage/schools.js';
import { engineTemplate } from '../engine/templates.js';
import type { EntryBodies, EntryKind } from '../entries/entries.js';
import { checkEntry } from '../gate/admit.js';
import { applyEntry } from '../entries/entries.js';
import { type CaseState } from '../ledger/state.js';
import { caseView, type CaseView } from '../case/views.js';
import { answerability, answerItems, releaseCheck, warrantyChecklist } from './answers.js';
import { cause } from '../cause/data/causes.js';
import { diagnose } from './diagnose.js';
import { collectEvidence } from './evidence.js';
import { firstStartProcedure } from '../cause/firstStart.js';
import { strongestOfGroups, type Observation } from '../cause/model.js';
import { comparePair } from './pair.js';
import type { Cause, Feature } from '../cause/types.js';
import { predictBench } from './predicted.js';
import { secondaryPlaces } from './secondary.js';
import { spreadFindings } from './spread.js';

const base: CaseFile = { format: 'true-ledger/case', version: 1, engine: { template: 'inline-4-petrol' } };
const open = (file: Partial<CaseFile>): CaseState => {
  const read = readCaseFile({ ...base, ...file });
  if (!read.ok) throw new Error(read.problem.sentence);
  return read.value.state;
};
const view = (file: Partial<CaseFile>): CaseView => caseView(open(file))!;
const tuning = (name: string): CaseFile =>
  JSON.parse(readFileSync(join(__dirname, '../../../bench/cases/tuning', `${name}.json`), 'utf8')) as CaseFile;
describe('a strip that has hardly begun', () => {
  it('finds no cause, however likely, and says how little was examined', () => {
    const few: Partial<CaseFile> = {
      findings: [{ station: 'main.2.shell.lower', grade: 3, patterns: ['embedded'] }],
      evidence: ['debris.grit', 'told.recent-work', 'debris.sealant'].map((feature) => ({
        feature,
        present: true,
        reliability: 'measured' as const,
      })),
    };
    const { ending, causes } = diagnose(view(few));
    expect(causes[0]!.id).toBe('foreign-debris');
    expect(causes[0]!.probability).toBeGreaterThan(0.75);
    expect(ending.kind).toBe('most likely, not proven');
    expect(ending.sentence).toMatch(/only \d+ % was examined/);
    const more = diagnose(view({ ...few, sound: ['rod.*.shell.*', 'main.1.shell.*', 'crank.**'] }));
    expect(more.ending.kind).toBe('cause found');
    expect(more.ending.sentence).toMatch(/; it rests on the \d+ % of the engine that was examined\.$/);
  });
});

describe('what would tell and is gone', () => {
  it('leaves a cause likely and not proven, and says what is gone', () => {
    const file: Partial<CaseFile> = {
      history: [{ text: 'a buzz since the gear was changed', feature: 'told.vibration', reliability: 'seen' }],
      findings: [
        { station: 'crank.pin.3', grade: 4, patterns: ['torsion-crack', 'fillet-crack'] },
        { station: 'timing.drive', grade: 2, patterns: ['chain-stretched'] },
      ],
      sound: ['rod.1.**', 'rod.2.**', 'rod.4.**', 'main.**', 'crank.main.*', 'bore.*', 'piston.**'],
      evidence: [{ feature: 'measured.balance-off', present: true, reliability: 'measured' }],
    };
    const before = diagnose(view(file));
    expect([before.causes[0]!.id, before.ending.kind]).toEqual(['torsion', 'cause found']);
    const gone = diagnose(view({ ...file, states: { damper: 'lost' } }));
    expect(gone.causes[0]!.id).toBe('torsion');
    expect(gone.ending.kind).toBe('most likely, not proven');
    expect(gone.ending.sentence).toContain('gone');
  });
});

const add = <K extends EntryKind>(state: CaseState, kind: K, body: EntryBodies[K]): CaseState => {
  const checked = checkEntry(kind, null, body, state);
  if (!checked.ok) throw new Error(checked.problem.sentence);
  const author = { id: 'a', name: 'Ada' };
  return applyEntry(state, { id: `t${state.seq}`, kind, station: null, body, author, time: '', seq: state.seq + 1, hash: '' });
};
const shells = ['main.*.shell.*', 'rod.*.shell.*'];

describe('consequences are not places of origin', () => {
  const seized = {
    findings: [
      { station: 'main.2.shell.lower', grade: 4, patterns: ['dry-seizure', 'heat-short'] },
      ...['main.1', 'main.3', 'main.4', 'main.5', 'rod.1', 'rod.2', 'rod.3', 'rod.4'].map((b) => ({
        station: `${b}.shell.lower`,
        grade: 2,
        patterns: ['own-debris-scoring'],
      })),
    ],
  };
  it('does not count bearings lined by the metal of the one that failed', () => {
    const v = view(seized);
    expect(secondaryPlaces(v).size).toBe(8);
    expect(spreadFindings(v)['spread.one-bearing']?.present).toBe(true);
    expect(spreadFindings(v)['spread.all-bearings']?.present).toBe(false);
  });
  it('counts them all where none failed by itself', () => {
    const v = view({ findings: seized.findings.map((f) => ({ ...f, grade: 2, patterns: ['scoring'] })) });
    expect(secondaryPlaces(v).size).toBe(0);
    expect(spreadFindings(v)['spread.all-bearings']?.present).toBe(true);
  });
});

describe('a case file that contradicts itself', () => {
  const problem = (file: Partial<CaseFile>): string => {
    const r = readCaseFile({ ...base, ...file });
    return r.ok ? '' : r.problem.sentence;
  };
  it.each<[string, Partial<CaseFile>, RegExp]>([
    [
      'a feature both ways',
      {
        evidence: [
          { feature: 'fluid.milky', present: true },
          { feature: 'fluid.milky', present: false },
        ],
      },
      /found and as not there/,
    ],
    [
      'a pattern both ways',
      { findings: [{ station: 'main.1.shell.upper', patterns: ['wiping'], absent: ['wiping'] }] },
      /showing "wiping" and as not showing it/,
    ],
    [
      'two grades',
      {
        findings: [
          { station: 'bore.1', grade: 1 },
          { station: 'bore.1', grade: 3 },
        ],
      },
      /graded 1 and 3/,
    ],
    ['sound and graded', { sound: ['bore.1'], findings: [{ station: 'bore.1', grade: 3 }] }, /listed as sound and graded 3/],
    ['a place the engine has not', { findings: [{ station: 'main.9.shell.upper', grade: 3 }] }, /not a place of this engine/],
    ['an unknown pattern', { findings: [{ station: 'bore.1', patterns: ['worn-out'] }] }, /not a pattern known here/],
  ])('%s', (_, file, words) => expect(problem(file)).toMatch(words));
  it('takes a wildcard of sound places with exceptions, and halves and edges in short', () => {
    const v = view({ sound: shells, findings: [{ station: 'rod.2', half: 'both', edge: 'rear', grade: 2 }] });
    expect(v.byId.get('rod.2.shell.upper')?.patterns.map((p) => p.value.pattern)).toEqual(['edge-loading']);
    expect(v.byId.get('rod.2.shell.lower')?.summary?.edgeShare.rear).toBeGreaterThan(0.6);
    expect(v.byId.get('rod.3.shell.lower')?.state).toBe('sound');
  });
});

describe('endings at the limits of a case', () => {
  it('nothing examined: not determined, and it says what to look at', () => {
    const d = diagnose(view({}));
    expect(d.ending.kind).toBe('not determined');
    expect(d.nextChecks.length).toBeGreaterThan(0);
  });
  it('everything examined and sound: no failure found', () =>
    expect(diagnose(view({ sound: ['**'] })).ending.kind).toBe('no failure found'));
  it('a thousand findings are read and answered', () => {
    const stations = view({}).stations.filter((s) => s.station.part === 'shell');
    const ids = PATTERNS.filter((p) => p.parts.includes('shell')).map((p) => p.id);
    const findings = Array.from({ length: 1000 }, (_, k) => ({
      station: stations[k % stations.length]!.station.id,
      patterns: [ids[k % ids.length]!],
    }));
    const d = diagnose(view({ findings }));
    expect(d.causes.reduce((s, c) => s + c.probability, 0)).toBeGreaterThan(0.5);
    for (const c of d.causes) expect(Number.isFinite(c.probability)).toBe(true);
  });
});

describe('matching a finding', () => {
  const at = (file: Partial<CaseFile>, station: string): ReturnType<typeof matchFinding> => matchFinding(view(file).byId.get(station)!);
  it('puts edge loading first for wear along one edge, and asks what decides', () => {
    const m = at(
      { findings: [{ station: 'main.1.shell.lower', grade: 2, wear: [{ class: 'lining', percent: 12, where: 'rear-edge' }] }] },
      'main.1.shell.lower',
    )!;
    expect(m.ranked.slice(0, 2).map((r) => r.pattern.id)).toContain('edge-loading');
    expect(m.ranked[0]!.why.length).toBeGreaterThan(0);
    expect(m.decides!.observation.length).toBeGreaterThan(10);
    expect(m.ranked.reduce((s, r) => s + r.fit, 0)).toBeCloseTo(1, 9);
  });
  it('puts rust before wiping where the class is rust', () => {
    const m = at(
      { findings: [{ station: 'main.1.shell.lower', grade: 2, wear: [{ class: 'rust', percent: 20, where: 'middle' }] }] },
      'main.1.shell.lower',
    )!;
    const order = m.ranked.map((r) => r.pattern.id);
    expect(order.indexOf('water-rust')).toBeLessThan(order.indexOf('wiping'));
  });
  it('says nothing of a face on which nothing is drawn', () =>
    expect(at({ sound: ['main.1.shell.lower'] }, 'main.1.shell.lower')).toBeNull());
});

describe('predicted against found', () => {
  it('has pins beyond a shut feed hurt, the others clean', () => {
    const v = view(tuning('main-two-blind'));
    const by = new Map(predictBench(v, cause('local-feed')!, 'main.2').map((p) => [p.station, p]));
    expect(by.get('main.2.shell.upper')!.chance).toBeGreaterThan(0.8);
    expect(by.get('main.2.shell.upper')!.fit).toBe('as predicted');
    expect(by.get('rod.2.shell.upper')!.fit).toBe('as predicted');
    expect(by.get('main.5.shell.upper')!.chance).toBeLessThan(0.35);
    expect(by.get('main.5.shell.upper')!.fit).toBe('clean as predicted');
    expect(by.get('valves.1')!.fit).toBe('not examined');
  });
  it('shows what a rival would have left and is not there', () => {
    const fits = predictBench(view(tuning('main-two-blind')), cause('oil-low')!, null).map((p) => p.fit);
    expect(fits.filter((f) => f === 'predicted, not there').length).toBeGreaterThan(3);
  });
});

describe('a hard pair', () => {
  it('lists what decides between two causes, strongest first, and what is gone', () => {
    const v = view({
      findings: [{ station: 'rod.2.shell.upper', grade: 3, patterns: ['wiping'] }],
      evidence: [{ feature: 'fluid.level-low', present: false }],
      states: { 'pickup.screen': 'lost' },
    });
    const signs = comparePair(v, cause('oil-low')!, cause('pickup-fault')!);
    const by = new Map(signs.map((s) => [s.feature, s]));
    expect(by.get('fluid.level-low')).toMatchObject({ state: 'not there' });
    expect(by.get('fluid.level-low')!.ifFound).toBeGreaterThan(3);
    expect(by.get('seen.screen-choked')).toMatchObject({ state: 'lost' });
    expect(signs.some((s) => s.state === 'still possible')).toBe(true);
    const size = signs.map((s) => Math.max(Math.abs(s.ifFound), Math.abs(s.ifNot)));
    size.slice(1).forEach((x, i) => expect(x).toBeLessThanOrEqual(size[i]! + 1e-9));
  });
});

describe('schools', () => {
  it('has a position for every standard, and reasons', () => {
    for (const s of SCHOOLS) {
      expect(s.positions.map((p) => p.id)).toContain(s.standard);
      expect(s.why.length).toBeGreaterThan(20);
      for (const p of s.patterns) expect(pattern(p)).toBeDefined();
    }
    expect(positionOf('one-sample', new Map([['one-sample', 'nonsense']]))).toBe('trend');
    expect(schoolsAt('journal', ['journal-transfer']).map((s) => s.id)).toEqual(['alloy-on-pin']);
  });
  it('weighs alloy on a pin as a report until a second sign, unless the case holds it for proof', () => {
    const alone = open({ findings: [{ station: 'crank.pin.2', grade: 3, patterns: ['journal-transfer'] }] });
    const trust = (s: CaseState): string =>
      collectEvidence(caseView(s)!).find((e) => e.feature.id === 'seen.journal-transfer')!.reliability;
    expect(trust(alone)).toBe('told');
    expect(trust(add(alone, 'school-set', { question: 'alloy-on-pin', position: 'no-oil', reason: 'seen it often' }))).toBe('certain');
    expect(trust(open({ findings: [{ station: 'crank.pin.2', grade: 3, patterns: ['journal-transfer', 'journal-heat'] }] }))).toBe(
      'certain',
    );
  });
  it('goes out with the case file and comes back, so that the differential is the same', () => {
    const state = add(open({ findings: [{ station: 'crank.pin.2', grade: 3, patterns: ['journal-transfer'] }] }), 'school-set', {
      question: 'alloy-on-pin',
      position: 'no-oil',
      reason: 'seen it often',
    });
    const out = caseFileOf(state, caseView(state)!);
    expect(out.schools).toEqual({ 'alloy-on-pin': 'no-oil' });
    const back = readCaseFile(JSON.parse(JSON.stringify(out)));
    if (!back.ok) throw new Error(back.problem.sentence);
    expect(diagnose(back.value.view).causes.map((c) => c.probability)).toEqual(diagnose(caseView(state)!).causes.map((c) => c.probability));
    const odd = readCaseFile({ ...base, schools: { 'alloy-on-pin': 'sideways' } });
    expect(odd.ok ? '' : odd.problem.sentence).toMatch(/no position "sideways"/);
  });
  it('holds edge wear of rod shells against an axial push only where the case says so', () => {
    const rods = open({
      sound: ['main.*.shell.*'],
      findings: ['rod.1', 'rod.3'].map((b) => ({ station: `${b}.shell.upper`, grade: 2, patterns: ['edge-loading'] })),
    });
    const axial = (s: CaseState): number => diagnose(caseView(s)!).causes.find((c) => c.id === 'axial-load')!.probability;
    expect(axial(add(rods, 'school-set', { question: 'end-float', position: 'also-rods', reason: '' }))).toBeGreaterThan(axial(rods));
  });
});

describe('answers and release', () => {
  const found = add(open(tuning('main-two-blind')), 'cause-decided', {
    cause: 'local-feed',
    decision: 'confirmed',
    reason: 'plain half fitted',
  });
  it('does not release while a confirmed cause is unanswered, and does when it is', () => {
    const before = releaseCheck(caseView(found)!, diagnose(caseView(found)!));
    expect(before.ready).toBe(false);
    expect(before.blocks.join(' ')).toMatch(/no corrective action.*collateral checks open/s);
    let s = found;
    for (const i of answerItems(caseView(found)!))
      s = add(s, 'answer-set', { cause: i.cause, part: i.part, item: i.item, state: 'done', note: '' });
    for (const u of diagnose(caseView(s)!).unexplained)
      s = add(s, 'unexplained-set', { place: u.station, accepted: true, reason: 'old mark' });
    expect(releaseCheck(caseView(s)!, diagnose(caseView(s)!))).toEqual({ ready: true, blocks: [] });
    const early = checkEntry('case-released', null, { note: '' }, found);
    expect(early.ok ? '' : early.problem.sentence).toMatch(/was not released.*no corrective action/s);
    expect(caseView(add(s, 'case-released', { note: 'run for an hour' }))!.released?.value.note).toBe('run for an hour');
  });
  it('makes the first start from the layout, with its cautions', () => {
    const of = (id: string, causes: string[] = []): string =>
      firstStartProcedure(engineTemplate(id)!.layout, causes)
        .map((x) => `${x.what} ${x.caution ?? ''}`)
        .join(' ');
    expect(of('inline-4-diesel')).toMatch(/No pressure, no start.*Exhaust gas kills/s);
    expect(of('twin-premix')).not.toMatch(/oil filter|pressure shows/i);
    expect(of('twin-premix')).toMatch(/Mix fresh fuel/);
    expect(of('single-splash')).toMatch(/dipper trough/);
    expect(of('inline-4-petrol', ['cam-hardening'])).toMatch(/2 000 rpm/);
  });
  it('keeps a check of the builder’s own beside those listed', () => {
    const s = add(found, 'answer-set', { cause: 'local-feed', part: 'collateral', item: 'main 3 as well', state: 'planned', note: '' });
    expect(answerItems(caseView(s)!).find((i) => i.item === 'main 3 as well')).toMatchObject({ state: 'planned', by: 'Ada' });
  });
  it('says who may be answerable apart from the cause, in shares that are chances, with what it rests on', () => {
    const shares = answerability(diagnose(caseView(found)!));
    expect(shares[0]!.who).toBe('earlier repair');
    expect(shares[0]!.evidence.length).toBeGreaterThan(0);
    for (const s of shares) expect(s.probability).toBeGreaterThanOrEqual(0);
    for (const s of shares) expect(s.probability).toBeLessThanOrEqual(1);
  });
  it('lists what a maker’s desk asks for, recorded or not', () => {
    const list = warrantyChecklist(caseView(found)!);
    expect(list.find((l) => l.what === 'Colour by heat')).toMatchObject({ recorded: true });
    expect(list.find((l) => l.what === 'Build date code and marks')).toMatchObject({ recorded: false, value: 'not recorded' });
  });
  it('refuses a link that leads to itself and a state nobody knows', () => {
    const at = open({});
    expect(checkEntry('sequence-link', null, { from: 'cause:surge', to: 'cause:surge', state: 'drawn', reason: '' }, at).ok).toBe(false);
    expect(checkEntry('answer-set', null, { cause: 'surge', part: 'action', item: 'x', state: 'soon', note: '' }, at).ok).toBe(false);
  });
});

describe('a tie between two pieces of evidence of a group', () => {
  const cause = (id: string, feature: string): Cause =>
    ({ id, name: id, family: 'f', prior: 0.1, links: [{ feature, strength: 'usually', reason: '' }] }) as unknown as Cause;
  const feature = (id: string): Feature =>
    ({ id, name: id, kind: 'seen', leak: 0.05, leakReason: '', damage: true, group: 'g' }) as unknown as Feature;
  const features = new Map(['a', 'b'].map((id) => [id, feature(id)]));
  const causes = [cause('x', 'a'), cause('y', 'b')];
  const seen = (id: string, noise = 0): Observation => ({ feature: id, ifPresent: 0.95 + noise, ifAbsent: 0.05 });
  it('is settled by rule and not by the last digit of a logarithm', () => {
    for (const noise of [-1e-14, 0, 1e-14])
      expect(strongestOfGroups([seen('a'), seen('b', noise)], features, causes).map((o) => o.feature)).toEqual(['a']);
  });
  it('goes to what is there before what is not, in either order', () => {
    // Causes that touch neither: both move nothing.
    const there = seen('a');
    const gone: Observation = { feature: 'b', ifPresent: 0.05, ifAbsent: 0.95 };
    const balanced = [
      { ...cause('x', 'a'), links: [] },
      { ...cause('y', 'b'), links: [] },
    ];
    for (const pair of [
      [there, gone],
      [gone, there],
    ])
      expect(strongestOfGroups(pair, features, balanced).map((o) => o.feature)).toEqual(['a']);
  });
});
