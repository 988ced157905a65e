export { askedEvents, outcomesAsked } from './asked.js';
export { bulletinOf } from './bulletin.js';
export { acrossCsv, casesCsv, stripsCsv } from './csv.js';
export { caseFacts, type CaseFacts } from './facts.js';
export { likeCases, type ComparedFacts } from './likeCases.js';
export { shopPriors } from './priors.js';
export { acrossStatistics, ENOUGH, type AcrossStatistics, type CountedCase, type CountedShare } from './statistics.js';
export { TEST_UNIT, testEffect } from './engineTest.js';
export { twoStrips, type PlaceStood, type PlaceTwice, type TwoStrips } from './twoStrips.js';
