import { boxMean, field, quantile, type Field } from './field.js';
import type { Neutral, Seen } from './light.js';

/** A surface with its illumination taken out. */
export interface Lit {
  /** Log of luminance over what sound metal shows at that place. */
  readonly shade: Field;
  /** Redness and yellowness over those of sound metal at that place. */
  readonly redder: Field;
  readonly yellower: Field;
  /** Colour of bare metal the light was judged by. */
  readonly neutral: Neutral;
  /** Log of luminance that sound metal shows, by column. */
  readonly level: Float32Array;
  /** Share of the columns in which sound metal was found to go by. */
  readonly anchored: number;
}

/** Within what lamp and bench do to the colour of metal. On the warm side worn layers begin, so the reach is shorter there. */
const near = (off: number): boolean => off > -0.32 && off < 0.17;

/** 1 where a place has the colour of sound metal. */
export function referenceMask(seen: Seen, neutral: Neutral): Uint8Array {
  const sound = new Uint8Array(seen.there.length);
  for (let i = 0; i < sound.length; i++)
    sound[i] =
      seen.there[i] && near(seen.redness.data[i]! - neutral.redness) && near(seen.yellowness.data[i]! - neutral.yellowness) ? 1 : 0;
  return sound;
}

/** Share of the arc on each side of which a round part mirrors the bench. */
const MIRRORS_BENCH = 0.28;
const TIGHT = 0.13;

/**
 * The same for the outside of a round part of steel. Near its sides it mirrors the bench, whose colour fills whole columns, so colour says nothing there: rows that look bare in the middle of the
 * arc are taken as bare right across. Where hardly any row is, colour must do.
 */
export function referenceMaskOutside(seen: Seen, neutral: Neutral): Uint8Array {
  const { width, height } = seen.light;
  const sound = referenceMask(seen, neutral);
  const [from, to] = [Math.round(MIRRORS_BENCH * width), Math.round((1 - MIRRORS_BENCH) * width)];
  const bare = new Uint8Array(height);
  let rows = 0;
  for (let y = 0; y < height; y++) {
    let [n, of] = [0, 0];
    for (let x = from; x < to; x += 2) {
      const i = y * width + x;
      if (!seen.there[i]) continue;
      of++;
      if (
        Math.abs(seen.redness.data[i]! - neutral.redness) < TIGHT &&
        Math.abs(seen.yellowness.data[i]! - neutral.yellowness) < TIGHT + 0.04
      )
        n++;
    }
    bare[y] = of > 0 && n > 0.6 * of ? 1 : 0;
    rows += bare[y]!;
  }
  if (rows < 0.12 * height) return sound;
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      if (x >= from && x < to) continue;
      const i = y * width + x;
      sound[i] = seen.there[i] && bare[y] ? 1 : 0;
    }
  return sound;
}

/** Share of a column that must look sound before it is gone by: less may be a hole in a worn patch. */
const LEAST_SOUND = 0.28;

/** Half width of the band round the arc that gives the light at a place, as a share of the arc. */
const BAND = 1 / 60;

/**
 * Takes lamp, reflections and cast away. On a cylinder they follow the arc and hardly the axis, so each column of the developed surface has its own light and colour, taken from the
 * pixels that look like sound metal (colour within reach of the neutral one), smoothed along the arc; columns without any take them from their neighbours. A plane along the axis follows.
 */
export function correctIllumination(
  seen: Seen,
  neutral: Neutral,
  sound: Uint8Array = referenceMask(seen, neutral),
  leastSound = LEAST_SOUND,
): Lit {
  const { width, height } = seen.light;
  const least = Math.round(height * leastSound);
  const light = columnLevel(seen.light, sound, 0.6, least);
  // Where a channel is at its end the colour is not that of the metal.
  const coloured = new Uint8Array(sound.length);
  for (let i = 0; i < coloured.length; i++) coloured[i] = seen.clipped[i] ? 0 : sound[i]!;
  const redness = columnLevel(seen.redness, coloured, 0.5, least);
  const yellowness = columnLevel(seen.yellowness, coloured, 0.5, least);
  const half = Math.max(1, Math.round(width * BAND));
  const level = fill(light.values, light.found, half);
  const red = fill(redness.values, redness.found, 2 * half, neutral.redness);
  const yellow = fill(yellowness.values, yellowness.found, 2 * half, neutral.yellowness);
  const slope = axialSlope(seen.light, sound, level);
  const shade = field(width, height);
  const redder = field(width, height);
  const yellower = field(width, height);
  for (let y = 0; y < height; y++) {
    const along = (y + 0.5) / height - 0.5;
    const bend = slope[0] * along + slope[1] * (along * along - 1 / 12);
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      shade.data[i] = seen.light.data[i]! - level[x]! - bend;
      redder.data[i] = seen.redness.data[i]! - red[x]!;
      yellower.data[i] = seen.yellowness.data[i]! - yellow[x]!;
    }
  }
  return { shade, redder, yellower, neutral, level, anchored: light.found.reduce((s, f) => s + f, 0) / width };
}

function columnLevel(p: Field, sound: Uint8Array, q: number, least: number): { values: Float32Array; found: Uint8Array } {
  const values = new Float32Array(p.width);
  const found = new Uint8Array(p.width);
  const column = new Float32Array(p.height);
  for (let x = 0; x < p.width; x++) {
    let n = 0;
    for (let y = 0; y < p.height; y++) if (sound[y * p.width + x]) column[n++] = p.data[y * p.width + x]!;
    if (n < Math.max(4, least)) continue;
    values[x] = quantile(column.subarray(0, n), q);
    found[x] = 1;
  }
  return { values, found };
}

/** Fills gaps along the arc by straight lines and smooths; with `toward`, a value without neighbours falls back to it. */
function fill(values: Float32Array, found: Uint8Array, half: number, toward?: number): Float32Array {
  const out = new Float32Array(values.length);
  const known = [...found.keys()].filter((x) => found[x]);
  if (known.length === 0) return out.fill(toward ?? 0);
  let k = 0;
  for (let x = 0; x < out.length; x++) {
    while (k + 1 < known.length && known[k + 1]! <= x) k++;
    const a = known[k]!;
    const b = known[Math.min(known.length - 1, k + 1)]!;
    const t = b === a || x <= a ? 0 : Math.min(1, (x - a) / (b - a));
    out[x] = values[a]! * (1 - t) + values[b]! * t;
  }
  return boxMean({ width: out.length, height: 1, data: out }, half, 0).data;
}

/** Slope and bend of the light along the axis, by least squares over sound pixels. */
function axialSlope(p: Field, sound: Uint8Array, level: Float32Array): readonly [number, number] {
  let [saa, sab, sbb, sa, sb] = [1e-6, 0, 1e-6, 0, 0];
  for (let i = 0; i < p.data.length; i += 7) {
    if (!sound[i]) continue;
    const x = i % p.width;
    const a = (Math.floor(i / p.width) + 0.5) / p.height - 0.5;
    const b = a * a - 1 / 12;
    const v = Math.max(-0.7, Math.min(0.7, p.data[i]! - level[x]!));
    saa += a * a;
    sab += a * b;
    sbb += b * b;
    sa += a * v;
    sb += b * v;
  }
  const det = saa * sbb - sab * sab;
  return det < 1e-9 ? [0, 0] : [(sa * sbb - sb * sab) / det, (sb * saa - sa * sab) / det];
}
