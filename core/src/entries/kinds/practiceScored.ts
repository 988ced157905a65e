import { cause } from '../../cause/data/causes.js';
import { figure, flag, id, list, name, nullable, object, oneOf, text, whole, type Held } from '../../kit/schema.js';
import { defineEntry } from '../define.js';

const proper = object({ log: figure(0, 100), brier: figure(0, 100) });

/** What an apprentice's case came to beside the truth. */
const practiceScoreSchema = object({
  /** Causes that are in the engine, what was held of each and what the evidence in the case carried, 0 to 1. */
  causes: list(object({ cause: id, place: nullable(id), held: figure(0, 1), carried: figure(0, 1) }), 10),
  /** The cause held likeliest is in the engine; of an engine without one, none was held likelier than not. */
  right: flag,
  /** Scores of what was held and of what the evidence carried: 0 is best. */
  own: proper,
  evidence: proper,
  minutes: whole(0, 100_000),
  /** Places with damage, or said to have some: what was there and how far gone, what was named and graded. */
  parts: list(object({ station: id, there: list(id, 40), grade: whole(0, 4), named: list(id, 100), graded: nullable(whole(0, 4)) }), 600),
  /** What was so of a cause that is in it and never came into the case, the most telling first. */
  missed: list(object({ feature: id, look: text(200), how: oneOf(['never looked at', 'passed over', 'seen and not named']) }), 40),
  /** The look that was not had and would have told most a minute. */
  best: nullable(object({ look: id, name: text(200), minutes: whole(0, 600), bits: figure(0, 100) })),
  /** What the owner said, or held, that was not so. */
  untrue: list(id, 200),
  cost: object({
    currency: name(3),
    bench: figure(0, 1e9),
    /** An exchange engine, when it comes back. */
    again: figure(0, 1e9),
    goneBack: list(id, 600),
    goodAway: list(id, 600),
  }),
});
export type PracticeScore = Held<typeof practiceScoreSchema>;

export const practiceScored = defineEntry({
  kind: 'practice-scored',
  name: 'Opened',
  says: 'The truth of a practice engine was opened: what was answered, the seed, and how the case compares. The examination sheet.',
  body: object({
    level: whole(1, 10),
    seed: whole(0, 2_147_483_647),
    version: whole(1, 999),
    answer: list(object({ cause: id, percent: whole(0, 100) }), 10),
    score: practiceScoreSchema,
  }),
  stands: 'case',
  slot: () => 'practice-scored',
  tell: ({ score, answer }) =>
    `${score.right ? 'right' : 'not right'}: ${answer.map((a) => `${cause(a.cause)?.name ?? a.cause} ${a.percent} %`).join(', ') || 'none named'}; it was ${score.causes.map((c) => cause(c.cause)?.name ?? c.cause).join(', ') || 'nothing'}; ${score.minutes} min`,
  byServer: true,
  stays: true,
  ofCase: (all) => ({ practiceScored: all[0] }),
});
