import { list, name, number, object, oneOrOther } from '../../../kit/schema.js';
import { fastenerResult } from '../../../strip/fasteners.js';
import { defineSheet, raw } from '../define.js';

/** Break-loose torques of one pattern of fasteners. */
export const fasteners = defineSheet({
  id: 'fasteners',
  name: 'Break-loose torque',
  says: 'list of `position`, `pair`, `value` (N·m)',
  file: list(object({ position: oneOrOther(name(20), number), pair: oneOrOther(name(20), number), value: raw }), 2000)
    .min(2)
    .unique('position'),
  read: (given, reader) => ({
    pattern: {
      id: 'file',
      name: '',
      widthMm: 0,
      heightMm: 0,
      easing: [],
      positions: given.map((t) => ({ id: String(t.position), pair: String(t.pair), x: 0, y: 0 })),
    },
    torques: reader.each(
      given,
      (t, i) => reader.quantity(t.value, 'torque', `readings.${i}.value`),
      (t, newtonMetre) => ({ position: String(t.position), newtonMetre }),
    ),
  }),
  compute: ({ pattern, torques }) => {
    const f = fastenerResult(pattern, torques);
    if (!f) return { lines: [], missing: ['two torques at least'] };
    return {
      lines: [
        { id: 'least', name: 'Least', value: f.least, unit: 'N·m', expanded: null, at: '' },
        { id: 'greatest', name: 'Greatest', value: f.most, unit: 'N·m', expanded: null, at: '' },
        { id: 'spread', name: 'Spread', value: f.spreadPercent, unit: '%', expanded: null, at: 'of the mean' },
      ],
      says:
        f.uneven.length > 0
          ? f.uneven.map((u) => `${u.positions.join(' against ')}: ${u.percent.toFixed(0)} % apart (rule of thumb: 30 %).`)
          : ['No pair is more than 30 % apart (rule of thumb).'],
    };
  },
});
