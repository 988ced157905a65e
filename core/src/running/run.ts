import type { EngineLayout } from '../engine/layout.js';
import { ANGLE_BINS, bearingFilm, type BearingFilm } from '../film/bearingFilm.js';
import { AXIAL_ROWS, dryWearField, wearField } from '../film/wearField.js';
import { filmSummary, type FilmSummary } from '../film/filmJson.js';
import { bearingsOf } from '../engine/bearings.js';
import { loadsBand, loadsOf, runningEngine, type RunningEngine } from '../loads/engineFile.js';
import type { EngineLoads } from '../loads/engineLoads.js';
import { engineBearing, noFilm, type EngineBearing } from '../loads/engineFilm.js';
import { bearingForce, largest, projectedMm2, THIN_LAMBDA } from '../loads/loadsJson.js';
import { faultPlaces, gaugeNode, noCircuit, type CircuitOf } from '../oil/circuit.js';
import type { OilFaultKind } from '../oil/faults.js';
import { oilVerdict, readCircuit, type OilVerdict } from '../oil/oilFile.js';
import { fail, ok, type Result } from '../kit/result.js';
import type { RunSetting } from './setting.js';
import { sleeveDeg } from './shellArc.js';

/** A running engine as the page shows it. */
export interface Run {
  readonly setting: RunSetting;
  readonly cycleDeg: number;
  readonly diameterMm: number;
  readonly clearanceMm: number;
  readonly viscosityPaS: number;
  /** Force of the journal on its shells, N, in their frame. */
  readonly force: { readonly x: Float64Array; readonly y: Float64Array };
  readonly specificMpa: { readonly most: number; readonly low: number; readonly high: number; readonly atDeg: number };
  /** Null where no wear is predicted, or nothing can be said of it. */
  readonly wear: PredictedWear | null;
  /** Null where none is reckoned; `why` says it. */
  readonly film: RunFilm | null;
  readonly why: string | null;
  /** Null for engines without a pressure circuit. */
  readonly oil: OilVerdict | null;
  /** Why there is none; null with `oil`. */
  readonly noOil: string | null;
  /** Where a fault of every kind can be; null with `oil`. */
  readonly faultPlaces: Readonly<Record<OilFaultKind, readonly string[] | null>> | null;
  /** Where the gauge sits: a node of the circuit. */
  readonly gaugeAt: string | null;
  readonly estimated: readonly string[];
}

interface RunFilm {
  /** Eccentricity over the clearance. */
  readonly x: Float64Array;
  readonly y: Float64Array;
  readonly thinnestUm: Float64Array;
  readonly summary: FilmSummary;
  readonly short: FilmSummary;
  /** Film at which rough surfaces begin to touch in earnest, µm. */
  readonly limitUm: number;
}

/** What is predicted to wear of each half on the raster of its wear map, of the most of both. */
export interface PredictedWear {
  readonly upper: Float64Array;
  readonly lower: Float64Array;
  /** There is no oil, and the journal bears on the shells. */
  readonly dry: boolean;
}

/** Columns of the raster of a shell, which has `AXIAL_ROWS` rows. */
export const ARCS = 36;
/**
 * Share of the mean specific load that rough surfaces must carry at the worst place for wear to be predicted: a film of twice the roughness for a tenth of the cycle comes to about this. Less is nothing
 * anybody would see, and drawn as a share of its own worst it would look like much. Judgement.
 */
const NOTICED = 1e-3;
/** A bearing that gets a smaller share of its oil has no full film. */
const FULL = 0.25;

/** A setting as an engine file says it. */
export const operatingOf = (
  setting: RunSetting,
): { operating: Omit<RunSetting, 'clearancesMm' | 'faults' | 'aslant' | 'bearing'>; clearances: RunSetting['clearancesMm'] } => ({
  operating: {
    speedRpm: setting.speedRpm,
    loadShare: setting.loadShare,
    oilGrade: setting.oilGrade,
    oilTemperatureC: setting.oilTemperatureC,
    fuelShare: setting.fuelShare,
  },
  clearances: setting.clearancesMm,
});

interface Started {
  readonly engine: RunningEngine;
  readonly loads: EngineLoads;
  /** Null for engines without a pressure circuit, which have loads all the same. */
  readonly circuit: CircuitOf | null;
  readonly oil: OilVerdict | null;
}

/** What of a setting is the same for every bearing. A fault the engine cannot have is said. */
function startEngine(layout: EngineLayout, setting: RunSetting): Result<Started> {
  const engine = runningEngine(layout, operatingOf(setting));
  if (!engine.ok) return engine;
  const circuit = readCircuit(engine.value, { faults: setting.faults });
  if (!circuit.ok && circuit.problem.field?.startsWith('faults')) return circuit;
  return ok({
    engine: engine.value,
    loads: loadsOf(engine.value),
    circuit: circuit.ok ? circuit.value : null,
    oil: circuit.ok ? oilVerdict(circuit.value) : null,
  });
}

/** Lets an engine run. */
export function runEngine(layout: EngineLayout, setting: RunSetting): Result<Run> {
  const { bearing } = setting;
  if (!bearingsOf(layout).includes(bearing))
    return fail('no-film', `This engine has no bearing "${bearing}"; it has ${bearingsOf(layout).join(', ')}.`);
  const started = startEngine(layout, setting);
  if (!started.ok) return started;
  const { engine, circuit, oil, loads } = started.value;
  const force = bearingForce(loads, bearing);
  const area = projectedMm2(engine, bearing);
  const most = largest(force);
  const band = loadsBand(engine).map((l) => largest(bearingForce(l, bearing)).n / area);
  const share = oilShare(oil, bearing);
  const neverFilm = noFilm(layout, bearing);
  const dry = neverFilm === null && share < FULL;
  const why =
    neverFilm ??
    (dry
      ? `It gets ${Math.round(100 * Math.max(0, share))} % of its oil: there is no full film, and no film is reckoned. It runs dry.`
      : null);
  const worn = neverFilm === null ? bearingWear(engine, loads, setting, dry) : null;
  if (worn && !worn.ok) return worn;
  const { film: found = null, loaded = null, wear = null } = worn?.value ?? {};
  const film: RunFilm | null =
    found && loaded
      ? {
          x: found.orbit.x,
          y: found.orbit.y,
          thinnestUm: found.thinnestM.map((m) => m * 1e6),
          summary: filmSummary(found, loads.cycleDeg, engine.roughnessM),
          short: filmSummary(bearingFilm(loaded.bearing, loaded.load, 'short'), loads.cycleDeg, engine.roughnessM),
          limitUm: THIN_LAMBDA * engine.roughnessM * 1e6,
        }
      : null;
  return ok({
    setting,
    cycleDeg: loads.cycleDeg,
    diameterMm: bearing.startsWith('rod') ? layout.pinDiameterMm : layout.mainDiameterMm,
    clearanceMm: engine.clearanceMm(bearing),
    viscosityPaS: engine.viscosityPaS,
    force,
    specificMpa: {
      most: most.n / area,
      low: Math.min(...band),
      high: Math.max(...band),
      atDeg: (most.step * loads.cycleDeg) / loads.steps,
    },
    wear,
    film,
    why,
    oil,
    noOil: noCircuit(layout),
    faultPlaces: circuit && faultPlaces(layout, circuit.sizes),
    gaugeAt: circuit && gaugeNode(circuit),
    estimated: engine.estimated,
  });
}

/** Of the oil it gets in an engine without a fault; 1 where there is no circuit to lose it. */
const oilShare = (oil: OilVerdict | null, bearing: string): number =>
  oil ? oil.circuit.bearingFlow.get(bearing)! / oil.healthy.bearingFlow.get(bearing)! : 1;

interface BearingWear {
  readonly loaded: EngineBearing;
  /** Null where it runs dry. */
  readonly film: BearingFilm | null;
  readonly wear: PredictedWear | null;
}

/** The film of the bearing that is looked at, and what wears of it. */
function bearingWear(engine: RunningEngine, loads: EngineLoads, { bearing, aslant }: RunSetting, dry: boolean): Result<BearingWear> {
  const made = engineBearing(engine, loads, bearing);
  if (!made.ok) return made;
  const loaded = made.value;
  const { layout } = engine;
  if (dry) return ok({ loaded, film: null, wear: overHalves(layout, bearing, dryWearField(loaded.bearing, loaded.load), true) });
  const film = bearingFilm(loaded.bearing, loaded.load, engine.model);
  const crown = (sleeveDeg(layout, bearing, 'upper', 90) * Math.PI) / 180;
  const field = wearField(loaded.bearing, loaded.load, film, loaded.journalRad, engine.roughnessM, aslant, crown);
  const faceM2 = loaded.bearing.diameterM * loaded.bearing.lengthM;
  const mean = loaded.load.x.reduce((sum, x, i) => sum + Math.hypot(x, loaded.load.y[i]!), 0) / (loaded.load.x.length * faceM2);
  return ok({ loaded, film, wear: Math.max(...field) >= NOTICED * mean ? overHalves(layout, bearing, field, false) : null });
}

/**
 * What alone wears of the bearing that is looked at, with its oil or without any; null where nothing does or nothing can be said of it. Settings that differ in oil, clearance and what is aslant have
 * the same loads: those are reckoned once.
 */
export function wearPredictor(layout: EngineLayout): (setting: RunSetting, dry: boolean) => PredictedWear | null {
  const known = new Map<string, EngineLoads>();
  return (setting, dry) => {
    if (noFilm(layout, setting.bearing) !== null) return null;
    const made = runningEngine(layout, operatingOf(setting));
    if (!made.ok) return null;
    const key = `${setting.speedRpm} ${setting.loadShare}`;
    const loads = known.get(key) ?? loadsOf(made.value);
    known.set(key, loads);
    const worn = bearingWear(made.value, loads, setting, dry);
    return worn.ok ? worn.value.wear : null;
  };
}

/** What wears of every bearing at one setting, its faults among it; what makes one bearing run aslant is its own. Bearings of which nothing wears, or nothing can be said, are left out. */
export function wearOfAll(layout: EngineLayout, setting: RunSetting): Result<ReadonlyMap<string, PredictedWear>> {
  const started = startEngine(layout, setting);
  if (!started.ok) return started;
  const { engine, oil, loads } = started.value;
  const worn = new Map<string, PredictedWear>();
  for (const bearing of bearingsOf(layout)) {
    if (noFilm(layout, bearing) !== null) continue;
    const aslant = bearing === setting.bearing ? setting.aslant : null;
    const own = bearingWear(engine, loads, { ...setting, bearing, aslant }, oilShare(oil, bearing) < FULL);
    if (own.ok && own.value.wear) worn.set(bearing, own.value.wear);
  }
  return ok(worn);
}

/** A field over the sleeve laid out as its halves, as a share of its most. */
function overHalves(layout: EngineLayout, bearing: string, field: Float64Array, dry: boolean): PredictedWear {
  const most = Math.max(...field);
  const halfOf = (half: 'upper' | 'lower'): Float64Array =>
    Float64Array.from({ length: ARCS * AXIAL_ROWS }, (_, i) => {
      const deg = sleeveDeg(layout, bearing, half, (((i % ARCS) + 0.5) * 180) / ARCS);
      const bin = Math.floor((deg * ANGLE_BINS) / 360) % ANGLE_BINS;
      return field[Math.floor(i / ARCS) * ANGLE_BINS + bin]! / most;
    });
  return { upper: halfOf('upper'), lower: halfOf('lower'), dry };
}

/** Cosine of two patterns over the places that were seen, 0 to 1; null where too little was seen or one of them shows nothing. */
export function likeness(predicted: Float64Array, found: ArrayLike<number>, seen: ArrayLike<number>): number | null {
  let [pp, ff, pf, places] = [0, 0, 0, 0];
  for (let i = 0; i < predicted.length; i++) {
    const w = seen[i]!;
    places += w;
    pp += w * predicted[i]! ** 2;
    ff += w * found[i]! ** 2;
    pf += w * predicted[i]! * found[i]!;
  }
  return places < predicted.length / 3 || pp === 0 || ff === 0 ? null : pf / Math.sqrt(pp * ff);
}
