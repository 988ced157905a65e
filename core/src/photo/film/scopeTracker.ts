import type { Pixels } from '../flatten.js';
import type { Field } from '../reading/field.js';
import type { ScopeLens, ScopePose } from './boreView.js';
import { compared, keyOf, laid, lampsOf, layersOf, lightOf, type Key, type Layers } from './layFrame.js';

/** A frame becomes the one that is compared with when the scope has moved on by this, radii, or turned by this. */
const KEEP = { depth: 0.16, roll: 0.15 } as const;
/** Below this agreement a frame is not followed. */
export const LEAST_ALIKE = 0.25;
/** After so many frames that could not be followed the next is compared with the last of them: a film may begin where hardly any wall is seen. */
const LOST = 3;
/** Depths by which a scope may have moved between two frames at most, radii, and steps in which the first move is looked for. */
const REACH = 0.3;
const TRIED = 24;

/** A frame in which the scope was followed. */
export interface TrackedScope {
  readonly timeS: number;
  readonly pose: ScopePose;
  /** Correlation of the wall with that of the frame it was compared with; 1 for the first. */
  readonly alike: number;
}

/** Follows a borescope that looks along a bore while it is drawn through it. */
export interface ScopeTracker {
  readonly take: (frame: Pixels, timeS: number) => TrackedScope;
  readonly frames: readonly TrackedScope[];
  /** Light of what moves with the scope, its lamps: mean logarithm by pixel of the frames as they were followed, softened. Null where no frame was seen. */
  readonly lamp: () => Field | null;
  readonly lens: () => ScopeLens | null;
}

const START: ScopePose = { tilt: [0, 0], roll: 0, off: [0, 0], depth: 0 };
/** Field of view across the long side of the picture that is taken where nobody knows it, degrees. */
export const USUAL_VIEW_DEG = 90;

/** Begins with a lens that sees `viewDeg` across the long side of its picture. */
export function scopeTracker(viewDeg: number): ScopeTracker {
  const focal = 0.5 / Math.tan((viewDeg * Math.PI) / 360);
  const frames: TrackedScope[] = [];
  let lens: ScopeLens | null = null;
  let key: Key | null = null;
  let sum: Float64Array | null = null;
  let lost = 0;
  return {
    frames,
    lens: () => lens,
    lamp: () => {
      if (!lens) return null;
      const { width, height } = lens;
      return lampsOf({ width, height, data: Float32Array.from(sum!, (v) => v / frames.length) });
    },
    take: (frame, timeS) => {
      const light = lightOf(frame);
      const { width, height } = light;
      const layers = layersOf(light);
      lens ??= { width, height, focalPx: focal * Math.max(width, height) };
      sum ??= new Float64Array(width * height);
      for (let i = 0; i < sum.length; i++) sum[i]! += light.data[i]!;
      const before = frames.at(-1);
      if (!before || !key) {
        key = keyOf(START, layers, lens);
        const first = { timeS, pose: START, alike: 1 };
        frames.push(first);
        return first;
      }
      // Where nothing tells how fast it goes, all moves within reach are tried.
      const expected = frames.length === 1 || lost > 0 ? anyMove(key, layers, lens, before.pose) : onwards(frames, timeS);
      const fit = laid(key, layers, lens, expected);
      const followed = fit.alike >= LEAST_ALIKE;
      const found = followed ? fit.pose : before.pose;
      const tracked = { timeS, pose: found, alike: fit.alike };
      frames.push(tracked);
      lost = followed ? 0 : lost + 1;
      const moved = Math.abs(found.depth - key.pose.depth) > KEEP.depth || Math.abs(found.roll - key.pose.roll) > KEEP.roll;
      if ((followed && moved) || lost >= LOST) key = keyOf(found, layers, lens);
      return tracked;
    },
  };
}

/** Where the scope should be by how it moved last. */
function onwards(frames: readonly TrackedScope[], timeS: number): ScopePose {
  const [older, last] = [frames.at(-2)!, frames.at(-1)!];
  const by = Math.min(2, (timeS - last.timeS) / Math.max(1e-6, last.timeS - older.timeS));
  const moved = { ...last.pose, depth: last.pose.depth + by * (last.pose.depth - older.pose.depth) };
  return { ...moved, roll: last.pose.roll + by * (last.pose.roll - older.pose.roll) };
}

/** The move from a pose after which the wall agrees best: all depths within reach are tried. */
function anyMove(key: Key, layers: Layers, lens: ScopeLens, from: ScopePose): ScopePose {
  let best: { readonly pose: ScopePose; readonly alike: number } | null = null;
  for (let k = -TRIED; k <= TRIED; k++) {
    const pose = { ...from, depth: from.depth + (REACH * k) / TRIED };
    const { alike } = compared(key, layers, lens, pose, 0);
    if (!best || alike > best.alike) best = { pose, alike };
  }
  return best!.pose;
}
