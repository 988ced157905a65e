export { answerRunning, isBearing, type RunningQuestion } from './answer.js';
export {
  ASLANT_NAMES,
  EQUALLY,
  explained,
  formsAt,
  likened,
  settingWords,
  triedAll,
  usualSetting,
  whyNotLikened,
  WEAR_FORM_NAMES,
  WEAR_FORMS,
  type Explanation,
  type FoundWear,
} from './explain.js';
export { likenessLogOdds, likestByForm } from './likenessOdds.js';
export { asBuilt, explainedByFault, type FaultExplanation } from './explainFaults.js';
export { ARCS, type PredictedWear, type Run, type RunSetting, likeness, runEngine, wearOfAll } from './run.js';
