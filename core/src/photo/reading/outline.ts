import { fail, ok, type Result } from '../../kit/result.js';
import type { Pixels } from '../flatten.js';
import type { Point } from '../homography.js';
import type { Guess } from './outlineSteps.js';
import { fitCylinder, startsFrom } from '../outline/fitCylinder.js';
import { surfaceMapOf } from '../outline/surfaceMap.js';
import { sceneClassifierFor } from '../segment/classifiers.js';
import { SHELL_OUTLINE } from './outlineShell.js';
import { searchOutline, standsOut } from './outlineSteps.js';

/** Share of what is likely surface that must lie inside the outline, what is not taken off. */
const LEAST_HELD = 0.6;
/** An outline that stands out less is no half shell: those of another renderer had 0.62 and more (29 of 30), its journals and pistons at most 0.58. A wrong part graded is worse than a shell marked by hand. */
const LEAST = 0.62;
/** The same of an outline that was looked for by itself: rendered half shells had 0.81 and more, rendered journals and pistons 0.63 to 0.69, benches alone under 0.3. */
const LEAST_ALONE = 0.7;

/** The same of a second guess, which somebody asked for who has seen that the first is wrong. */
const LEAST_SECOND = 0.5;

/**
 * Finds the four face corners of a half shell without any help. A trained classifier says what of the picture is likely the face of one; a hollow half cylinder is laid into that, and what was found must stand against what lies beside
 * it, so that a journal or a piston is not taken for a shell. A sound shell that does nothing but shine is hardly told from a journal; where no face is found, the outline is looked for by itself. The second guess is the outline by itself
 * where the first came of the face. A proposal, to be looked at.
 */
export function findShell(picture: Pixels, guess: Guess = 1): Result<readonly Point[]> {
  if (picture.width < 64 || picture.height < 64) return fail('picture-small', 'The picture is too small to find a part in it.', 'picture');
  const face = byFace(picture);
  if (face && guess === 1) return ok(face);
  const [alone] = face || guess === 1 ? searchOutline(picture, SHELL_OUTLINE) : [];
  if (alone && alone.worth >= (guess === 1 ? LEAST_ALONE : LEAST_SECOND)) return ok(alone.corners);
  return fail(
    'outline-not-found',
    guess === 1
      ? 'No half shell was found in the picture. Mark its four corners: left-front, left-rear, right-rear, right-front.'
      : 'There is no other guess where the half shell lies. Move the corners where they belong.',
    'corners',
  );
}

/** Corners of what is likely the face of a half shell; null where there is none that stands out. */
function byFace(picture: Pixels): readonly Point[] | null {
  const map = surfaceMapOf(sceneClassifierFor('shell'), picture);
  const whole = { width: picture.width / map.step, height: picture.height / map.step };
  const [face] = map.surface > 0 ? fitCylinder(map, true, whole, startsFrom(map, true)) : [];
  if (!face || face.worth < LEAST_HELD || standsOut(picture, SHELL_OUTLINE, face.pose, map.step) < LEAST) return null;
  return face.corners.map(([x, y]): Point => [x * map.step, y * map.step]);
}
