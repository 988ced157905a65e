import { object, oneOf, text } from '../../kit/schema.js';
import { by, defineEntry } from '../define.js';

export const INTAKE_FIELDS = [
  'title',
  'reference',
  'questionOwner',
  'question',
  'complaint',
  'complaintWords',
  'complaintPlace',
  'complaintWhen',
  'smokeColour',
  'onset',
  'afterFirstSign',
  'ranOnFor',
  'received',
  'openedBy',
  'evidenceHolder',
  'familyExperience',
  'firstImpression',
] as const;
export type IntakeField = (typeof INTAKE_FIELDS)[number];

export const intakeSet = defineEntry({
  kind: 'intake-set',
  name: 'Intake',
  says: 'What was told or written down when the engine came in.',
  body: object({ field: oneOf(INTAKE_FIELDS), value: text(4000) }),
  stands: 'case',
  slot: (b) => `intake:${b.field}`,
  tell: (b) => `${b.field}: ${b.value || '(emptied)'}`,
  admit: (b, at) =>
    b.field === 'firstImpression' && at.stripStarted()
      ? {
          code: 'first-impression-locked',
          sentence: 'The strip has started: the first impression stays as it was written down before. Nothing was recorded.',
          field: 'value',
        }
      : null,
  ofCase: (all) => ({ intakeFields: by(all, (b) => b.field) }),
});
