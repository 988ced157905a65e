import { dayNumber } from '../engineLog/trends.js';
import type { CalendarEvent } from '../kit/iCalendar.js';
import type { CountedCase } from './statistics.js';

/** An outcome that should be asked for. */
export interface AskedOutcome {
  readonly id: string;
  readonly number: string;
  readonly title: string;
  readonly due: string;
  readonly why: string;
}

/** Days after an engine was let go on which it is asked what became of it. Judgement: run in, half a year, a year, two. */
const ASKED_AFTER = [30, 180, 365, 730] as const;

/** Cases whose outcome is due to be asked for by a day: given back, and nothing heard since the last time it should have been asked. The longest due first. */
export function outcomesAsked(cases: readonly CountedCase[], today: string): AskedOutcome[] {
  const now = dayNumber(today);
  return cases
    .flatMap((c): AskedOutcome[] => {
      const { givenBack, outcome } = c.facts;
      if (!givenBack) return [];
      if (outcome && ['proved', 'disproved', 'scrapped', 'failed-again'].includes(outcome.outcome)) return [];
      const from = dayNumber(givenBack);
      const heard = outcome ? dayNumber(outcome.on) : from;
      const passed = ASKED_AFTER.filter((days) => from + days <= now && from + days > heard);
      const last = passed.at(-1);
      if (last === undefined) return [];
      const due = new Date((from + last) * 86_400_000).toISOString().slice(0, 10);
      const why = `given back on ${givenBack}; ${outcome ? `last heard of on ${outcome.on}` : 'nothing heard since'}`;
      return [{ id: c.id, number: c.number, title: c.title, due, why }];
    })
    .sort((a, b) => a.due.localeCompare(b.due));
}

/** Outcomes to be asked for, as days of a calendar. */
export const askedEvents = (asked: readonly AskedOutcome[]): CalendarEvent[] =>
  asked.map(({ id, number, title, due, why }) => ({
    id: `outcome-${id}-${due}`,
    start: due,
    summary: `${number} ${title}: ask what became of it`,
    description: why,
  }));
