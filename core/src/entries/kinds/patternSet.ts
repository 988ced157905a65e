import { pattern } from '../../damage/patterns.js';
import { flag, id, object } from '../../kit/schema.js';
import { defineEntry } from '../define.js';

export const patternSet = defineEntry({
  kind: 'pattern-set',
  name: 'Pattern',
  says: 'A damage pattern named at a place, there or looked for and not there.',
  body: object({ pattern: id, present: flag }),
  stands: 'station',
  slot: (b) => `pattern:${b.pattern}`,
  tell: (b) => `${pattern(b.pattern)?.name ?? b.pattern}: ${b.present ? 'there' : 'not there'}`,
  ofStation: (all) => ({ patterns: all }),
});
