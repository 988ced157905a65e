import { line, matching, nullable, object, oneOf } from '../../kit/schema.js';
import { defineEntry } from '../define.js';

const WANTED_STATES = ['wanted', 'had', 'given-up'] as const;

export const partWanted = defineEntry({
  kind: 'part-wanted',
  name: 'Part wanted',
  says: 'A part that is to be had: `shelf` is the place it is taken from where the shop keeps one (`CASE/STATION`), `from` where else it came from.',
  body: object({
    what: line(200),
    state: oneOf(WANTED_STATES),
    from: line(120),
    shelf: nullable(matching(/^[0-9a-f-]{36}\/[A-Za-z0-9._:-]{1,80}$/)),
  }),
  stands: 'station',
  slot: () => 'wanted',
  tell: (b) => `${b.what}${b.state === 'had' ? `: had${b.from ? ` from ${b.from}` : ''}` : b.state === 'given-up' ? ': given up' : ''}`,
  ofStation: (all) => ({ wanted: all[0] }),
});
