import { figure, id, object, oneOf, text, matching } from '../../kit/schema.js';
import { ROUTE_IDS } from '../../workshop/routeIds.js';
import { defineEntry } from '../define.js';

export const quoteSent = defineEntry({
  kind: 'quote-sent',
  name: 'Quote',
  says: 'What was promised: P50 and P90 of cost and days, as they stood when it was sent.',
  body: object({
    quote: id,
    route: oneOf(ROUTE_IDS),
    currency: matching(/^[A-Z]{3}$/),
    cost: figure(0, 1e9),
    costHigh: figure(0, 1e9),
    days: figure(0, 5000),
    daysHigh: figure(0, 5000),
    note: text(1000),
  }),
  stands: 'case',
  slot: (b) => `quote:${b.quote}`,
  tell: (b) =>
    `${b.route}: ${b.cost.toFixed(0)} to ${b.costHigh.toFixed(0)} ${b.currency}, ${b.days.toFixed(0)} to ${b.daysHigh.toFixed(0)} days`,
  ofCase: (all) => ({ quotes: all }),
});
