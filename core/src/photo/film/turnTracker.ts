import type { CameraModel } from '../cameraModel.js';
import type { Pixels } from '../flatten.js';
import type { Point } from '../homography.js';
import { bandMap, lightOf, PLANES, shadeOf, type BandMap } from './band.js';
import { steadier } from './steady.js';
import { movedBetween, textureOf, type Moved, type Texture } from './turning.js';

/** Size of the half turn while it is followed, pixels along the arc and along the axis. */
const BAND = { width: 240, height: 48 } as const;
const PER_DEG = BAND.width / 180;
/** A frame is kept when the part has turned by this since the last one kept, degrees. */
const KEEP_DEG = 7;
/** How far the part may turn from one frame to the next beyond what is expected, degrees. */
const REACH_DEG = 18;
/** Below this agreement the surface shows too little to follow; the part is then taken to turn on as before. */
export const LEAST_ALIKE = 0.12;
/** By how much a surface agrees better where it moved to than anywhere else. */
const OVER = 0.02;
/** Half the arc of the band that serves, degrees. */
export const SERVES_DEG = 60;
/** After so many frames that could not be followed a new beginning is made. */
const LOST = 3;
/** Frames from which what stands still is first told apart from what turns. */
const FIRST = 10;
/** After so many frames what stands still is told anew. */
const AGAIN = 5;

/** A frame that was looked at. */
export interface SeenFrame {
  readonly timeS: number;
  readonly strayed: Point;
  /** Light and colour over the band (`lightOf`). */
  readonly light: Float32Array;
  /** Light of the three channels over the band, coarsely (`shadeOf`). */
  readonly shade: Float32Array;
}

/** A frame and how far the part had turned by then. */
export interface TrackedFrame extends SeenFrame {
  /** Degrees since the first frame; positive when what comes into view lies at larger arcs. */
  readonly turnedDeg: number;
  /** How well the surface agrees with the last frame kept; below `LEAST_ALIKE` the turn was guessed. */
  readonly alike: number;
}

/** What the page shows while frames come in. */
interface TurnSoFar {
  readonly turnedDeg: number;
  /** Arc of the surface that was in view. */
  readonly seenDeg: number;
  readonly alike: number;
}

/** Follows a part that is turned before a camera that stays, frame by frame. */
export interface TurnTracker {
  readonly take: (frame: Pixels, timeS: number) => TurnSoFar;
  readonly seen: readonly SeenFrame[];
  readonly map: BandMap;
}

/** What stands still while the part turns: mean light by place, NaN where no frame saw it. */
class Still {
  private readonly sum: Float64Array;
  private readonly weight: Float64Array;

  constructor(size: number) {
    this.sum = new Float64Array(size);
    this.weight = new Float64Array(size);
  }

  add(light: Float32Array, weight = 1): void {
    for (let i = 0; i < light.length; i++)
      if (!Number.isNaN(light[i]!)) {
        this.sum[i]! += weight * light[i]!;
        this.weight[i]! += weight;
      }
  }

  mean(): Float32Array {
    return Float32Array.from(this.sum, (s, i) => (this.weight[i] === 0 ? NaN : s / this.weight[i]!));
  }
}

/** Does a surface show enough to believe how far it moved? */
const follows = ({ alike, elsewhere }: Moved): boolean => alike >= LEAST_ALIKE && alike > elsewhere + OVER;

/** How fast the part turned while it could be followed, degrees a second: what it is taken to do while it cannot. */
function pace(frames: readonly TrackedFrame[]): number {
  let [deg, seconds] = [0, 0];
  for (let k = 1; k < frames.length; k++) {
    if (frames[k]!.alike < LEAST_ALIKE) continue;
    deg += frames[k]!.turnedDeg - frames[k - 1]!.turnedDeg;
    seconds += frames[k]!.timeS - frames[k - 1]!.timeS;
  }
  return seconds > 0 ? deg / seconds : 0;
}

/** Follows one frame after the other against the last one kept. */
function follower(): {
  readonly next: (seen: SeenFrame, still: Float32Array) => TrackedFrame;
  readonly frames: TrackedFrame[];
  readonly kept: TrackedFrame[];
} {
  const frames: TrackedFrame[] = [];
  const kept: TrackedFrame[] = [];
  let lost = 0;
  let held: { readonly of: TrackedFrame; readonly still: Float32Array; readonly texture: Texture } | null = null;
  const keyTexture = (key: TrackedFrame, still: Float32Array): Texture => {
    if (held?.of !== key || held.still !== still) held = { of: key, still, texture: texture(key.light, still) };
    return held.texture;
  };
  const texture = (light: Float32Array, still: Float32Array): Texture => textureOf(light, still, BAND.width, BAND.height);
  return {
    frames,
    kept,
    next: (seen, still) => {
      const before = frames.at(-1);
      const key = kept.at(-1);
      if (!before || !key) {
        const first = { ...seen, turnedDeg: 0, alike: 1 };
        frames.push(first);
        kept.push(first);
        return first;
      }
      const older = frames.at(-2);
      const rate =
        older && before.alike >= LEAST_ALIKE ? (before.turnedDeg - older.turnedDeg) / (before.timeS - older.timeS) : pace(frames);
      const expected = before.turnedDeg + rate * (seen.timeS - before.timeS);
      const moved = movedBetween(
        keyTexture(key, still),
        texture(seen.light, still),
        -(expected - key.turnedDeg) * PER_DEG,
        Math.round(REACH_DEG * PER_DEG),
      );
      const found = follows(moved) ? { turnedDeg: key.turnedDeg - moved.shift / PER_DEG, alike: moved.alike } : null;
      lost = found ? 0 : lost + 1;
      const tracked = { ...seen, ...(found ?? { turnedDeg: expected, alike: 0 }) };
      frames.push(tracked);
      if (Math.abs(tracked.turnedDeg - key.turnedDeg) >= KEEP_DEG || lost >= LOST) {
        kept.push(tracked);
        lost = 0;
      }
      return tracked;
    },
  };
}

/** Begins to follow a part: `camera` is that of the first frame. */
export function turnTracker(camera: CameraModel): TurnTracker {
  const map = bandMap(camera, BAND.width, BAND.height);
  const seen: SeenFrame[] = [];
  const still = new Still(PLANES * BAND.width * BAND.height);
  let steady: ReturnType<typeof steadier> | null = null;
  let follow: ReturnType<typeof follower> | null = null;
  let mean: Float32Array | null = null;
  return {
    map,
    seen,
    take: (frame, timeS) => {
      steady ??= steadier(camera, frame);
      const { strayed } = steady(frame);
      const next: SeenFrame = { timeS, strayed, light: lightOf(map, frame, strayed), shade: shadeOf(map, frame, strayed) };
      seen.push(next);
      still.add(next.light);
      if (seen.length < FIRST) return { turnedDeg: 0, seenDeg: 2 * SERVES_DEG, alike: 1 };
      if (!mean || seen.length % AGAIN === 0) mean = still.mean();
      if (follow) follow.next(next, mean);
      else {
        follow = follower();
        for (const s of seen) follow.next(s, mean);
      }
      const turns = follow.frames.map((f) => f.turnedDeg);
      return {
        turnedDeg: turns.at(-1)!,
        seenDeg: Math.min(360, Math.max(...turns) - Math.min(...turns) + 2 * SERVES_DEG),
        alike: follow.frames.at(-1)!.alike,
      };
    },
  };
}

/**
 * Follows all frames once more, now that the whole film tells what stands still. Twice: only when it is known how far each frame turned does a pause of the hand not count as standing still.
 * Every frame, and those that are kept for the joining.
 */
export function followAgain(seen: readonly SeenFrame[]): {
  readonly frames: readonly TrackedFrame[];
  readonly kept: readonly TrackedFrame[];
  readonly still: Float32Array;
} {
  let weights = seen.map(() => 1);
  for (let turn = 0; ; turn++) {
    const still = new Still(PLANES * BAND.width * BAND.height);
    seen.forEach((s, k) => still.add(s.light, weights[k]));
    const mean = still.mean();
    const follow = follower();
    for (const s of seen) follow.next(s, mean);
    if (turn === 1) return { frames: follow.frames, kept: follow.kept, still: mean };
    weights = follow.frames.map((f, k) => 0.05 + Math.min(20, Math.abs(f.turnedDeg - (follow.frames[k - 1] ?? f).turnedDeg)));
  }
}
