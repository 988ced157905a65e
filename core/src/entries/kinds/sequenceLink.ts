import Joi from 'joi';
import { object, oneOf, text } from '../../kit/schema.js';
import { because, defineEntry } from '../define.js';
import { nodeId, nodeWords } from '../sequenceNode.js';

const LINK_STATES = ['drawn', 'doubtful', 'rejected'] as const;
export type LinkState = (typeof LINK_STATES)[number];

export const sequenceLink = defineEntry({
  kind: 'sequence-link',
  name: 'Sequence',
  says: 'A link of the sequence of events, drawn or rejected by hand; ends are node ids of `proposeSequence`.',
  body: object({ from: nodeId, to: nodeId.disallow(Joi.ref('from')), state: oneOf(LINK_STATES), reason: text(1000) }),
  stands: 'case',
  slot: (b) => `link:${b.from}>${b.to}`,
  tell: (b) => `${nodeWords(b.from)} → ${nodeWords(b.to)} ${b.state}${because(b.reason)}`,
  ofCase: (all) => ({ sequenceLinks: all }),
});
