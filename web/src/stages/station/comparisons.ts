import { journalOf, neighbourOf, partnerOf, shellsOn, type EngineLayout, type Station } from '@true-ledger/core/engine';
import type { StationView } from '@true-ledger/core/case';

export interface Comparison {
  readonly view: StationView;
  readonly why: string;
}

/** What a place is compared with: its other half or side, what it runs on, its neighbours of the same kind. */
export function comparisons(layout: EngineLayout, station: Station, byId: ReadonlyMap<string, StationView>): Comparison[] {
  const found: Comparison[] = [];
  const add = (other: Station | undefined, why: string): void => {
    const view = other && byId.get(other.id);
    if (view && other.id !== station.id && !found.some((f) => f.view.station.id === other.id)) found.push({ view, why });
  };
  add(partnerOf(layout, station), station.half ? 'other half' : 'other side');
  if (station.part === 'shell') add(journalOf(layout, station), 'what it runs on');
  if (station.part === 'journal')
    for (const shell of shellsOn(layout, station)) add(shell, shell.half ? `${shell.half} half on it` : 'what runs on it');
  add(neighbourOf(layout, station, -1), 'neighbour to the front');
  add(neighbourOf(layout, station, 1), 'neighbour to the rear');
  return found;
}
