import type { EngineLayout } from '../../engine/layout.js';
import { PLACE_GROUPS, type PlaceGroup, type SheetPlace } from '../sheets/cells.js';
import { measureProgram } from './program.js';
import { benchOf } from './sheetOf.js';
import { memo } from '../../kit/memo.js';

/** What a hand goes round with one gauge: every place of one sheet. */
export interface Round {
  readonly id: string;
  readonly group: PlaceGroup;
  readonly name: string;
  readonly places: readonly SheetPlace[];
}

/** The program of an engine as rounds, groups in the order of the bench. */
export const roundsOf: (layout: EngineLayout) => readonly Round[] = memo('rounds of a layout', (layout: EngineLayout) => {
  const found = new Map<string, Round & { places: SheetPlace[] }>();
  for (const place of measureProgram(layout)) {
    const id = `${place.group}.${place.kind}`;
    const round = found.get(id);
    if (round) round.places.push(place);
    else found.set(id, { id, group: place.group, name: benchOf(place.kind).round, places: [place] });
  }
  const order = Object.keys(PLACE_GROUPS);
  return [...found.values()].sort((a, b) => order.indexOf(a.group) - order.indexOf(b.group));
});

/** The round a place belongs to. */
export function roundOf(layout: EngineLayout, place: SheetPlace): Round {
  return roundsOf(layout).find((r) => r.places.includes(place))!;
}
