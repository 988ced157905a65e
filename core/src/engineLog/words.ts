import type { Counter } from './lines.js';

/** A reading of a counter with its unit. */
export const formatCounter = (value: number, counter: Counter): string =>
  `${Math.round(value).toLocaleString('en').replaceAll(',', ' ')} ${counter}`;
