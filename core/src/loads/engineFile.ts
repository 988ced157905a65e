import { engineTemplate, ENGINE_TEMPLATES } from '../engine/templates.js';
import { bearingsOf } from '../engine/bearings.js';
import { layoutSchema, type EngineLayout } from '../engine/layout.js';
import { validateLayout } from '../engine/validate.js';
import { overPeriod, readColumns } from '../film/columns.js';
import { dynamicPaS, OIL_GRADES, USUAL_OIL, withFuel, type Oil } from '../film/viscosity.js';
import { USUAL_ROUGHNESS_UM } from '../film/bearingFile.js';
import { FILM_MODELS, type FilmModel } from '../film/mobility.js';
import { fail, ok, type Result } from '../kit/result.js';
import { figure, list, object, oneOf, optional, record, typed, type Held } from '../kit/schema.js';
import { crankSize, engineLoads, type EngineLoads } from './engineLoads.js';
import { gasPressure, imepOf, type GasCycle, type GasPressure, type GasTarget } from './gas.js';
import { MASS_DOUBT, massesOf, PISTON_MATERIALS, type Masses } from './masses.js';
import Joi from 'joi';

const ENGINE_FORMAT = 'true-ledger/engine';
/** Half degrees of a four-stroke; a two-stroke has as many to its single turn. */
export const CYCLE_STEPS = 1440;

const operatingSchema = object({
  speedRpm: figure(0, 30_000),
  /** Of full load: what is between a motored engine and the peak pressure. */
  loadShare: optional(figure(0, 1.5)),
  peakPressureMpa: optional(figure(0.05, 40)),
  imepMpa: optional(figure(0.01, 5)),
  intakePressureMpa: optional(figure(0.02, 1)),
  exhaustPressureMpa: optional(figure(0.02, 1)),
  crankcasePressureMpa: optional(figure(0.02, 1)),
  ignitionDeg: optional(figure(-80, 30)),
  burnDeg: optional(figure(5, 150)),
  /** Degrees from firing top dead centre, over one cycle, absolute. */
  pressureTable: optional(list(object({ angleDeg: figure(-720, 1440), pressureMpa: figure(0, 60) }), 20_000)),
  oilGrade: optional(oneOf(Object.keys(OIL_GRADES) as [string, ...string[]])),
  /** At two temperatures, where the grade is not in the table. */
  oil: optional(
    object({
      at40Mm2S: figure(3, 2000),
      at100Mm2S: figure(1, 200),
      densityKgM3: optional(figure(700, 1100)),
      underShear: optional(figure(0.3, 1)),
      poursC: optional(figure(-80, 40)),
    }),
  ),
  oilTemperatureC: optional(figure(-60, 200)),
  /** Bearing over supply. */
  bearingRiseK: optional(figure(0, 100)),
  fuelShare: optional(figure(0, 0.5)),
});

/** A running engine; docs/formats/loads.md. Units stand in the names. */
export const engineFileSchema = object({
  format: oneOf([ENGINE_FORMAT]),
  version: figure(1, 1),
  engine: typed<{ readonly template: string } & Partial<EngineLayout>>(
    object({ template: typed<string>(Joi.string().valid(...ENGINE_TEMPLATES.map((t) => t.id))) }).unknown(true),
  ),
  operating: operatingSchema,
  masses: optional(
    object({
      pistonKg: optional(figure(0.001, 2000)),
      rodKg: optional(figure(0.001, 5000)),
      rodBigEndShare: optional(figure(0, 1)),
      rodInertiaExcessKgM2: optional(figure(-100, 100)),
      throwKgM: optional(figure(0, 1000)),
      counterweightShare: optional(figure(0, 2)),
      pistonMaterial: optional(oneOf(PISTON_MATERIALS)),
    }),
  ),
  boreOffsetMm: optional(figure(-100, 100)),
  /** Diametral clearances, mm, by bearing (`rod.2`, `main.3`) or for all of a kind (`rod`, `main`). */
  clearances: optional(typed<Readonly<Record<string, number>>>(record(figure(0, 10)))),
  combinedRoughnessUm: optional(figure(0.001, 100)),
  model: optional(oneOf(FILM_MODELS)),
  /** Checked where the oil circuit is reckoned. */
  circuit: optional(typed<object>(Joi.object().unknown(true))),
  faults: optional(typed<readonly object[]>(Joi.array().items(Joi.object().unknown(true)).max(20))),
});
export type EngineFile = Held<typeof engineFileSchema>;
type Operating = EngineFile['operating'];

/** An engine made ready to be reckoned. */
export interface RunningEngine {
  readonly layout: EngineLayout;
  readonly speedRpm: number;
  readonly masses: Masses;
  readonly offsetM: number;
  readonly gas: GasPressure;
  readonly crankcasePa: number;
  /** Diametral clearance of a bearing, mm. */
  readonly clearanceMm: (bearing: string) => number;
  readonly oil: Oil;
  readonly oilC: number;
  readonly bearingC: number;
  readonly viscosityPaS: number;
  readonly roughnessM: number;
  readonly model: FilmModel;
  /** What was not given and is an estimate, as keys of the file. */
  readonly estimated: readonly string[];
}

const BAR = 1e5;
const ATMOSPHERE_PA = 101_325;

/** Usual cycles where nothing else is given. Judgement, from what such engines are commonly built for. */
function usualGas(layout: EngineLayout): { readonly cycle: Omit<GasCycle, 'cycle' | 'compressionRatio'>; readonly fullPeakPa: number } {
  const boost = layout.aspiration === 'turbocharged' ? 1.9 : layout.aspiration === 'supercharged' ? 1.6 : 1;
  const diesel = layout.fuel === 'diesel';
  const two = layout.cycle === 'two-stroke';
  return {
    cycle: {
      intakePa: ATMOSPHERE_PA * (boost === 1 ? 0.95 : boost),
      exhaustPa: ATMOSPHERE_PA * (boost === 1 ? 1.1 : boost * 1.05),
      closesDeg: two ? -100 : -140,
      opensDeg: two ? 100 : 140,
      ignitionDeg: diesel ? -8 : -20,
      burnDeg: diesel ? 65 : 60,
      wiebeM: diesel ? 1 : 2,
      compressionExponent: diesel ? 1.35 : 1.32,
      expansionExponent: diesel ? 1.28 : 1.27,
    },
    fullPeakPa: (two ? 55 : diesel ? 90 : 75) * BAR * (boost === 1 ? 1 : diesel ? 1.6 : 1.35),
  };
}

/** Clearances over the diameter where none was measured: common practice for plain bearings. */
const USUAL_CLEARANCE = 0.0009;
const USUAL_OIL_C = 95;
const USUAL_RISE_K = 20;

/** Reads an engine file; with `pressureCsv` its cylinder pressure from a table of angle_deg and pressure_MPa. */
export function readEngine(json: unknown, pressureCsv?: string): Result<RunningEngine> {
  const checked = engineFileSchema.validate(json, { convert: false });
  if (checked.error)
    return fail(
      'engine-file',
      `The engine file was not read: ${checked.error.details[0]?.message ?? 'it has the wrong shape'}. See docs/formats/loads.md.`,
      checked.error.details[0]?.path.join('.'),
    );
  const file = checked.value as EngineFile;
  const layout = { ...engineTemplate(file.engine.template)!.layout, ...file.engine };
  const shape = layoutSchema.validate(layout, { convert: false }).error?.details[0];
  if (shape)
    return fail(
      'engine-file',
      `The engine file was not read: ${shape.message}. See docs/formats/loads.md.`,
      ['engine', ...shape.path].join('.'),
    );
  return runningEngine(layout, file, pressureCsv);
}

/** An engine of this layout as it runs. */
export function runningEngine(
  layout: EngineLayout,
  file: Omit<EngineFile, 'format' | 'version' | 'engine'>,
  pressureCsv?: string,
): Result<RunningEngine> {
  const wrong = validateLayout(layout)[0];
  if (wrong) return { ok: false, problem: { ...wrong, field: `engine.${wrong.field ?? ''}` } };
  const { operating } = file;
  const no = (sentence: string, field: string) => fail('engine-running', sentence, field);
  if (operating.speedRpm === 0)
    return no('At speed 0 nothing turns and no film is made. Give the speed in revolutions a minute.', 'operating.speedRpm');
  const offsetM = (file.boreOffsetMm ?? 0) / 1000;
  if (Math.abs(offsetM) + layout.strokeMm / 2000 >= layout.rodLengthMm / 1000)
    return no(
      `A rod of ${layout.rodLengthMm} mm does not pass a throw of ${layout.strokeMm / 2} mm with the bore ${file.boreOffsetMm ?? 0} mm aside.`,
      'engine.rodLengthMm',
    );
  const estimated: string[] = [];
  const assumed = <T>(key: string, given: T | undefined, usual: T): T => {
    if (given === undefined) estimated.push(key);
    return given ?? usual;
  };
  const clearances = file.clearances ?? {};
  const bearings = bearingsOf(layout);
  for (const [name, mm] of Object.entries(clearances)) {
    if (name !== 'rod' && name !== 'main' && !bearings.includes(name))
      return no(`This engine has no bearing "${name}"; it has ${bearings.join(', ')}.`, `clearances.${name}`);
    if (mm === 0)
      return no(
        `A bearing without clearance does not turn: "${name}" is 0. Give the difference of the diameters in mm.`,
        `clearances.${name}`,
      );
    const diameter = name.startsWith('rod') ? layout.pinDiameterMm : layout.mainDiameterMm;
    if (mm > diameter / 20)
      return no(
        `${mm} mm on ${diameter} mm is no clearance of a bearing. Give the difference of the diameters in mm.`,
        `clearances.${name}`,
      );
  }
  const clearanceMm = (bearing: string): number => {
    const kind = bearing.startsWith('rod') ? 'rod' : 'main';
    return clearances[bearing] ?? clearances[kind] ?? usualClearanceMm(layout, bearing);
  };
  for (const bearing of bearings)
    if (clearances[bearing] === undefined && clearances[bearing.split('.')[0]!] === undefined) estimated.push(`clearances.${bearing}`);
  const { masses, estimated: guessed } = massesOf(layout, given(file.masses ?? {}));
  estimated.push(...guessed.map((key) => `masses.${key}`));
  const gas = gasOf(layout, operating, offsetM, estimated, pressureCsv);
  if (!gas.ok) return gas;
  const base: Oil = operating.oil
    ? {
        at40: operating.oil.at40Mm2S,
        at100: operating.oil.at100Mm2S,
        density: operating.oil.densityKgM3 ?? 875,
        underShear: operating.oil.underShear ?? 1,
        poursC: operating.oil.poursC ?? -30,
      }
    : OIL_GRADES[assumed('operating.oilGrade', operating.oilGrade, USUAL_OIL)]!;
  if (base.at100 >= base.at40) return no('An oil is thinner at 100 °C than at 40 °C; the two figures are changed about.', 'operating.oil');
  const oilC = assumed('operating.oilTemperatureC', operating.oilTemperatureC, USUAL_OIL_C);
  if (oilC < base.poursC)
    return no(
      `At ${oilC} °C this oil does not flow: it pours from ${base.poursC} °C on. Warm it, or give another oil.`,
      'operating.oilTemperatureC',
    );
  const bearingC = oilC + assumed('operating.bearingRiseK', operating.bearingRiseK, USUAL_RISE_K);
  const oil = withFuel(base, operating.fuelShare ?? 0, layout.fuel === 'diesel' ? 'diesel' : 'petrol');
  return ok({
    layout,
    speedRpm: operating.speedRpm,
    masses,
    offsetM,
    gas: gas.value,
    crankcasePa: (operating.crankcasePressureMpa ?? ATMOSPHERE_PA / 1e6) * 1e6,
    clearanceMm,
    oil,
    oilC,
    bearingC,
    viscosityPaS: dynamicPaS(oil, bearingC),
    roughnessM: (file.combinedRoughnessUm ?? USUAL_ROUGHNESS_UM) * 1e-6,
    model: file.model ?? 'reynolds',
    estimated,
  });
}

/** Diametral clearance of a bearing of which none is known, mm. */
export const usualClearanceMm = (layout: EngineLayout, bearing: string): number =>
  USUAL_CLEARANCE * (bearing.startsWith('rod') ? layout.pinDiameterMm : layout.mainDiameterMm);

/** What is there of an object whose members may be undefined. */
function given<T extends object>(of: T): { [K in keyof T]: Exclude<T[K], undefined> } {
  return Object.fromEntries(Object.entries(of).filter(([, v]) => v !== undefined)) as never;
}

function gasOf(
  layout: EngineLayout,
  operating: Operating,
  offsetM: number,
  estimated: string[],
  csv: string | undefined,
): Result<GasPressure> {
  const crank = crankSize(layout, offsetM);
  const boreM = layout.boreMm / 1000;
  const cycleDeg = layout.cycle === 'four-stroke' ? 720 : 360;
  if (csv !== undefined || operating.pressureTable !== undefined) {
    const rows = operating.pressureTable ?? [];
    let angle = Float64Array.from(rows, (r) => r.angleDeg);
    let pressure = Float64Array.from(rows, (r) => r.pressureMpa * 1e6);
    if (csv !== undefined) {
      const read = readColumns(csv, ['angle_deg', 'pressure_MPa'], [], 'pressure-table');
      if (!read.ok) return read;
      angle = Float64Array.from(read.value.get('angle_deg')!);
      pressure = read.value.get('pressure_MPa')!.map((p) => p * 1e6) as Float64Array<ArrayBuffer>;
    }
    const even = overPeriod(angle, [pressure], cycleDeg, CYCLE_STEPS, 'pressure-table');
    if (!even.ok) return even;
    const pressurePa = even.value[0]!;
    let top = 0;
    pressurePa.forEach((p, i) => void (p > pressurePa[top]! && (top = i)));
    const peakDeg = (top * cycleDeg) / CYCLE_STEPS;
    const from = peakDeg > cycleDeg / 2 ? peakDeg - cycleDeg : peakDeg;
    if (from < -20 || from > 60)
      return fail(
        'pressure-table',
        `The highest pressure of the table lies at ${from.toFixed(0)}° from firing top dead centre, where no engine has it. The angles are of another datum: count them from firing top dead centre of the cylinder.`,
        'operating.pressureTable',
      );
    return ok({ pressurePa, peakPa: pressurePa[top]!, peakDeg: from, imepPa: imepOf(crank, boreM, pressurePa, cycleDeg), heatJ: null });
  }
  const usual = usualGas(layout);
  const cycle: GasCycle = {
    ...usual.cycle,
    cycle: layout.cycle,
    compressionRatio: layout.compressionRatio,
    ...(operating.intakePressureMpa === undefined ? {} : { intakePa: operating.intakePressureMpa * 1e6 }),
    ...(operating.exhaustPressureMpa === undefined ? {} : { exhaustPa: operating.exhaustPressureMpa * 1e6 }),
    ...(operating.ignitionDeg === undefined ? {} : { ignitionDeg: operating.ignitionDeg }),
    ...(operating.burnDeg === undefined ? {} : { burnDeg: operating.burnDeg }),
  };
  const made = (target: GasTarget): GasPressure => gasPressure(crank, boreM, cycle, target, CYCLE_STEPS);
  if (operating.imepMpa !== undefined && operating.peakPressureMpa !== undefined)
    return fail(
      'engine-running',
      'Peak pressure and mean effective pressure are both given; the cycle is scaled to one of them. Leave one out.',
      'operating.imepMpa',
    );
  if (operating.imepMpa !== undefined) return ok(made({ imepPa: operating.imepMpa * 1e6 }));
  // The charge as it is pressed together, without a fire.
  const motored = gasPressure(crank, boreM, cycle, { peakPa: 0 }, CYCLE_STEPS).peakPa;
  if (operating.peakPressureMpa !== undefined && operating.peakPressureMpa * 1e6 < motored)
    return fail(
      'engine-running',
      `A peak of ${operating.peakPressureMpa} MPa lies under what compression alone makes from the intake pressure, ${(motored / 1e6).toFixed(2)} MPa. Give the absolute peak pressure, or a lower intake pressure.`,
      'operating.peakPressureMpa',
    );
  if (operating.peakPressureMpa === undefined) estimated.push('operating.peakPressureMpa');
  const full = operating.peakPressureMpa === undefined ? Math.max(usual.fullPeakPa, motored * 1.3) : operating.peakPressureMpa * 1e6;
  return ok(made({ peakPa: motored + (operating.loadShare ?? 1) * (full - motored) }));
}

/** Loads of a running engine. `massFactor` scales the estimated masses, to see how much hangs on them. */
export function loadsOf(engine: RunningEngine, massFactor = 1): EngineLoads {
  const over = engine.gas.pressurePa.map((p) => p - engine.crankcasePa);
  const scaled = (key: 'pistonKg' | 'rodKg' | 'throwKgM'): number =>
    engine.masses[key] * (engine.estimated.includes(`masses.${key}`) ? massFactor : 1);
  return engineLoads({
    layout: engine.layout,
    speedRpm: engine.speedRpm,
    masses: { ...engine.masses, pistonKg: scaled('pistonKg'), rodKg: scaled('rodKg'), throwKgM: scaled('throwKgM') },
    offsetM: engine.offsetM,
    gas: () => over,
  });
}

/** Loads with the estimated masses as light and as heavy as they may be. */
export const loadsBand = (engine: RunningEngine): readonly [light: EngineLoads, heavy: EngineLoads] => [
  loadsOf(engine, 1 - MASS_DOUBT),
  loadsOf(engine, 1 + MASS_DOUBT),
];
