import type { Problem } from '../../kit/result.js';
import type { SettledTurn } from './closing.js';
import { SERVES_DEG } from './turnTracker.js';

/** Frames a turn needs at least. */
const LEAST_FRAMES = 20;
/** A part that turned less than this lay still. */
const STILL_DEG = 15;
/** From one frame to the next a part may turn so far and still be followed, degrees. */
const FASTEST_DEG = 18;
/** Share of the frames that must have been followed. */
const FOLLOWED = 0.35;

/** What stands against joining a turn, null for nothing. The film is kept in any case. */
export function checkTurn({ followed }: SettledTurn): Problem | null {
  if (followed.length < LEAST_FRAMES)
    return {
      code: 'film-short',
      sentence: `The film has ${followed.length} frames that can be used; ${LEAST_FRAMES} are needed at least. Film one slow turn, about ten seconds long.`,
      field: 'film',
    };
  const turns = followed.map((f) => f.turnedDeg);
  const span = Math.max(...turns) - Math.min(...turns);
  const good = followed.filter((f) => f.alike > 0);
  const share = good.length / followed.length;
  if (share < FOLLOWED) {
    const steps = followed.slice(1).map((f, k) => Math.abs(f.turnedDeg - followed[k]!.turnedDeg));
    const fast = steps.filter((d) => d > FASTEST_DEG / 2).length > steps.length / 4;
    return {
      code: 'film-lost',
      sentence: fast
        ? 'The part turns too fast to be followed from frame to frame. Turn it more slowly, one turn in about ten seconds.'
        : `In ${Math.round((1 - share) * 100)} % of the frames the surface showed too little to follow: it does not turn, is out of focus or over-exposed, left the picture, is not the part between the corners, or bears no mark. Film it sharp and near, and draw a few strokes on it with a felt pen.`,
      field: 'film',
    };
  }
  if (span < STILL_DEG)
    return {
      code: 'film-still',
      sentence: `The part turned only ${span.toFixed(0)}° in this film. Turn it a whole turn while the phone stays where it is; for a part that lies still take pictures.`,
      field: 'film',
    };
  return null;
}

/** Degrees that are still wanted until a turn closes on itself. */
export function missingDeg(turnedDeg: number): number {
  return Math.max(0, 360 - SERVES_DEG / 2 - Math.abs(turnedDeg));
}
