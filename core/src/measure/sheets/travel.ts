import { object } from '../../kit/schema.js';
import { combine, type Gauge } from '../../units/gauge.js';
import { cell, PLAY, type Cell, type SheetPlace } from './cells.js';
import { raw, type CellValues, type Raw, type Reader } from './define.js';
import type { SheetLine } from './line.js';
import { chance, type TrueEngine } from './trueEngine.js';

/** A part pushed against its two stops under an indicator. */
export interface Travel {
  readonly towardsMm: number;
  readonly awayMm: number;
}

export const TRAVEL_NEEDS = ['towards', 'away'] as const;

export const travelFile = object({ towards: raw, away: raw });

export function readTravel(given: { readonly towards: Raw; readonly away: Raw }, reader: Reader): Travel {
  return { towardsMm: reader.need(given.towards, 'readings.towards'), awayMm: reader.need(given.away, 'readings.away') };
}

export function travelOf(cells: CellValues): Travel | null {
  const both = cells.all(TRAVEL_NEEDS);
  return both && { towardsMm: both[0], awayMm: both[1] };
}

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
      expanded: combine([
        { gauge, c: 1 },
        { gauge, c: -1 },
      ]),
      at: 'stop to stop',
    },
  ];
}

/** True value of a cell where a sound part has about `soundMm` of play. */
export function trueTravel(engine: TrueEngine, place: SheetPlace, key: string, soundMm: number): number {
  if (key === 'towards') return 0;
  return soundMm + 0.03 * chance(`${engine.seed} ${place.id} play`) + 0.25 * engine.severity(place.station!);
}
