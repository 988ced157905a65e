import { hideOblique } from './frameChecks.js';
import { maskWhere, quantile } from './field.js';
import { correctIllumination, referenceMask, referenceMaskOutside, type Lit } from './illumination.js';
import { LINEAR, neutralColour, seenOf, type Neutral, type Seen } from './light.js';
import type { FlattenedPart } from './readParts.js';
import type { Developed, Pixels } from '../flatten.js';

/** Linear light that sound metal is shown in: bright enough to tell what is darker, with room for what is brighter. */
const SOUND_LIGHT = 0.44;
/** How far glare rises over sound metal at most, share of the light of sound metal. */
const SHOULDER = 0.6;
/** Share of the columns with sound metal below which the face itself gives its light. */
const LEAST_ANCHORED = 0.15;
/** Share of a column that must be sound for it to give its light. */
const LEAST_COLUMN = 0.1;
const LEAST_PIXELS = 200;
const WHITE: Neutral = { redness: 0, yellowness: 0 };

/** What is known of a surface before its light is taken out. */
export interface Known {
  /** It was made of a film: its light is out already. */
  readonly made: boolean;
  /** Was sound metal read at this place (0–1 each of the developed surface)? Null where the picture was not read. */
  readonly soundAt: ((u: number, v: number) => boolean) | null;
}

/**
 * A developed surface as it would look in even white light: lamp, mirrored bench and cast are taken out (`correctIllumination`), so that surfaces taken in different pictures may lie side by side. Where the
 * picture was read, the light is taken from what was read as sound, so that a face heated all over keeps its colour. For eyes only; a reading takes the light out by itself. Places seen too obliquely become transparent.
 *
 * @param guide the same surface developed coarser: the light changes slowly, so it is judged there
 */
export function evenLight(part: FlattenedPart, flat: Developed, guide: Developed, { made, soundAt }: Known): Pixels {
  const { width, height, data } = flat.pixels;
  const there = new Uint8Array(width * height);
  for (let i = 0; i < there.length; i++) if (data[4 * i + 3]! > 0) there[i] = 1;
  hideOblique(there, flat);
  const out = new Uint8ClampedArray(data);
  if (!made) even(out, width, height, gainsOf(part, guide, soundAt));
  for (let i = 0; i < there.length; i++) if (!there[i]) out[4 * i + 3] = 0;
  return { width, height, data: out };
}

/** What linear red, green and blue are multiplied by, so that sound metal becomes grey of one brightness: a coarse plane each, rows from the top. */
interface Gains {
  readonly width: number;
  readonly height: number;
  readonly planes: readonly [Float32Array, Float32Array, Float32Array];
}

function gainsOf(part: FlattenedPart, guide: Developed, soundAt: Known['soundAt']): Gains {
  const seen = seenOf(guide.pixels);
  hideOblique(seen.there, guide);
  const lit = soundAt ? litByReading(seen, soundAt) : litForEyes(part, seen);
  const { width, height } = seen.light;
  const planes = [0, 1, 2].map(() => new Float32Array(width * height)) as unknown as [Float32Array, Float32Array, Float32Array];
  for (let i = 0; i < width * height; i++) {
    // Light and colour of sound metal at this place: of red, green and blue with these ratios and this luminance (BT.709), green follows.
    const light = Math.exp(seen.light.data[i]! - lit.shade.data[i]!);
    const redOverGreen = Math.exp(seen.redness.data[i]! - lit.redder.data[i]!);
    const greenOverBlue = Math.exp(seen.yellowness.data[i]! - lit.yellower.data[i]!);
    const green = light / (0.2126 * redOverGreen + 0.7152 + 0.0722 / greenOverBlue);
    planes[0][i] = SOUND_LIGHT / (green * redOverGreen);
    planes[1][i] = SOUND_LIGHT / green;
    planes[2][i] = (SOUND_LIGHT * greenOverBlue) / green;
  }
  return { width, height, planes };
}

/** Applies the gains, bilinear between their places; what would be brighter than sound metal is held back softly, with its colour. */
function even(data: Uint8ClampedArray, width: number, height: number, { width: w, height: h, planes }: Gains): void {
  const [red, green, blue] = planes.map(() => new Float32Array(w)) as [Float32Array, Float32Array, Float32Array];
  for (let y = 0; y < height; y++) {
    const v = Math.min(h - 1.001, Math.max(0, ((y + 0.5) * h) / height - 0.5));
    const [row, down] = [Math.floor(v) * w, v - Math.floor(v)];
    for (const [k, line] of [red, green, blue].entries())
      for (let x = 0; x < w; x++) line[x] = planes[k]![row + x]! * (1 - down) + planes[k]![row + w + x]! * down;
    for (let x = 0; x < width; x++) {
      const i = 4 * (y * width + x);
      if (data[i + 3] === 0) continue;
      const u = Math.min(w - 1.001, Math.max(0, ((x + 0.5) * w) / width - 0.5));
      const at = Math.floor(u);
      const t = u - at;
      const gr = red[at]! + t * (red[at + 1]! - red[at]!);
      const gg = green[at]! + t * (green[at + 1]! - green[at]!);
      const gb = blue[at]! + t * (blue[at + 1]! - blue[at]!);
      // Where a channel is at its end the pixel is white from the lamp itself, and the colour of the light must not be taken from it.
      const glare = Math.min(1, Math.max(0, (Math.max(data[i]!, data[i + 1]!, data[i + 2]!) - GLARE[0]) / (GLARE[1] - GLARE[0])));
      const r = LINEAR[data[i]!]! * (gr + glare * (gg - gr));
      const g = LINEAR[data[i + 1]!]! * gg;
      const b = LINEAR[data[i + 2]!]! * (gb + glare * (gg - gb));
      const over = (0.2126 * r + 0.7152 * g + 0.0722 * b) / SOUND_LIGHT - 1;
      const hold = over > 0 ? (1 + (SHOULDER * over) / (over + SHOULDER)) / (1 + over) : 1;
      data[i] = TO_BYTE[Math.min(STEPS, Math.round(r * hold * STEPS))]!;
      data[i + 1] = TO_BYTE[Math.min(STEPS, Math.round(g * hold * STEPS))]!;
      data[i + 2] = TO_BYTE[Math.min(STEPS, Math.round(b * hold * STEPS))]!;
    }
  }
}

/** From which byte on a channel is near its end, and at it. */
const GLARE = [232, 250] as const;
const STEPS = 4095;
/** Linear light in steps to an sRGB byte (IEC 61966-2-1). */
const TO_BYTE = Uint8Array.from({ length: STEPS + 1 }, (_, i) => {
  const v = i / STEPS;
  return Math.round(255 * (v <= 0.0031308 ? 12.92 * v : 1.055 * v ** (1 / 2.4) - 0.055));
});

/** The illumination by what metal looks sound; where hardly any does, brightness by the whole face and colour by the neutral one alone. */
function litForEyes(part: FlattenedPart, seen: Seen): Lit {
  const neutral = neutralColour(seen) ?? WHITE;
  // The outside of a round part mirrors its bench near its sides, in whole columns.
  const mask = part === 'journal' || part === 'skirt' ? referenceMaskOutside(seen, neutral) : referenceMask(seen, neutral);
  const lit = correctIllumination(seen, neutral, mask, LEAST_COLUMN);
  return lit.anchored >= LEAST_ANCHORED ? lit : litByWhole(seen, neutral);
}

/** The illumination by what was read as sound. Where hardly anything was, white light is taken for granted. */
function litByReading(seen: Seen, soundAt: (u: number, v: number) => boolean): Lit {
  const { width, height } = seen.light;
  const mask = maskWhere(
    seen.there,
    (there, i) => there !== 0 && !seen.clipped[i] && soundAt(((i % width) + 0.5) / width, 1 - (Math.floor(i / width) + 0.5) / height),
  );
  const neutral = { redness: median(seen.redness, mask) ?? 0, yellowness: median(seen.yellowness, mask) ?? 0 };
  const lit = correctIllumination(seen, neutral, mask, LEAST_COLUMN);
  return lit.anchored >= LEAST_ANCHORED ? lit : litByWhole(seen, neutral);
}

/** How much darker than sound metal a face is shown that holds none, in log of light: what is left of it is copper, steel or soot. */
const DARKER = 0.5;

/** The illumination by all of a face that holds hardly any sound metal. */
function litByWhole(seen: Seen, neutral: Neutral): Lit {
  const own = correctIllumination(seen, neutral, seen.there, LEAST_COLUMN);
  const over = (plane: Seen['redness'], level: number): Lit['redder'] => ({ ...plane, data: plane.data.map((v) => v - level) });
  return {
    ...own,
    shade: over(own.shade, DARKER),
    redder: over(seen.redness, neutral.redness),
    yellower: over(seen.yellowness, neutral.yellowness),
  };
}

/** Middle of a plane over a mask; null where the mask holds too little to go by. */
function median({ data }: Seen['redness'], mask: Uint8Array): number | null {
  const values = data.filter((_, i) => mask[i] === 1);
  return values.length < LEAST_PIXELS ? null : quantile(values, 0.5);
}
