import { filmMap, type FilmMap, type FilmModel } from './mobility.js';
import { LEAST_GAP, orbitOf, type Bearing, type JournalLoad, type Orbit } from './orbit.js';

/** Angles round a surface at which a film is told: 36 to each half. */
export const ANGLE_BINS = 72;

export interface BearingFilm {
  readonly model: FilmModel;
  readonly orbit: Orbit;
  /** Thinnest film at every step, m, and its angle in the frame of the sleeve, rad. */
  readonly thinnestM: Float64Array;
  readonly thinnestRad: Float64Array;
  /** The thinnest of all. */
  readonly least: { readonly step: number; readonly filmM: number; readonly sleeveRad: number };
  readonly peak: { readonly step: number; readonly pressurePa: number };
  /** The journal reaches the sleeve: the film that is reckoned there is none. */
  readonly touches: boolean;
  /** Friction of the sheared film, mean over the period, W. */
  readonly lossW: number;
}

const maps = new Map<string, FilmMap>();
/** Maps drawn fine, kept: making one takes longer than an orbit. */
function mapFor(model: FilmModel, widthRatio: number): FilmMap {
  const key = `${model} ${widthRatio}`;
  let map = maps.get(key);
  if (!map) {
    if (maps.size > 40) maps.clear();
    map = filmMap(model, widthRatio);
    maps.set(key, map);
  }
  return map;
}

/** The film of a bearing over a period of its load. */
export function bearingFilm(bearing: Bearing, load: JournalLoad, model: FilmModel = 'reynolds'): BearingFilm {
  const orbit = orbitOf(bearing, load, mapFor(model, bearing.lengthM / bearing.diameterM));
  const steps = orbit.x.length;
  const thinnestM = new Float64Array(steps);
  const thinnestRad = new Float64Array(steps);
  let least = 0;
  let peak = 0;
  let loss = 0;
  const r = bearing.diameterM / 2;
  const shear = (bearing.viscosityPaS * 2 * Math.PI * r * r * r * bearing.lengthM) / bearing.clearanceM;
  for (let i = 0; i < steps; i++) {
    const e = Math.hypot(orbit.x[i]!, orbit.y[i]!);
    thinnestM[i] = bearing.clearanceM * (1 - e);
    thinnestRad[i] = Math.atan2(orbit.y[i]!, orbit.x[i]!);
    if (thinnestM[i]! < thinnestM[least]!) least = i;
    if (orbit.peakPa[i]! > orbit.peakPa[peak]!) peak = i;
    // Petroff over an eccentric film.
    loss += (shear * load.speed[i]! ** 2) / Math.sqrt(Math.max(LEAST_GAP, 1 - e * e));
  }
  return {
    model,
    orbit,
    thinnestM,
    thinnestRad,
    least: { step: least, filmM: thinnestM[least]!, sleeveRad: thinnestRad[least]! },
    peak: { step: peak, pressurePa: orbit.peakPa[peak]! },
    touches: thinnestM[least]! <= bearing.clearanceM * LEAST_GAP * 1.01,
    lossW: loss / steps,
  };
}

/** Film at an angle of the sleeve, m. */
export const filmAt = (bearing: Bearing, orbit: Orbit, step: number, rad: number): number =>
  bearing.clearanceM * (1 - orbit.x[step]! * Math.cos(rad) - orbit.y[step]! * Math.sin(rad));

/** Share of the load of a rough contact at the film over its roughness: F₅⸝₂ of a Gaussian surface, 4.4086·10⁻⁵ (4 − Λ)^6.804 below 4, over its value at nought (Greenwood and Tripp, 1970; fit of Hu, Cheng, Arai et al., 1994). */
export const touchShare = (lambda: number): number => (lambda >= 4 ? 0 : ((4 - Math.max(0, lambda)) / 4) ** 6.804);

/** Thin film by angle. */
export interface ThinFilm {
  /** Share of the period in which the film is below the limit, by angle of the sleeve and of the journal, from 0° on (`ANGLE_BINS`). */
  readonly sleeveShare: Float64Array;
  readonly journalShare: Float64Array;
  /** Mean over the period of specific load (Pa) times the share of it that rough surfaces would carry, by angle: what wears. */
  readonly sleeveWear: Float64Array;
  readonly journalWear: Float64Array;
}

/**
 * Where the film is thin. `journalRad` is the angle of the journal against the sleeve at every step: the place of the journal at sleeve angle a is a − journalRad.
 * `roughnessM`: root mean square of both surfaces together; `limit`: film over roughness below which it counts as thin.
 */
export function thinFilm(
  bearing: Bearing,
  load: JournalLoad,
  film: BearingFilm,
  journalRad: (step: number) => number,
  roughnessM: number,
  limit: number,
): ThinFilm {
  const steps = load.x.length;
  const made = (): Float64Array => new Float64Array(ANGLE_BINS);
  const out = { sleeveShare: made(), journalShare: made(), sleeveWear: made(), journalWear: made() };
  const area = bearing.diameterM * bearing.lengthM;
  const bin = (2 * Math.PI) / ANGLE_BINS;
  for (let i = 0; i < steps; i++) {
    if (film.thinnestM[i]! >= 4 * roughnessM && film.thinnestM[i]! >= limit * roughnessM) continue;
    const specific = Math.hypot(load.x[i]!, load.y[i]!) / area;
    const turned = journalRad(i);
    for (let k = 0; k < ANGLE_BINS; k++) {
      const a = (k + 0.5) * bin;
      const lambda = filmAt(bearing, film.orbit, i, a) / roughnessM;
      const onJournal = (((Math.floor((a - turned) / bin) % ANGLE_BINS) + ANGLE_BINS) % ANGLE_BINS) as number;
      if (lambda < limit) {
        out.sleeveShare[k]! += 1 / steps;
        out.journalShare[onJournal]! += 1 / steps;
      }
      const wear = (specific * touchShare(lambda)) / steps;
      out.sleeveWear[k]! += wear;
      out.journalWear[onJournal]! += wear;
    }
  }
  return out;
}
