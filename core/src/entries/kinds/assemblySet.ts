import { key, object, oneOf, text } from '../../kit/schema.js';
import { assemblyProgram } from '../../strip/assembly/program.js';
import { because, by, defineEntry } from '../define.js';

export const assemblySet = defineEntry({
  kind: 'assembly-set',
  name: 'Assembly step',
  says: 'A step of the assembly, done or open again.',
  body: object({ step: key, state: oneOf(['done', 'open']), note: text(1000) }),
  stands: 'case',
  slot: (b) => `assembly:${b.step}`,
  tell: (b) => `${b.step} ${b.state}${because(b.note)}`,
  admit: ({ step }, at) =>
    !at.layout || assemblyProgram(at.layout).some((s) => s.id === step)
      ? null
      : {
          code: 'step-unknown',
          sentence: `The assembly of this engine has no step called "${step}". Nothing was recorded.`,
          field: 'step',
        },
  ofCase: (all) => ({ assembly: by(all, (b) => b.step) }),
});
