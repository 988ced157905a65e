import { flag, object, whole } from '../../kit/schema.js';
import { defineEntry } from '../define.js';

export const practiceSet = defineEntry({
  kind: 'practice-set',
  name: 'Practice engine',
  says: 'The case is a practice engine: made from a level and a seed, its causes hidden until they are opened. It counts in no statistics.',
  body: object({
    level: whole(1, 10),
    /** Version of how a seed becomes an engine. */
    version: whole(1, 999),
    /** Nobody who strips it has seen the seed. */
    sealed: flag,
  }),
  stands: 'case',
  slot: () => 'practice',
  tell: (b) => `level ${b.level}${b.sealed ? ', seed not shown' : ''}`,
  byServer: true,
  stays: true,
  ofCase: (all) => ({ practice: all[0] }),
});
