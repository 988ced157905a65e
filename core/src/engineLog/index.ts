export * from './lines.js';
export { SPECIES, species } from './species.js';
export { readLog, type LogFinding, type LogReading } from './readLog.js';
export { profileOf, type OtherOil, type ReadSample, type ResultDoubt, samplesOf } from './samples.js';
export { TOLD_FOR } from './trends.js';
export { formatCounter } from './words.js';
export { dueEvents, dueOf, type DueThing } from './due.js';
export { healthyOil, LABORATORY_FAULTS, simulatedReport, type LaboratoryFault, type TrueOil } from './standInLaboratory.js';
export { readResultsCsv } from './resultsCsv.js';
