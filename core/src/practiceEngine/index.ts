export { PRACTICE_LEVELS, practiceLevel } from './levels.js';
export { drawEngine, type HiddenEngine, PRACTICE_ENGINE_VERSION } from './hidden.js';
export { wearOf } from './wear.js';
export { lookStands, practiceLook, practiceLooks, type PracticeLook } from './looks.js';
export { shownBy } from './shown.js';
export { practicePicture } from './picture.js';
export { storyOf } from './story.js';
export { minutesSpent, scoreOf, type NamedCause } from './score.js';
export { stripByNextCheck, stripPlainly } from './strip.js';
