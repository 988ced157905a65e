export { ANSWERABLE, type Answerable, type Cause, STRENGTH } from './types.js';
export { CAUSES, cause, isListed } from './data/causes.js';
export { FEATURES, feature } from './data/features.js';
export { featureProbability } from './model.js';
export { JUDGEMENT } from './judgement.js';
export { posterior } from './search.js';
export { sampledMarginals } from './sampled.js';
export { percentText } from './percent.js';
export { firstStartProcedure } from './firstStart.js';
