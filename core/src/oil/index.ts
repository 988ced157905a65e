export { OIL_FAULTS, type OilFault } from './faults.js';
export { oilVerdict, readCircuit } from './oilFile.js';
