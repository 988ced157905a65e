import { boxMean, components, field, quantile, type Component, type Field } from './field.js';
import type { Seen } from './light.js';
import type { Lit } from './illumination.js';
import { bridgeGlare } from './bridgeGlare.js';
import { markDark } from './darkSpots.js';
import { layerAt, PARTING, type Layered } from './layer.js';
import { markVoids } from './voids.js';

/**
 * Limits in log of linear light; they follow from how the layers reflect, with room for lamp and camera.
 * - `warm`: least rise of chroma over sound metal that can be worn lining. Copper is 0.55–0.8 above white metal in the mean of log R/G and log G/B.
 * - `rust`: iron oxide lies 1.2 and more above; a thin film or a blurred edge of it less, but then it is dark.
 * - `blown`: where red and green are at their end blue alone tells, and the metal is warmer than it looks; sound metal would be at the end of blue as well.
 * - `straw`: tint that heat leaves past straw.
 * - `brown`: what heat leaves between straw and black, over bare metal; a brown bench in the mirror reaches it hardly ever.
 * - `dark`, `black`: how far below the bright part of the face heated metal lies (a quarter, a ninth).
 */
const LIMITS = {
  warm: 0.2,
  rust: 0.92,
  blown: 0.08,
  straw: 0.17,
  brown: 0.24,
  dark: -1.35,
  black: -2.2,
} as const;

/** Least step along a quarter of the border of a pale patch that stands alone; towards the middle of the glare it has none. */
const PALE_STEP = 0.07;

/** Tells the layers of a developed shell apart. `pxPerMm` is the scale of the fields. */
export function readLayers(seen: Seen, lit: Lit, pxPerMm: number): Layered {
  const { width, height } = lit.shade;
  const size = width * height;
  const layer = new Uint8Array(size);
  const sure = new Float32Array(size).fill(1);
  for (let i = 0; i < size; i++) if (!seen.there[i]) layer[i] = layerAt('unseen');
  const chroma = chromaOf(seen, lit, pxPerMm);
  const voids = markVoids(seen, lit, layer, pxPerMm);
  const core = rustCore(lit, chroma, layer, pxPerMm);
  const limit = warmLimit(chroma, layer);
  const warm = new Uint8Array(size);
  for (let i = 0; i < size; i++)
    warm[i] = layer[i] === 0 && !seen.blown[i] && chroma.data[i]! > (seen.clipped[i] ? 0.7 * limit : limit) ? 1 : 0;
  for (let i = 0; i < size; i++) if (layer[i] === 0) sure[i] = Math.min(1, Math.abs(chroma.data[i]! - limit) / 0.12);
  const smallest = Math.max(4, Math.round((0.2 * pxPerMm) ** 2));
  const tinted: Component[] = [];
  for (const c of components(warm, width, height, smallest)) {
    if (atCorner(c, width, height)) continue;
    if (isTint(c, chroma, lit, pxPerMm)) {
      tinted.push(c);
      continue;
    }
    for (const i of c.pixels) layer[i] = layerAt(core[i] ? 'rust' : 'lining');
  }
  markPale(seen, chroma, layer, smallest, pxPerMm);
  markHeat(seen, lit, chroma, layer, tinted, pxPerMm);
  cleanRims(layer, width, height, pxPerMm);
  bridgeGlare(seen.glare, layer, width, height, pxPerMm);
  const { specks, crazed, net } = markDark(lit, layer, pxPerMm);
  return { layer, sure, specks, crazed, net, voids };
}

/** Lies wholly at a parting line, or is small and lies in one of the four corners of the face, which mirror the bench. */
function atCorner(c: Component, width: number, height: number): boolean {
  const [near, far] = [PARTING * width, 3.5 * PARTING * width];
  if (c.right < near || c.left >= width - near) return true;
  return (c.right < far || c.left >= width - far) && (c.bottom < height / 4 || c.top > (3 * height) / 4) && c.area < 0.006 * width * height;
}

/**
 * Chroma over sound metal, the mean of log R/G and log G/B against the reference, per pixel. A channel at its end tells too little: with red at its end
 * log G/B is taken where it is more, with green at its end too it is taken alone, and with all three (`glare`) the answer is 0.
 * Smoothed over a few pixels, which loses nothing: JPEG keeps colour at half the resolution of light.
 */
function chromaOf(seen: Seen, lit: Lit, pxPerMm: number): Field {
  const { width, height } = lit.shade;
  const out = field(width, height);
  for (let i = 0; i < out.data.length; i++) {
    const [r, y] = [lit.redder.data[i]!, lit.yellower.data[i]!];
    out.data[i] = seen.blown[i] ? y : seen.glare[i] ? 0 : seen.clipped[i] ? Math.max((r + y) / 2, 0.85 * y) : (r + y) / 2;
  }
  return boxMean(out, Math.max(1, Math.round(pxPerMm * 0.08)), Math.max(1, Math.round(pxPerMm * 0.05)));
}

/** Half way between sound metal and the lining that shows, so that a pixel half covered lies on the limit. */
function warmLimit(chroma: Field, layer: Uint8Array): number {
  const found = new Float32Array(chroma.data.length);
  let n = 0;
  for (let i = 0; i < layer.length; i += 2)
    if (layer[i] === 0 && chroma.data[i]! > 0.3 && chroma.data[i]! < LIMITS.rust) found[n++] = chroma.data[i]!;
  if (n < 60) return 0.3;
  return Math.min(0.36, Math.max(LIMITS.warm, 0.5 * quantile(found.subarray(0, n), 0.5)));
}

/** Rust and what lies within a quarter of a millimetre of it, where its blurred edge would pass for copper. */
export function rustCore(lit: Lit, chroma: Field, layer: Uint8Array, pxPerMm: number): Uint8Array {
  const { width, height } = chroma;
  const hard = field(width, height);
  for (let i = 0; i < hard.data.length; i++)
    if (layer[i] === 0 && (chroma.data[i]! > LIMITS.rust || (chroma.data[i]! > 0.62 && lit.shade.data[i]! < -1))) hard.data[i] = 1;
  const r = Math.max(1, Math.round(pxPerMm * 0.22));
  const near = boxMean(hard, r, r);
  const core = new Uint8Array(hard.data.length);
  const least = 0.12;
  for (let i = 0; i < core.length; i++) core[i] = near.data[i]! > least ? 1 : 0;
  return core;
}

/** Lining under a lamp so bright that only blue still tells: what goes on from lining that was seen, or stands out from what is beside it. */
function markPale(seen: Seen, chroma: Field, layer: Uint8Array, smallest: number, pxPerMm: number): void {
  const { width, height } = chroma;
  const pale = new Uint8Array(layer.length);
  for (let i = 0; i < pale.length; i++) pale[i] = layer[i] === 0 && seen.blown[i] && chroma.data[i]! > LIMITS.blown ? 1 : 0;
  const lining = layerAt('lining');
  const reach = Math.max(1, Math.round(0.15 * pxPerMm));
  for (const c of components(pale, width, height, smallest)) {
    if (atCorner(c, width, height)) continue;
    let touching = 0;
    for (const i of c.pixels) if (layer[i - reach] === lining || layer[i + reach] === lining) touching++;
    if (touching < 0.02 * c.area && borderStep(c, chroma, pxPerMm, 0.75) < PALE_STEP) continue;
    for (const i of c.pixels) layer[i] = lining;
  }
}

/** Chroma by which a patch steps at its border, over twice 0.35 mm: the middle (or quantile `q`) of all places of the border; without end when it has hardly any. */
function borderStep(c: Component, { width, height, data }: Field, pxPerMm: number, q = 0.5): number {
  const inside = new Set(c.pixels);
  const reach = Math.max(2, Math.round(pxPerMm * 0.35));
  const steps: number[] = [];
  const value = (x: number, y: number): number => data[Math.min(height - 1, Math.max(0, y)) * width + Math.min(width - 1, Math.max(0, x))]!;
  for (const i of c.pixels) {
    const x = i % width;
    const y = (i - x) / width;
    if (x < reach || y < reach || x >= width - reach || y >= height - reach) continue;
    if (inside.has(i - 1) && inside.has(i + 1) && inside.has(i - width) && inside.has(i + width)) continue;
    steps.push(Math.max(Math.abs(value(x - reach, y) - value(x + reach, y)), Math.abs(value(x, y - reach) - value(x, y + reach))));
  }
  return steps.length < 8 ? Infinity : quantile(Float32Array.from(steps), q);
}

/**
 * A tint of heat has soft borders and is more yellow than red; lining has a border as sharp as the picture. Both are judged over the whole patch.
 */
function isTint(c: Component, chroma: Field, lit: Lit, pxPerMm: number): boolean {
  if (c.area < (2 * pxPerMm) ** 2) return false;
  let [red, yellow] = [0, 0];
  for (const i of c.pixels) {
    red += lit.redder.data[i]!;
    yellow += lit.yellower.data[i]!;
  }
  const hue = red / Math.max(1e-6, yellow);
  const step = borderStep(c, chroma, pxPerMm);
  // Copper steps by about 0.5 over 0.7 mm and is as red as yellow; heat steps by less than 0.15.
  return step < 0.16 || (step < 0.24 && hue < 0.72);
}

/** The chamfer at each edge is of lining colour: lining in the outermost quarter millimetre counts only where it goes on inwards. */
function cleanRims(layer: Uint8Array, width: number, height: number, pxPerMm: number): void {
  const rim = Math.max(1, Math.round(0.28 * pxPerMm));
  const inward = Math.max(rim + 1, Math.round(0.6 * pxPerMm));
  const lining = layerAt('lining');
  for (let x = 0; x < width; x++)
    for (const [from, step] of [
      [0, 1],
      [height - 1, -1],
    ] as const) {
      const goesOn = layer[(from + step * inward) * width + x] === lining && layer[(from + step * rim) * width + x] === lining;
      if (goesOn) continue;
      for (let k = 0; k < rim; k++) {
        const i = (from + step * k) * width + x;
        if (layer[i] === lining) layer[i] = layerAt('sound');
      }
    }
}

/**
 * Tint past straw, and what is black beyond it. Metal that mirrors a dark place or a brown bench is no heat: heat goes through brown to black, so a patch must hold enough of both. Brown is told by the
 * colour of the metal itself, since the light of a column that is brown from edge to edge is taken from it.
 */
function markHeat(seen: Seen, lit: Lit, chroma: Field, layer: Uint8Array, tinted: readonly Component[], pxPerMm: number): void {
  const { width, height } = chroma;
  const bright = new Float32Array(layer.length);
  let n = 0;
  for (let i = 0; i < layer.length; i += 3) if (layer[i] === 0 && !seen.clipped[i]) bright[n++] = seen.light.data[i]!;
  const reference = quantile(bright.subarray(0, n), 0.85);
  const r = Math.max(1, Math.round(pxPerMm * 0.6));
  const soften = (p: Field): Field => boxMean(p, r, Math.max(1, Math.round(r / 2)));
  const soft = soften(seen.light);
  const mild = soften(chroma);
  const heat = layerAt('heat');
  const brown = soften(ownBrown(seen, lit, layer));
  const hot = new Uint8Array(layer.length);
  for (const c of tinted) for (const i of c.pixels) hot[i] = 1;
  const tint = Uint8Array.from(hot);
  for (let i = 0; i < hot.length; i++)
    if (layer[i] === 0 && (soft.data[i]! - reference < LIMITS.dark || mild.data[i]! > LIMITS.straw || brown.data[i]! > LIMITS.brown))
      hot[i] = 1;
  // Between brown and black a strip may be neither; it parts no patch.
  const joined = new Uint8Array(layer.length);
  const spread = boxMean(asField(hot, width, height), Math.round(2.2 * pxPerMm), 0);
  for (let i = 0; i < joined.length; i++) joined[i] = layer[i] === 0 && spread.data[i]! > 0.25 ? 1 : 0;
  for (const c of tinted) for (const i of c.pixels) joined[i] = 1;
  for (const c of components(joined, width, height, Math.round(layer.length * 0.004))) {
    let [tinged, browned, black, area] = [0, 0, 0, 0];
    for (const i of c.pixels) {
      if (!hot[i]) continue;
      area++;
      tinged += tint[i]!;
      if (brown.data[i]! > LIMITS.brown) browned++;
      if (soft.data[i]! - reference < LIMITS.black) black++;
    }
    if (area === 0) continue;
    const [b, w, t] = [black / area, browned / area, tinged / area];
    // What is nearly all black needs less brown beside it, what is nearly all brown less black.
    if ((b > 0.45 && w > 0.15) || (b > 0.7 && w + t > 0.08) || (b > 0.2 && w > 0.5))
      for (const i of c.pixels) if (layer[i] === 0) layer[i] = heat;
  }
  // Between tint and black the colour passes through grey: what lies inside is heat too.
  const heated = field(width, height);
  for (let i = 0; i < layer.length; i++) if (layer[i] === heat) heated.data[i] = 1;
  const close = boxMean(heated, Math.round(1.5 * pxPerMm), Math.round(1.5 * pxPerMm));
  for (let i = 0; i < layer.length; i++) if (layer[i] === 0 && close.data[i]! > 0.62) layer[i] = heat;
}

/** How far what is left of the face is redder and yellower than bare metal, the less of the two. */
function ownBrown(seen: Seen, { neutral }: Lit, layer: Uint8Array): Field {
  const own = field(seen.light.width, seen.light.height);
  for (let i = 0; i < layer.length; i++)
    if (layer[i] === 0 && !seen.clipped[i])
      own.data[i] = Math.min(seen.redness.data[i]! - neutral.redness, seen.yellowness.data[i]! - neutral.yellowness);
  return own;
}

/** A mask as numbers. */
function asField(mask: Uint8Array, width: number, height: number): Field {
  const out = field(width, height);
  out.data.set(mask);
  return out;
}
