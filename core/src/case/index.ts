export { foundHurt, foundWear, foundWearOf } from './foundWear.js';
export { type Likeness, looksLike } from './likeness.js';
export { matchFinding } from './matchFinding.js';
export { type CaseView, type StationView, caseBench, caseView, coverage, isExamined, readAgainstSound, standingGrade } from './views.js';
export { outcomeAgainstAccount } from './outcome.js';
export { notDone } from './checksNotMade.js';
export { type HoldStanding, type StepStanding, type StripStanding, lostBySteps, reasonsGiven, stripStanding } from './stripStanding.js';
