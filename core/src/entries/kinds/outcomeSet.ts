import { cause } from '../../cause/data/causes.js';
import { day, figure, id, nullable, object, oneOf, text } from '../../kit/schema.js';
import { because, defineEntry, spoken } from '../define.js';

/** What became of an engine, and of what was held to be its cause. */
export const OUTCOMES = ['ran-on', 'failed-again', 'proved', 'disproved', 'scrapped'] as const;
/** Who or what told it. */
export const OUTCOME_SOURCES = ['owner', 'later-strip', 'test', 'laboratory', 'court'] as const;

export const outcomeSet = defineEntry({
  kind: 'outcome-set',
  name: 'Outcome',
  says: 'What became of it, on a day: it ran on, failed again, or the cause was proved or disproved, and by what. `cause`: what it was instead of a disproved one, where that is known. `service`: run since, in the counter of the engine. `cost`, `days`: what the work came to. Outcome null: taken back.',
  body: object({
    on: day,
    outcome: nullable(oneOf(OUTCOMES)),
    by: oneOf(OUTCOME_SOURCES),
    cause: nullable(id),
    service: nullable(figure(0, 10_000_000)),
    cost: nullable(figure(0, 100_000_000)),
    days: nullable(figure(0, 5000)),
    note: text(1000),
  }),
  stands: 'case',
  slot: (b) => `outcome:${b.on}:${b.by}`,
  tell: (b) =>
    b.outcome === null
      ? `of ${b.on}: taken back`
      : `${b.on}: ${spoken(b.outcome)}, by ${spoken(b.by)}${b.cause ? `; it was ${cause(b.cause)?.name ?? b.cause}` : ''}${because(b.note, '; ')}`,
  admit: (b) =>
    b.cause !== null && !cause(b.cause)
      ? { code: 'outcome-cause', sentence: `There is no cause "${b.cause}". Nothing was recorded.`, field: 'cause' }
      : null,
  ofCase: (all) => ({
    outcomes: all.filter((e) => e.value.outcome !== null).sort((a, b) => a.value.on.localeCompare(b.value.on)),
  }),
});
