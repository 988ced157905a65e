export { mixedColour } from './colour.js';
export { iCalendar } from './iCalendar.js';
export * as schema from './schema.js';
export type { Held, Schema } from './schema.js';
export { PROBLEMS, type ProblemCode } from './problems.js';
export { type Problem, type Result, fail, ok } from './result.js';
export { hashWith, sha256Hex } from './hash.js';
export { memoOf } from './memo.js';
