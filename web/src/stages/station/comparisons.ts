import { cylinderPlaces, pinNumber, type EngineLayout, type Station, type StationView } from '@true-ledger/core';

export interface Comparison {
  readonly view: StationView;
  readonly why: string;
}

/** What a place is compared with: its other half or side, what it runs on, its neighbours of the same kind. */
export function comparisons(layout: EngineLayout, station: Station, byId: ReadonlyMap<string, StationView>): Comparison[] {
  const found: Comparison[] = [];
  const add = (id: string, why: string): void => {
    const view = byId.get(id);
    if (view && id !== station.id && !found.some((f) => f.view.station.id === id)) found.push({ view, why });
  };
  const { id } = station;
  if (id.endsWith('.upper')) add(id.replace(/upper$/, 'lower'), 'other half');
  if (id.endsWith('.lower')) add(id.replace(/lower$/, 'upper'), 'other half');
  if (id.endsWith('.thrust')) add(id.replace(/thrust$/, 'antithrust'), 'other side');
  if (id.endsWith('.antithrust')) add(id.replace(/antithrust$/, 'thrust'), 'other side');
  const pin = cylinderPlaces(layout).find((p) => p.cylinder === station.cylinder);
  if (station.part === 'shell')
    add(id.startsWith('main') ? `crank.main.${station.number}` : pin ? `crank.pin.${pinNumber(layout, pin)}` : '', 'what it runs on');
  if (station.part === 'journal') {
    const stem = id.startsWith('crank.main') ? `main.${station.number}` : `rod.${station.cylinder}`;
    add(`${stem}.shell.upper`, 'upper half on it');
    add(`${stem}.shell.lower`, 'lower half on it');
  }
  for (const step of [-1, 1]) {
    const neighbour = id.replace(/\.(\d+)(?=\.|$)/, (_, n: string) => `.${Number(n) + step}`);
    add(neighbour, step < 0 ? 'neighbour to the front' : 'neighbour to the rear');
  }
  return found;
}
