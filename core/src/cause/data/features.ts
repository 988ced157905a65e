import type { Feature } from '../types.js';
import { MEASURED_FEATURES } from './features/measured.js';
import { SIGHT_FEATURES } from './features/sights.js';
import { SEEN_FEATURES } from './features/seen.js';
import { SPREAD_FEATURES } from './features/spread.js';
import { TOLD_FEATURES } from './features/told.js';

/** Everything that can be evidence. Leak = chance of finding it in a failed engine without any listed cause that produces it. */
export const FEATURES: readonly Feature[] = [...SEEN_FEATURES, ...SPREAD_FEATURES, ...MEASURED_FEATURES, ...TOLD_FEATURES];

/** Every feature and every neutral sight; the sights are asked for by nobody, since what they may be is. */
export const ALL_FEATURES: readonly Feature[] = [...FEATURES, ...SIGHT_FEATURES];

const byId = new Map(ALL_FEATURES.map((f) => [f.id, f]));

/** The record of an observation by its id; undefined for an id of another version. */
export function feature(id: string): Feature | undefined {
  return byId.get(id);
}
