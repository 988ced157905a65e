import type { EngineLayout } from '../../engine/layout.js';
import { PLACE_GROUPS, type PlaceGroup, type SheetPlace } from './cells.js';
import { measureProgram } from './program.js';

/** What a hand goes round with one gauge: every place of one sheet. */
export interface Round {
  readonly id: string;
  readonly group: PlaceGroup;
  readonly name: string;
  readonly places: readonly SheetPlace[];
}

const ROUND_NAMES: Readonly<Record<string, string>> = {
  journal: 'Journals',
  'crank-runout': 'Runout',
  'end-float': 'End float',
  'shell-clearance': 'Clearance by gauges',
  'crushed-strip': 'Clearance by strip',
  'shell-fit': 'Shell fit',
  housing: 'Housing bores',
  'main-line': 'Main line',
  bore: 'Bores',
  piston: 'Pistons',
  ring: 'Rings',
  rod: 'Bend and twist',
  'side-clearance': 'Side clearance',
  flatness: 'Flatness',
  cam: 'Camshaft',
  'valve-seat': 'Valve seats',
  'oil-pump': 'Pump and relief',
};

const cache = new WeakMap<EngineLayout, Round[]>();

/** The program of an engine as rounds, groups in the order of the bench. */
export function roundsOf(layout: EngineLayout): Round[] {
  const known = cache.get(layout);
  if (known) return known;
  const found = new Map<string, Round & { places: SheetPlace[] }>();
  for (const place of measureProgram(layout)) {
    const id = `${place.group}.${place.kind}`;
    const round = found.get(id);
    if (round) round.places.push(place);
    else found.set(id, { id, group: place.group, name: ROUND_NAMES[place.kind] ?? place.kind, places: [place] });
  }
  const order = Object.keys(PLACE_GROUPS);
  const rounds = [...found.values()].sort((a, b) => order.indexOf(a.group) - order.indexOf(b.group));
  cache.set(layout, rounds);
  return rounds;
}

export function roundOf(layout: EngineLayout, place: SheetPlace): Round {
  return roundsOf(layout).find((r) => r.places.includes(place))!;
}
