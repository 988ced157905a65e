export { answerRunning, isBearing, type RunningQuestion } from './answer.js';
export { ASLANT_NAMES, EQUALLY, type Explanation, type FoundWear, explained } from './explain.js';
export { ARCS, type Run, type RunSetting, likeness, runEngine } from './run.js';
