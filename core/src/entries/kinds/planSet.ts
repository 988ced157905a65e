import Joi from 'joi';
import { day, figure, nullable, object, oneOf, whole, type Schema } from '../../kit/schema.js';
import { ROUTE_IDS } from '../../workshop/routeIds.js';
import { defineEntry } from '../define.js';

export const planSet = defineEntry({
  kind: 'plan-set',
  name: 'Plan',
  says: 'The route chosen, the calendar, the deadline and the client’s budget.',
  body: object({
    route: nullable(oneOf(ROUTE_IDS)),
    /** ISO date; null: none. */
    deadline: nullable(day),
    from: day,
    hoursPerDay: figure(0.5, 24),
    /** ISO weekdays, 1 Monday to 7 Sunday. */
    workdays: Joi.array().items(whole(1, 7)).unique().min(1).max(7) as Schema<readonly number[]>,
    /** In the currency of the book; null: none stated. */
    budget: nullable(figure(0, 1e8)),
  }),
  stands: 'case',
  slot: () => 'plan',
  tell: (b) => `${b.route ?? 'no route'}, from ${b.from}${b.deadline ? `, deadline ${b.deadline}` : ''}, ${b.hoursPerDay} h a day`,
  ofCase: (all) => ({ plan: all[0]?.value ?? null }),
});
