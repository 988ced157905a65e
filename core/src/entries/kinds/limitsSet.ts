import { key, list, nullable, number, object, text, whole, name } from '../../kit/schema.js';
import { defineEntry } from '../define.js';

export const limitsSet = defineEntry({
  kind: 'limits-set',
  name: 'Limits',
  says: 'Limits of the checks before opening, copied from a spec sheet of the shop.',
  body: object({
    sheet: nullable(object({ id: name(60), version: whole(1, Number.MAX_SAFE_INTEGER), name: text(120), source: text(200) })),
    limits: list(object({ quantity: key, lower: nullable(number), upper: nullable(number), unit: text(12) }), 60),
  }),
  stands: 'case',
  slot: () => 'limits',
  tell: (b) => `${b.limits.length} limits${b.sheet ? ` from ${b.sheet.name}, version ${b.sheet.version}` : ''}`,
  ofCase: (all) => ({ limits: all[0] }),
});
