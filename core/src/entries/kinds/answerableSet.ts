import { ANSWERABLE } from '../../cause/types.js';
import { object, oneOf, text } from '../../kit/schema.js';
import { because, defineEntry } from '../define.js';

export const answerableSet = defineEntry({
  kind: 'answerable-set',
  name: 'Answerable',
  says: 'Who is answerable, kept apart from the cause.',
  body: object({ who: oneOf(ANSWERABLE), reason: text(2000) }),
  stands: 'case',
  slot: () => 'answerable',
  tell: (b) => `${b.who}${because(b.reason)}`,
  ofCase: (all) => ({ answerable: all[0] }),
});
