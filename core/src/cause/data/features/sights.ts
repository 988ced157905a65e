import { NEUTRAL_SIGHTS, sightPatterns } from '../../../damage/sights.js';
import { PART_NAMES, type PartClass } from '../../../engine/stations.js';
import type { Feature } from '../../types.js';
import { MEASURED_FEATURES } from './measured.js';
import { SEEN_FEATURES } from './seen.js';
import { SPREAD_FEATURES } from './spread.js';
import { TOLD_FEATURES } from './told.js';

/** Chance that a pattern that is there is named by its neutral sight, by one who names no pattern. One figure for all; judgement. */
const SHOWS = 0.7;

/** Chance that a builder notes a neutral sight of a used engine that means nothing: an old scratch, a stain, a slack bush. Judgement. */
const MEANS_NOTHING = 0.2;

const byId = new Map([...SEEN_FEATURES, ...SPREAD_FEATURES, ...MEASURED_FEATURES, ...TOLD_FEATURES].map((f) => [f.id, f]));

/** Id of the feature that a neutral sight on a class of parts is. */
export function sightFeature(sight: string, part: PartClass): string {
  return `seen.${sight}.${part}`;
}

/**
 * A neutral sight on a part is a feature of its own: it is there where one of its patterns is there and is called so. Its links to causes are not stated but follow from those of its patterns
 * (`of`, `shows`), and so does its leak.
 */
export const SIGHT_FEATURES: readonly Feature[] = NEUTRAL_SIGHTS.flatMap((sight) =>
  (Object.keys(PART_NAMES) as PartClass[]).flatMap((part): Feature[] => {
    const of = [...new Set(sightPatterns(sight.id, part).map((p) => p.feature))].flatMap((id) => byId.get(id) ?? []);
    if (of.length === 0) return [];
    const needs = of.map((f) => f.needs ?? []).reduce((a, b) => a.filter((tag) => b.includes(tag)));
    return [
      {
        id: sightFeature(sight.id, part),
        name: `${sight.name}: ${PART_NAMES[part].toLowerCase()}`,
        kind: 'seen',
        leak: 1 - of.reduce((rest, f) => rest * (1 - SHOWS * f.leak), 1 - MEANS_NOTHING),
        leakReason: `may be ${of.map((f) => f.name.toLowerCase()).join(', ')}`,
        parts: [part],
        damage: of.every((f) => f.damage),
        needs,
        of: of.map((f) => f.id),
        shows: SHOWS,
        check: { step: `Say which pattern it is: ${of[0]!.check.step.toLowerCase()}`, minutes: of[0]!.check.minutes },
      },
    ];
  }),
);
