import { flag, id, list, object, text, whole } from '../../kit/schema.js';
import { defineEntry } from '../define.js';

export const practiceLooked = defineEntry({
  kind: 'practice-looked',
  name: 'Look',
  says: 'A look at a practice engine, paid for in minutes, with what it brought to light.',
  body: object({
    look: id,
    name: text(200),
    minutes: whole(0, 600),
    /** What is seen, in sentences; no names of patterns. */
    words: list(text(2000), 40),
    /** There is a picture of it. */
    picture: flag,
  }),
  stands: 'case',
  slot: (b) => `look:${b.look}`,
  tell: (b) => `${b.name}, ${b.minutes} min: ${b.words.join(' ')}`,
  byServer: true,
  ofCase: (all) => ({ practiceLooks: all }),
});
