export { loadsOf, readEngine } from './engineFile.js';
export { engineFilms } from './engineFilm.js';
