import type { Quantity } from '../../units/quantity.js';
import type { GaugeKind } from '../../units/gauge.js';

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
  /** Where the figure goes in the readings of the sheet: a field, or a field of an item of a list (`''` is the readings themselves). */
  readonly field: string;
  readonly list?: string;
  readonly item?: Readonly<Record<string, string | number>>;
}

/** Key of the cell that holds the deepest mark of a journal or bore. */
export const DEEPEST_MARK = 'deepestMark';

export type PlaceGroup = 'crank' | 'bearings' | 'cylinders' | 'rods' | 'head' | 'oil';
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
  /** Id of the sheet in `SHEETS`. */
  readonly kind: string;
  readonly name: string;
  readonly short: string;
  readonly group: PlaceGroup;
  /** Which specification applies. */
  readonly spec: string;
  readonly cells: readonly Cell[];
  /** What the layout knows already and the sheet wants. */
  readonly fixed: Readonly<Record<string, unknown>>;
  /** Cells without which the sheet computes nothing. */
  readonly needs: readonly string[];
  /** Fields an item of a list must have to count. */
  readonly complete: readonly string[];
}

export const placeId = (station: string | null, sheet: string): string => `${station ?? 'engine'}/${sheet}`;
