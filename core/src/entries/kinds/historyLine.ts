import { id, nullable, object, oneOf, optional, text } from '../../kit/schema.js';
import { defineEntry } from '../define.js';

export const RELIABILITIES = ['told', 'seen', 'measured'] as const;
export type Reliability = (typeof RELIABILITIES)[number];

export const historyLine = defineEntry({
  kind: 'history-line',
  name: 'History',
  says: 'One line of the history of the engine, with how far it can be relied on.',
  body: object({
    line: id,
    text: text(2000),
    feature: nullable(id),
    reliability: oneOf(RELIABILITIES),
    date: nullable(text(40)),
    /** Was it said before or after the finding was put to the person? Absent where it does not matter. */
    said: optional(nullable(oneOf(['before-finding', 'after-finding']))),
  }),
  stands: 'case',
  slot: (b) => `history:${b.line}`,
  tell: (b) => `${b.text || '(emptied)'} – ${b.reliability}`,
  ofCase: (all) => ({ history: all }),
});
