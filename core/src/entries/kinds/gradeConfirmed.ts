import { gradeText, type Grade } from '../../damage/classes.js';
import { nullable, object, text, whole, type Schema } from '../../kit/schema.js';
import { because, defineEntry } from '../define.js';

/** 0 sound to 4 destroyed. */
export const gradeSchema = whole(0, 4) as unknown as Schema<Grade>;

export const gradeConfirmed = defineEntry({
  kind: 'grade-confirmed',
  name: 'Grade',
  says: 'The grade the builder gives a place, with what was proposed.',
  body: object({ grade: gradeSchema, proposed: nullable(gradeSchema), reason: text(500), book: text(20) }),
  stands: 'station',
  slot: () => 'grade',
  tell: (b) =>
    `${gradeText(b.grade)}${b.proposed !== null && b.proposed !== b.grade ? `, ${gradeText(b.proposed)} was proposed` : ''}${because(b.reason)}`,
  ofStation: (all) => ({ grade: all[0] }),
});
