import { standingLines, takenLogSchema } from '../../engineLog/lines.js';
import { nullable, object } from '../../kit/schema.js';
import { defineEntry } from '../define.js';

export const oilLogTaken = defineEntry({
  kind: 'oil-log-taken',
  name: 'Oil log',
  says: 'The log of this engine as it stood, taken over whole, so that what is written in it later changes nothing here. Log null: taken out again.',
  body: object({ log: nullable(takenLogSchema) }),
  stands: 'case',
  slot: () => 'oil-log',
  tell: ({ log }) => {
    if (log === null) return 'taken out';
    const lines = standingLines(log.lines);
    return `${log.engine.mark}, ${lines.length} line${lines.length === 1 ? '' : 's'}${lines.length > 0 ? ` from ${lines[0]!.day} to ${lines.at(-1)!.day}` : ''}`;
  },
  ofCase: (all) => ({ oilLog: all.find((e) => e.value.log !== null) }),
});
