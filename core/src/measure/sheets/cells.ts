import type { Quantity } from '../../units/quantity.js';
import type { GaugeKind } from '../../units/gauge.js';
import type { Material } from './line.js';

/** What a reading is for a sheet: a gauge by role. */
export type GaugeRole =
  'micrometer' | 'bore' | 'wall' | 'indicator' | 'caliper' | 'feeler' | 'scale' | 'depth' | 'spring' | 'thermometer' | 'clock' | 'vacuum';

/** Kinds of gauge that can take a role, the usual first. */
export const ROLE_KINDS: Readonly<Record<GaugeRole, readonly GaugeKind[]>> = {
  micrometer: ['outside-micrometer', 'caliper'],
  bore: ['bore-gauge', 'caliper'],
  wall: ['outside-micrometer'],
  indicator: ['indicator'],
  caliper: ['caliper', 'outside-micrometer'],
  feeler: ['feeler'],
  scale: ['caliper', 'other'],
  depth: ['depth-gauge', 'indicator'],
  spring: ['other'],
  thermometer: ['other'],
  clock: ['other'],
  vacuum: ['other'],
};

/** One place where one figure is read. */
export interface Cell {
  readonly key: string;
  /** Where, in words: `front, axis A`. */
  readonly name: string;
  /** Short heads of row and column where the cells of a sheet make a table. */
  readonly row: string;
  readonly column: string;
  readonly quantity: Quantity;
  readonly role: GaugeRole;
  /** Size expected here, mm; without it only the neighbours and the bounds of sense speak. */
  readonly expectMm?: number;
  /** Bounds of sense: beyond them a figure is held and questioned. Canonical unit. */
  readonly sense?: readonly [number, number];
  /** Read only when more is wanted. */
  readonly optional?: boolean;
  /** Where on the part: plane and axis, depth below the deck, number of the main. */
  readonly item?: Readonly<Record<string, string | number>>;
}

/** A cell as a sheet writes it down: a length unless said otherwise, headed by its name. */
export function cell(c: Partial<Cell> & Pick<Cell, 'key' | 'name' | 'role'>): Cell {
  return { row: '', column: c.name, quantity: 'length', ...c };
}

/** Bounds of sense of a gap under a feeler, and of a play or height under an indicator, mm. */
export const GAP: readonly [number, number] = [0, 3];
/** Bounds of sense of a play or height under an indicator, mm. */
export const PLAY: readonly [number, number] = [-10, 10];

/** Key of the cell that holds the deepest mark of a journal or bore. */
export const DEEPEST_MARK = 'deepestMark';

/** What grinding or boring must get under; it is no reading of the sheet but sets the next size. */
export const deepestMark: Cell = cell({
  key: DEEPEST_MARK,
  name: 'deepest mark, by depth gauge',
  column: 'deepest mark',
  role: 'depth',
  sense: GAP,
  optional: true,
});

/** Temperature of the part, for the correction to 20 °C. */
export const thermometer: Cell = cell({
  key: 'temperatureC',
  name: 'temperature of the part',
  column: 'at °C',
  quantity: 'temperature',
  role: 'thermometer',
  sense: [-30, 120],
  optional: true,
});

/** Parts of the engine by which the bench goes round it. */
export type PlaceGroup = 'crank' | 'bearings' | 'cylinders' | 'rods' | 'head' | 'oil';
/** Groups of measuring places as they are called, in the order hands go. */
export const PLACE_GROUPS: Readonly<Record<PlaceGroup, string>> = {
  crank: 'Crank',
  bearings: 'Bearings',
  cylinders: 'Cylinders',
  rods: 'Rods',
  head: 'Head and cam',
  oil: 'Oil pump',
};

/** One sheet at one place of the engine. */
export interface SheetPlace {
  readonly id: string;
  /** Null: the engine as a whole. */
  readonly station: string | null;
  /** Name of the sheet at its station: `journal`, `ring.top`. */
  readonly sheet: string;
  /** Id of the sheet: a folder here. */
  readonly kind: string;
  readonly name: string;
  readonly short: string;
  readonly group: PlaceGroup;
  /** Which specification applies. */
  readonly spec: string;
  readonly cells: readonly Cell[];
  /** What the layout knows of the part and its sheet wants. */
  readonly fixed: { readonly material?: Material; readonly boreMm?: number };
  /** Cells without which the sheet computes nothing. */
  readonly needs: readonly string[];
}

/** Id of a sheet at a place: `crank.pin.1/journal`, `engine/crank-runout`. */
export const placeId = (station: string | null, sheet: string): string => `${station ?? 'engine'}/${sheet}`;
