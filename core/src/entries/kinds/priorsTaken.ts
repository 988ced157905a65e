import { cause } from '../../cause/data/causes.js';
import { day, figure, name, nullable, object, record, whole } from '../../kit/schema.js';
import { defineEntry } from '../define.js';

export const priorsTaken = defineEntry({
  kind: 'priors-taken',
  name: 'Priors',
  says: 'How often the shop itself proved each cause, as factors on the odds of the table, as they stood on a day: every case keeps those it was judged with. Priors null: the table alone.',
  body: object({
    priors: nullable(
      object({
        /** Cases with a proven cause they come from, and of what kind of engine. */
        cases: whole(0, 1_000_000),
        ofFamily: whole(0, 1_000_000),
        family: name(80),
        on: day,
        factors: record(figure(0.001, 1000)).max(200),
      }),
    ),
  }),
  stands: 'case',
  slot: () => 'priors',
  tell: ({ priors }) => {
    if (priors === null) return 'the table alone';
    const most = Object.entries(priors.factors)
      .sort((a, b) => Math.abs(Math.log(b[1])) - Math.abs(Math.log(a[1])))
      .slice(0, 3);
    return `from ${priors.cases} cases up to ${priors.on}: ${most.map(([id, f]) => `${cause(id)?.name ?? id} × ${f.toFixed(2)}`).join(', ') || 'no change'}`;
  },
  admit: ({ priors }) => {
    const strange = Object.keys(priors?.factors ?? {}).find((id) => !cause(id));
    return strange === undefined
      ? null
      : { code: 'outcome-cause', sentence: `There is no cause "${strange}". Nothing was recorded.`, field: `priors.factors.${strange}` };
  },
  ofCase: (all) => ({ priors: all.find((e) => e.value.priors !== null) }),
});
