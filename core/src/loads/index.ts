export { loadsOf, readEngine } from './engineFile.js';
export { engineFilms } from './engineFilm.js';
export { engineFilmJson, loadsJson } from './loadsJson.js';
