import { cylinderPlaces, pinNumber, type EngineLayout } from '../../engine/layout.js';
import { cell, type Cell, type GaugeRole } from './cells.js';

/** Directions a housing is read in. */
export const HOUSING_DIRECTIONS = ['vertical', 'left', 'right'] as const;
const WORDS = { vertical: 'along the bolts', left: '60° to the left', right: '60° to the right' } as const;

/** A bearing of mains or rods as its sheets meet it. */
export interface Bearing {
  readonly part: 'main' | 'rod';
  /** Number of the main or of the cylinder. */
  readonly number: number;
  /** `Main 1`, `Rod 3`. */
  readonly name: string;
  readonly upper: string;
  readonly lower: string;
  /** Station of its journal. */
  readonly journal: string;
  readonly journalMm: number;
  /** When hands come to it: mains from the front, then rods. */
  readonly turn: number;
}

/** Every bearing that has shells. */
export function shellBearings(layout: EngineLayout, has: (station: string) => boolean): Bearing[] {
  const bearing = (part: 'main' | 'rod', number: number, journal: string, journalMm: number, turn: number): Bearing => ({
    part,
    number,
    name: `${part === 'main' ? 'Main' : 'Rod'} ${number}`,
    upper: `${part}.${number}.shell.upper`,
    lower: `${part}.${number}.shell.lower`,
    journal,
    journalMm,
    turn,
  });
  return [
    ...Array.from({ length: layout.mains }, (_, i) => bearing('main', i + 1, `crank.main.${i + 1}`, layout.mainDiameterMm, i)),
    ...cylinderPlaces(layout).map((p, i) =>
      bearing('rod', p.cylinder, `crank.pin.${pinNumber(layout, p)}`, layout.pinDiameterMm, layout.mains + i),
    ),
  ].filter((b) => has(b.lower));
}

/** The cells of a torqued housing; `key` and `column` say how the sheet calls a direction. */
export function housingCells(
  journalMm: number,
  of: (direction: string) => Partial<Cell> & { readonly key: string; readonly column: string },
): Cell[] {
  const role: GaugeRole = 'bore';
  return HOUSING_DIRECTIONS.map((direction) =>
    cell({
      name: `housing, torqued, ${WORDS[direction]}`,
      role,
      sense: [journalMm, journalMm * 1.3],
      item: { direction },
      ...of(direction),
    }),
  );
}
