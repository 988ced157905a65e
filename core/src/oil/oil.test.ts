import { bearingsOf } from '../engine/bearings.js';
import { readEngine } from '../loads/engineFile.js';
import { drilling, resistance, solveNetwork, valve } from './network.js';
import { faultPlaces, grooveLeak, holeLeak, solveCircuit, type Circuit } from './circuit.js';
import type { OilFault } from './faults.js';
import { oilJson, oilVerdict, primeS, readCircuit, warmUp } from './oilFile.js';

// The oil circuit: flows balance, and every fault shows where it would show and hides where it would hide.
type Read = Extract<ReturnType<typeof readCircuit>, { ok: true }>['value'];
function circuit(faults: readonly OilFault[] = [], speedRpm = 2500, more: object = {}, template = 'inline-4-petrol'): Read {
  const engine = readEngine({ format: 'true-ledger/engine', version: 1, engine: { template }, operating: { speedRpm } });
  if (!engine.ok) throw new Error(engine.problem.sentence);
  const read = readCircuit(engine.value, { faults, ...more });
  if (!read.ok) throw new Error(read.problem.sentence);
  return read.value;
}
const solved = (...of: Parameters<typeof circuit>): Circuit => solveCircuit(circuit(...of));
const sentence = (said: object, template = 'inline-4-petrol'): string => {
  const engine = readEngine({ format: 'true-ledger/engine', version: 1, engine: { template }, operating: { speedRpm: 2500 } });
  if (!engine.ok) throw new Error(engine.problem.sentence);
  const read = readCircuit(engine.value, said);
  return read.ok ? '' : `${read.problem.field}: ${read.problem.sentence}`;
};

describe('a network', () => {
  it('parts a flow as its resistances have it', () => {
    const law = (a: number) => resistance(a, 0);
    const { pressure, flow } = solveNetwork(
      ['a', 'b'],
      [
        { name: 'ab', from: 'a', to: 'b', law: law(1e9) },
        { name: 'one', from: 'b', to: null, law: law(2e9) },
        { name: 'two', from: 'b', to: null, law: law(6e9) },
      ],
      { node: 'a', law: () => [1e-4, 0] },
    );
    expect(flow.get('one')).toBeCloseTo(0.75e-4, 12);
    expect(flow.get('two')).toBeCloseTo(0.25e-4, 12);
    expect(pressure.get('b')).toBeCloseTo(1.5e5, 3);
    expect(pressure.get('a')).toBeCloseTo(2.5e5, 3);
  });

  it('has drillings that are Poiseuille’s when slow and quadratic when fast, with the slopes they have', () => {
    const thin = drilling(0.004, 0.1, 0.1, 870);
    expect(thin(1e3)[0]).toBeCloseTo((1e3 * Math.PI * 0.004 ** 4) / (128 * 0.1 * 0.1), 8);
    for (const law of [thin, valve(1e5, 1e-9)])
      for (const p of [-2e5, 5e4, 3e5]) expect((law(p + 1)[0] - law(p - 1)[0]) / 2 / law(p)[1]).toBeCloseTo(1, 6);
  });

  it('leaks with the cube of the clearance and against the viscosity', () => {
    expect(grooveLeak(0.06, 0.02, 6e-5, 0.01) / grooveLeak(0.06, 0.02, 3e-5, 0.01)).toBeCloseTo(8, 10);
    expect(holeLeak(0.006, 0.02, 3e-5, 0.005) / holeLeak(0.006, 0.02, 3e-5, 0.01)).toBeCloseTo(2, 10);
  });
});

describe('the circuit of an engine', () => {
  it.each(['inline-4-petrol', 'inline-6-diesel', 'vee-8-petrol', 'flat-4-petrol'])(
    'passes on at every node what it gets: %s',
    (template) => {
      for (const speed of [700, 2500, 6000]) {
        const c = solved([], speed, {}, template);
        expect(c.unbalanced).toBeLessThan(1e-9);
        const out = [...c.flow]
          .filter(([name]) => /^(leak|relief|before (?!feed)|head|turbo|jet)/.test(name))
          .reduce((sum, [, q]) => sum + q, 0);
        expect(out / c.pumpFlow).toBeCloseTo(1, 9);
      }
    },
  );

  it('shows a shut feed nowhere: the needle stays or rises a little while that main and its pin get nothing', () => {
    for (const speed of [800, 2500, 5000]) {
      const [healthy, shut] = [solved([], speed), solved([{ kind: 'shut-feed', at: 'main.3' }], speed)];
      expect(shut.gaugePa).toBeGreaterThanOrEqual(healthy.gaugePa);
      expect(shut.gaugePa - healthy.gaugePa).toBeLessThan(0.3e5);
      for (const dry of ['main.3', 'rod.3']) expect(shut.bearingFlow.get(dry)! / healthy.bearingFlow.get(dry)!).toBeLessThan(0.02);
      expect(shut.bearingFlow.get('main.2')).toBeGreaterThanOrEqual(healthy.bearingFlow.get('main.2')!);
    }
    const { driver, starved } = oilVerdict(circuit([{ kind: 'turned-shell', at: 'main.2' }], 800));
    expect(starved).toEqual(['rod.2', 'main.2']);
    expect(driver).toMatch(/as it always does.*Rod 2 and main 2 get next to nothing/);
  });

  it('never shows more pressure for more clearance, at whatever bearing', () => {
    const healthy = solved([], 800).gaugePa;
    for (const at of [...bearingsOf(circuit().layout), 'rod', 'main'])
      expect(solved([{ kind: 'clearance', at, amount: 2 }], 800).gaugePa).toBeLessThanOrEqual(healthy);
  });

  it('shows clearance that was measured, thin oil and heat on the gauge: the pump is that of the engine as new', () => {
    const running = (more: object, operating: object = {}): Circuit => {
      const engine = readEngine({
        format: 'true-ledger/engine',
        version: 1,
        engine: { template: 'inline-4-petrol' },
        operating: { speedRpm: 800, ...operating },
        ...more,
      });
      if (!engine.ok) throw new Error(engine.problem.sentence);
      const read = readCircuit(engine.value, {});
      if (!read.ok) throw new Error(read.problem.sentence);
      return solveCircuit(read.value);
    };
    const healthy = running({}).gaugePa;
    expect(running({ clearances: { rod: 0.09, main: 0.1 } }).gaugePa).toBeLessThan(0.7 * healthy);
    for (const at of bearingsOf(circuit().layout)) expect(running({ clearances: { [at]: 0.12 } }).gaugePa).toBeLessThan(healthy);
    expect(running({}, { fuelShare: 0.1 }).gaugePa).toBeLessThan(healthy);
    expect(running({}, { oilTemperatureC: 130 }).gaugePa).toBeLessThan(healthy);
  });

  it('shows wear everywhere at hot idle first, and hides it at speed behind the relief', () => {
    const worn: OilFault[] = [
      { kind: 'clearance', at: 'rod', amount: 1.5 },
      { kind: 'clearance', at: 'main', amount: 1.5 },
    ];
    const lost = (speed: number): number => solved(worn, speed).gaugePa / solved([], speed).gaugePa;
    expect(lost(800)).toBeLessThan(0.8);
    expect(lost(6000)).toBeGreaterThan(lost(800));
  });

  it.each<[OilFault, 'less' | 'more' | 'same', number]>([
    [{ kind: 'restriction', at: 'pickup', amount: 0.95 }, 'less', 5000],
    [{ kind: 'relief-open', amount: 0.5 }, 'less', 2500],
    [{ kind: 'relief-shut' }, 'more', 6000],
    [{ kind: 'air', amount: 0.3 }, 'less', 2500],
    [{ kind: 'worn-pump', amount: 4 }, 'less', 800],
    [{ kind: 'lost-plug' }, 'less', 2500],
    [{ kind: 'low-level', amount: 0.3 }, 'same', 2500],
    [{ kind: 'low-level', amount: 0.7 }, 'less', 2500],
    [{ kind: 'restriction', at: 'rod.2', amount: 0.99 }, 'same', 2500],
  ])('shows %j as %s', (fault, shows, speed) => {
    const ratio = solved([fault], speed).gaugePa / solved([], speed).gaugePa;
    if (shows === 'less') expect(ratio).toBeLessThan(0.9);
    else if (shows === 'more') expect(ratio).toBeGreaterThan(1.1);
    else expect(Math.abs(ratio - 1)).toBeLessThan(0.05);
  });

  it('lets a lost jet show at speed, and opens jets only under pressure', () => {
    const [healthy, lost] = [
      solved([], 1800, {}, 'inline-4-diesel'),
      solved([{ kind: 'lost-jet', at: 'jet.2' }], 1800, {}, 'inline-4-diesel'),
    ];
    expect(lost.gaugePa).toBeLessThan(0.8 * healthy.gaugePa);
    expect(healthy.flow.get('jet.1')).toBeGreaterThan(1e-5);
    expect(solved([], 120, { circuit: { jetOpensBar: 3 } }, 'inline-4-diesel').flow.get('jet.1')).toBeLessThan(1e-8);
  });

  it('draws nothing but air from an empty sump, and loses the gallery by a follower that is out of its bore', () => {
    expect(solved([{ kind: 'low-level', amount: 0.95 }], 2500).gaugePa).toBeLessThan(1e3);
    const fault: OilFault = { kind: 'lost-follower', at: 'followers' };
    expect(sentence({ faults: [fault] })).toMatch(/has nothing a fault of the kind lost-follower/);
    const engine = circuit();
    const layout = { ...engine.layout, valveGear: 'pushrod', followers: 'roller' } as const;
    expect(faultPlaces(layout, engine.sizes)['lost-follower']).toEqual(['followers']);
    const [healthy, lost] = [[], [fault]].map((faults) => solveCircuit({ ...engine, layout, faults }));
    expect(healthy!.flow.get('followers')).toBeGreaterThan(0);
    expect(lost!.gaugePa).toBeLessThan(0.7 * healthy!.gaugePa);
    expect(lost!.unbalanced).toBeLessThan(1e-9);
  });

  it('feeds what is before the filter past a clogged one, whose bypass opens', () => {
    const clogged = solved([{ kind: 'filter-clogged', amount: 0.9 }], 2500);
    expect(clogged.pressure.get('pump')! - clogged.pressure.get('filtered')!).toBeGreaterThan(0.9e5);
    expect(clogged.gaugePa).toBeGreaterThan(1e5);
    expect(solved([{ kind: 'filter-bypassed' }], 2500).pressure.get('filtered')).toBeGreaterThan(clogged.pressure.get('filtered')!);
  });

  it('shows more when cold, and fills a dry gallery front to rear', () => {
    const warming = warmUp(circuit([], 1500));
    expect(warming[0]!.circuit.gaugePa).toBeGreaterThan(warming.at(-1)!.circuit.gaugePa);
    // What is too thick for the bearings goes back over the relief.
    expect(warming[0]!.circuit.flow.get('relief')).toBeGreaterThan(warming.at(-1)!.circuit.flow.get('relief')!);
    const prime = primeS(circuit())!;
    expect(prime.get('main.5')).toBeGreaterThan(prime.get('main.1')!);
    expect(prime.get('main.1')).toBeGreaterThan(0.5);
  });

  it('turns a variable pump down instead of sending oil back', () => {
    const [fixed, variable] = [solved([], 6000), solved([], 6000, { circuit: { pump: 'variable' } })];
    expect(variable.pumpFlow).toBeLessThan(fixed.pumpFlow * 0.8);
    expect(Math.abs(variable.gaugePa - fixed.gaugePa)).toBeLessThan(0.7e5);
    expect(variable.flow.get('relief')).toBeLessThan(1e-8);
    expect(variable.unbalanced).toBeLessThan(1e-9);
  });

  it('answers with the verdict, balanced, and what was estimated', () => {
    const json = oilJson(circuit([{ kind: 'shut-feed', at: 'main.1' }])) as {
      starved: string[];
      unbalanced: number;
      estimated: string[];
      bearings: Array<{ pressureBar: number }>;
    };
    expect(json.starved).toEqual(['rod.1', 'main.1']);
    expect(json.unbalanced).toBeLessThan(1e-9);
    expect(json.estimated).toContain('circuit.pumpM3');
    expect(Math.min(...json.bearings.map((b) => b.pressureBar))).toBeGreaterThanOrEqual(0);
  });
});

describe('a fault', () => {
  it('is at a place the engine has, and of a size it can have', () => {
    expect(sentence({ faults: [{ kind: 'shut-feed', at: 'main.9' }] })).toMatch(/faults\.0\.at: .*"main\.9".*main\.1/);
    expect(sentence({ faults: [{ kind: 'lost-jet', at: 'jet.1' }] })).toMatch(/has nothing a fault of the kind lost-jet/);
    expect(sentence({ faults: [{ kind: 'air', at: 'pickup' }] })).toMatch(/has no place/);
    expect(sentence({ faults: [{ kind: 'air', amount: 1 }] })).toMatch(/below 1/);
    expect(sentence({ faults: [{ kind: 'clearance', at: 'rod.1', amount: 0 }] })).toMatch(/above 0/);
    expect(sentence({ faults: [{ kind: 'rust' }] })).toMatch(/faults\.0\.kind/);
    expect(sentence({ circuit: { reliefBar: -1 } })).toMatch(/circuit\.reliefBar/);
    expect(sentence({}, 'single-splash')).toMatch(/no pressure circuit/);
  });
});
