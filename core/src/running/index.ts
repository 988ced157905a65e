export { answerRunning, isBearing, type RunningQuestion } from './answer.js';
export { EQUALLY, explained, likened, shutFeed, triedAll, whyNotLikened, type Explanation, type FoundWear } from './explain.js';
export { likenessLogOdds, likestByForm } from './likenessOdds.js';
export { asBuilt, explainedByFault, type FaultExplanation } from './explainFaults.js';
export { ARCS, type PredictedWear, type Run, likeness, runEngine, wearOfAll } from './run.js';
export {
  ASLANT_NAMES,
  formsAt,
  settingWords,
  usualSetting,
  WEAR_FORM_NAMES,
  WEAR_FORMS,
  type RunSetting,
  type WearForm,
} from './setting.js';
