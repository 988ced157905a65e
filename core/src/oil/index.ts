export { OIL_FAULTS, type OilFault } from './circuit.js';
export { oilVerdict, readCircuit } from './oilFile.js';
