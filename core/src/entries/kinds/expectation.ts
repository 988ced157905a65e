import { flag, id, key, nullable, object, text } from '../../kit/schema.js';
import { defineEntry } from '../define.js';

export const expectation = defineEntry({
  kind: 'expectation',
  name: 'Expectation',
  says: 'What the builder expected to find before a step, and whether it held.',
  body: object({ expectation: id, step: key.allow(''), text: text(500), held: nullable(flag) }),
  stands: 'case',
  slot: (b) => `expectation:${b.expectation}`,
  tell: (b) => `${b.text}${b.held === null ? '' : b.held ? ' – held' : ' – did not hold'}`,
  ofCase: (all) => ({ expectations: all }),
});
