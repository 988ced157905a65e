import { id, object, text } from '../../kit/schema.js';
import { defineEntry } from '../define.js';

export const sequenceEvent = defineEntry({
  kind: 'sequence-event',
  name: 'Event',
  says: 'An event of the builder’s own in the sequence.',
  body: object({ event: id, text: text(200) }),
  stands: 'case',
  slot: (b) => `event:${b.event}`,
  tell: (b) => b.text || '(emptied)',
  ofCase: (all) => ({ sequenceEvents: all }),
});
