export * from './errors.js';
export * from './schemas.js';
export * from './types.js';
