import { object, oneOf, type Schema } from '../../kit/schema.js';
import { sheetSpecSchema, SPEC_KEYS, SPEC_KINDS, type SheetSpec, type SpecKey } from '../../measure/program/specs.js';
import { specWords } from '../../measure/program/specText.js';
import { defineEntry } from '../define.js';

export const specSet = defineEntry({
  kind: 'spec-set',
  name: 'Specification',
  says: 'The specification of a sheet, as the case goes by it.',
  body: object({ quantity: oneOf(SPEC_KEYS), spec: sheetSpecSchema as unknown as Schema<SheetSpec> }),
  stands: 'case',
  slot: (b) => `spec:${b.quantity}`,
  tell: (b) => `${SPEC_KINDS[b.quantity].name}: ${specWords(b.quantity, b.spec)}`,
  ofCase: (all) => ({
    specs: Object.fromEntries(all.map((s) => [s.value.quantity, s])) as Readonly<Partial<Record<SpecKey, (typeof all)[number]>>>,
  }),
});
