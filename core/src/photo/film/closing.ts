import type { BandMap } from './band.js';
import { textureOf, movedBetween, type Texture } from './turning.js';
import { followAgain, LEAST_ALIKE, type SeenFrame, type TrackedFrame } from './turnTracker.js';

/** A turn as it was settled from all kept frames together. */
export interface SettledTurn {
  /** The frames that are joined, their turn settled. */
  readonly frames: readonly TrackedFrame[];
  /** All frames, as they were followed. */
  readonly followed: readonly TrackedFrame[];
  /** By how much a full turn failed to meet its beginning before it was made to, degrees; null when it was not closed. */
  readonly closingErrorDeg: number | null;
  /** Spans between kept frames whose turn was guessed, seconds of the film and degrees. */
  readonly guessed: readonly { readonly fromS: number; readonly toS: number; readonly deg: number }[];
}

interface Link {
  readonly from: number;
  readonly to: number;
  readonly deg: number;
  readonly weight: number;
}

/** Kept frames so many apart are compared with each other. */
const APART = [1, 2, 3];
/** Two frames farther apart see too little of the same arc to be compared, degrees. */
const MOST_APART = 70;
/** How far off a full turn may be found from what was followed, degrees. */
const CLOSING_REACH = 34;
/** A part seen again agrees at least so well, and by so much better than anywhere else near. */
const CLOSES = { alike: 0.22, over: 0.08 } as const;
/** Two frames see the same arc again from a turn that lacks so much of a full one, degrees. */
const OVERLAP = 50;
/** A guessed link holds so little against a measured one. */
const GUESS = 0.01;

/** Settles the turn of every kept frame: each is compared with those after it, and with those about a full turn later; the turns agree with all of these best (least squares). */
export function settleTurn(seen: readonly SeenFrame[], { width, height }: BandMap): SettledTurn {
  const perDeg = width / 180;
  const { frames: followed, kept, still } = followAgain(seen);
  const textures = kept.map((k) => textureOf(k.light, still, width, height));
  const turned = kept.map((k) => k.turnedDeg);
  const links: Link[] = [];
  const guessed: { fromS: number; toS: number; deg: number }[] = [];
  for (let i = 0; i + 1 < kept.length; i++)
    for (const apart of APART) {
      const j = i + apart;
      if (j >= kept.length) continue;
      const gone = turned[j]! - turned[i]!;
      const moved = Math.abs(gone) > MOST_APART ? null : movedBetween(textures[i]!, textures[j]!, -gone * perDeg, Math.round(6 * perDeg));
      if (moved && moved.alike >= LEAST_ALIKE) links.push({ from: i, to: j, deg: -moved.shift / perDeg, weight: moved.alike ** 2 });
      else if (apart === 1) {
        links.push({ from: i, to: j, deg: gone, weight: GUESS });
        guessed.push({ fromS: kept[i]!.timeS, toS: kept[j]!.timeS, deg: gone });
      }
    }
  const open = solved(kept.length, links);
  const { again, errors } = seenAgain(open, textures, perDeg);
  const settled = again.length === 0 ? open : solved(kept.length, [...links, ...again]);
  return {
    frames: kept.map((k, i) => ({ ...k, turnedDeg: settled[i]! })),
    followed,
    closingErrorDeg: again.length === 0 ? null : median(errors),
    guessed: joined(guessed),
  };
}

/** Frames that see the same arc about a full turn apart. Where they do not agree on how far that is, none is believed. */
function seenAgain(open: readonly number[], textures: readonly Texture[], perDeg: number): { again: Link[]; errors: number[] } {
  const found: { link: Link; error: number }[] = [];
  for (let i = 0; i < open.length; i++) {
    const later = [-OVERLAP, -25, 0, 25].map((off) => nearest(open, i, 360 + off)).filter((j): j is number => j !== null);
    for (const j of new Set(later)) {
      const gone = open[j]! - open[i]!;
      const past = gone - Math.sign(gone) * 360;
      const moved = movedBetween(textures[i]!, textures[j]!, -past * perDeg, Math.round(CLOSING_REACH * perDeg));
      if (moved.alike < CLOSES.alike || moved.alike < moved.elsewhere + CLOSES.over) continue;
      const real = -moved.shift / perDeg + Math.sign(gone) * 360;
      found.push({ link: { from: i, to: j, deg: real, weight: 4 * moved.alike ** 2 }, error: gone - real });
    }
  }
  if (found.length === 0) return { again: [], errors: [] };
  const middle = median(found.map((f) => f.error));
  const agreed = found.filter((f) => Math.abs(f.error - middle) < 4);
  return agreed.length < Math.max(2, 0.5 * found.length)
    ? { again: [], errors: [] }
    : { again: agreed.map((f) => f.link), errors: agreed.map((f) => f.error) };
}

/** The frame that lies nearest to `deg` after (or before) frame `i`, within what its band can show; null when there is none. */
function nearest(open: readonly number[], i: number, deg: number): number | null {
  let found: number | null = null;
  for (let j = i + 1; j < open.length; j++) {
    const off = Math.abs(Math.abs(open[j]! - open[i]!) - deg);
    if (off < 12 && (found === null || off < Math.abs(Math.abs(open[found]! - open[i]!) - deg))) found = j;
  }
  return found;
}

function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.floor(sorted.length / 2)]!;
}

/** Turns that agree with the links best, the first 0: normal equations by successive over-relaxation, which a chain with loops meets quickly. */
function solved(count: number, links: readonly Link[]): number[] {
  const turned = new Float64Array(count);
  const by: Link[][] = Array.from({ length: count }, () => []);
  for (const l of links) {
    by[l.from]!.push(l);
    by[l.to]!.push(l);
  }
  // A chain to begin with.
  for (let i = 1; i < count; i++) {
    const back = by[i]!.find((l) => l.to === i && l.from === i - 1);
    turned[i] = turned[i - 1]! + (back?.deg ?? 0);
  }
  for (let round = 0; round < 4000; round++) {
    let most = 0;
    for (let i = 1; i < count; i++) {
      let [sum, weight] = [0, 0];
      for (const { from, to, deg, weight: w } of by[i]!) {
        sum += w * (to === i ? turned[from]! + deg : turned[to]! - deg);
        weight += w;
      }
      if (weight === 0) continue;
      const step = 1.8 * (sum / weight - turned[i]!);
      turned[i]! += step;
      most = Math.max(most, Math.abs(step));
    }
    if (most < 1e-4) break;
  }
  return [...turned];
}

/** Guessed spans that follow each other as one. */
function joined(spans: readonly { readonly fromS: number; readonly toS: number; readonly deg: number }[]): SettledTurn['guessed'] {
  const out: { fromS: number; toS: number; deg: number }[] = [];
  for (const s of spans) {
    const before = out.at(-1);
    if (before && before.toS >= s.fromS - 1e-6) {
      before.toS = s.toS;
      before.deg += s.deg;
    } else out.push({ ...s });
  }
  return out;
}
