import type { EngineLayout } from '../engine/layout.js';
import { ANGLE_BINS, bearingFilm } from '../film/bearingFilm.js';
import { ASLANT, AXIAL_ROWS, wearField, type Aslant } from '../film/wearField.js';
import { filmSummary, type FilmSummary } from '../film/filmJson.js';
import { loadsBand, loadsOf, runningEngine } from '../loads/engineFile.js';
import { engineBearing, noFilm } from '../loads/engineFilm.js';
import { bearingForce, largest, projectedMm2, THIN_LAMBDA } from '../loads/loadsJson.js';
import { faultPlaces, gaugeNode, noCircuit, type OilFault, type OilFaultKind } from '../oil/circuit.js';
import { faultsSchema, oilVerdict, readCircuit, type OilVerdict } from '../oil/oilFile.js';
import { OIL_GRADES } from '../film/viscosity.js';
import { figure, matching, nullable, object, oneOf, record, typed, type Held } from '../kit/schema.js';
import { ok, type Result } from '../kit/result.js';
import { sleeveDeg } from './shellArc.js';

/** How an engine is let run on the page. */
export const runSettingSchema = object({
  speedRpm: figure(1, 30_000),
  /** Of full load. */
  loadShare: figure(0, 1.5),
  oilGrade: oneOf(Object.keys(OIL_GRADES) as [string, ...string[]]),
  oilTemperatureC: figure(-60, 200),
  fuelShare: figure(0, 0.5),
  /** Diametral, mm, by bearing; others as usual. */
  clearancesMm: typed<Readonly<Record<string, number>>>(record(figure(0.0001, 10)).max(64)),
  faults: typed<readonly OilFault[]>(faultsSchema),
  /** What makes the bearing run aslant; null for nothing. */
  aslant: nullable(typed<Aslant>(object({ kind: oneOf(ASLANT), amountM: figure(0, 1e-3) }))),
  /** Bearing that is looked at: `rod.1`, `main.3`. */
  bearing: matching(/^(rod|main)\.[1-9]\d?$/),
});
export type RunSetting = Held<typeof runSettingSchema>;

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
  /** What is predicted to wear of each half on the raster of its wear map, of the most of both; all nought where no film is thin. */
  readonly predicted: Readonly<Record<'upper' | 'lower', Float64Array>>;
  readonly wears: boolean;
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

/** Lets an engine run. */
export function runEngine(layout: EngineLayout, setting: RunSetting): Result<Run> {
  const { bearing } = setting;
  const made = runningEngine(layout, {
    operating: {
      speedRpm: setting.speedRpm,
      loadShare: setting.loadShare,
      oilGrade: setting.oilGrade,
      oilTemperatureC: setting.oilTemperatureC,
      fuelShare: setting.fuelShare,
    },
    clearances: setting.clearancesMm,
  });
  if (!made.ok) return made;
  const engine = made.value;
  const circuit = readCircuit(engine, { faults: setting.faults });
  // An engine without a circuit still has loads; a fault it cannot have is said.
  if (!circuit.ok && circuit.problem.field?.startsWith('faults')) return circuit;
  const oil = circuit.ok ? oilVerdict(circuit.value) : null;
  const loads = loadsOf(engine);
  const force = bearingForce(loads, bearing);
  const area = projectedMm2(engine, bearing);
  const most = largest(force);
  const band = loadsBand(engine).map((l) => largest(bearingForce(l, bearing)).n / area);
  const share = oil ? oil.circuit.bearingFlow.get(bearing)! / oil.healthy.bearingFlow.get(bearing)! : 1;
  const why =
    noFilm(layout, bearing) ??
    (share < FULL
      ? `It gets ${Math.round(100 * Math.max(0, share))} % of its oil: there is no full film, and no film is reckoned. It runs dry.`
      : null);
  let film: RunFilm | null = null;
  if (why === null) {
    const loaded = engineBearing(engine, loads, bearing);
    if (!loaded.ok) return loaded;
    const of = loaded.value;
    const found = bearingFilm(of.bearing, of.load, engine.model);
    const crown = (sleeveDeg(layout, bearing, 'upper', 90) * Math.PI) / 180;
    const field = wearField(of.bearing, of.load, found, of.journalRad, engine.roughnessM, setting.aslant, crown);
    const faceM2 = of.bearing.diameterM * of.bearing.lengthM;
    const mean = of.load.x.reduce((sum, x, i) => sum + Math.hypot(x, of.load.y[i]!), 0) / (of.load.x.length * faceM2);
    const highest = Math.max(...field);
    const worst = highest >= NOTICED * mean ? highest : 0;
    const halfOf = (half: 'upper' | 'lower'): Float64Array =>
      Float64Array.from({ length: ARCS * AXIAL_ROWS }, (_, i) => {
        const deg = sleeveDeg(layout, bearing, half, (((i % ARCS) + 0.5) * 180) / ARCS);
        const bin = Math.floor((deg * ANGLE_BINS) / 360) % ANGLE_BINS;
        return worst > 0 ? field[Math.floor(i / ARCS) * ANGLE_BINS + bin]! / worst : 0;
      });
    film = {
      x: found.orbit.x,
      y: found.orbit.y,
      thinnestUm: found.thinnestM.map((m) => m * 1e6),
      summary: filmSummary(found, loads.cycleDeg, engine.roughnessM),
      short: filmSummary(bearingFilm(of.bearing, of.load, 'short'), loads.cycleDeg, engine.roughnessM),
      limitUm: THIN_LAMBDA * engine.roughnessM * 1e6,
      predicted: { upper: halfOf('upper'), lower: halfOf('lower') },
      wears: worst > 0,
    };
  }
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
    film,
    why,
    oil,
    noOil: noCircuit(layout),
    faultPlaces: circuit.ok ? faultPlaces(layout, circuit.value.sizes) : null,
    gaugeAt: circuit.ok ? gaugeNode(circuit.value) : null,
    estimated: engine.estimated,
  });
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
