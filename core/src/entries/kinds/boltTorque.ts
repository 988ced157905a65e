import { figure, key, nullable, object, text } from '../../kit/schema.js';
import { stripPlan } from '../../strip/plan.js';
import { torqueFault, torqueUnit } from '../torque.js';
import { defineEntry } from '../define.js';

export const boltTorque = defineEntry({
  kind: 'bolt-torque',
  name: 'Break-loose',
  says: 'Torque at which a fastener came loose; null: not read.',
  body: object({ pattern: key, position: key, text: text(40), unit: torqueUnit, newtonMetre: nullable(figure(0, 5000)) }),
  stands: 'case',
  slot: (b) => `bolt:${b.pattern}:${b.position}`,
  tell: (b) => `${b.pattern} ${b.position}: ${b.text} ${b.unit}`,
  admit: (b, at) => {
    if (!at.layout) return null;
    const pattern = stripPlan(at.layout).steps.find((s) => s.pattern?.id === b.pattern)?.pattern;
    if (!pattern?.positions.some((p) => p.id === b.position))
      return {
        code: 'bolt-unknown',
        sentence: `This engine has no fastener ${b.position} in "${b.pattern}". Nothing was recorded.`,
        field: 'position',
      };
    return b.newtonMetre === null ? null : torqueFault(b);
  },
  ofCase: (all) => ({ bolts: all }),
});
