export { OIL_FAULTS, type OilFault } from './circuit.js';
export { oilJson, oilVerdict, readCircuit } from './oilFile.js';
