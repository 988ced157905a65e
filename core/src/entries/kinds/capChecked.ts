import { flag, key, object, oneOf, text } from '../../kit/schema.js';
import { by, defineEntry } from '../define.js';

const JOINTS = ['imperceptible', 'step'] as const;

export const capChecked = defineEntry({
  kind: 'cap-checked',
  name: 'Cap',
  says: 'The number stamped on a cap and how its joint feels.',
  body: object({ cap: key, number: text(40), agrees: flag, joint: oneOf(JOINTS), note: text(500) }),
  stands: 'case',
  slot: (b) => `cap:${b.cap}`,
  tell: (b) => `${b.cap}: ${b.number || 'no number'}, ${b.agrees ? 'agrees' : 'does not agree'}, joint ${b.joint}`,
  ofCase: (all) => ({ caps: by(all, (b) => b.cap) }),
});
