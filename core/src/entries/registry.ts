// Written by scripts/derive.mjs from the folder `kinds`: add a file there and run it.
import { accountLaidOut } from './kinds/accountLaidOut.js';
import { accountSigned } from './kinds/accountSigned.js';
import { answerSet } from './kinds/answerSet.js';
import { answerableSet } from './kinds/answerableSet.js';
import { assemblySet } from './kinds/assemblySet.js';
import { bagSet } from './kinds/bagSet.js';
import { blurSet } from './kinds/blurSet.js';
import { boltTorque } from './kinds/boltTorque.js';
import { buildMark } from './kinds/buildMark.js';
import { capChecked } from './kinds/capChecked.js';
import { caseOpened } from './kinds/caseOpened.js';
import { caseReleased } from './kinds/caseReleased.js';
import { caseShelved } from './kinds/caseShelved.js';
import { causeDecided } from './kinds/causeDecided.js';
import { checkSet } from './kinds/checkSet.js';
import { clipAdded } from './kinds/clipAdded.js';
import { cornersSet } from './kinds/cornersSet.js';
import { dispositionSet } from './kinds/dispositionSet.js';
import { easeTorque } from './kinds/easeTorque.js';
import { evidenceSet } from './kinds/evidenceSet.js';
import { expectation } from './kinds/expectation.js';
import { gradeBookSet } from './kinds/gradeBookSet.js';
import { gradeConfirmed } from './kinds/gradeConfirmed.js';
import { historyLine } from './kinds/historyLine.js';
import { holdSet } from './kinds/holdSet.js';
import { intakeSet } from './kinds/intakeSet.js';
import { layoutSet } from './kinds/layoutSet.js';
import { limitsSet } from './kinds/limitsSet.js';
import { markMade } from './kinds/markMade.js';
import { oilLogTaken } from './kinds/oilLogTaken.js';
import { openQuestion } from './kinds/openQuestion.js';
import { outcomeSet } from './kinds/outcomeSet.js';
import { partKept } from './kinds/partKept.js';
import { partWanted } from './kinds/partWanted.js';
import { patternSet } from './kinds/patternSet.js';
import { photoAdded } from './kinds/photoAdded.js';
import { planSet } from './kinds/planSet.js';
import { practiceLooked } from './kinds/practiceLooked.js';
import { practiceScored } from './kinds/practiceScored.js';
import { practiceSet } from './kinds/practiceSet.js';
import { priceBookSet } from './kinds/priceBookSet.js';
import { priorsTaken } from './kinds/priorsTaken.js';
import { proofSet } from './kinds/proofSet.js';
import { quoteSent } from './kinds/quoteSent.js';
import { readingTaken } from './kinds/readingTaken.js';
import { receivedItem } from './kinds/receivedItem.js';
import { redacted } from './kinds/redacted.js';
import { remark } from './kinds/remark.js';
import { reportSet } from './kinds/reportSet.js';
import { retracted } from './kinds/retracted.js';
import { runKept } from './kinds/runKept.js';
import { schoolSet } from './kinds/schoolSet.js';
import { secondOpinion } from './kinds/secondOpinion.js';
import { sentenceSet } from './kinds/sentenceSet.js';
import { sequenceEvent } from './kinds/sequenceEvent.js';
import { sequenceLink } from './kinds/sequenceLink.js';
import { sequencePlace } from './kinds/sequencePlace.js';
import { sightSet } from './kinds/sightSet.js';
import { specSet } from './kinds/specSet.js';
import { stateSet } from './kinds/stateSet.js';
import { stepOrder } from './kinds/stepOrder.js';
import { stepSet } from './kinds/stepSet.js';
import { surfaceRead } from './kinds/surfaceRead.js';
import { tagRead } from './kinds/tagRead.js';
import { taskMoved } from './kinds/taskMoved.js';
import { torqueSet } from './kinds/torqueSet.js';
import { unexplainedSet } from './kinds/unexplainedSet.js';
import { wearLikened } from './kinds/wearLikened.js';

/** Every kind of entry there is. */
export const ENTRY_DEFINITIONS = [
  accountLaidOut,
  accountSigned,
  answerSet,
  answerableSet,
  assemblySet,
  bagSet,
  blurSet,
  boltTorque,
  buildMark,
  capChecked,
  caseOpened,
  caseReleased,
  caseShelved,
  causeDecided,
  checkSet,
  clipAdded,
  cornersSet,
  dispositionSet,
  easeTorque,
  evidenceSet,
  expectation,
  gradeBookSet,
  gradeConfirmed,
  historyLine,
  holdSet,
  intakeSet,
  layoutSet,
  limitsSet,
  markMade,
  oilLogTaken,
  openQuestion,
  outcomeSet,
  partKept,
  partWanted,
  patternSet,
  photoAdded,
  planSet,
  practiceLooked,
  practiceScored,
  practiceSet,
  priceBookSet,
  priorsTaken,
  proofSet,
  quoteSent,
  readingTaken,
  receivedItem,
  redacted,
  remark,
  reportSet,
  retracted,
  runKept,
  schoolSet,
  secondOpinion,
  sentenceSet,
  sequenceEvent,
  sequenceLink,
  sequencePlace,
  sightSet,
  specSet,
  stateSet,
  stepOrder,
  stepSet,
  surfaceRead,
  tagRead,
  taskMoved,
  torqueSet,
  unexplainedSet,
  wearLikened,
] as const;

export * from './kinds/accountLaidOut.js';
export * from './kinds/accountSigned.js';
export * from './kinds/answerSet.js';
export * from './kinds/answerableSet.js';
export * from './kinds/assemblySet.js';
export * from './kinds/bagSet.js';
export * from './kinds/blurSet.js';
export * from './kinds/boltTorque.js';
export * from './kinds/buildMark.js';
export * from './kinds/capChecked.js';
export * from './kinds/caseOpened.js';
export * from './kinds/caseReleased.js';
export * from './kinds/caseShelved.js';
export * from './kinds/causeDecided.js';
export * from './kinds/checkSet.js';
export * from './kinds/clipAdded.js';
export * from './kinds/cornersSet.js';
export * from './kinds/dispositionSet.js';
export * from './kinds/easeTorque.js';
export * from './kinds/evidenceSet.js';
export * from './kinds/expectation.js';
export * from './kinds/gradeBookSet.js';
export * from './kinds/gradeConfirmed.js';
export * from './kinds/historyLine.js';
export * from './kinds/holdSet.js';
export * from './kinds/intakeSet.js';
export * from './kinds/layoutSet.js';
export * from './kinds/limitsSet.js';
export * from './kinds/markMade.js';
export * from './kinds/oilLogTaken.js';
export * from './kinds/openQuestion.js';
export * from './kinds/outcomeSet.js';
export * from './kinds/partKept.js';
export * from './kinds/partWanted.js';
export * from './kinds/patternSet.js';
export * from './kinds/photoAdded.js';
export * from './kinds/planSet.js';
export * from './kinds/practiceLooked.js';
export * from './kinds/practiceScored.js';
export * from './kinds/practiceSet.js';
export * from './kinds/priceBookSet.js';
export * from './kinds/priorsTaken.js';
export * from './kinds/proofSet.js';
export * from './kinds/quoteSent.js';
export * from './kinds/readingTaken.js';
export * from './kinds/receivedItem.js';
export * from './kinds/redacted.js';
export * from './kinds/remark.js';
export * from './kinds/reportSet.js';
export * from './kinds/retracted.js';
export * from './kinds/runKept.js';
export * from './kinds/schoolSet.js';
export * from './kinds/secondOpinion.js';
export * from './kinds/sentenceSet.js';
export * from './kinds/sequenceEvent.js';
export * from './kinds/sequenceLink.js';
export * from './kinds/sequencePlace.js';
export * from './kinds/sightSet.js';
export * from './kinds/specSet.js';
export * from './kinds/stateSet.js';
export * from './kinds/stepOrder.js';
export * from './kinds/stepSet.js';
export * from './kinds/surfaceRead.js';
export * from './kinds/tagRead.js';
export * from './kinds/taskMoved.js';
export * from './kinds/torqueSet.js';
export * from './kinds/unexplainedSet.js';
export * from './kinds/wearLikened.js';
