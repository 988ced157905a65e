export * from './errors.js';
export * from './limits.js';
export * from './requests.js';
export * as answers from './answers.js';
export type * from './answers.js';
