// What core gives to server, pages and command line, by name, floor by floor. A name that none of them uses does not stand here (`npm test` checks it).

// kit
export * as schema from './kit/schema.js';
export type { Held, Schema } from './kit/schema.js';
export { PROBLEMS, type ProblemCode } from './kit/problems.js';
export { type Problem, type Result, fail, ok } from './kit/result.js';
export { hashWith, sha256Hex } from './kit/hash.js';

// units
export { type LengthUnit, formatLength, parseLength } from './units/length.js';
export { QUANTITIES, type Quantity, formatQuantity, parseQuantity } from './units/quantity.js';
export { formatFigure, readTyped } from './units/typed.js';
export { GAUGE_KINDS, type Gauge, checkDoubt, readingUncertainty } from './units/gauge.js';

// engine
export { type EngineLayout, cylinderPlaces, layoutSchema, pinCount } from './engine/layout.js';
export { engineTags } from './engine/tags.js';
export { ENGINE_TEMPLATES, engineTemplate } from './engine/templates.js';
export { validateLayout } from './engine/validate.js';
export {
  PART_NAMES,
  type PartClass,
  journalOf,
  neighbourOf,
  partnerOf,
  shellsOn,
  type Station,
  type SurfaceFrame,
  matchesStation,
  stationsOf,
} from './engine/stations.js';
export { routeDistance } from './engine/oilRoute.js';
export { type BenchCell, type BenchRow, type Direction, benchPlan, neighbourOnBench } from './engine/bench.js';
export { planDrawing } from './engine/plan.js';

// damage
export type { DamagePattern } from './damage/catalogue/record.js';
export { GRADES, GRADE_INFO, type Grade, WEAR_CLASSES, WEAR_CLASS_INFO, type WearClass, gradeText } from './damage/classes.js';
export { LINE_DEPTHS, type LineDepth, type SurfaceMark, type WearMap, damageShare, summariseMap } from './damage/wearMap.js';
export {
  GRADED_PARTS,
  GRADE_BOOK,
  type GradeBook,
  type GradeRule,
  contradiction,
  gradeRulesSchema,
  proposeGrade,
  thing,
} from './damage/gradeBook.js';
export { agreement } from './damage/agreement.js';
export { PATTERNS, pattern, patternFound, patternsFor, toldApart } from './damage/patterns.js';
export { SCHOOLS, type School, positionOf, school, schoolsAt } from './damage/schools.js';

// cause
export { ANSWERABLE, type Answerable } from './cause/types.js';
export { CAUSES, cause, isListed } from './cause/data/causes.js';
export { FEATURES, feature } from './cause/data/features.js';
export { featureProbability, posterior } from './cause/model.js';
export { percentText } from './cause/percent.js';
export { firstStartProcedure } from './cause/firstStart.js';

// strip
export { BREAK_LOOSE, type FastenerPattern, boltCell, fastenerResult } from './strip/fasteners.js';
export { easingResult } from './strip/easing.js';
export { type FastenerBag, REUSE_WORDS, stripSteps } from './strip/steps.js';
export { type StripPlan, moveStep, stripPlan } from './strip/plan.js';

// opening
export { type CheckField, NOT_DONE, type OpeningCheck, TURN_POSITIONS, checksFor, fieldKeys, openingCheck } from './opening/checks.js';
export { readAnswer } from './opening/record.js';
export { type CompressionResult, type Limited, THUMB, type TurningResult } from './opening/results.js';
export { type OpeningResults, openingResults } from './opening/evidence.js';

// workshop
export { OPERATIONS, OPERATION_NAMES, type Operation, type StandingDisposition } from './workshop/operations.js';
export { type PriceBook, type PriceLine, STARTING_PRICES, priceBookCsv, priceLineSchema, readPriceCsv } from './workshop/prices.js';

// measure
export { LIMIT_QUANTITIES, type SheetLimit, type SpecSheet } from './measure/specSheet.js';
export { AXES, PLANES } from './measure/sheets/journal/journal.js';
export { type FinishResult, envelope, finishJson, finishWords, levelled, surfaceFinish } from './measure/finish.js';
export { readTraceCsv } from './measure/traceCsv.js';
export { type SheetLine, lineText } from './measure/sheets/line.js';
export { runSheet, sheetJson } from './measure/program/file.js';
export { SHEETS, benchOf } from './measure/program/sheetOf.js';
export type { ChartKey, DrawingKey } from './measure/sheets/define.js';
export { type Cell, type GaugeRole, PLACE_GROUPS, type PlaceGroup, ROLE_KINDS, type SheetPlace } from './measure/sheets/cells.js';
export { measureProgram, placeOf, trueValue } from './measure/program/program.js';
export { deckGrid } from './measure/sheets/flatness/sheet.js';
export { STUCK_AFTER, cellText, cellUnits, doubtCell, looksStuck, readCell } from './measure/program/readCell.js';
export { SPEC_KEYS, SPEC_KINDS, type SheetSpec, type SpecKey, sheetSpecSchema, specFields } from './measure/program/specs.js';
export { type SpecTexts, specFromTexts, specTexts, specWords } from './measure/program/specText.js';
export { type PlaceOutcome, worstWord } from './measure/program/outcome.js';
export { type Round, roundOf, roundsOf } from './measure/program/rounds.js';
export { trueTorque } from './measure/sheets/trueEngine.js';
export { type GaugeFaults, NO_FAULTS, pressKey, standInTrace } from './measure/simulated/gaugeStandIn.js';

// ledger
export {
  type Author,
  type ChainVerdict,
  type EntryDraft,
  FIRST_PREV,
  GAP_REASON,
  type KeptEntry,
  type LedgerEntry,
  authorOf,
  chainLine,
  entryFault,
  sealEntry,
  unexplainedGap,
  verifyChain,
} from './ledger/entry.js';
export { type StateDelta, applyDelta, stateDelta } from './ledger/delta.js';
export { type CaseState, type SlotConflict, type Sourced, currentVersion, emptyCase } from './ledger/state.js';

// entries
export {
  ENTRY_KINDS,
  type EntryBodies,
  type EntryBody,
  type EntryKind,
  applyDraft,
  applyEntry,
  draftConflict,
  entryDefinition,
  entryName,
  entryWords,
  foldEntries,
  slotOf,
} from './entries/entries.js';
export {
  ANSWER_STATES,
  type AnswerState,
  CLIP_MIMES,
  ENTRY_DEFINITIONS,
  type IntakeField,
  type LinkState,
  MARK_KINDS,
  MARK_MEANINGS,
  QUESTION_TO,
  RECEIVED_STATES,
  type Reliability,
  type ReportField,
  STATION_STATES,
  type StationState,
} from './entries/registry.js';
export { SECTION_IDS, type SectionId } from './entries/account.js';

// case
export { type Likeness, looksLike } from './case/likeness.js';
export { matchFinding } from './case/matchFinding.js';
export { type CaseView, type StationView, caseView, coverage, isExamined, standingGrade } from './case/views.js';
export { notDone } from './case/checksNotMade.js';
export {
  type HoldStanding,
  type StepStanding,
  type StripStanding,
  lostBySteps,
  reasonsGiven,
  stripStanding,
} from './case/stripStanding.js';

// measured
export { type ReadingEntry, elsewhereOf, measurePlace, placeReadings, specOfPlace } from './measured/caseMeasure.js';
export { type Incoming, type IncomingReading, readPaste, readReadingsCsv, readingsCsv, standingOf } from './measured/readingsCsv.js';
export { type RunPoint, boreWall, clearanceRun, cutEffects, deckMap, ovalThrough, repeatsOf, takesOf } from './measured/maps.js';
export { clearancesAfter, gradeFromReadings, reboreEffect, sizeForAll } from './measured/consequences.js';

// photo
export { type Point, homography, isConvex } from './photo/homography.js';
export { projectShell, shellPose, viewCosine } from './photo/shellPose.js';
export { shellCamera } from './photo/cameraModel.js';
export { type Developed, NOT_SEEN_COSINE, type Pixels, develop } from './photo/flatten.js';
export { toPicture, toSurface } from './photo/mesh.js';
export { PART_TAG, corrected, parseTagText, project, readTag, renderTag, tagDistanceMm, tagText } from './photo/partTag.js';
export { refineTagCorners } from './photo/tagRefine.js';
export { clockDoubt } from './photo/takenAt.js';
export {
  type FlattenedPart,
  MAP_COLUMNS,
  MAP_ROWS,
  READ_PARTS,
  isFlattened,
  isRead,
  readSurface,
  cameraModelOf,
} from './photo/reading/readSurface.js';
export { type Turn, USUAL_TURN, fromPicture, inPicture, showsPieceOfTurn, sizeFromFrame } from './photo/reading/onFrame.js';
export { findOutline, isFound } from './photo/reading/findOutline.js';
export { type PictureTask, type ReadPicture, readPicture } from './photo/reading/readPicture.js';
export { readingJson } from './photo/reading/readingJson.js';

// specimen
export { seeded } from './specimen/noise.js';
export { MAP_CLASSES, type SurfaceMaps } from './specimen/sheet.js';
export type { Damage } from './specimen/damages.js';
export { type ShellSpecimen, type SurfaceSpecimen, surfaceMaps } from './specimen/surfaceMaps.js';
export {
  type DebrisKind,
  FORM_NAMES,
  FORM_SURFACE,
  RECIPES,
  type Recipe,
  SEVERITIES,
  SEVERITY_WORDS,
  SPECIMEN_FORMS,
  type Severity,
  type SpecimenForm,
  recipeSpecimen,
} from './specimen/recipes.js';
export { type Shot, USUAL_SHOT } from './specimen/scene.js';
export { takeRound } from './specimen/roundScene.js';
export { takeShell } from './specimen/shellScene.js';

// diagnosis
export { absenceWords, answersOf, limitSource, soundContradictions } from './diagnosis/evidence.js';
export type { NextCheck } from './diagnosis/nextCheck.js';
export { type Diagnosis, type RankedCause, type WeighedEvidence, applicableModel, diagnose } from './diagnosis/diagnose.js';
export { type DiagnosisJson, diagnosisJson } from './diagnosis/diagnosisJson.js';
export { type Predicted, predictBench } from './diagnosis/predicted.js';
export { type PairSign, comparePair } from './diagnosis/pair.js';
export { type AnswerItem, answerItems, answerability, releaseCheck, warrantyChecklist } from './diagnosis/answers.js';
export type { SequenceLink } from './diagnosis/sequence/types.js';
export { proposeSequence } from './diagnosis/sequence/propose.js';
export { type PlacedNode, placeSequence } from './diagnosis/sequence/layout.js';
export type { Shape } from './diagnosis/sequence/drawing.js';

// salvage
export { standingDispositions } from './salvage/dispositions.js';
export { machineSheet, machineSheetCsv, partsList } from './salvage/machineSheet.js';
export { type Simulated, simulateRoute } from './salvage/monteCarlo.js';
export { routesOf } from './salvage/routes.js';
export { type Calendar, type Plan, type Planned, dateOf, planIcs, planTasks } from './salvage/schedule.js';
export { ROUTE_DRAWS, ROUTE_SEED, type SimulatedRoute, daysUntil, planOf, plannedTasks, simulatedRoutes } from './salvage/simulate.js';
export { tasksOf } from './salvage/tasks.js';

// report
export { type ReportBlock, type ReportModel, cellColours } from './report/blocks.js';
export {
  AFTER_SIGNS,
  COMPLAINTS,
  COMPLAINT_PLACES,
  COMPLAINT_WHENS,
  FAMILY_EXPERIENCE,
  ONSETS,
  QUESTION_OWNERS,
  SMOKES,
} from './report/words.js';
export { ALWAYS, TEMPLATES } from './report/templates.js';
export { type PictureLine, pictureMarks } from './report/pictureMarks.js';
export {
  HEADINGS,
  type ReportOptions,
  layoutOf,
  machineShopModel,
  pictureNumbers,
  reportModel,
  sectionHashes,
  signatureLines,
  signedVersions,
  versionLines,
} from './report/model.js';
export { type CoverOf, type Letterhead, NO_PARTIES, type Parties, coverModel, letterheadLines } from './report/parties.js';
export { reportMarkdown } from './report/markdown.js';

// gate
export { checkEntry } from './gate/admit.js';

// bundle
export { readCaseFile } from './bundle/caseFile/read.js';
export { caseFileOf } from './bundle/caseFile/write.js';
export { DEFAULT_GAUGE } from './bundle/caseFile/format.js';
export { findingsCsv } from './bundle/csv.js';
export { fileOf, fileRefusal, openBundle, readBundle, readBundleFiles, verifyBundle } from './bundle/verifyBundle.js';
export { acceptEntries, readableVersion } from './bundle/acceptEntries.js';
export {
  type Seal,
  type SealClaims,
  type SealVerdict,
  type ShopKey,
  keyFingerprint,
  makeShopKey,
  sealBundle,
  signStatement,
  statementHolds,
} from './bundle/seal.js';
export {
  DAILY_SEAL,
  type DailySeal,
  type DailyStatement,
  chainAgainstSeal,
  dailySealText,
  parseDailySeal,
  statementHash,
} from './bundle/dailySeal.js';
export {
  STAMP_LIMIT,
  STAMP_OIDS,
  type StampCheck,
  type StampVerdict,
  certificatesOf,
  stampQuery,
  stampVerdict,
  stampWords,
} from './bundle/timeStamp.js';
