import type { SheetSpec, SpecKey } from './program/specs.js';
import type { Quantity } from '../units/quantity.js';
import type { EngineLayout } from '../engine/layout.js';

/** A limit a spec sheet can give beyond the journals. */
export interface LimitQuantity {
  readonly id: string;
  readonly name: string;
  readonly quantity: Quantity;
  readonly side: 'lower' | 'upper' | 'both';
}

/** Every limit a spec sheet can give beyond those of the measuring sheets. */
export const LIMIT_QUANTITIES: readonly LimitQuantity[] = [
  { id: 'end-float', name: 'Crank end float', quantity: 'length', side: 'both' },
  { id: 'nose-play', name: 'Play at the crank nose', quantity: 'length', side: 'upper' },
  { id: 'compression', name: 'Compression, least', quantity: 'pressure', side: 'lower' },
  { id: 'oil-pressure.hot-idle', name: 'Oil pressure, hot at idle', quantity: 'pressure', side: 'lower' },
  { id: 'oil-pressure.hot-rated', name: 'Oil pressure, hot at rated speed', quantity: 'pressure', side: 'both' },
  { id: 'turning', name: 'Turning torque, whole', quantity: 'torque', side: 'upper' },
];

/** One limit of a spec sheet, in the canonical unit of its quantity. */
export interface SheetLimit {
  readonly quantity: string;
  /** Canonical unit of the quantity. */
  readonly lower: number | null;
  readonly upper: number | null;
  /** Unit it was typed in. */
  readonly unit: string;
}

/** A shop-wide record: an engine as it is laid out and its limits, with where they come from. Versions are kept; a case holds a copy. */
export interface SpecSheet {
  readonly id: string;
  readonly version: number;
  readonly name: string;
  readonly source: string;
  readonly layout: EngineLayout;
  /** Sizes and limits by kind of place. */
  readonly specs: Readonly<Partial<Record<SpecKey, SheetSpec>>>;
  readonly limits: readonly SheetLimit[];
  readonly by: string;
  readonly time: string;
}
