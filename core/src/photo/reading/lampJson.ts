import type { LampSurface } from '../film/lampFilm.js';
import type { Point } from '../homography.js';
import type { LampReading } from './readLamp.js';
import { readingJson } from './readingJson.js';

const round = (v: number, digits: number): number => Number(v.toFixed(digits));

/** The answer of `true-ledger unroll --lamp` (`docs/formats/unroll.md`): that of `grade` for the picture without glare, and what the lamp told. */
export function lampJson(
  reading: LampReading,
  about: {
    readonly part: string;
    readonly film: { readonly seconds: number; readonly width: number; readonly height: number };
    readonly lamp: LampSurface;
    readonly corners: readonly Point[];
    readonly sizeAssumed: boolean;
  },
): object {
  const { lamp, film } = about;
  return {
    ...readingJson(reading, about),
    format: 'true-ledger/unroll',
    version: 1,
    made: 'lamp',
    lamp: {
      framesUsed: lamp.framesUsed,
      framesLost: lamp.framesLost,
      wanderedAcross: round(lamp.wandered.across, 3),
      wanderedAlong: round(lamp.wandered.along, 3),
      seenPercent: round(100 * reading.seenShare, 1),
      walls: reading.walls,
    },
    film: { ...film, seconds: round(film.seconds, 2) },
  };
}
