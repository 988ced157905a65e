import Joi from 'joi';
import { object, oneOf, sha256, text, whole, type Schema } from '../../kit/schema.js';
import { SECTION_IDS, TEMPLATE_IDS, type SectionId } from '../account.js';
import { because, defineEntry } from '../define.js';

export const accountSigned = defineEntry({
  kind: 'account-signed',
  name: 'Signed',
  says: 'A signed version of the account, bound to its PDF and to the ledger it was made from.',
  body: object({
    version: whole(1, 999),
    reason: text(2000),
    template: oneOf(TEMPLATE_IDS),
    sha256,
    bytes: whole(1, Number.MAX_SAFE_INTEGER),
    /** Ledger it was made from. */
    head: sha256,
    entries: whole(1, Number.MAX_SAFE_INTEGER),
    /** SHA-256 of every section's canonical JSON: what changed between versions. */
    sections: Joi.object().pattern(Joi.string().valid(...SECTION_IDS), sha256) as unknown as Schema<
      Readonly<Partial<Record<SectionId, string>>>
    >,
    /** Sentences signed although they say what the figures do not. */
    flags: whole(0, Number.MAX_SAFE_INTEGER),
  }),
  stands: 'case',
  slot: (b) => `signed:${b.version}`,
  tell: (b) => `version ${b.version}${because(b.reason)}, PDF ${b.sha256.slice(0, 8)}`,
  byServer: true,
  stays: true,
  ofCase: (all) => ({ signed: all }),
});
