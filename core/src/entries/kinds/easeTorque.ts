import { figure, key, object, text, whole } from '../../kit/schema.js';
import { torqueFault, torqueUnit } from '../torque.js';
import { defineEntry } from '../define.js';

export const easeTorque = defineEntry({
  kind: 'ease-torque',
  name: 'Easing',
  says: 'Turning torque after a cap was eased.',
  body: object({ index: whole(0, 60), cap: key.allow(''), text: text(40), unit: torqueUnit, newtonMetre: figure(0, 5000) }),
  stands: 'case',
  slot: (b) => `ease:${b.index}`,
  tell: (b) => `${b.cap === '' ? 'as it came' : `${b.cap} eased`}: ${b.text} ${b.unit}`,
  admit: (b, at) => (at.layout ? torqueFault(b) : null),
  // In the order the caps were eased.
  ofCase: (all) => ({ easing: [...all].sort((a, b) => a.value.index - b.value.index) }),
});
