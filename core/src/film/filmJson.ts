import { bearingFilm, type BearingFilm } from './bearingFilm.js';
import type { LoadedBearing } from './bearingFile.js';
import { FILM_MAPS } from './filmMaps.js';
import type { Bearing } from './orbit.js';

const deg = (rad: number): number => ((((rad * 180) / Math.PI) % 360) + 360) % 360;
const round = (value: number, digits: number): number => Number(value.toPrecision(digits));

/** The film of a bearing in the words of docs/formats/film.md. */
export interface FilmSummary {
  readonly model: string;
  readonly minimumFilmUm: number;
  readonly atDeg: number;
  readonly atSleeveDeg: number;
  readonly eccentricity: number;
  readonly peakPressureMpa: number;
  readonly peakAtDeg: number;
  readonly lossW: number;
  readonly touches: boolean;
  readonly settled: boolean;
  readonly periods: number;
  /** Minimum film over the combined roughness. */
  readonly filmOverRoughness: number;
}

export function filmSummary(film: BearingFilm, periodDeg: number, roughnessM: number): FilmSummary {
  const step = periodDeg / film.thinnestM.length;
  return {
    model: film.model,
    minimumFilmUm: round(film.least.filmM * 1e6, 6),
    atDeg: round(film.least.step * step, 6),
    atSleeveDeg: round(deg(film.least.sleeveRad), 6),
    eccentricity: round(Math.hypot(film.orbit.x[film.least.step]!, film.orbit.y[film.least.step]!), 6),
    peakPressureMpa: round(film.peak.pressurePa / 1e6, 6),
    peakAtDeg: round(film.peak.step * step, 6),
    lossW: round(film.lossW, 5),
    touches: film.touches,
    settled: film.orbit.settled,
    periods: film.orbit.periods,
    filmOverRoughness: round(film.least.filmM / roughnessM, 4),
  };
}

/** What stands against believing the figures of a film, a sentence each. */
export function filmDoubts(film: BearingFilm, bearing: Bearing): string[] {
  const { widthRatios } = FILM_MAPS;
  const width = bearing.lengthM / bearing.diameterM;
  const outside = film.model !== 'short' && (width < widthRatios[0] || width > widthRatios.at(-1)!);
  return [
    ...(outside
      ? [
          `The width is ${width.toFixed(2)} of the diameter; films were solved from ${widthRatios[0]} to ${widthRatios.at(-1)}, and the nearest is taken.`,
        ]
      : []),
    ...(film.touches ? ['The journal reaches the sleeve: this is contact, and the film that is told is none.'] : []),
    ...(film.orbit.settled ? [] : [`The orbit did not meet itself in ${film.orbit.periods} periods: the last one is told.`]),
  ];
}

/** A bearing by itself as JSON: its film, the short bearing beside it, and the orbit every `everyDeg`. */
export function bearingJson(of: LoadedBearing, everyDeg = 1): object {
  const film = bearingFilm(of.bearing, of.load, of.model);
  const short = of.model === 'short' ? film : bearingFilm(of.bearing, of.load, 'short');
  const stepDeg = of.periodDeg / of.load.x.length;
  const every = Math.max(1, Math.round(everyDeg / stepDeg));
  const picked = Array.from({ length: Math.ceil(of.load.x.length / every) }, (_, i) => i * every);
  const taken = (values: Float64Array, scale = 1): number[] => picked.map((i) => round(values[i]! * scale, 6));
  return {
    format: 'true-ledger/film',
    version: 1,
    film: filmSummary(film, of.periodDeg, of.roughnessM),
    doubts: filmDoubts(film, of.bearing),
    shortBearing: filmSummary(short, of.periodDeg, of.roughnessM),
    shortOverFinite: round(short.least.filmM / film.least.filmM, 4),
    orbit: {
      angleDeg: picked.map((i) => round(i * stepDeg, 8)),
      x: taken(film.orbit.x),
      y: taken(film.orbit.y),
      filmUm: taken(film.thinnestM, 1e6),
      filmAtSleeveDeg: picked.map((i) => round(deg(film.thinnestRad[i]!), 6)),
      peakPressureMpa: taken(film.orbit.peakPa, 1e-6),
    },
  };
}
