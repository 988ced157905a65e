import { object, oneOf } from '../../kit/schema.js';
import { defineEntry, spoken } from '../define.js';

export const STATION_STATES = ['not-examined', 'sound', 'findings', 'before-us', 'lost', 'not-present'] as const;
export type StationState = (typeof STATION_STATES)[number];

export const stateSet = defineEntry({
  kind: 'state-set',
  name: 'State',
  says: 'How a place stands: examined, lost, gone before us, not present.',
  body: object({ state: oneOf(STATION_STATES) }),
  stands: 'station',
  slot: () => 'state',
  tell: (b) => spoken(b.state),
  ofStation: (all) => ({ stated: all[0] }),
});
