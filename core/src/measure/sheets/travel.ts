import { object } from '../../kit/schema.js';
import { combinedExpanded, type Gauge } from '../../units/gauge.js';
import { cell, PLAY, type Cell, type SheetPlace } from './cells.js';
import { raw, type CellValues, type Raw, type Reader } from './define.js';
import type { SheetLine } from './line.js';
import { chance, type TrueEngine } from './trueEngine.js';

/** A part pushed against its two stops under an indicator. */
export interface Travel {
  readonly towardsMm: number;
  readonly awayMm: number;
}

/** Cells without which there is no travel. */
export const TRAVEL_NEEDS = ['towards', 'away'] as const;

/** Readings of a sheet of travel as a file holds them. */
export const travelFile = object({ towards: raw, away: raw });

/** Travel from a sheet file; both stops are needed. */
export function readTravel(given: { readonly towards: Raw; readonly away: Raw }, reader: Reader): Travel {
  return { towardsMm: reader.need(given.towards, 'readings.towards'), awayMm: reader.need(given.away, 'readings.away') };
}

/** Travel from the cells of a place; null until both stops are read. */
export function travelOf(cells: CellValues): Travel | null {
  const both = cells.all(TRAVEL_NEEDS);
  return both && { towardsMm: both[0], awayMm: both[1] };
}

/** The two cells of a sheet of travel. */
export function travelCells(): Cell[] {
  return [
    cell({ key: 'towards', name: 'pushed to the front', column: 'front', role: 'indicator', sense: PLAY }),
    cell({ key: 'away', name: 'pushed to the rear', column: 'rear', role: 'indicator', sense: PLAY }),
  ];
}

/** End float or side clearance: travel between the stops. */
export function travelLines(id: string, name: string, t: Travel, gauge: Gauge): SheetLine[] {
  return [
    {
      id,
      name,
      value: Math.abs(t.towardsMm - t.awayMm),
      unit: 'mm',
      expanded: combinedExpanded(gauge, [1, -1]),
      at: 'stop to stop',
    },
  ];
}

/** True value of a cell where a sound part has about `soundMm` of play. */
export function trueTravel(engine: TrueEngine, place: SheetPlace, key: string, soundMm: number): number {
  if (key === 'towards') return 0;
  return soundMm + 0.03 * chance(`${engine.seed} ${place.id} play`) + 0.25 * engine.severity(place.station!);
}
