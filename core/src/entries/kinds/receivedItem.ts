import { id, object, oneOf, text } from '../../kit/schema.js';
import { defineEntry, spoken } from '../define.js';

export const RECEIVED_STATES = ['received', 'already-off', 'missing'] as const;

export const receivedItem = defineEntry({
  kind: 'received-item',
  name: 'Received',
  says: 'A part as it came in: there, already off, or missing.',
  body: object({ item: id, text: text(300), state: oneOf(RECEIVED_STATES), by: text(120) }),
  stands: 'case',
  slot: (b) => `received:${b.item}`,
  tell: (b) => `${b.text}: ${spoken(b.state)}`,
  ofCase: (all) => ({ received: all }),
});
