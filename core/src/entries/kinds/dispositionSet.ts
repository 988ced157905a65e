import { object, oneOf, text } from '../../kit/schema.js';
import { OPERATION_NAMES, OPERATIONS } from '../../workshop/operations.js';
import { because, defineEntry } from '../define.js';

export const dispositionSet = defineEntry({
  kind: 'disposition-set',
  name: 'Disposition',
  says: 'What is to be done with a part.',
  body: object({ operation: oneOf(OPERATIONS), size: text(40), reason: text(1000) }),
  stands: 'station',
  slot: () => 'disposition',
  tell: (b) => `${OPERATION_NAMES[b.operation]}${b.size ? ` ${b.size}` : ''}${because(b.reason)}`,
  ofStation: (all) => ({ disposition: all[0] }),
});
