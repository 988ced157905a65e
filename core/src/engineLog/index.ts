export * from './lines.js';
export { SPECIES, species, type Species } from './species.js';
export { readLog, type LineDoubt, type LogFinding, type LogReading } from './readLog.js';
export {
  profileOf,
  type OilProfile,
  type OtherOil,
  type ReadSample,
  type ResultDoubt,
  type Sample,
  type Verdict,
  wearRate,
} from './samples.js';
export { TOLD_FOR, dayNumber, type Consumption, type LevelSpan, type PressureTrend } from './trends.js';
export { formatCounter } from './words.js';
export { dueEvents, dueOf, type DueThing } from './due.js';
export { healthyOil, LABORATORY_FAULTS, simulatedReport, type LaboratoryFault, type TrueOil } from './standInLaboratory.js';
export { readResultsCsv, type ReportedResult } from './resultsCsv.js';
