import { key, object, text } from '../../kit/schema.js';
import { assemblyProgram, bagKind } from '../../strip/assembly/program.js';
import { parseStages } from '../../strip/assembly/stages.js';
import { by, defineEntry } from '../define.js';

export const torqueSet = defineEntry({
  kind: 'torque-set',
  name: 'Tightening',
  says: 'The stages a kind of fastener is tightened in, as written (`30 N·m; 60 N·m; 90°`), and whose figures they are. Empty text: not known.',
  body: object({ fasteners: key, text: text(120), source: text(200) }),
  stands: 'case',
  slot: (b) => `torque:${b.fasteners}`,
  tell: (b) => `${b.fasteners}: ${b.text || 'not known'}${b.source ? `, ${b.source}` : ''}`,
  admit: (b, at) => {
    if (at.layout && !assemblyProgram(at.layout).some((s) => s.bags.some((g) => bagKind(g.id) === b.fasteners)))
      return {
        code: 'fasteners-unknown',
        sentence: `This engine has no fasteners called "${b.fasteners}". Nothing was recorded.`,
        field: 'fasteners',
      };
    if (b.text === '') return null;
    const stages = parseStages(b.text);
    return stages.ok ? null : stages.problem;
  },
  ofCase: (all) => ({ torques: by(all, (b) => b.fasteners) }),
});
