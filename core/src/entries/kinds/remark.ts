import { id, object, text } from '../../kit/schema.js';
import { defineEntry } from '../define.js';

export const remark = defineEntry({
  kind: 'remark',
  name: 'Remark',
  says: 'Something in the builder’s own words.',
  body: object({ remark: id, text: text(4000) }),
  stands: 'either',
  slot: (b) => `remark:${b.remark}`,
  tell: (b) => b.text || '(emptied)',
  ofCase: (all) => ({ remarks: all }),
  ofStation: (all) => ({ remarks: all }),
});
