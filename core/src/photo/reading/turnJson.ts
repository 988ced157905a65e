import type { SettledTurn } from '../film/closing.js';
import type { JoinedTurn } from '../film/joinTurn.js';
import type { Point } from '../homography.js';
import { readingJson } from './readingJson.js';
import type { TurnReading } from './readTurn.js';

const round = (v: number, digits: number): number => Number(v.toFixed(digits));

/** The answer of `true-ledger unroll` (`docs/formats/unroll.md`): that of `grade` for the whole turn, and how the turn was followed. */
export function turnJson(
  reading: TurnReading,
  about: {
    readonly part: string;
    readonly film: { readonly seconds: number; readonly width: number; readonly height: number; readonly framesSeen: number };
    readonly joined: JoinedTurn;
    readonly settled: SettledTurn;
    readonly facingDeg: number;
    readonly corners: readonly Point[];
    readonly sizeAssumed: boolean;
  },
): object {
  const { joined, settled, film } = about;
  const turns = settled.followed.map((f) => f.turnedDeg);
  const { damage } = reading;
  return {
    ...readingJson(reading, about),
    format: 'true-ledger/unroll',
    version: 1,
    made: 'turn',
    turn: {
      turnedDeg: round(Math.max(...turns) - Math.min(...turns), 1),
      direction: (turns.at(-1) ?? 0) >= 0 ? 'rising' : 'falling',
      closed: settled.closingErrorDeg !== null,
      closingErrorDeg: settled.closingErrorDeg === null ? null : round(settled.closingErrorDeg, 2),
      closingErrorPercent: settled.closingErrorDeg === null ? null : round(Math.abs(settled.closingErrorDeg) / 3.6, 2),
      seenDeg: round(joined.seenShare * 360, 1),
      missingDeg: round((1 - joined.seenShare) * 360, 1),
      facingFirstFrameDeg: about.facingDeg,
      guessed: settled.guessed.map((g) => ({ fromS: round(g.fromS, 2), toS: round(g.toS, 2), deg: round(g.deg, 1) })),
      frames: settled.frames.map((f) => ({ timeS: round(f.timeS, 3), turnedDeg: round(f.turnedDeg, 2) })),
    },
    damage:
      damage === null
        ? null
        : {
            fromDeg: damage.fromDeg,
            toDeg: damage.toDeg,
            insidePercent: round(damage.insidePercent, 1),
            outsidePercent: round(damage.outsidePercent, 1),
          },
    surface: {
      width: joined.pixels.width,
      height: joined.pixels.height,
      pxPerMm: round(joined.pxPerMm, 2),
      circumferenceMm: round(joined.widthMm, 2),
      widthMm: round(joined.heightMm, 2),
      fromDeg: 0,
      toDeg: 360,
      frontEdge: 'bottom',
      framesJoined: joined.framesUsed,
    },
    film: { ...film, seconds: round(film.seconds, 2) },
  };
}
