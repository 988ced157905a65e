import { id, nullable, object, oneOf, text } from '../../kit/schema.js';
import { defineEntry } from '../define.js';

export const QUESTION_TO = ['client', 'earlier-builder', 'maker'] as const;

export const openQuestion = defineEntry({
  kind: 'open-question',
  name: 'Question',
  says: 'A question to somebody outside, with its answer when it came.',
  body: object({ question: id, to: oneOf(QUESTION_TO), text: text(1000), answer: nullable(text(4000)), answeredOn: nullable(text(20)) }),
  stands: 'case',
  slot: (b) => `question:${b.question}`,
  tell: (b) => `${b.text}${b.answer === null ? ' (open)' : ` – ${b.answer}`}`,
  ofCase: (all) => ({ questions: all }),
});
