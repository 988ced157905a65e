export { OIL_GRADES } from './viscosity.js';
export { bearingFilm } from './bearingFilm.js';
export { solveFilm } from './reynolds.js';
export { eccentricityAt, gathered, keptOf, KEPT, shortBeta, shortPeak, spread } from './mobility.js';
export { shortImpedance } from './shortBearing.js';
export { FILM_MAPS } from './filmMaps.js';
