import type { CaseView } from '../../case/views.js';
import { pattern } from '../../damage/patterns.js';
import { linksOf, type RankedCause } from '../diagnose.js';
import { liesBeyond, reachOf, type Candidate } from '../findingLinks.js';
import { cause as causeOf } from '../../cause/data/causes.js';
import { STRENGTH } from '../../cause/types.js';
import type { SequenceNode } from './types.js';

/** Link from an origin to a finding that its kind produces, weaker where the finding lies away from its place. */
export function originLink(view: CaseView, origin: RankedCause, to: SequenceNode): Candidate | null {
  const record = causeOf(origin.id);
  const p = to.pattern ? pattern(to.pattern) : undefined;
  if (!record || !p) return null;
  const link = linksOf(record).get(p.feature);
  if (!link || link.prevents) return null;
  const place = origin.places[0];
  const away = record.place && place && place.probability > 0.5 && !atPlace(view, place.place, to);
  return {
    from: `cause:${origin.id}`,
    to: to.id,
    strength: STRENGTH[link.strength] * (away ? 0.3 : 1) * (to.when === 'last turn' ? 0.3 : 1),
    why: `${link.strength}: ${link.reason}`,
  };
}

function atPlace(view: CaseView, place: string, node: SequenceNode): boolean {
  const reach = reachOf(view, node);
  const [kind, number] = place.split('.');
  if (kind === 'cylinder') return reach.cylinders.has(Number(number)) || reach.shared;
  return reach.stems.has(place) || reach.shared || liesBeyond(view.layout, new Set([place]), reach.stems);
}
