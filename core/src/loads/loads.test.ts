import { crankAt, deadCentres } from './crank.js';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { CYCLE_STEPS, engineFileSchema, loadsBand, loadsOf, readEngine, type RunningEngine } from './engineFile.js';
import { firesAt, mainShares } from './engineLoads.js';
import { chamber, gasPressure, type GasCycle } from './gas.js';
import { engineFilmJson, largest, loadsJson } from './loadsJson.js';

// Forces of a running engine: held against closed forms, against the balance of forces and of work, and against what builders know of where the load goes.
const file = (more: object = {}, operating: object = {}): Record<string, unknown> => ({
  format: 'true-ledger/engine',
  version: 1,
  engine: { template: 'inline-4-petrol' },
  operating: { speedRpm: 3000, ...operating },
  ...more,
});
function engine(more: object = {}, operating: object = {}): RunningEngine {
  const read = readEngine(file(more, operating));
  if (!read.ok) throw new Error(read.problem.sentence);
  return read.value;
}
const sentence = (more: object = {}, operating: object = {}, csv?: string): string => {
  const read = readEngine(file(more, operating), csv);
  return read.ok ? '' : `${read.problem.field}: ${read.problem.sentence}`;
};
const CRANK = { throwM: 0.043, rodM: 0.145, offsetM: 0.006 };

describe('a slider-crank', () => {
  it('has the derivatives its places have', () => {
    const h = 1e-3;
    for (let phi = 0; phi < 6.28; phi += 0.37) {
      const at = (k: number) => crankAt(CRANK, phi + k * h);
      /** Central differences of sixth order. */
      const slope = (of: (k: number) => number): number => (45 * (of(1) - of(-1)) - 9 * (of(2) - of(-2)) + of(3) - of(-3)) / (60 * h);
      expect(slope((k) => at(k).x)).toBeCloseTo(at(0).dx, 11);
      expect(slope((k) => at(k).dx)).toBeCloseTo(at(0).ddx, 11);
      expect(slope((k) => at(k).delta)).toBeCloseTo(at(0).dDelta, 11);
      expect(slope((k) => at(k).dDelta)).toBeCloseTo(at(0).ddDelta, 11);
    }
  });

  it('is fastest to turn at the top: a = r ω² (1 + r/l) without offset', () => {
    const plain = { ...CRANK, offsetM: 0 };
    expect(crankAt(plain, 0).ddx).toBeCloseTo(-0.043 * (1 + 0.043 / 0.145), 12);
    expect(crankAt(plain, Math.PI).ddx).toBeCloseTo(0.043 * (1 - 0.043 / 0.145), 12);
  });

  it('stands still at its dead centres, offset or not', () => {
    const { topRad, bottomRad, topM, bottomM } = deadCentres(CRANK);
    expect(crankAt(CRANK, topRad).dx).toBeCloseTo(0, 12);
    expect(crankAt(CRANK, bottomRad).dx).toBeCloseTo(0, 12);
    expect(crankAt(CRANK, topRad).x).toBeCloseTo(topM, 12);
    expect(crankAt(CRANK, bottomRad).x).toBeCloseTo(bottomM, 12);
  });
});

describe('the gas', () => {
  it('reaches the peak or the mean pressure it is scaled to', () => {
    expect(engine({}, { peakPressureMpa: 7 }).gas.peakPa).toBeCloseTo(7e6, -1);
    expect(engine({}, { imepMpa: 0.9 }).gas.imepPa).toBeCloseTo(0.9e6, 0);
    expect(engine({}, { peakPressureMpa: 7, loadShare: 0 }).gas.heatJ).toBe(0);
  });

  it('balances: heat released is work done and what the charge holds more, over the closed part', () => {
    const crank = { throwM: 0.043, rodM: 0.145, offsetM: 0 };
    const n = 1.3;
    const of: GasCycle = {
      cycle: 'four-stroke',
      compressionRatio: 10,
      intakePa: 1e5,
      exhaustPa: 1.1e5,
      closesDeg: -140,
      opensDeg: 140,
      ignitionDeg: -15,
      burnDeg: 50,
      wiebeM: 2,
      compressionExponent: n,
      expansionExponent: n,
    };
    const steps = 14_400;
    const gas = gasPressure(crank, 0.086, of, { peakPa: 6e6 }, steps);
    const volume = chamber(crank, 0.086, 10);
    const at = (deg: number): readonly [number, number] => [
      volume((deg * Math.PI) / 180)[0],
      gas.pressurePa[(Math.round(deg / 0.05) + steps) % steps]!,
    ];
    let work = 0;
    for (let k = 0; k < 280 / 0.05; k++) {
      const [[v, p], [w, q]] = [at(-140 + k * 0.05), at(-140 + (k + 1) * 0.05)];
      work += ((p + q) / 2) * (w - v);
    }
    const [[v0, p0], [v1, p1]] = [at(-140), at(140)];
    expect((work + (p1 * v1 - p0 * v0) / (n - 1)) / gas.heatJ!).toBeCloseTo(1, 4);
  });

  it('is hottest after the top, and an engine that only turns costs work', () => {
    const { gas } = engine({}, { peakPressureMpa: 7 });
    expect(gas.peakDeg).toBeGreaterThan(5);
    expect(gas.peakDeg).toBeLessThan(25);
    expect(engine({}, { peakPressureMpa: 7, loadShare: 0 }).gas.imepPa).toBeLessThan(0);
  });

  it('is taken from a table, which must be of this datum and without a gap', () => {
    const { gas } = engine({}, { peakPressureMpa: 7 });
    const csv = (from: number, skip = 0): string =>
      [
        'angle_deg,pressure_MPa',
        ...Array.from(gas.pressurePa, (p, i) => [i, p] as const)
          .filter(([i]) => i % 4 === 0 && (i < 100 || i > 100 + skip))
          .map(([i, p]) => `${i / 2 + from},${p / 1e6}`),
      ].join('\n');
    const read = readEngine(file(), csv(0));
    if (!read.ok) throw new Error(read.problem.sentence);
    expect(read.value.gas.imepPa / gas.imepPa).toBeCloseTo(1, 2);
    expect(read.value.estimated).not.toContain('operating.peakPressureMpa');
    expect(sentence({}, {}, csv(180))).toMatch(/another datum/);
    expect(sentence({}, {}, csv(0, 80))).toMatch(/gap of 4\d\.0°/);
  });
});

describe('the loads of an engine', () => {
  it('do the work of the gas: mean torque times the angle is ∮ p dV of every cylinder', () => {
    for (const template of ['inline-4-petrol', 'inline-6-diesel', 'vee-8-petrol', 'flat-4-petrol', 'single-premix']) {
      const running = engine({ engine: { template } }, { peakPressureMpa: 8 });
      const loads = loadsOf(running);
      const mean = loads.torque.reduce((a, b) => a + b, 0) / loads.steps;
      const { layout } = running;
      const swept = (Math.PI / 4) * layout.boreMm ** 2 * layout.strokeMm * 1e-9;
      const work = running.gas.imepPa * swept * layout.cylinders;
      expect((mean * (loads.cycleDeg * Math.PI)) / 180 / work).toBeCloseTo(1, 3);
    }
  });

  it('are carried by the mains whole, whatever their number', () => {
    for (const mains of [5, 3, 2]) {
      const running = engine({ engine: { template: 'inline-4-petrol', mains, thrustMain: 1 } });
      for (let pin = 0; pin < 4; pin++)
        expect(mainShares(running.layout).reduce((sum, shares) => sum + shares[pin]!, 0)).toBeCloseTo(1, 12);
      const loads = loadsOf(running);
      const i = 333;
      const onMains = loads.mains.reduce((sum, m) => sum + m.block.y[i]!, 0);
      const free = loadsOf(engine());
      expect(onMains).toBeCloseTo(
        free.mains.reduce((sum, m) => sum + m.block.y[i]!, 0),
        6,
      );
    }
  });

  it('press the rod half when it fires and the cap half at the top of the overlap; speed passes the load to the cap', () => {
    const at = (speedRpm: number) => {
      const { bigEnd, firesDeg } = loadsOf(engine({}, { speedRpm, peakPressureMpa: 7 })).cylinders[0]!;
      return { fires: bigEnd.x[20]!, overlap: bigEnd.x[720]!, firesDeg };
    };
    expect(at(2000).fires).toBeGreaterThan(0);
    expect(at(2000).overlap).toBeLessThan(0);
    expect(at(2000).fires).toBeGreaterThan(-at(2000).overlap);
    expect(-at(9000).overlap).toBeGreaterThan(at(9000).fires);
    // At the overlap the gas does nothing: r ω² ((mₚ)(1 + r/l) + rotating) is all there is.
    const { masses, layout } = engine();
    const [r, l, omega] = [layout.strokeMm / 2000, layout.rodLengthMm / 1000, (2000 * Math.PI) / 30];
    const rotating = masses.rodKg * masses.rodBigEndShare;
    const pure = r * omega ** 2 * ((masses.pistonKg + masses.rodKg - rotating) * (1 + r / l) + rotating);
    expect(-at(2000).overlap / pure).toBeCloseTo(1, 1);
  });

  it('press the piston to the side the crankpin does not go to', () => {
    const { sideThrust } = loadsOf(engine({}, { peakPressureMpa: 7, speedRpm: 1500 })).cylinders[0]!;
    expect(sideThrust[60]).toBeLessThan(0);
  });

  it('are alike in cylinders that are alike, each in its turn', () => {
    const loads = loadsOf(engine());
    const [one, three] = [loads.cylinders[0]!, loads.cylinders[2]!];
    expect(three.firesDeg).toBe(180);
    const later = (i: number): number => (i + (180 / 720) * CYCLE_STEPS) % CYCLE_STEPS;
    for (const i of [0, 100, 700]) expect(three.bigEnd.x[later(i)]).toBeCloseTo(one.bigEnd.x[i]!, 6);
    expect(firesAt(engine().layout)).toEqual([0, 540, 180, 360]);
  });

  it('stand as a band where masses are estimates, and as a line where they are given', () => {
    const [light, heavy] = loadsBand(engine({}, { speedRpm: 9000 }));
    expect(largest(heavy.cylinders[0]!.bigEnd).n).toBeGreaterThan(largest(light.cylinders[0]!.bigEnd).n * 1.1);
    const known = engine({ masses: { pistonKg: 0.4, rodKg: 0.5, throwKgM: 0.02 } });
    const [a, b] = loadsBand(known);
    expect(largest(a.cylinders[0]!.bigEnd).n).toBe(largest(b.cylinders[0]!.bigEnd).n);
    expect(known.estimated).not.toContain('masses.pistonKg');
  });

  it('take the couple of a rod that is not two masses: the sum of forces stays', () => {
    const plain = loadsOf(engine());
    const heavy = loadsOf(engine({ masses: { rodInertiaExcessKgM2: -0.0005 } }));
    expect(heavy.cylinders[0]!.bigEnd.y[100]).not.toBeCloseTo(plain.cylinders[0]!.bigEnd.y[100]!, 0);
    const mean = (t: Float64Array): number => t.reduce((a, b) => a + b, 0) / t.length;
    expect(mean(heavy.torque)).toBeCloseTo(mean(plain.torque), 0);
  });
});

describe('a running engine as a file', () => {
  it('says what is wrong with it', () => {
    expect(sentence({}, { speedRpm: 0 })).toMatch(/operating\.speedRpm: At speed 0/);
    expect(sentence({}, { peakPressureMpa: 0.5 })).toMatch(/under what compression alone makes/);
    expect(sentence({}, { peakPressureMpa: 7, imepMpa: 1 })).toMatch(/both given/);
    expect(sentence({ clearances: { 'rod.9': 0.05 } })).toMatch(/no bearing "rod\.9"/);
    expect(sentence({ clearances: { rod: 0 } })).toMatch(/does not turn/);
    expect(sentence({ clearances: { 'main.2': 30 } })).toMatch(/clearances\.main\.2/);
    expect(sentence({ engine: { template: 'inline-4-petrol', firingOrder: [1, 2, 3, 4] } })).toMatch(/engine\.firingOrder/);
    expect(sentence({ engine: { template: 'inline-4-petrol', rodLengthMm: 44 }, boreOffsetMm: 5 })).toMatch(/rodLengthMm/);
    expect(sentence({}, { oilGrade: 'SAE 40', oilTemperatureC: -30 })).toMatch(/does not flow/);
    expect(sentence({}, { oil: { at40Mm2S: 10, at100Mm2S: 60 } })).toMatch(/thinner at 100/);
    expect(sentence({ engine: { template: 'inline-4-petrol', rodShellWidthMm: -4 } })).toMatch(/rodShellWidthMm/);
    expect(sentence({ masses: { pistonKg: 0 } })).toMatch(/pistonKg/);
    expect(sentence({ engine: { template: 'inline-4-petrol', firingOrder: null } })).toMatch(/engine\.firingOrder/);
    expect(sentence({ engine: { template: 'inline-4-petrol', colour: 'red' } })).toMatch(/engine\.colour/);
    for (const strange of [null, 3, [], 'engine']) expect(readEngine(strange).ok).toBe(false);
  });

  it('answers with loads, and marks what was estimated', () => {
    const json = loadsJson(engine(), 10) as {
      angleDeg: number[];
      estimated: string[];
      cylinders: Array<{ bigEnd: { specificLoadMpa: number; specificLoadRangeMpa: [number, number]; xN: number[] } }>;
      mains: unknown[];
    };
    expect(json.angleDeg).toHaveLength(72);
    expect(json.estimated).toContain('masses.pistonKg');
    const { bigEnd } = json.cylinders[0]!;
    expect(bigEnd.xN).toHaveLength(72);
    expect(bigEnd.specificLoadRangeMpa[0]).toBeLessThanOrEqual(bigEnd.specificLoadMpa);
    expect(json.mains).toHaveLength(5);
  });

  it('answers with films, and says why a bearing has none', () => {
    const films = engineFilmJson(engine(), 'rod.1');
    if (!films.ok) throw new Error(films.problem.sentence);
    const [one] = (films.value as { bearings: Array<{ film: { minimumFilmUm: number; settled: boolean } }> }).bearings;
    expect(one!.film.minimumFilmUm).toBeGreaterThan(0.3);
    expect(one!.film.minimumFilmUm).toBeLessThan(10);
    expect(one!.film.settled).toBe(true);
    const rolling = engineFilmJson(engine({ engine: { template: 'inline-4-petrol', bigEnds: 'rolling' } }), 'rod.1');
    expect(JSON.stringify(rolling)).toMatch(/rolling elements/);
    const strange = engineFilmJson(engine(), 'cam.1');
    expect(!strange.ok && strange.problem.sentence).toMatch(/no bearing "cam\.1"/);
  });
});

describe('the format as it is written down', () => {
  const page = readFileSync(join(__dirname, '../../../docs/formats/loads.md'), 'utf8');
  it('names every key, of the running and of the masses too', () => {
    const { keys } = engineFileSchema.describe() as { keys: Record<string, { keys?: object }> };
    for (const key of [...Object.keys(keys), ...Object.keys(keys['operating']!.keys!), ...Object.keys(keys['masses']!.keys!)])
      expect(page).toContain(key);
  });
  it('shows an example that is read', () => {
    expect(readEngine(JSON.parse(/```json\n([^`]+)```/.exec(page)![1]!)).ok).toBe(true);
  });
});
