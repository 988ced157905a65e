export { type ReadingEntry, elsewhereOf, measurePlace, placeReadings, specOfPlace } from './caseMeasure.js';
export { type Incoming, type IncomingReading, readPaste, readReadingsCsv, readingsCsv, standingOf } from './readingsCsv.js';
export { type RunPoint, boreWall, clearanceRun, cutEffects, deckMap, ovalThrough, repeatsOf, takesOf } from './maps.js';
export { clearancesAfter, gradeFromReadings, reboreEffect, sizeForAll } from './consequences.js';
