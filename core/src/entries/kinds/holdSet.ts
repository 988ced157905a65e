import { key, object, oneOf, text } from '../../kit/schema.js';
import { holdName } from '../../strip/holds.js';
import { because, by, defineEntry } from '../define.js';

export const holdSet = defineEntry({
  kind: 'hold-set',
  name: 'Hold',
  says: 'Evidence a step would destroy: recorded before, or lost.',
  body: object({ item: key, outcome: oneOf(['recorded', 'lost']), note: text(1000) }),
  stands: 'case',
  slot: (b) => `hold:${b.item}`,
  tell: (b) => `${holdName(b.item)} ${b.outcome}${because(b.note)}`,
  ofCase: (all) => ({ holds: by(all, (b) => b.item) }),
});
