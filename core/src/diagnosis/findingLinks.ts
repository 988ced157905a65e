import type { CaseView } from '../case/views.js';
import { pattern, tells } from '../damage/patterns.js';
import type { EngineLayout } from '../engine/layout.js';
import { fedBy, oilRoute } from '../engine/oilRoute.js';
import { SHARED_PARTS, stationOf } from '../engine/stations.js';

/** A pattern at the places where it was found. */
export interface PlacedPattern {
  readonly id: string;
  readonly pattern: string | null;
  readonly stations: readonly string[];
}

/** How readily a finding leads to one the catalogue links it to, at the same place. */
const LEADS = 0.95;
export interface Candidate {
  readonly from: string;
  readonly to: string;
  readonly strength: number;
  /** What it counts for in finding the way, where that is less than its strength. */
  readonly pull?: number;
  readonly why: string;
}

/** Stems, cylinders and shared parts a node touches. */
export function reachOf(view: CaseView, node: PlacedPattern): { stems: Set<string>; cylinders: Set<number>; shared: boolean } {
  const stems = new Set<string>();
  const cylinders = new Set<number>();
  let shared = false;
  for (const id of node.stations) {
    const station = stationOf(view.layout, id);
    if (!station) continue;
    if (station.bearing) stems.add(station.bearing);
    if (station.cylinder > 0) cylinders.add(station.cylinder);
    if (SHARED_PARTS.includes(station.part)) shared = true;
  }
  return { stems, cylinders, shared };
}

/** Does any of `to` lie on the route behind one of `from`? */
export function liesBeyond(layout: EngineLayout, from: ReadonlySet<string>, to: ReadonlySet<string>): boolean {
  const route = oilRoute(layout);
  return [...from].some((stem) => fedBy(route, stem).some((fed) => to.has(fed)));
}

/** Links the catalogue permits between two findings at the places where they are. */
export function findingLink(view: CaseView, from: PlacedPattern, to: PlacedPattern): Candidate | null {
  const a = from.pattern ? pattern(from.pattern) : undefined;
  const b = to.pattern ? pattern(to.pattern) : undefined;
  if (!a || !b || from.id === to.id || a.when === 'last turn' || b.when === 'first') return null;
  if (!a.starvesBeyond && !a.leadsTo.includes(b.id)) return null;
  const here = reachOf(view, from);
  const there = reachOf(view, to);
  const sameBearing = [...here.stems].some((s) => there.stems.has(s));
  const sameCylinder = [...here.cylinders].some((c) => there.cylinders.has(c));
  if (a.starvesBeyond && tells(b.id, 'of starving') && liesBeyond(view.layout, here.stems, there.stems))
    return { from: from.id, to: to.id, strength: 0.9, why: `${a.name} shuts the feed of what lies beyond it` };
  if (!a.leadsTo.includes(b.id)) return null;
  const why = `${a.name} leads to ${b.name.toLowerCase()}`;
  if (sameBearing) return { from: from.id, to: to.id, strength: LEADS, why: `${why}, at the same bearing` };
  if (sameCylinder) return { from: from.id, to: to.id, strength: 0.9, why: `${why}, in the same cylinder` };
  if (tells(b.id, 'carried')) return { from: from.id, to: to.id, strength: 0.85, why: `${why}; the oil carries it` };
  if (here.shared || there.shared) return { from: from.id, to: to.id, strength: 0.8, why: `${why}; the whole engine shares the part` };
  return null;
}
