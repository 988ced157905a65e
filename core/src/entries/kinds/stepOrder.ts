import { key, list, object } from '../../kit/schema.js';
import { defineEntry } from '../define.js';

export const stepOrder = defineEntry({
  kind: 'step-order',
  name: 'Order',
  says: 'The strip in an order of the builder’s own.',
  body: object({ order: list(key, 300) }),
  stands: 'case',
  slot: () => 'step-order',
  tell: (b) => `${b.order.length} steps in their own order`,
  ofCase: (all) => ({ stepOrder: all[0]?.value.order ?? [] }),
});
