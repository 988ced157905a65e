export { type CheckField, NOT_DONE, type OpeningCheck, TURN_POSITIONS, checksFor, fieldKeys, openingCheck } from './checks.js';
export { readAnswer } from './record.js';
export { type CompressionResult, type Limited, THUMB, type TurningResult } from './results.js';
export { type OpeningResults, openingResults } from './evidence.js';
