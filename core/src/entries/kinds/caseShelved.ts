import Joi from 'joi';
import { object, oneOf, text } from '../../kit/schema.js';
import { because, defineEntry, ours, spoken } from '../define.js';

const SHELVED = ['in-hand', 'archived', 'withdrawn'] as const;

export const caseShelved = defineEntry({
  kind: 'case-shelved',
  name: 'Put away',
  says: 'Where the case lies: in hand, put away, or withdrawn because it should not have been opened.',
  body: object({
    as: oneOf(SHELVED),
    reason: text(1000).when('as', { is: 'withdrawn', then: Joi.string().invalid('').min(3) }),
  }),
  stands: 'case',
  slot: () => 'shelved',
  tell: (b) => `${spoken(b.as)}${because(b.reason)}`,
  ofCase: (all) => ({ shelved: ours(all[0]) }),
});
