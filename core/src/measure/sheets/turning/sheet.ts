import { list, name, number, object, oneOrOther, optional } from '../../../kit/schema.js';
import { turningResult } from '../../../opening/results.js';
import { easingResult } from '../../../strip/easing.js';
import { defineSheet, raw } from '../define.js';
import type { SheetLine } from '../line.js';

/** Torque that turns the crank round, whole and with each cap eased. */
export const turning = defineSheet({
  id: 'turning',
  name: 'Turning torque',
  says: '`ahead`, `back`: N·m round one turn; `eased`: list of `cap`, `value`, each cap eased in turn and left so',
  file: object({
    ahead: list(raw, 72).min(1),
    back: optional(list(raw, 72)),
    eased: optional(list(object({ cap: oneOrOther(name(40), number), value: raw }), 40).unique('cap')),
  }),
  read: (given, reader) => {
    const torques = (list: readonly unknown[] | undefined, what: string): Array<number | null> =>
      (list ?? []).map((v, i) => reader.quantity(v, 'torque', `readings.${what}.${i}`));
    return {
      ahead: torques(given.ahead, 'ahead'),
      back: torques(given.back, 'back'),
      eased: reader.each(
        given.eased,
        (e, i) => reader.quantity(e.value, 'torque', `readings.eased.${i}.value`),
        (e, newtonMetre) => ({ cap: String(e.cap), newtonMetre }),
      ),
    };
  },
  compute: ({ ahead, back, eased }) => {
    const t = turningResult(ahead, back);
    const whole = ahead.filter((v): v is number => v !== null);
    const mean = whole.reduce((sum, v) => sum + v, 0) / whole.length;
    const easing = easingResult([...(whole.length > 0 ? [{ cap: '', newtonMetre: mean }] : []), ...eased]);
    const median = (id: string, name: string, value: number | null = null): SheetLine[] =>
      value === null ? [] : [{ id, name, value, unit: 'N·m', expanded: null, at: '' }];
    return {
      lines: [
        ...median('ahead', 'Median ahead', t?.medianAhead),
        ...median('back', 'Median back', t?.medianBack),
        ...(easing?.drops ?? []).map((d) => ({
          id: `drop.${d.cap}`,
          name: `Drop, ${d.cap} eased`,
          value: d.drop,
          unit: 'N·m' as const,
          expanded: null,
          at: `${d.before.toFixed(1)} to ${d.after.toFixed(1)} N·m`,
        })),
      ],
      missing: t ? [] : ['three readings round the turn'],
      says: [...(t ? [`${t.words}.`] : []), ...(easing ? [`Caps: ${easing.words}.`] : [])],
    };
  },
});
