import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import { readCaseFile } from '../bundle/caseFile/read.js';
import { type CaseFile } from '../bundle/caseFile/format.js';
import { engineTemplate, ENGINE_TEMPLATES } from '../engine/templates.js';
import { patternFaults } from '../damage/catalogue/validate.js';
import { PATTERNS } from '../damage/patterns.js';
import { cause, CAUSES } from '../cause/data/causes.js';
import { COMES_WITH_AGE, FEATURES } from '../cause/data/features.js';
import { applicableModel, diagnose, type Diagnosis } from './diagnose.js';
import { diagnosisJson } from './diagnosisJson.js';
import { featureProbability, type Observation } from '../cause/model.js';
import { posterior } from '../cause/search.js';
import { correlation, spreadFindings } from './spread.js';
import { causeTableFaults } from '../cause/validate.js';
import { type STRENGTH, type Cause, type Feature } from '../cause/types.js';
import { engineTags } from '../engine/tags.js';
import { caseOf } from '../testing/caseOf.js';

const EXAMPLE = JSON.parse(readFileSync(join(__dirname, '../../../docs/formats/examples/fire-pump.case.json'), 'utf8')) as CaseFile;
const base: CaseFile = { format: 'true-ledger/case', version: 1, engine: { template: 'inline-4-petrol' } };
const read = (file: CaseFile): ReturnType<typeof diagnose> => {
  const r = readCaseFile(file);
  if (!r.ok) throw new Error(r.problem.sentence);
  return diagnose(r.value.view);
};
const spread = (file: Partial<CaseFile>): ReturnType<typeof spreadFindings> => {
  const r = readCaseFile({ ...base, ...file });
  if (!r.ok) throw new Error(r.problem.sentence);
  return spreadFindings(r.value.view);
};
const p = (d: Diagnosis, id: string): number => d.causes.find((c) => c.id === id)?.probability ?? 0;

describe('tables', () => {
  const features = new Map(FEATURES.map((f) => [f.id, f]));
  it('hold at least 16 causes and 50 features', () => {
    expect(CAUSES.length).toBeGreaterThanOrEqual(16);
    expect(FEATURES.length).toBeGreaterThanOrEqual(50);
    expect(new Set(CAUSES.map((c) => c.id)).size).toBe(CAUSES.length);
    expect(features.size).toBe(FEATURES.length);
  });
  it.each(CAUSES.map((c) => [c.id, c] as const))('%s: known features, five at least, a reason each, none twice', (_, c) => {
    expect(c.links.length).toBeGreaterThanOrEqual(5);
    expect(new Set(c.links.map((l) => l.feature)).size).toBe(c.links.length);
    for (const l of c.links) {
      expect(features.has(l.feature)).toBe(true);
      expect(l.reason.length).toBeGreaterThan(3);
    }
    expect(c.priorOdds).toBeGreaterThan(0);
  });
  it.each(ENGINE_TEMPLATES.map((t) => [t.id, t.layout] as const))(
    '%s: every cause that applies is told apart from every other by some feature',
    (_, layout) => {
      const { causes, features: known } = applicableModel(engineTags(layout));
      for (const a of causes) {
        if (a.id === 'something-else') continue;
        for (const b of causes) {
          if (a === b) continue;
          const told = [...known.values()].some((f) => Math.abs(featureProbability(f, [a]) - featureProbability(f, [b])) > 0.2);
          if (!told) throw new Error(`${a.id} and ${b.id} look alike`);
        }
      }
    },
  );
  it('is without fault by its own validator, and the catalogue by its', () => {
    expect(causeTableFaults(CAUSES, FEATURES)).toEqual([]);
    expect(patternFaults(PATTERNS, new Set(FEATURES.map((f) => f.id)))).toEqual([]);
    expect(PATTERNS.length).toBeGreaterThanOrEqual(110);
    expect(CAUSES.length).toBeGreaterThanOrEqual(50);
  });
  it('has no feature that speaks for or against no cause', () => {
    const linked = new Set(CAUSES.filter((c) => c.id !== 'something-else').flatMap((c) => c.links.map((l) => l.feature)));
    expect(FEATURES.map((f) => f.id).filter((id) => !linked.has(id))).toEqual([]);
  });
  it('names what is wrong: a circle, a strength out of range or missing, a feature nobody can see', () => {
    const [c] = CAUSES;
    const spoilt = { ...c!, id: 'spoilt', links: [{ ...c!.links[0]!, strength: 'often' as 'usually' }, ...c!.links.slice(1)] };
    expect(causeTableFaults([spoilt], FEATURES)).toEqual([expect.stringMatching(/"spoilt".*strength "often" is missing or out of range/)]);
    const unseen = FEATURES.map((f, i) => (i === 0 ? { ...f, leak: 1.5, check: { step: '', minutes: 0 } } : f));
    expect(causeTableFaults([], unseen).join(' ')).toMatch(/leak 1.5 is outside 0–1.*observable by no step/);
    const [p0, p1, ...rest] = PATTERNS;
    const round = [{ ...p0!, leadsTo: [p1!.id] }, { ...p1!, leadsTo: [p0!.id] }, ...rest];
    expect(patternFaults(round, new Set(FEATURES.map((f) => f.id)))).toEqual([
      expect.stringContaining(`${p0!.id} → ${p1!.id} → ${p0!.id}`),
    ]);
  });
  it('holds links by kind of engine, and what a feature makes void, to the same rules', () => {
    const low = CAUSES.find((c) => c.id === 'oil-low')!;
    const twice = { ...low, linksFor: { splash: [...low.linksFor!.splash!, low.linksFor!.splash![0]!] } };
    expect(causeTableFaults([twice], FEATURES)).toEqual([expect.stringContaining('twice')]);
    const voids = FEATURES.map((f, i) => (i === 0 ? { ...f, voids: ['no.such'] } : f));
    expect(causeTableFaults([], voids)).toEqual([expect.stringContaining('voids "no.such"')]);
  });
  it('takes a cause as it acts in the engine at hand', () => {
    const strength = (template: string): string | undefined =>
      applicableModel(engineTags(engineTemplate(template)!.layout))
        .causes.find((c) => c.id === 'oil-low')!
        .links.find((l) => l.feature === 'seen.rod-broken')?.strength;
    expect(strength('single-splash')).toBe('usually');
    expect(strength('inline-4-petrol')).toBe('rarely');
  });
  it('has leaks with reasons and steps', () => {
    for (const f of FEATURES) {
      expect(f.leak).toBeGreaterThan(0);
      expect(f.leak).toBeLessThan(1);
      expect(f.leakReason.length).toBeGreaterThan(2);
      expect(f.check.minutes).toBeGreaterThan(0);
    }
  });
});

describe('model', () => {
  const f = (id: string, leak: number, group?: string): Feature => ({
    id,
    name: id,
    kind: 'seen',
    leak,
    leakReason: '',
    damage: true,
    check: { step: '', minutes: 1 },
    ...(group ? { group } : {}),
  });
  const c = (id: string, links: Array<[string, keyof typeof STRENGTH, boolean?]>): Cause => ({
    id,
    name: id,
    family: '',
    mechanisms: ['unknown'],
    answerable: 'not determined',
    priorOdds: 0.1,
    links: links.map(([feature, strength, prevents]) => ({ feature, strength, prevents: prevents ?? false, reason: '' })),
    doesNot: '',
    collateral: [],
    actions: [],
  });

  it('is noisy-OR with leak and prevention, by hand', () => {
    const x = f('x', 0.1);
    const a = c('a', [['x', 'usually']]);
    const b = c('b', [['x', 'sometimes']]);
    const stop = c('s', [['x', 'almost always', true]]);
    expect(featureProbability(x, [])).toBeCloseTo(0.1, 12);
    expect(featureProbability(x, [a])).toBeCloseTo(1 - 0.9 * 0.35, 12);
    expect(featureProbability(x, [a, b])).toBeCloseTo(1 - 0.9 * 0.35 * 0.65, 12);
    // What prevents it takes from what is there without a cause, and nothing from a cause that brings it about.
    expect(featureProbability(x, [stop])).toBeCloseTo(0.1 * 0.1, 12);
    expect(featureProbability(x, [a, stop])).toBeCloseTo(1 - (1 - 0.1 * 0.1) * 0.35, 12);
    // What every other cause rules out, it rules out whatever brings it about.
    const sound = { ...x, othersPrevent: 0.9 };
    expect(featureProbability(sound, [a, c('other', [])])).toBeCloseTo((1 - 0.9 * 0.35) * 0.1, 12);
  });
  it('matches a posterior worked out by hand over all sets', () => {
    const features = new Map([
      ['x', f('x', 0.05)],
      ['y', f('y', 0.02)],
    ]);
    const causes = [c('a', [['x', 'almost always']]), c('b', [['y', 'usually']])];
    const post = posterior(
      causes,
      [0.1, 0.2],
      [
        { feature: 'x', ifPresent: 1, ifAbsent: 0 },
        { feature: 'y', ifPresent: 0, ifAbsent: 1 },
      ],
      features,
    );
    const w = (a: boolean, b: boolean): number =>
      (a ? 0.1 : 1) * (b ? 0.2 : 1) * (a ? 1 - 0.95 * 0.1 : 0.05) * (1 - (b ? 1 - 0.98 * 0.35 : 0.02));
    const total = w(false, false) + w(true, false) + w(false, true) + w(true, true);
    expect(post.marginal[0]).toBeCloseTo((w(true, false) + w(true, true)) / total, 12);
    expect(post.marginal[1]).toBeCloseTo((w(false, true) + w(true, true)) / total, 12);
  });
  it('lets only the strongest of a group weigh', () => {
    const features = new Map([
      ['x', f('x', 0.05, 'g')],
      ['y', f('y', 0.05, 'g')],
    ]);
    const causes = [
      c('a', [
        ['x', 'almost always'],
        ['y', 'rarely'],
      ]),
      c('b', [['y', 'rarely']]),
    ];
    const seen = (id: string): Observation => ({ feature: id, ifPresent: 1, ifAbsent: 0 });
    const both = posterior(causes, [0.1, 0.1], [seen('x'), seen('y')], features);
    expect(both.weighed.map((o) => o.feature)).toEqual(['x']);
    expect(both.marginal[0]).toBeCloseTo(posterior(causes, [0.1, 0.1], [seen('x')], features).marginal[0]!, 12);
  });
  it('does not depend on the order of evidence, and told evidence moves less than seen', () => {
    const { causes, odds, features } = applicableModel(engineTags(engineTemplate('inline-4-petrol')!.layout));
    const ids = [...features.keys()];
    fc.assert(
      fc.property(fc.uniqueArray(fc.constantFrom(...ids), { minLength: 2, maxLength: 8 }), (picked) => {
        const seen = picked.map((feature): Observation => ({ feature, ifPresent: 1, ifAbsent: 0 }));
        const a = posterior(causes, odds, seen, features).marginal;
        const b = posterior(causes, odds, [...seen].reverse(), features).marginal;
        a.forEach((v, i) => expect(v).toBeCloseTo(b[i]!, 9));
      }),
      { numRuns: 15 },
    );
    const at = causes.findIndex((x) => x.id === 'coolant-in-oil');
    const hard = posterior(causes, odds, [{ feature: 'fluid.milky', ifPresent: 1, ifAbsent: 0 }], features).marginal[at]!;
    const soft = posterior(causes, odds, [{ feature: 'fluid.milky', ifPresent: 0.8, ifAbsent: 0.2 }], features).marginal[at]!;
    const none = posterior(causes, odds, [], features).marginal[at]!;
    expect(hard).toBeGreaterThan(soft);
    expect(soft).toBeGreaterThan(none);
  });
});

describe('spread over the layout', () => {
  const shells = ['main.*.shell.*', 'rod.*.shell.*'];
  it('finds one main and the pins it feeds', () => {
    const s = spread({
      sound: shells,
      findings: [
        { station: 'main.2.shell.upper', grade: 4 },
        { station: 'rod.2.shell.lower', grade: 3 },
      ],
    });
    expect(s['spread.main-and-its-pins']?.present).toBe(true);
    expect(s['spread.one-bearing']?.present).toBe(false);
    expect(s['spread.all-bearings']?.present).toBe(false);
  });
  it('finds one bearing only', () =>
    expect(spread({ sound: shells, findings: [{ station: 'rod.3.shell.upper', grade: 3 }] })['spread.one-bearing']?.present).toBe(true));
  it('finds damage growing along the route', () => {
    const findings = [1, 2, 3, 4, 5].map((m) => ({ station: `main.${m}.shell.lower`, grade: m - 1 }));
    const s = spread({ findings });
    expect(s['spread.grows-along-route']?.present).toBe(true);
    expect(s['spread.fades-along-route']?.present).toBe(false);
  });
  it('finds one edge on every shell, and opposite edges of one rod', () => {
    const edge = (station: string, where: 'front-edge' | 'rear-edge') => ({
      station,
      grade: 3,
      wear: [{ class: 'lining' as const, percent: 15, where }],
    });
    expect(
      spread({
        findings: [
          edge('main.1.shell.lower', 'rear-edge'),
          edge('main.3.shell.lower', 'rear-edge'),
          edge('main.5.shell.lower', 'rear-edge'),
        ],
      })['spread.same-edge']?.present,
    ).toBe(true);
    const askew = spread({ findings: [edge('rod.2.shell.upper', 'front-edge'), edge('rod.2.shell.lower', 'rear-edge')] });
    expect(askew['spread.opposite-edges']?.present).toBe(true);
    expect(askew['spread.same-edge']?.present).toBe(false);
  });
  it('says nothing about what was not examined', () => expect(spread({})).toEqual({}));
  it('calls a mostly examined sound engine "nothing found"', () =>
    expect(spread({ sound: ['**'] })['spread.nothing-found']?.present).toBe(true));
  it('tells pistons from bearings', () => {
    const s = spread({ sound: shells, findings: [1, 2, 3, 4].map((n) => ({ station: `piston.${n}.skirt.thrust`, grade: 3 })) });
    expect(s['spread.all-pistons']?.present).toBe(true);
    expect(s['spread.bearings-clean']?.present).toBe(true);
  });
  it('finds both rods of one pin in a V', () => {
    const r = readCaseFile({
      ...base,
      engine: { template: 'vee-8-petrol' },
      sound: shells,
      findings: [
        { station: 'rod.2.shell.upper', grade: 3 },
        { station: 'rod.6.shell.upper', grade: 3 },
      ],
    });
    if (!r.ok) throw new Error(r.problem.sentence);
    expect(spreadFindings(r.value.view)['spread.two-on-one-pin']?.present).toBe(true);
  });
  it('correlates', () => {
    expect(correlation([1, 2, 3], [2, 4, 6])).toBeCloseTo(1, 12);
    expect(correlation([1, 2, 3], [5, 5, 5])).toBe(0);
  });
});

describe('diagnosis', () => {
  const d = read(EXAMPLE);
  it('finds the blocked feed of the example and its place', () => {
    expect(d.causes[0]).toMatchObject({ id: 'local-feed' });
    expect(d.causes[0]?.places[0]?.place).toBe('main.2');
    expect(d.ending.kind).toBe('cause found');
    expect(d.mechanisms.slice(0, 2).map((m) => m.mechanism)).toContain('film starved');
  });
  it('keeps evidence for and against, each with its source', () => {
    expect(d.causes[1]!.evidence.some((e) => e.decibans < 0)).toBe(true);
    for (const c of d.causes.slice(0, 5)) for (const e of c.evidence) expect(e.sources.length).toBeGreaterThan(0);
  });
  it('ranks marginals downward and gives sets that are probabilities', () => {
    // Ordinary wear, metal that only passes on and what has no record stand aside; all others by their probability.
    const own = d.causes.filter((c) => !cause(c.id)!.ordinary && !cause(c.id)!.follows && !cause(c.id)!.unlisted);
    own.slice(1).forEach((c, i) => expect(c.probability).toBeLessThanOrEqual(own[i]!.probability + 1e-12));
    expect(d.sets.reduce((s, x) => s + x.probability, 0)).toBeLessThanOrEqual(1 + 1e-9);
  });
  it('lowers oil shortage when the level was looked at and right', () => {
    const { evidence: _gone, ...without } = EXAMPLE;
    expect(p(read(EXAMPLE), 'oil-low')).toBeLessThan(p(read(without), 'oil-low'));
  });
  it('offers a useful next check on an almost empty case, with what each outcome would do', () => {
    const few = read({ ...base, intake: { complaint: ['knock', 'low-pressure'], onset: 'gradual' } });
    expect(few.nextChecks.length).toBeGreaterThan(3);
    const [first] = few.nextChecks;
    expect(first!.bits).toBeGreaterThan(0.02);
    expect(first!.ifFound.after).not.toBeCloseTo(first!.ifFound.before, 3);
    expect(few.ending.kind).toBe('not determined');
  });
  it('never asks for what is lost', () => {
    const states = Object.fromEntries(['pump.gears', 'pump.relief', 'timing.drive', 'pickup.screen'].map((s) => [s, 'lost' as const]));
    const asked = new Set<string>();
    let file: CaseFile = { ...base, states };
    for (let k = 0; k < 12; k++) {
      const checks = read(file).nextChecks;
      checks.forEach((c) => asked.add(c.feature));
      file = { ...file, evidence: [...(file.evidence ?? []), ...checks.map((c) => ({ feature: c.feature, present: false }))] };
    }
    for (const lost of ['seen.pump-scored', 'seen.relief-stuck', 'seen.screen-choked', 'seen.pickup-leak', 'seen.pump-drive-broken'])
      expect(asked).not.toContain(lost);
    expect(asked.size).toBeGreaterThan(20);
  });
  it('leaves an unnamed finding unexplained', () => {
    const u = read({ ...base, sound: ['main.*.shell.*'], findings: [{ station: 'bore.3', grade: 3 }] }).unexplained;
    expect(u.map((x) => x.station)).toEqual(['bore.3']);
  });
  it('finds two independent causes', () => {
    const two = read({
      ...base,
      sound: ['bore.2', 'bore.3', 'bore.4', 'piston.*.skirt.antithrust'],
      findings: [
        ...[
          'main.1.shell.lower',
          'main.2.shell.lower',
          'main.3.shell.lower',
          'rod.1.shell.upper',
          'rod.2.shell.upper',
          'rod.3.shell.upper',
        ].map((station) => ({ station, grade: 2, patterns: ['scoring', 'embedded'] })),
        { station: 'crank.main.1', grade: 3, patterns: ['journal-scoring'] },
        { station: 'pan.debris', grade: 2, patterns: ['grit'] },
        { station: 'gasket.head', grade: 3, patterns: ['gasket-leak'] },
      ],
      history: [
        { text: 'rebuilt in March', feature: 'told.recent-work', reliability: 'seen' },
        { text: 'boiled twice', feature: 'told.overheated', reliability: 'seen' },
      ],
      evidence: [
        { feature: 'fluid.coolant-low', present: true },
        { feature: 'spread.neighbour-bores', present: true },
      ],
    });
    expect(p(two, 'foreign-debris')).toBeGreaterThan(0.8);
    expect(p(two, 'gasket-fault') + p(two, 'coolant-lost')).toBeGreaterThan(0.8);
  });
  it('ends a sound engine with no failure found', () => expect(read({ ...base, sound: ['**'] }).ending.kind).toBe('no failure found'));
  it('does not offer a pump to a premix engine', () => {
    const premix = read({
      ...base,
      engine: { template: 'twin-premix' },
      history: [{ text: 'wrong can', feature: 'told.premix-missed', reliability: 'told' }],
    });
    expect(premix.causes.map((c) => c.id)).not.toContain('pump-drive');
    expect(premix.causes[0]?.id).toBe('premix-lean');
  });
  it('prints the documented JSON', () => {
    const open = readCaseFile(EXAMPLE);
    if (!open.ok) throw new Error(open.problem.sentence);
    const json = diagnosisJson(open.value.view, d);
    expect(json.bestSet.causes).toContain('local-feed');
    expect(json.topEvidence!.for[0]!.decibans).toBeGreaterThan(0);
    expect(json.chain.links.length).toBeGreaterThan(0);
    expect(json).toMatchObject({ format: 'true-ledger/diagnosis', version: 2, ending: { kind: 'cause found' } });
    expect(JSON.parse(JSON.stringify(json))).toEqual(json);
  });
  it('names what would turn the answer', () => {
    const thin = read({
      ...base,
      history: [{ text: 'x', feature: 'told.over-speed', reliability: 'seen' }],
      evidence: [
        { feature: 'fluid.level-low', present: true },
        { feature: 'seen.wiping', present: true },
      ],
    });
    expect(thin.turningPoint).not.toBeNull();
  });
});

describe('the service of an engine', () => {
  const tags = engineTags(engineTemplate('inline-4-petrol')!.layout);
  const leakOf = (id: string, age: 'fresh' | 'middling' | 'old'): number => applicableModel(tags, age).features.get(id)!.leak;
  it('makes what comes with age commoner by itself, and nothing else', () => {
    expect(leakOf('seen.ring-ridge', 'fresh')).toBeLessThan(leakOf('seen.ring-ridge', 'middling'));
    expect(leakOf('seen.ring-ridge', 'old')).toBeGreaterThan(leakOf('seen.ring-ridge', 'middling'));
    expect(leakOf('seen.sight-rusty.bore', 'old')).toBeGreaterThan(leakOf('seen.sight-rusty.bore', 'middling'));
    expect(leakOf('seen.wiping', 'old')).toBe(leakOf('seen.wiping', 'middling'));
    for (const id of COMES_WITH_AGE) expect(FEATURES.map((f) => f.id)).toContain(id);
  });
  it('lets an old engine’s ridge speak less for wear than a fresh one’s', () => {
    const chance = (more: object): number =>
      diagnose(
        caseOf({
          version: 2,
          engine: { template: 'inline-4-petrol', ...more },
          findings: [{ station: 'bore.1', patterns: ['ring-ridge'], grade: 2 }],
        }),
      ).causes.find((c) => c.id === 'normal-wear')!.probability;
    expect(chance({ hours: 20_000 })).toBeLessThan(chance({ hours: 50 }));
  });
});
