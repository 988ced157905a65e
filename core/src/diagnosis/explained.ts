import type { CaseView } from '../case/views.js';
import { pattern, tells } from '../damage/patterns.js';
import { SIGHT_FEATURES } from '../cause/data/features/sights.js';
import { findingLink } from './findingLinks.js';

/**
 * For every feature that was found: the chance that other damage that was found brought it about (`bringsAbout` at full strength of place), by the links of the catalogue under the rules of place
 * of the order of events (same bearing, same cylinder, carried by the oil, shared part). What is explained so counts neither for nor against an origin twice:
 * P(f | S) = 1 − (1 − e)(1 − leak · Π(1 − v)) Π(1 − w). Damage in between that was not seen is part of the links from origin to feature already.
 */
export function explainedFeatures(view: CaseView, bringsAbout: number): ReadonlyMap<string, number> {
  const places = new Map<string, string[]>();
  for (const s of view.stations)
    for (const p of s.patterns)
      if (p.value.present && pattern(p.value.pattern)) places.set(p.value.pattern, [...(places.get(p.value.pattern) ?? []), s.station.id]);
  for (const { value: x } of view.sights)
    if (x.present && pattern(x.sight)) places.set(x.sight, [...(places.get(x.sight) ?? []), ...x.among]);
  const nodes = [...places].map(([id, stations]) => ({ id, pattern: id, stations }));
  const left = new Map<string, number>();
  for (const to of nodes) {
    const feature = pattern(to.pattern)!.feature;
    for (const from of nodes) {
      if (pattern(from.pattern)!.feature === feature || tells(from.pattern, 'harmless')) continue;
      const link = findingLink(view, from, to);
      if (link) left.set(feature, (left.get(feature) ?? 1) * (1 - bringsAbout * link.strength));
    }
  }
  const explained = new Map([...left].map(([feature, rest]) => [feature, 1 - rest]));
  // A neutral sight is explained by what explains one of its patterns.
  for (const f of SIGHT_FEATURES) {
    const rest = (f.of ?? []).reduce((product, child) => product * (1 - (explained.get(child) ?? 0)), 1);
    if (rest < 1) explained.set(f.id, 1 - rest);
  }
  return explained;
}
