export { oilJson, oilVerdict, readCircuit } from './oilFile.js';
