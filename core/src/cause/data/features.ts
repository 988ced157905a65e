import type { Feature } from '../types.js';
import { LIKENED_FEATURES } from './features/likened.js';
import { MEASURED_FEATURES } from './features/measured.js';
import { SIGHT_FEATURES } from './features/sights.js';
import { SEEN_FEATURES } from './features/seen.js';
import { SPREAD_FEATURES } from './features/spread.js';
import { TOLD_FEATURES } from './features/told.js';

/** Everything that can be evidence. Leak = chance of finding it in a failed engine without any listed cause that produces it. */
export const FEATURES: readonly Feature[] = [
  ...SEEN_FEATURES,
  ...SPREAD_FEATURES,
  ...MEASURED_FEATURES,
  ...LIKENED_FEATURES,
  ...TOLD_FEATURES,
];

/** What any engine comes to show with hours and years, whatever ailed it: how common it is by itself grows with its service. */
export const COMES_WITH_AGE: ReadonlySet<string> = new Set([
  'seen.long-wear',
  'seen.skirt-print',
  'seen.ring-ridge',
  'seen.hatch-gone-top',
  'seen.bore-glaze',
  'seen.rings-stuck',
  'seen.ring-edge-lost',
  'seen.rust',
  'seen.lacquer',
  'seen.port-deposits',
  'seen.guide-leak',
  'seen.pushrod-worn',
  'seen.retainer-worn',
  'seen.follower-pitted',
  'seen.chain-stretched',
  'seen.pump-scored',
  'seen.gallery-sludge',
  'seen.damper-failed',
  'seen.coupling-worked',
  'fluid.black-sludge',
  'told.uses-oil',
  'measured.clearance-high',
  'measured.bore-worn',
  'measured.journal-worn',
]);

/** How much commoner it is by itself, in odds, against an engine of middling service. Judgement. */
export const AGE_ODDS = { fresh: 0.4, middling: 1, old: 2.5 } as const;

/** Every feature and every neutral sight; the sights are asked for by nobody, since what they may be is. */
export const ALL_FEATURES: readonly Feature[] = [...FEATURES, ...SIGHT_FEATURES];

const byId = new Map(ALL_FEATURES.map((f) => [f.id, f]));

/** The record of an observation by its id; undefined for an id of another version. */
export function feature(id: string): Feature | undefined {
  return byId.get(id);
}
