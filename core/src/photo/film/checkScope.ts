import type { Problem } from '../../kit/result.js';
import { quantile, type Field } from '../reading/field.js';
import { LEAST_ALIKE, type ScopeTracker, type TrackedScope } from './scopeTracker.js';

/** Frames such a film needs at least. */
const LEAST_FRAMES = 10;
/** Share of the frames in which the wall must have been followed. */
const FOLLOWED = 0.6;
/** A scope that was drawn less than this stood still, radii. */
const STILL = 0.15;

/** Range of depths a scope was drawn through, radii. */
export function drawnBy(frames: readonly TrackedScope[]): number {
  const depths = frames.map((f) => f.pose.depth);
  return frames.length === 0 ? 0 : Math.max(...depths) - Math.min(...depths);
}

/** Share of the frames in which the wall was followed. */
export const followedShare = (frames: readonly TrackedScope[]): number =>
  frames.length === 0 ? 0 : frames.filter((f) => f.alike >= LEAST_ALIKE).length / frames.length;

/** Shares of half the short side of the picture at which the light of a bore is compared, and how much darker (logarithm) it is further in, in four fifths of all directions. Rendered bores had 1.1, other parts under 0. */
const DEEPENS = { near: 0.95, far: 0.45, by: 0.3, directions: 48 } as const;

/** Does the light fall towards the middle all round, as it does in a bore that is lit from the scope? */
function deepens({ width, height, data }: Field): boolean {
  const half = Math.min(width, height) / 2;
  const at = (share: number, turn: number): number =>
    data[Math.floor(height / 2 + share * half * Math.sin(turn)) * width + Math.floor(width / 2 + share * half * Math.cos(turn))]!;
  const falls = Float32Array.from({ length: DEEPENS.directions }, (_, k) => {
    const turn = (2 * Math.PI * k) / DEEPENS.directions;
    return at(DEEPENS.near, turn) - at(DEEPENS.far, turn);
  });
  return quantile(falls, 0.2) > DEEPENS.by;
}

/** What stands against stacking a bore, null for nothing. The film is kept in any case. */
export function checkScope({ frames, lamp }: Pick<ScopeTracker, 'frames' | 'lamp'>): Problem | null {
  if (frames.length < LEAST_FRAMES)
    return {
      code: 'film-short',
      sentence: `The film has ${frames.length} frames that can be used; ${LEAST_FRAMES} are needed at least. Draw the scope out slowly, for about ten seconds.`,
      field: 'film',
    };
  const share = followedShare(frames);
  if (share < FOLLOWED)
    return {
      code: 'film-lost',
      sentence: `In ${Math.round((1 - share) * 100)} % of the frames the wall could not be followed: the scope moved too fast, is out of focus, does not look along the bore, or this is no bore. Hold it in the middle, look along the bore, and draw it out slowly.`,
      field: 'film',
    };
  if (drawnBy(frames) < STILL)
    return {
      code: 'film-still',
      sentence:
        'The scope hardly moved along the bore in this film. Draw it slowly from one end to the other while it looks along the bore.',
      field: 'film',
    };
  const light = lamp();
  if (!light || !deepens(light))
    return {
      code: 'film-no-bore',
      sentence:
        'The picture does not grow darker towards its middle all round, as it does where a scope looks along a bore. A scope that looks at the wall, or another part, is not stacked: file a picture of it.',
      field: 'film',
    };
  return null;
}
