import { object, text, matching } from '../../kit/schema.js';
import { by, defineEntry } from '../define.js';

export const sentenceSet = defineEntry({
  kind: 'sentence-set',
  name: 'Sentence',
  says: 'A generated sentence in other words; an empty text: as generated.',
  body: object({ sentence: matching(/^[A-Za-z0-9._:@>-]{1,160}$/), text: text(4000), generated: text(4000) }),
  stands: 'case',
  slot: (b) => `sentence:${b.sentence}`,
  tell: (b) => `${b.sentence}: ${b.text === '' ? 'as generated' : b.text.slice(0, 120)}`,
  ofCase: (all) => ({ sentences: by(all, (b) => b.sentence) }),
});
