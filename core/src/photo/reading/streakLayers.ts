import { boxMean, components, field, quantile, type Field } from './field.js';
import { bridgeGlare } from './bridgeGlare.js';
import { layerAt, type Layered } from './layer.js';
import type { Seen } from './light.js';
import type { Lit } from './illumination.js';

/** A streak is a twelfth darker or brighter than what lies beside it, and runs 2.5 mm along the axis. */
const LIMITS = { contrast: 0.085, longMm: 2.5, meanMm: 0.8, besideMm: 3, leastMm2: 0.15 } as const;
/** From where warm is rust, and how dark it is; what is tinted more than this is no streak. On a piston brown lacquer is warm too; on the iron of a bore nothing else is. */
const RUST = {
  skirt: { warm: 0.62, dark: -0.4, leastMm2: 0.5, tinted: Infinity },
  bore: { warm: 0.28, dark: -0.05, leastMm2: 0.3, tinted: 0.14 },
} as const;

/**
 * Tells scuffing on a skirt or bore: streaks along the axis, darker or brighter than what lies to both sides of them at the same height. Machining marks and mirrored lamps do not do that: the first
 * run across, the second are wide. A printed coating is a wide dark field with straight borders and no damage.
 */
export function readStreakLayers(part: 'skirt' | 'bore', seen: Seen, lit: Lit, pxPerMm: number): Layered {
  const { width, height } = lit.shade;
  const size = width * height;
  const layer = new Uint8Array(size);
  const sure = new Float32Array(size).fill(1);
  for (let i = 0; i < size; i++) if (!seen.there[i]) layer[i] = layerAt('unseen');
  const chroma = field(width, height);
  for (let i = 0; i < size; i++) chroma.data[i] = (lit.redder.data[i]! + lit.yellower.data[i]!) / 2;
  const mild = boxMean(chroma, Math.max(1, Math.round(0.1 * pxPerMm)), Math.max(1, Math.round(0.1 * pxPerMm)));
  const rusty = new Uint8Array(size);
  const { warm, dark, leastMm2, tinted } = RUST[part];
  for (let i = 0; i < size; i++) rusty[i] = layer[i] === 0 && mild.data[i]! > warm && lit.shade.data[i]! < dark ? 1 : 0;
  for (const c of components(rusty, width, height, Math.max(3, Math.round(leastMm2 * pxPerMm ** 2))))
    for (const i of c.pixels) layer[i] = layerAt('rust');

  const printed = printedLayer(seen, pxPerMm);
  const along = boxMean(withoutLamps(seen, printed), 0, Math.max(1, Math.round((LIMITS.meanMm / 2) * pxPerMm)));
  const off = overNeighbours(along, seen, printed, pxPerMm);
  const sample = new Float32Array(Math.ceil(size / 7));
  let n = 0;
  for (let i = 0; i < size; i += 7) if (layer[i] === 0) sample[n++] = Math.abs(off.data[i]!);
  const scatter = quantile(sample.subarray(0, n), 0.5) / 0.6745;
  const limit = Math.max(LIMITS.contrast, Math.min(0.3, 3.2 * scatter));
  const half = Math.max(limit, HALF * typicalDepth(off, layer, limit));
  const mask = new Uint8Array(size);
  for (let i = 0; i < size; i++) {
    mask[i] = layer[i] === 0 && printed[i] !== 2 && mild.data[i]! < tinted && Math.abs(off.data[i]!) > half ? 1 : 0;
    if (layer[i] === 0) sure[i] = Math.min(1, Math.abs(Math.abs(off.data[i]!) - half) / 0.05);
  }
  for (const c of components(mask, width, height, Math.max(4, Math.round(LIMITS.leastMm2 * pxPerMm ** 2)))) {
    const tall = (c.bottom - c.top + 1) / pxPerMm;
    const thick = c.area / pxPerMm / (c.bottom - c.top + 1);
    if (tall < LIMITS.longMm || tall < 2.5 * thick) continue;
    for (const i of c.pixels) layer[i] = layerAt('scuffed');
  }
  bridgeGlare(seen.glare, layer, width, height, pxPerMm);
  return { layer, sure, specks: 0, crazed: 0, net: new Uint8Array(size), voids: 0 };
}

/** Streaks have soft feet: the border of one lies where it is this share of its depth. */
const HALF = 0.4;

/** Depth that the deeper half of the streaks has. */
function typicalDepth(off: Field, layer: Uint8Array, limit: number): number {
  const depths = new Float32Array(Math.ceil(layer.length / 3));
  let n = 0;
  for (let i = 0; i < layer.length; i += 3) if (layer[i] === 0 && Math.abs(off.data[i]!) > limit) depths[n++] = Math.abs(off.data[i]!);
  return n < 40 ? 0 : quantile(depths.subarray(0, n), 0.7);
}

/** Least size of a printed layer, mm², and how much darker than the metal it is. */
const PRINT = { leastMm2: 120, dark: -0.45, full: 0.8, borderMm: 0.7 } as const;

/** 1 on a printed coating (large, dark, nearly filling its box), 2 along its border, 0 elsewhere. */
export function printedLayer(seen: Seen, pxPerMm: number): Uint8Array {
  const { width, height } = seen.light;
  const r = Math.max(1, Math.round(0.4 * pxPerMm));
  const soft = boxMean(seen.light, r, r);
  const dark = new Uint8Array(width * height);
  const column = new Float32Array(height);
  for (let x = 0; x < width; x++) {
    // Bare metal is left above or below it in every column.
    for (let y = 0; y < height; y++) column[y] = soft.data[y * width + x]!;
    const bare = quantile(column, 0.95);
    for (let y = 0; y < height; y++)
      if (seen.there[y * width + x] && soft.data[y * width + x]! - bare < PRINT.dark) dark[y * width + x] = 1;
  }
  const out = new Uint8Array(width * height);
  const border = Math.round(PRINT.borderMm * pxPerMm);
  for (const c of components(dark, width, height, Math.round(PRINT.leastMm2 * pxPerMm ** 2))) {
    if (c.area < PRINT.full * (c.right - c.left + 1) * (c.bottom - c.top + 1)) continue;
    for (let y = Math.max(0, c.top - border); y <= Math.min(height - 1, c.bottom + border); y++)
      for (let x = Math.max(0, c.left - border); x <= Math.min(width - 1, c.right + border); x++) {
        const inside = x > c.left + border && x < c.right - border && y > c.top + border && y < c.bottom - border;
        out[y * width + x] = inside ? 1 : 2;
      }
  }
  return out;
}

/** Light with what fills a whole column taken out: lamps and what is mirrored run along the axis from end to end, as the bright part of each column shows. */
function withoutLamps(seen: Seen, printed: Uint8Array): Field {
  const { width, height, data } = seen.light;
  const out = field(width, height);
  const column = new Float32Array(height);
  for (let x = 0; x < width; x++)
    for (const part of [0, 1]) {
      let n = 0;
      for (let y = 0; y < height; y++) {
        const i = y * width + x;
        if (seen.there[i] && Math.min(1, printed[i]!) === part) column[n++] = data[i]!;
      }
      const level = n < 6 ? 0 : quantile(column.subarray(0, n), 0.8);
      for (let y = 0; y < height; y++) {
        const i = y * width + x;
        if (Math.min(1, printed[i]!) === part) out.data[i] = n < 6 ? 0 : data[i]! - level;
      }
    }
  return out;
}

/** Light over the median of what lies within 5 mm at the same height; the median is taken at every fourth of a millimetre and drawn straight between. */
function overNeighbours(p: Field, seen: Seen, printed: Uint8Array, pxPerMm: number): Field {
  const { width, height } = p;
  const step = Math.max(1, Math.round(0.25 * pxPerMm));
  const rowStep = Math.max(1, Math.round(0.5 * pxPerMm));
  const reach = Math.round((LIMITS.besideMm * pxPerMm) / step);
  const columns = Math.ceil(width / step);
  const out = field(width, height);
  const window = new Float32Array(2 * reach + 1);
  for (let top = 0; top < height; top += rowStep) {
    const y = Math.min(height - 1, top + (rowStep >> 1));
    const middle = new Float32Array(columns);
    for (let c = 0; c < columns; c++) {
      let n = 0;
      const own = printed[y * width + Math.min(width - 1, c * step)]!;
      for (let k = Math.max(0, c - reach); k <= Math.min(columns - 1, c + reach); k++) {
        const i = y * width + Math.min(width - 1, k * step);
        if (seen.there[i] && printed[i] === own) window[n++] = p.data[i]!;
      }
      middle[c] = n === 0 ? 0 : quantile(window.subarray(0, n), 0.55);
    }
    for (let row = top; row < Math.min(height, top + rowStep); row++)
      for (let x = 0; x < width; x++) {
        const c = Math.min(columns - 1, x / step);
        const a = Math.floor(c);
        const base = middle[a]! * (1 - c + a) + middle[Math.min(columns - 1, a + 1)]! * (c - a);
        out.data[row * width + x] = p.data[row * width + x]! - base;
      }
  }
  return out;
}
