import { gradeText } from '../../damage/classes.js';
import { object, text } from '../../kit/schema.js';
import { because, defineEntry } from '../define.js';
import { gradeSchema } from './gradeConfirmed.js';

export const secondOpinion = defineEntry({
  kind: 'second-opinion',
  name: 'Second opinion',
  says: 'A grade given by another hand without seeing the first.',
  body: object({ grade: gradeSchema, note: text(500) }),
  stands: 'station',
  slot: () => 'second-opinion',
  tell: (b) => `${gradeText(b.grade)}${because(b.note)}`,
  // It is worth something only from another hand.
  admit: (_, at) => {
    if (!at.author) return null;
    const first = at.slot('grade').at(-1);
    if (!first) return { code: 'no-first-grade', sentence: 'This place has no confirmed grade yet: grade it first. Nothing was recorded.' };
    return first.author.id === at.author.id
      ? {
          code: 'own-opinion',
          sentence: 'You graded this place yourself. A second opinion is given by another builder; nothing was recorded.',
        }
      : null;
  },
  ofStation: (all) => ({ secondOpinion: all[0] }),
});
