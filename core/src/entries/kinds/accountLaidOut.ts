import Joi from 'joi';
import { flag, object, oneOf, sha256, type Schema } from '../../kit/schema.js';
import { DETAILS, SECTION_IDS, TEMPLATE_IDS, type SectionId } from '../account.js';
import { defineEntry } from '../define.js';

const sections = Joi.array().items(oneOf(SECTION_IDS)).unique().max(SECTION_IDS.length) as unknown as Schema<readonly SectionId[]>;
const pictures = Joi.array().items(sha256).max(2000).unique() as Schema<readonly string[]>;

export const accountLaidOut = defineEntry({
  kind: 'account-laid-out',
  name: 'Report',
  says: 'How the account is laid out: template, order, what is left out.',
  body: object({
    template: oneOf(TEMPLATE_IDS),
    order: sections,
    left: sections,
    detail: oneOf(DETAILS),
    /** Pictures left out, by SHA-256; the others come in the order given, those not named after them. */
    picturesLeft: pictures,
    pictureOrder: pictures,
    marks: flag,
    insets: flag,
  }),
  stands: 'case',
  slot: () => 'account-layout',
  tell: (b) => `laid out for ${b.template}, ${b.detail}${b.left.length > 0 ? `, without ${b.left.join(', ')}` : ''}`,
  ofCase: (all) => ({ accountLayout: all[0]?.value }),
});
