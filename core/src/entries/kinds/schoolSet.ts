import { school } from '../../damage/schools.js';
import { id, object, text } from '../../kit/schema.js';
import { because, by, defineEntry } from '../define.js';

export const schoolSet = defineEntry({
  kind: 'school-set',
  name: 'School',
  says: 'Where builders disagree: the position this case goes by.',
  body: object({ question: id, position: id, reason: text(1000) }),
  stands: 'case',
  slot: (b) => `school:${b.question}`,
  tell: (b) => `${school(b.question)?.question ?? b.question}: ${b.position}${because(b.reason, '; ')}`,
  ofCase: (all) => ({ schools: by(all, (b) => b.question) }),
});
