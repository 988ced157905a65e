import { bearingsOf } from '../engine/bearings.js';
import { ENGINE_TEMPLATES, engineTemplate } from '../engine/templates.js';
import { noFilm } from '../loads/engineFilm.js';
import { noCircuit } from '../oil/circuit.js';
import { EQUALLY, likened, shutFeed, triedAll, whyNotLikened } from './explain.js';
import { formsAt, usualSetting, type RunSetting } from './setting.js';
import { asBuilt, explainedByFault } from './explainFaults.js';
import { likenessLogOdds, likestByForm } from './likenessOdds.js';
import { likeness, runEngine, wearOfAll, type Run } from './run.js';
import { sleeveDeg } from './shellArc.js';

// An engine as the page lets it run: what wears where follows from how it runs, and what is not known is said.
const FOUR = engineTemplate('inline-4-petrol')!.layout;
const USUAL: RunSetting = {
  speedRpm: 3000,
  loadShare: 1,
  oilGrade: '10W-40',
  oilTemperatureC: 95,
  fuelShare: 0,
  clearancesMm: {},
  faults: [],
  aslant: null,
  bearing: 'rod.2',
};
const run = (more: Partial<RunSetting> = {}, layout = FOUR): Run => {
  const made = runEngine(layout, { ...USUAL, ...more });
  if (!made.ok) throw new Error(made.problem.sentence);
  return made.value;
};

describe('the arc of a shell in the frame of the loads', () => {
  it('has its crown towards the piston above and away from it below, and goes on from half to half', () => {
    expect(sleeveDeg(FOUR, 'rod.1', 'upper', 90)).toBe(0);
    expect(sleeveDeg(FOUR, 'rod.1', 'lower', 90)).toBe(180);
    expect(sleeveDeg(FOUR, 'rod.1', 'upper', 180)).toBe(sleeveDeg(FOUR, 'rod.1', 'lower', 0));
    expect(sleeveDeg(FOUR, 'rod.1', 'lower', 180)).toBe(sleeveDeg(FOUR, 'rod.1', 'upper', 0));
  });
  it('has mains of a V about the middle between its banks, whichever way it turns', () => {
    const eight = engineTemplate('vee-8-petrol')!.layout;
    const middle = sleeveDeg(eight, 'main.2', 'upper', 90);
    expect([45, 315]).toContain(middle);
    expect(sleeveDeg({ ...eight, rotation: eight.rotation === 'clockwise' ? 'anticlockwise' : 'clockwise' }, 'main.2', 'upper', 90)).toBe(
      (360 - middle) % 360,
    );
    expect(sleeveDeg(eight, 'rod.2', 'upper', 90)).toBe(0);
  });
});

describe('a run', () => {
  it('has a thinner film with thin oil, heat, load and too little clearance in it', () => {
    const film = (more: Partial<RunSetting> = {}): number => run(more).film!.summary.minimumFilmUm;
    expect(film({ fuelShare: 0.1 })).toBeLessThan(film());
    expect(film({ oilTemperatureC: 130 })).toBeLessThan(film());
    expect(film({ loadShare: 0.3 })).toBeGreaterThan(film());
    expect(film({ clearancesMm: { 'rod.2': 0.2 } })).toBeLessThan(film());
  });

  it('wears the rod half when it lugs, and nothing when it is healthy', () => {
    const lugging = run({ speedRpm: 900, oilTemperatureC: 125, fuelShare: 0.08 }).wear!;
    const sum = (a: Float64Array): number => a.reduce((s, v) => s + v, 0);
    expect(sum(lugging.upper)).toBeGreaterThan(5 * sum(lugging.lower));
    const healthy = run({ speedRpm: 2500, loadShare: 0.3, oilTemperatureC: 80 });
    expect(healthy.wear).toBeNull();
    // A film of some three times the roughness lets tips touch now and then: that is no wear to be drawn.
    const thin = run({ speedRpm: 3000, oilTemperatureC: 100 });
    expect(thin.film!.summary.filmOverRoughness).toBeGreaterThan(2.5);
    expect(thin.film!.summary.filmOverRoughness).toBeLessThan(4);
    expect(thin.wear).toBeNull();
  });

  it('wears opposite edges of the two halves under a bent rod, both edges all round under a bent crank', () => {
    const worn = (kind: 'bent-rod' | 'bent-crank' | 'cap-aside') => {
      const predicted = run({ oilTemperatureC: 110, aslant: { kind, amountM: 30e-6 } }).wear!;
      const rows = (half: 'upper' | 'lower', from: number, to: number): number => {
        let sum = 0;
        predicted[half].forEach((v, i) => (sum += Math.floor(i / 36) >= from && Math.floor(i / 36) < to ? v : 0));
        return sum;
      };
      return {
        upper: [rows('upper', 0, 4), rows('upper', 8, 12)] as const,
        lower: [rows('lower', 0, 4), rows('lower', 8, 12)] as const,
        predicted,
      };
    };
    const rod = worn('bent-rod');
    expect(rod.upper[0]).toBeGreaterThan(3 * rod.upper[1]);
    expect(rod.lower[1]).toBeGreaterThanOrEqual(rod.lower[0]);
    const crank = worn('bent-crank');
    expect(crank.upper[0]).toBeGreaterThan(0);
    expect(crank.upper[1]).toBeGreaterThan(0);
    const arcOf = (half: Float64Array): number =>
      Array.from({ length: 36 }, (_, a) => half.reduce((sum, v, i) => sum + (i % 36 === a ? v : 0), 0)).reduce(
        (best, v, a, all) => (v > all[best]! ? a : best),
        0,
      );
    // A cap set aside wears by its parting line.
    const at = arcOf(worn('cap-aside').predicted.lower);
    expect(Math.min(at, 35 - at)).toBeLessThan(10);
  });

  it('reckons no film where no oil comes, and says so while the needle stands', () => {
    const dry = run({ faults: [{ kind: 'shut-feed', at: 'main.2' }] });
    expect(dry.film).toBeNull();
    expect(dry.why).toMatch(/gets 0 % of its oil/);
    // It bears where the load points: the rod half takes combustion, and both halves are hurt.
    expect(dry.wear).toMatchObject({ dry: true });
    for (const half of ['upper', 'lower'] as const) expect(Math.max(...dry.wear![half])).toBeGreaterThan(0.1);
    expect(dry.oil!.driver).toMatch(/as it always does/);
    expect(run({ faults: [{ kind: 'shut-feed', at: 'main.2' }], bearing: 'rod.1' }).film).not.toBeNull();
  });

  it('has loads and no circuit where oil is splashed', () => {
    const splash = engineTemplate('single-splash')!.layout;
    const alone = run({ bearing: 'rod.1', speedRpm: 2000 }, splash);
    expect([alone.film, alone.oil]).toEqual([null, null]);
    expect(alone.noOil).toMatch(/no pressure circuit/);
    expect(alone.why).toMatch(/splash|rolling|without a shell/);
    expect(alone.specificMpa.most).toBeGreaterThan(0);
  });

  it('refuses what cannot be', () => {
    const refused = runEngine(FOUR, { ...USUAL, faults: [{ kind: 'shut-feed', at: 'main.8' }] });
    expect(refused.ok ? '' : refused.problem.sentence).toMatch(/cannot be at "main\.8"/);
  });
});

describe('what every bearing would wear', () => {
  it('is what each would by itself, dry where its feed is shut, and nothing in a healthy engine', () => {
    const setting: RunSetting = { ...USUAL, speedRpm: 1000, oilTemperatureC: 130, faults: [{ kind: 'shut-feed', at: 'main.2' }] };
    const all = wearOfAll(FOUR, setting);
    if (!all.ok) throw new Error(all.problem.sentence);
    expect([...all.value].filter(([, w]) => w.dry).map(([b]) => b)).toEqual(expect.arrayContaining(['main.2', 'rod.2']));
    expect(all.value.get('rod.3')).toEqual(run({ ...setting, bearing: 'rod.3' }).wear);
    const healthy = wearOfAll(FOUR, { ...USUAL, speedRpm: 2500, loadShare: 0.3, oilTemperatureC: 80 });
    expect(healthy.ok && healthy.value.size).toBe(0);
    expect(wearOfAll(FOUR, { ...USUAL, faults: [{ kind: 'shut-feed', at: 'main.8' }] }).ok).toBe(false);
  });
});

describe('the fault that leaves a bearing without oil', () => {
  it.each(ENGINE_TEMPLATES.map((t) => [t.id, t.layout] as const))(
    'leaves every bearing of %s dry that is fed under pressure',
    (_, layout) => {
      for (const bearing of bearingsOf(layout)) {
        const feed = shutFeed(layout, bearing);
        if (!feed || noFilm(layout, bearing) !== null) continue;
        const made = runEngine(layout, { ...usualSetting(layout, bearing, {}), faults: [feed] });
        expect([bearing, made.ok && made.value.wear?.dry]).toEqual([bearing, true]);
      }
      if (noCircuit(layout)) expect(shutFeed(layout, 'rod.1')).toBeNull();
    },
  );
  it('is nothing a bearing the engine has not can have, and such a bearing is not let run', () => {
    expect(shutFeed(FOUR, 'rod.9')).toBeNull();
    const made = runEngine(FOUR, { ...USUAL, bearing: 'rod.9' });
    expect(made.ok ? '' : made.problem.sentence).toMatch(/no bearing "rod\.9"/);
  });
});

describe('likeness', () => {
  const at = (...full: number[]): Float64Array => Float64Array.from({ length: 36 }, (_, i) => (full.includes(i) ? 1 : 0));
  const all = new Float64Array(36).fill(1);
  it('is one for the same and nought for what lies elsewhere', () => {
    expect(likeness(at(3, 4), at(3, 4), all)).toBeCloseTo(1, 12);
    expect(likeness(at(3, 4), at(20), all)).toBe(0);
  });
  it('is silent where too little was seen, or nothing is worn', () => {
    expect(likeness(at(3), at(3), at(3, 4, 5))).toBeNull();
    expect(likeness(at(3), at(), all)).toBeNull();
  });
});

describe('what would explain what was found', () => {
  const arcs = (at: (arc: number) => number): Float64Array => Float64Array.from({ length: 36 * 12 }, (_, i) => at(i % 36));
  const all = arcs(() => 1);
  const tried = triedAll(FOUR, { ...USUAL, clearancesMm: { 'rod.2': 0.045 } });
  it('finds the way of running whose own wear it is given, among those that fit equally well', () => {
    const lean = run({ fuelShare: 0.2 }).wear!;
    const ranked = likened(tried, { upper: { worn: lean.upper, seen: all }, lower: { worn: lean.lower, seen: all } });
    const own = ranked.find((e) => e.name === '20 % fuel in the oil')!;
    expect(own.alike).toBeCloseTo(1, 9);
    expect(ranked[0]!.alike! - own.alike!).toBeLessThanOrEqual(EQUALLY);
    expect(ranked.map((e) => e.alike ?? -1)).toEqual(ranked.map((e) => e.alike ?? -1).sort((a, b) => b - a));
  });
  it('finds a bent rod by its edges', () => {
    const bent = run({ oilTemperatureC: 110, aslant: { kind: 'bent-rod', amountM: 2.3e-5 } }).wear!;
    const found = { upper: { worn: bent.upper, seen: all }, lower: { worn: bent.lower, seen: all } };
    const [best] = likened(tried, found);
    expect(best!.name).toMatch(/^bent rod by \d+ µm/);
    expect(best!.alike).toBeGreaterThan(0.9);
    // A main has no rod to be bent.
    expect(formsAt('main.2').some((form) => form.includes('rod'))).toBe(false);
  });
  it('finds nothing alike where the other half is worn', () => {
    const capOnly = arcs((i) => (i > 14 && i < 22 ? 1 : 0));
    const ranked = likened(tried, {
      upper: { worn: arcs(() => 0), seen: all },
      lower: { worn: capOnly, seen: all },
    });
    const lugging = ranked.find((e) => e.name.startsWith('lugging') && e.alike !== null)!;
    expect(lugging.alike ?? 0).toBeLessThan(0.3);
  });
  it('names the best way of each form a bearing can have, and every form is tried', () => {
    const lugging = run({ speedRpm: 1000, oilTemperatureC: 130 }).wear!;
    const found = { upper: { worn: lugging.upper, seen: all }, lower: { worn: lugging.lower, seen: all } };
    const ways = likened(tried, found);
    expect(new Set(ways.flatMap((w) => w.form ?? []))).toEqual(new Set(formsAt('rod.2')));
    const forms = likestByForm(ways);
    expect(forms[0]!.form).toBe('combustion');
    expect(new Set(forms.map((f) => f.form)).size).toBe(forms.length);
    const odds = likenessLogOdds(forms);
    expect(odds.get('combustion')!).toBeGreaterThan(1);
    expect(odds.get('twisted-rod')!).toBeLessThan(0);
  });
  it.each<[string, number, number, RegExp | null]>([
    ['a half and nothing more', 1, 0, null],
    ['a quarter of one half', 0.25, 0, /^Only 13 % of the two halves was seen/],
    ['two halves', 1, 1, null],
  ])('likens %s, or says why not', (_, upper, lower, why) => {
    const part = (share: number): Float64Array => arcs((a) => (a < 36 * share ? 1 : 0));
    const band = arcs((a) => (a > 12 && a < 24 ? 1 : 0.1));
    const found = { upper: { worn: band, seen: part(upper) }, lower: { worn: band, seen: part(lower) } };
    if (why) expect(whyNotLikened(found)).toMatch(why);
    else expect(whyNotLikened(found)).toBeNull();
  });
  it('likens nothing where next to nothing is worn', () => {
    expect(whyNotLikened({ upper: { worn: arcs(() => 0.01), seen: all } })).toMatch(/nothing to liken/);
    // What was destroyed speaks against nothing either.
    expect(whyNotLikened({ upper: { worn: arcs(() => 0.9), seen: all }, lower: { worn: arcs(() => 0.5), seen: all } })).toMatch(
      /form it began with is gone/,
    );
  });
});

describe('which fault would explain who was hurt', () => {
  const bearings = [1, 2, 3, 4, 5].map((n) => `main.${n}`).concat([1, 2, 3, 4].map((n) => `rod.${n}`));
  const ranked = (hurt: readonly string[], setting: RunSetting = USUAL) => {
    const made = explainedByFault(FOUR, setting, new Map(bearings.map((b) => [b, hurt.includes(b) ? 1 : 0])));
    if (!made.ok) throw new Error(made.problem.sentence);
    return made.value;
  };
  it.each([1, 2, 3, 4, 5])('finds the feed of main %d from that main and the pins it feeds, and the gauge that does not fall', (main) => {
    const fed = [`main.${main}`, ...(main < 5 ? [`rod.${main}`] : [])];
    const [first, second] = ranked(fed);
    expect(first!.fault).toEqual({ kind: 'shut-feed', at: `main.${main}` });
    expect([...first!.short].sort()).toEqual([...fed].sort());
    expect(first!.gaugeMovedBar).toBeGreaterThanOrEqual(0);
    // A shell turned over its hole is the same to the oil.
    expect(second!.fault.kind).toBe('turned-shell');
    expect(first!.alike - second!.alike).toBeLessThan(EQUALLY);
  });
  it('finds what all bearings share where all are hurt, with a gauge that falls', () => {
    const [first] = ranked(bearings);
    expect(first!.fault.at?.startsWith('main') ?? false).toBe(false);
    expect(first!.short).toHaveLength(bearings.length);
    expect(first!.gaugeMovedBar).toBeLessThan(-0.5);
  });
  it('takes hurt bearings as they were built, and says nothing where nobody is hurt', () => {
    expect(
      asBuilt(
        { 'main.2': 0.2, 'main.3': 0.06 },
        new Map([
          ['main.2', 1],
          ['main.3', 0.25],
        ]),
      ),
    ).toEqual({ 'main.3': 0.06 });
    expect(ranked([])).toEqual([]);
    expect(explainedByFault(engineTemplate('single-splash')!.layout, { ...USUAL, bearing: 'rod.1' }, new Map([['rod.1', 1]])).ok).toBe(
      false,
    );
  });
});
