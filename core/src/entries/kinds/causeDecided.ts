import { cause } from '../../cause/data/causes.js';
import { id, object, oneOf, text } from '../../kit/schema.js';
import { because, defineEntry } from '../define.js';

export const causeDecided = defineEntry({
  kind: 'cause-decided',
  name: 'Cause',
  says: 'A cause confirmed, rejected or opened again by the builder.',
  body: object({ cause: id, decision: oneOf(['confirmed', 'rejected', 'open']), reason: text(2000) }),
  stands: 'case',
  slot: (b) => `cause:${b.cause}`,
  tell: (b) => `${cause(b.cause)?.name ?? b.cause} ${b.decision}${because(b.reason)}`,
  ofCase: (all) => ({ decisions: all }),
});
