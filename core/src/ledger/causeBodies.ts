import Joi from 'joi';
import { ANSWERABLE, type Answerable } from '../cause/types.js';
import { id, text } from './schemaParts.js';

export const ANSWER_STATES = ['open', 'planned', 'done', 'not-needed'] as const;
export type AnswerState = (typeof ANSWER_STATES)[number];

export const LINK_STATES = ['drawn', 'doubtful', 'rejected'] as const;
export type LinkState = (typeof LINK_STATES)[number];

export const SHELVED = ['in-hand', 'archived', 'withdrawn'] as const;

/** What the builder decides about causes, their order and their answers. */
export interface CauseBodies {
  'cause-decided': { cause: string; decision: 'confirmed' | 'rejected' | 'open'; reason: string };
  /** A link of the sequence of events, drawn or rejected by hand; ends are node ids of `proposeSequence`. */
  'sequence-link': { from: string; to: string; state: LinkState; reason: string };
  /** An event of the builder's own in the sequence. */
  'sequence-event': { event: string; text: string };
  /** Where a node of the sequence was put by hand. */
  'sequence-place': { node: string; x: number; y: number };
  /** How a corrective action or a collateral check of a confirmed cause stands. */
  'answer-set': { cause: string; part: 'action' | 'collateral'; item: string; state: AnswerState; note: string };
  /** A finding that no cause accounts for, accepted by name and with a reason. */
  'unexplained-set': { place: string; accepted: boolean; reason: string };
  'answerable-set': { who: Answerable; reason: string };
  /** The case is let go: refused while something stands in the way. */
  'case-released': { note: string };
  /** Where the case lies: in hand, put away, or withdrawn because it should not have been opened. */
  'case-shelved': { as: (typeof SHELVED)[number]; reason: string };
  /** Where builders disagree: the position this case goes by. */
  'school-set': { question: string; position: string; reason: string };
}

const node = Joi.string().pattern(/^[A-Za-z0-9._:@-]{1,70}$/);

export const CAUSE_SCHEMAS: Readonly<Record<keyof CauseBodies, Joi.ObjectSchema>> = {
  'cause-decided': Joi.object({
    cause: id.required(),
    decision: Joi.string().valid('confirmed', 'rejected', 'open').required(),
    reason: text(2000).required(),
  }),
  'sequence-link': Joi.object({
    from: node.required(),
    to: node.required().disallow(Joi.ref('from')),
    state: Joi.string()
      .valid(...LINK_STATES)
      .required(),
    reason: text(1000).required(),
  }),
  'sequence-event': Joi.object({ event: id.required(), text: text(200).required() }),
  'sequence-place': Joi.object({
    node: node.required(),
    x: Joi.number().min(-20_000).max(20_000).required(),
    y: Joi.number().min(-20_000).max(20_000).required(),
  }),
  'answer-set': Joi.object({
    cause: id.required(),
    part: Joi.string().valid('action', 'collateral').required(),
    item: text(120).required(),
    state: Joi.string()
      .valid(...ANSWER_STATES)
      .required(),
    note: text(1000).required(),
  }),
  'unexplained-set': Joi.object({ place: id.required(), accepted: Joi.boolean().required(), reason: text(1000).required() }),
  'answerable-set': Joi.object({
    who: Joi.string()
      .valid(...ANSWERABLE)
      .required(),
    reason: text(2000).required(),
  }),
  'case-released': Joi.object({ note: text(1000).required() }),
  'case-shelved': Joi.object({
    as: Joi.string()
      .valid(...SHELVED)
      .required(),
    reason: text(1000)
      .when('as', { is: 'withdrawn', then: Joi.string().invalid('').min(3) })
      .required(),
  }),
  'school-set': Joi.object({ question: id.required(), position: id.required(), reason: text(1000).required() }),
};

export const CAUSE_SLOTS: { readonly [K in keyof CauseBodies]: (body: CauseBodies[K]) => string } = {
  'cause-decided': (b) => `cause:${b.cause}`,
  'sequence-link': (b) => `link:${b.from}>${b.to}`,
  'sequence-event': (b) => `event:${b.event}`,
  'sequence-place': (b) => `place:${b.node}`,
  'answer-set': (b) => `answer:${b.cause}:${b.part}:${b.item}`,
  'unexplained-set': (b) => `unexplained:${b.place}`,
  'answerable-set': () => 'answerable',
  'case-released': () => 'released',
  'case-shelved': () => 'shelved',
  'school-set': (b) => `school:${b.question}`,
};
