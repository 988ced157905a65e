export { readEngine } from './engineFile.js';
export { engineFilmJson, loadsJson } from './loadsJson.js';
