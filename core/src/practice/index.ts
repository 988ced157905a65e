export { DRILL_CARDS, drillCard, drillOf, drillReason, type Drill } from './drills.js';
export { drillProgress, MINUTES_A_DAY, type DrillAnswer, type DrillProgress } from './progress.js';
