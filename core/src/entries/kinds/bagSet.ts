import { key, object, text, whole } from '../../kit/schema.js';
import { because, by, defineEntry } from '../define.js';

export const bagSet = defineEntry({
  kind: 'bag-set',
  name: 'Bag',
  says: 'Fasteners counted into a bag.',
  body: object({ bag: key, counted: whole(0, 999), note: text(200) }),
  stands: 'case',
  slot: (b) => `bag:${b.bag}`,
  tell: (b) => `${b.bag}: ${b.counted} counted${because(b.note, '; ')}`,
  ofCase: (all) => ({ bags: by(all, (b) => b.bag) }),
});
