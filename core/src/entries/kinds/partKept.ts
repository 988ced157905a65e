import { flag, line, object, text } from '../../kit/schema.js';
import { defineEntry } from '../define.js';

export const partKept = defineEntry({
  kind: 'part-kept',
  name: 'Part kept',
  says: 'A part the strip leaves good, kept for another engine: where it lies, what it measures. `kept` false: it is not on the shelf any more.',
  body: object({ kept: flag, name: line(120), size: line(200), place: line(60), note: text(600) }),
  stands: 'station',
  slot: () => 'kept',
  tell: (b) => (b.kept ? [b.name, b.size, b.place && `lies ${b.place}`].filter(Boolean).join(', ') : 'not on the shelf any more'),
  ofStation: (all) => ({ kept: all[0] }),
});
