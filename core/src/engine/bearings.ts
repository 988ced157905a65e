import type { EngineLayout } from './layout.js';

/** Big ends and mains of an engine as their stations begin: `rod.1`, `main.3`. */
export const bearingsOf = (layout: EngineLayout): string[] => [
  ...Array.from({ length: layout.cylinders }, (_, i) => `rod.${i + 1}`),
  ...Array.from({ length: layout.mains }, (_, i) => `main.${i + 1}`),
];
