import { cause } from '../../cause/data/causes.js';
import { id, object, oneOf, text } from '../../kit/schema.js';
import { because, defineEntry, spoken } from '../define.js';

export const ANSWER_STATES = ['open', 'planned', 'done', 'not-needed'] as const;
export type AnswerState = (typeof ANSWER_STATES)[number];

export const answerSet = defineEntry({
  kind: 'answer-set',
  name: 'Answer',
  says: 'How a corrective action or a collateral check of a confirmed cause stands.',
  body: object({ cause: id, part: oneOf(['action', 'collateral']), item: text(120), state: oneOf(ANSWER_STATES), note: text(1000) }),
  stands: 'case',
  slot: (b) => `answer:${b.cause}:${b.part}:${b.item}`,
  tell: (b) => `${cause(b.cause)?.name ?? b.cause}: ${b.item} ${spoken(b.state)}${because(b.note, '; ')}`,
  ofCase: (all) => ({ answers: all }),
});
