import { isPressureFed, type EngineLayout } from '../engine/layout.js';
import { bearingFilm, type BearingFilm } from '../film/bearingFilm.js';
import type { Bearing, JournalLoad } from '../film/orbit.js';
import type { FilmModel } from '../film/mobility.js';
import { fail, ok, type Result } from '../kit/result.js';
import { bearingsOf } from '../engine/bearings.js';
import type { RunningEngine } from './engineFile.js';
import type { EngineLoads } from './engineLoads.js';

/** Kinds of oiling in words; two of them make pressure. */
export const OILED_BY: Readonly<Record<EngineLayout['lubrication'], string>> = {
  'wet-sump': 'pressure',
  'dry-sump': 'pressure',
  splash: 'splash',
  premix: 'what comes with its mixture',
  'total-loss': 'a drip that is lost',
};

/** Why a bearing has loads and no film; null where a film is reckoned. */
export function noFilm(layout: EngineLayout, bearing: string): string | null {
  const kind = bearing.startsWith('rod') ? layout.bigEnds : layout.mainBearings;
  if (kind === 'rolling')
    return 'It runs on rolling elements: they carry by contact, and a film between two plain surfaces says nothing of them.';
  if (!isPressureFed(layout))
    return `It is oiled by ${OILED_BY[layout.lubrication]}: how much oil is in the gap is not known, and a full film must not be promised.`;
  if (kind === 'direct') return 'The rod runs on the pin without a shell: its form under load is not known well enough for a film.';
  return null;
}

/** A bearing of a running engine with its load, in the frame of its shells: a big end's x towards the piston, a main's along the bank of cylinder 1 to the head; y with the rotation of the crank. */
export interface EngineBearing {
  readonly name: string;
  readonly bearing: Bearing;
  readonly load: JournalLoad;
  /** Angle of the journal against its shells at a step, rad. */
  readonly journalRad: (step: number) => number;
}

export function engineBearing(engine: RunningEngine, loads: EngineLoads, name: string): Result<EngineBearing> {
  const { layout } = engine;
  if (!bearingsOf(layout).includes(name))
    return fail('no-film', `This engine has no bearing "${name}"; it has ${bearingsOf(layout).join(', ')}.`);
  const reason = noFilm(layout, name);
  if (reason) return fail('no-film', `No film is reckoned for ${name}. ${reason}`);
  const number = Number(name.split('.')[1]);
  const isRod = name.startsWith('rod');
  const cylinder = loads.cylinders.find((c) => c.cylinder === number);
  const main = loads.mains[number - 1];
  const force = isRod ? cylinder!.bigEnd : main!.block;
  const step = ((loads.cycleDeg / loads.steps) * Math.PI) / 180;
  const turned = (i: number): number => loads.throwAtStart + i * step;
  return ok({
    name,
    bearing: {
      diameterM: (isRod ? layout.pinDiameterMm : layout.mainDiameterMm) / 1000,
      lengthM: (isRod ? layout.rodShellWidthMm : layout.mainShellWidthMm) / 1000,
      clearanceM: engine.clearanceMm(name) / 2000,
      viscosityPaS: engine.viscosityPaS,
    },
    load: {
      ...force,
      speed: isRod ? cylinder!.pinSpeed : new Float64Array(loads.steps).fill(loads.speedRadS),
      periodS: loads.cycleDeg / 360 / (engine.speedRpm / 60),
    },
    // A pin's 0° is its outermost point, a main's that under the throw of cylinder 1.
    journalRad: isRod ? (i) => turned(i) - (cylinder!.firesDeg * Math.PI) / 180 - cylinder!.rodAngle[i]! : turned,
  });
}

export interface EngineBearingFilm extends EngineBearing {
  readonly film: BearingFilm;
}

/** Films of the bearings of a running engine that have one. */
export function engineFilms(
  engine: RunningEngine,
  loads: EngineLoads,
  names: readonly string[],
  model: FilmModel = engine.model,
): Result<EngineBearingFilm[]> {
  const films: EngineBearingFilm[] = [];
  for (const name of names) {
    const made = engineBearing(engine, loads, name);
    if (!made.ok) return made;
    films.push({ ...made.value, film: bearingFilm(made.value.bearing, made.value.load, model) });
  }
  return ok(films);
}
