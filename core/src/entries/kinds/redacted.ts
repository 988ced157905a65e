import { REDACTED, redactionSchema } from '../../ledger/state.js';
import { defineEntry } from '../define.js';

export const redacted = defineEntry({
  kind: REDACTED,
  name: 'Struck',
  says: 'The content of an entry was struck; its hash stays.',
  body: redactionSchema,
  stands: 'case',
  slot: (b) => `redacted:${b.target}`,
  tell: (b, nameOf) => `${nameOf(b.kind).toLowerCase()} struck: ${b.reason}`,
  byServer: true,
  stays: true,
});
