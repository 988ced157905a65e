import { flag, id, object, text } from '../../kit/schema.js';
import { by, defineEntry } from '../define.js';

export const unexplainedSet = defineEntry({
  kind: 'unexplained-set',
  name: 'Unexplained',
  says: 'A finding that no cause accounts for, accepted by name and with a reason.',
  body: object({ place: id, accepted: flag, reason: text(1000) }),
  stands: 'case',
  slot: (b) => `unexplained:${b.place}`,
  tell: (b) => `${b.place} ${b.accepted ? 'accepted as unexplained' : 'not accepted'}: ${b.reason}`,
  ofCase: (all) => ({ unexplained: by(all, (b) => b.place) }),
});
