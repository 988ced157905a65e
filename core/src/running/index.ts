export { EQUALLY, type Explanation, type FoundByArc, explained } from './explain.js';
export { type Run, type RunSetting, likeness, runEngine } from './run.js';
