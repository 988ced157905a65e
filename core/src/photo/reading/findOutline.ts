import { fail, type Result } from '../../kit/result.js';
import type { Pixels } from '../flatten.js';
import type { Point } from '../homography.js';
import { findShell, type Guess } from './outline.js';
import { findPiston } from './outlinePiston.js';
import type { FlattenedPart } from './readParts.js';

/** Parts whose corners are found without help. */
export const isFound = (part: FlattenedPart): boolean => part === 'shell' || part === 'skirt';

/** Four corners of a part in a picture, as a proposal to be looked at. Fails for parts that are marked by hand, and for a second guess where there is none. */
export function findOutline(part: FlattenedPart, picture: Pixels, guess: Guess = 1): Result<readonly Point[]> {
  if (part === 'shell') return findShell(picture, guess);
  if (part === 'skirt' && guess === 2)
    return fail('outline-not-found', 'There is no other guess where the skirt lies. Move the corners where they belong.', 'corners');
  if (part === 'skirt') return findPiston(picture);
  return fail('corners-missing', 'Only half shells and pistons are found without help. Place the four corners first.', 'corners');
}
