import { filmDoubts, filmSummary } from '../film/filmJson.js';
import { ANGLE_BINS, bearingFilm, thinFilm } from '../film/bearingFilm.js';
import { ok, type Result } from '../kit/result.js';
import { bearingsOf } from '../engine/bearings.js';
import { loadsBand, loadsOf, type RunningEngine } from './engineFile.js';
import { engineBearing, noFilm } from './engineFilm.js';
import type { EngineLoads, ForceCycle } from './engineLoads.js';

const figures = (value: number): number => Number(value.toPrecision(6));

/** Largest of a force over the cycle, N, with its step. */
export function largest(force: ForceCycle): { readonly n: number; readonly step: number } {
  let [n, step] = [0, 0];
  for (let i = 0; i < force.x.length; i++) {
    const size = Math.hypot(force.x[i]!, force.y[i]!);
    if (size > n) [n, step] = [size, i];
  }
  return { n, step };
}

const meanOf = (values: Float64Array): number => values.reduce((a, b) => a + b, 0) / values.length;

/** Area a bearing's load is told over, mm². */
export function projectedMm2({ layout }: RunningEngine, bearing: string): number {
  return bearing.startsWith('rod') ? layout.pinDiameterMm * layout.rodShellWidthMm : layout.mainDiameterMm * layout.mainShellWidthMm;
}

/** Force of a bearing's journal on its shells. */
export const bearingForce = (loads: EngineLoads, bearing: string): ForceCycle => {
  const number = Number(bearing.split('.')[1]);
  return bearing.startsWith('rod') ? loads.cylinders.find((c) => c.cylinder === number)!.bigEnd : loads.mains[number - 1]!.block;
};

/** Loads of a running engine as JSON (docs/formats/loads.md), told every `everyDeg`. */
export function loadsJson(engine: RunningEngine, everyDeg = 5): object {
  const loads = loadsOf(engine);
  const [light, heavy] = loadsBand(engine);
  const stepDeg = loads.cycleDeg / loads.steps;
  const every = Math.max(1, Math.round(everyDeg / stepDeg));
  const picked = Array.from({ length: Math.ceil(loads.steps / every) }, (_, i) => i * every);
  const told = (values: Float64Array, scale = 1): number[] => picked.map((i) => figures(values[i]! * scale));
  const bearing = (name: string): object => {
    const force = bearingForce(loads, name);
    const most = largest(force);
    const area = projectedMm2(engine, name);
    const range = [light, heavy].map((l) => figures(largest(bearingForce(l, name)).n / area));
    return {
      largestN: figures(most.n),
      largestAtDeg: most.step * stepDeg,
      specificLoadMpa: figures(most.n / area),
      specificLoadRangeMpa: [Math.min(...range, most.n / area), Math.max(...range, most.n / area)].map(figures),
    };
  };
  return {
    format: 'true-ledger/loads',
    version: 1,
    cycleDeg: loads.cycleDeg,
    speedRpm: engine.speedRpm,
    masses: engine.masses,
    estimated: engine.estimated,
    gas: {
      peakPressureMpa: figures(engine.gas.peakPa / 1e6),
      peakAtDeg: engine.gas.peakDeg,
      imepMpa: figures(engine.gas.imepPa / 1e6),
      heatReleasedJ: engine.gas.heatJ === null ? null : figures(engine.gas.heatJ),
      pressureMpa: told(engine.gas.pressurePa, 1e-6),
    },
    angleDeg: picked.map((i) => i * stepDeg),
    cylinders: loads.cylinders.map((c) => ({
      cylinder: c.cylinder,
      pin: c.pin,
      firesDeg: c.firesDeg,
      bigEnd: { ...bearing(`rod.${c.cylinder}`), xN: told(c.bigEnd.x), yN: told(c.bigEnd.y) },
      pinFixed: { xN: told(c.pinFixed.x), yN: told(c.pinFixed.y) },
      pinSpeedRadS: told(c.pinSpeed),
      rodAngleDeg: told(c.rodAngle, 180 / Math.PI),
      sideThrustN: told(c.sideThrust),
      pistonSpeedMS: told(c.pistonSpeed),
      pistonAccelerationMS2: told(c.pistonAcceleration),
      capLoadN: figures(Math.max(0, ...c.bigEnd.x.map((x) => -x))),
    })),
    mains: loads.mains.map((m) => ({
      main: m.main,
      ...bearing(`main.${m.main}`),
      xN: told(m.block.x),
      yN: told(m.block.y),
      crankFixed: { xN: told(m.crankFixed.x), yN: told(m.crankFixed.y) },
    })),
    piston: {
      meanSpeedMS: figures((2 * engine.layout.strokeMm * engine.speedRpm) / 60_000),
      largestSpeedMS: figures(Math.max(...loads.cylinders[0]!.pistonSpeed.map(Math.abs))),
      largestAccelerationMS2: figures(Math.max(...loads.cylinders[0]!.pistonAcceleration.map(Math.abs))),
    },
    torque: { meanNm: figures(meanOf(loads.torque)), nm: told(loads.torque) },
  };
}

/** Film over roughness below which it counts as thin: where rough surfaces begin to touch in earnest. */
export const THIN_LAMBDA = 1;

/** Films of a running engine as JSON (docs/formats/film.md); of bearings without one, why. */
export function engineFilmJson(engine: RunningEngine, only?: string): Result<object> {
  const loads = loadsOf(engine);
  const stepDeg = loads.cycleDeg / loads.steps;
  const bearings: object[] = [];
  for (const name of only === undefined ? bearingsOf(engine.layout) : [only]) {
    const reason = bearingsOf(engine.layout).includes(name) ? noFilm(engine.layout, name) : null;
    if (reason) {
      bearings.push({ bearing: name, film: null, why: reason });
      continue;
    }
    const made = engineBearing(engine, loads, name);
    if (!made.ok) return made;
    const { bearing, load, journalRad } = made.value;
    const film = bearingFilm(bearing, load, engine.model);
    const short = engine.model === 'short' ? film : bearingFilm(bearing, load, 'short');
    const thin = thinFilm(bearing, load, film, journalRad, engine.roughnessM, THIN_LAMBDA);
    const told = (values: Float64Array): number[] => Array.from(values, figures);
    bearings.push({
      bearing: name,
      diameterMm: bearing.diameterM * 1000,
      lengthMm: bearing.lengthM * 1000,
      diametralClearanceMm: figures(bearing.clearanceM * 2000),
      film: filmSummary(film, loads.cycleDeg, engine.roughnessM),
      doubts: filmDoubts(film, bearing),
      shortBearing: filmSummary(short, loads.cycleDeg, engine.roughnessM),
      shortOverFinite: figures(short.least.filmM / film.least.filmM),
      thinnestUm: told(film.thinnestM.filter((_, i) => i % 10 === 0).map((m) => m * 1e6)),
      thin: {
        binDeg: 360 / ANGLE_BINS,
        ofSleeve: told(thin.sleeveShare),
        ofJournal: told(thin.journalShare),
        sleeveWearMpa: told(thin.sleeveWear.map((w) => w / 1e6)),
        journalWearMpa: told(thin.journalWear.map((w) => w / 1e6)),
      },
    });
  }
  return ok({
    format: 'true-ledger/film',
    version: 1,
    cycleDeg: loads.cycleDeg,
    stepDeg: stepDeg * 10,
    speedRpm: engine.speedRpm,
    viscosityPaS: figures(engine.viscosityPaS),
    bearingTemperatureC: engine.bearingC,
    combinedRoughnessUm: figures(engine.roughnessM * 1e6),
    thinBelow: THIN_LAMBDA,
    estimated: engine.estimated,
    bearings,
  });
}
