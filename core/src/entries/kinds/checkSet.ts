import { key, list, nullable, number, object, text, name } from '../../kit/schema.js';
import { openingCheck } from '../../opening/checks.js';
import { readAnswer } from '../../opening/record.js';
import { by, defineEntry, follows, mismatch } from '../define.js';

export const checkSet = defineEntry({
  kind: 'check-set',
  name: 'Check',
  says: 'An answer of a check before opening, as typed or chosen.',
  body: object({
    check: key,
    field: key,
    text: text(1000),
    chosen: list(name(40), 20),
    value: nullable(number),
    unit: nullable(text(12)),
  }),
  stands: 'case',
  slot: (b) => `check:${b.check}:${b.field}`,
  tell: (b) =>
    `${openingCheck(b.check)?.name ?? b.check}, ${b.field}: ${b.text || '(emptied)'}${b.value !== null && b.unit && !/[a-z%"″]/i.test(b.text) ? ` ${b.unit}` : ''}`,
  admit: (b, at) => {
    if (!at.layout) return null;
    const read = readAnswer(at.layout, b.check, b.field, b.chosen.length > 0 ? b.chosen : b.text, b.unit ?? undefined);
    if (!read.ok) return read.problem;
    return follows(read.value.value, b.value) ? null : mismatch(b.text);
  },
  ofCase: (all) => ({ checks: by(all, (b) => `${b.check}:${b.field}`) }),
});
