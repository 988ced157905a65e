import { feature } from '../../cause/data/features.js';
import { flag, id, object, oneOf, optional, text } from '../../kit/schema.js';
import { because, defineEntry } from '../define.js';
import { RELIABILITIES } from './historyLine.js';

export const evidenceSet = defineEntry({
  kind: 'evidence-set',
  name: 'Looked for',
  says: 'A feature that was looked for by name, found or not there.',
  body: object({
    feature: id,
    present: flag,
    note: text(2000),
    /** How far it can be relied on; certain where it is absent. */
    reliability: optional(oneOf(RELIABILITIES)),
  }),
  stands: 'either',
  slot: (b) => `evidence:${b.feature}`,
  tell: (b) => `${feature(b.feature)?.name ?? b.feature}: ${b.present ? 'found' : 'not there'}${because(b.note, '; ')}`,
  ofCase: (all) => ({ evidence: all }),
});
