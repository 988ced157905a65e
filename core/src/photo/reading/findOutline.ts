import { fail, type Result } from '../../kit/result.js';
import type { Pixels } from '../flatten.js';
import type { Point } from '../homography.js';
import { findShell } from './outline.js';
import { findDisc } from './outlineDisc.js';
import { findJournal } from './outlineJournal.js';
import { findPiston } from './outlinePiston.js';
import type { Guess } from './outlineSteps.js';
import type { FlattenedPart } from './readParts.js';

/** Parts whose corners are found without help. */
const FOUND = {
  shell: findShell,
  journal: findJournal,
  skirt: findPiston,
  thrust: (picture: Pixels) => findDisc('thrust', picture),
  crown: (picture: Pixels) => findDisc('crown', picture),
} as const satisfies Partial<Record<FlattenedPart, (picture: Pixels, guess: Guess) => Result<readonly Point[]>>>;

/** Are the corners of this part found without help? */
export const isFound = (part: FlattenedPart): part is keyof typeof FOUND => Object.hasOwn(FOUND, part);

/** Is there a second guess where this part lies? */
export const isGuessedTwice = (part: FlattenedPart): boolean => part === 'shell' || part === 'journal';

/** Four corners of a part in a picture, as a proposal to be looked at. Fails for parts that are marked by hand, and for a second guess where there is none. */
export function findOutline(part: FlattenedPart, picture: Pixels, guess: Guess = 1): Result<readonly Point[]> {
  if (!isFound(part)) return fail('corners-missing', 'This part is not found without help. Place the four corners first.', 'corners');
  if (guess === 2 && !isGuessedTwice(part))
    return fail('outline-not-found', 'There is no other guess where the part lies. Move the corners where they belong.', 'corners');
  return FOUND[part](picture, guess);
}
