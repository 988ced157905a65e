export { BREAK_LOOSE, type FastenerPattern, boltCell, fastenerResult } from './fasteners.js';
export { easingResult } from './easing.js';
export { type FastenerBag, REUSE_WORDS } from './steps/step.js';
export { stripSteps } from './steps.js';
export { type StripPlan, moveStep, stripPlan } from './plan.js';
export { bagKind } from './assembly/program.js';
export { parseStages, stageWords } from './assembly/stages.js';
