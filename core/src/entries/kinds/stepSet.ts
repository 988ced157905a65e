import { key, object, oneOf, text } from '../../kit/schema.js';
import { stripPlan } from '../../strip/plan.js';
import { because, by, defineEntry } from '../define.js';

export const stepSet = defineEntry({
  kind: 'step-set',
  name: 'Step',
  says: 'A step of the strip, done or open again.',
  body: object({ step: key, state: oneOf(['done', 'open']), note: text(1000) }),
  stands: 'case',
  slot: (b) => `step:${b.step}`,
  tell: (b) => `${b.step} ${b.state}${because(b.note)}`,
  admit: ({ step }, at) =>
    !at.layout || stripPlan(at.layout).byId.has(step)
      ? null
      : { code: 'step-unknown', sentence: `The strip of this engine has no step called "${step}". Nothing was recorded.`, field: 'step' },
  ofCase: (all) => ({ steps: by(all, (b) => b.step) }),
});
