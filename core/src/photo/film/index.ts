export { checkTurn, missingDeg } from './checkTurn.js';
export { settleTurn, type SettledTurn } from './closing.js';
export { turnJoiner, type JoinedTurn } from './joinTurn.js';
export { turnTracker } from './turnTracker.js';
export { lampGatherer } from './lampFilm.js';
export { reliefPicture } from './relief.js';
export { checkScope } from './checkScope.js';
export { scopeTracker, USUAL_VIEW_DEG } from './scopeTracker.js';
export { boreStacker, type StackedBore } from './stackBore.js';
