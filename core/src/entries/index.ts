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
} from './entries.js';
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
} from './registry.js';
export { SECTION_IDS, type SectionId } from './account.js';
export { INTAKE_CHOICES, type IntakeChoice } from './intakeChoices.js';
export { OUTCOME_SOURCES, OUTCOMES } from './kinds/outcomeSet.js';
