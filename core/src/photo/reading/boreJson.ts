import { drawnBy, followedShare } from '../film/checkScope.js';
import type { TrackedScope } from '../film/scopeTracker.js';
import type { StackedBore } from '../film/stackBore.js';
import { wholePicture } from './readBore.js';
import { readingJson } from './readingJson.js';
import type { SurfaceReading } from './surfaceReading.js';

const round = (v: number, digits: number): number => Number(v.toFixed(digits));

/** The answer of `true-ledger unroll --drawn` (`docs/formats/unroll.md`): that of `grade` for the stacked wall, and how the scope was followed. */
export function boreJson(
  reading: SurfaceReading,
  about: {
    readonly film: { readonly seconds: number; readonly width: number; readonly height: number };
    readonly bore: StackedBore;
    readonly frames: readonly TrackedScope[];
    readonly topDeg: number;
    readonly fieldOfView: { readonly deg: number; readonly assumed: boolean };
    readonly lengthMm: number | null;
    readonly sizeAssumed: boolean;
  },
): object {
  const { bore, frames, film, fieldOfView, lengthMm } = about;
  const radiusMm = bore.widthMm / (2 * Math.PI);
  const first = frames[0]?.pose.depth ?? 0;
  return {
    ...readingJson(reading, { part: 'bore', corners: wholePicture(bore.pixels), sizeAssumed: about.sizeAssumed }),
    format: 'true-ledger/unroll',
    version: 1,
    made: 'drawn',
    drawn: {
      byMm: round(drawnBy(frames) * radiusMm, 1),
      followedPercent: round(100 * followedShare(frames), 1),
      topFirstFrameDeg: about.topDeg,
      fieldOfViewDeg: fieldOfView.deg,
      fieldOfViewAssumed: fieldOfView.assumed,
      nearEndSeen: bore.ends.near,
      farEndSeen: bore.ends.far,
      seenPercent: round(100 * bore.seenShare, 1),
      frames: frames.map((f) => ({
        timeS: round(f.timeS, 3),
        deepMm: round((f.pose.depth - first) * radiusMm, 2),
        alike: round(f.alike, 2),
      })),
    },
    surface: {
      width: bore.pixels.width,
      height: bore.pixels.height,
      pxPerMm: round(bore.pxPerMm, 2),
      circumferenceMm: round(bore.widthMm, 2),
      lengthMm: round(lengthMm ?? bore.heightMm, 2),
      lengthGiven: lengthMm !== null,
      fromDeg: 0,
      toDeg: 360,
      nearEnd: 'top',
      framesStacked: bore.framesUsed,
    },
    film: { ...film, seconds: round(film.seconds, 2) },
  };
}
