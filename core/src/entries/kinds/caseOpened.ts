import { flag, line, object, optional, text } from '../../kit/schema.js';
import { defineEntry } from '../define.js';

export const caseOpened = defineEntry({
  kind: 'case-opened',
  name: 'Case opened',
  says: 'The case begins: its number and title.',
  body: object({ number: line(40), title: text(160), demo: optional(flag) }),
  stands: 'case',
  slot: () => 'case',
  tell: (b) => `${b.number} ${b.title}`,
  stays: true,
  ofCase: (all) => ({ opened: all[0] }),
});
