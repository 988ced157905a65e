import { sightName } from '../../damage/sights.js';
import { flag, id, object } from '../../kit/schema.js';
import { defineEntry } from '../define.js';

export const patternSet = defineEntry({
  kind: 'pattern-set',
  name: 'Pattern',
  says: 'A damage pattern or neutral sight named at a place, there or looked for and not there.',
  body: object({ pattern: id, present: flag }),
  stands: 'station',
  slot: (b) => `pattern:${b.pattern}`,
  tell: (b) => `${sightName(b.pattern)}: ${b.present ? 'there' : 'not there'}`,
  ofStation: (all) => ({ patterns: all }),
});
