export { PRACTICE_LEVELS, practiceLevel, type PracticeLevel } from './levels.js';
export { wearOf } from './wear.js';
export { drawEngine, gradeOfMarks, PRACTICE_ENGINE_VERSION, type HiddenCause, type HiddenEngine, type HiddenMark } from './hidden.js';
export { lookStands, practiceLook, practiceLooks, READING_MINUTES, STEP_MINUTES, type PracticeLook } from './looks.js';
export { canBePictured, shownBy, type Shown } from './shown.js';
export { storyOf } from './story.js';
export { stripByNextCheck, stripPlainly, type StrippedBy } from './strip.js';
export { practicePicture } from './picture.js';
export { minutesSpent, scoreOf, type NamedCause } from './score.js';
