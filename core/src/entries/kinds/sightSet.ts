import { sightName } from '../../damage/sights.js';
import { flag, id, list, nullable, object, oneOf, text, whole } from '../../kit/schema.js';
import { defineEntry } from '../define.js';
import { RELIABILITIES } from './historyLine.js';

export const sightSet = defineEntry({
  kind: 'sight-set',
  name: 'Sight',
  says: 'A pattern or neutral sight at one or several of some places, or told by somebody: there, or looked for and not there.',
  body: object({
    /** Key of this statement, so that it can be corrected. */
    note: id,
    sight: id,
    present: flag,
    /** Places it may be at. */
    among: list(id, 200),
    /** At how many of them; null: at every one. */
    of: nullable(whole(1, 200)),
    grade: nullable(whole(0, 4)),
    reliability: oneOf(RELIABILITIES),
    words: text(2000),
  }),
  stands: 'case',
  slot: (b) => `sight:${b.note}`,
  tell: (b) => {
    const places = b.of === null ? b.among.join(', ') : `${b.of} of ${b.among.join(', ')}`;
    return `${sightName(b.sight)}: ${b.present ? 'there' : 'not there'} at ${places} (${b.reliability})`;
  },
  ofCase: (all) => ({ sights: all }),
});
