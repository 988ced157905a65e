import { boxMean, components, field, quantile, type Component, type Field } from './field.js';
import { bridgeGlare } from './bridgeGlare.js';
import { layerAt, type Layered } from './layer.js';
import { markVoids } from './voids.js';
import { rustCore } from './layers.js';
import type { Seen } from './light.js';
import type { Lit } from './illumination.js';

/**
 * Limits in log of linear light over bare steel. Oxide films on steel go straw, brown, purple, blue as they thicken (interference; the usual temper colours from 220 to 300 °C): straw is redder and
 * more yellow and hardly darker, past golden brown red rises over a third, then yellow falls far below bare metal while it stays dark.
 */
const LIMITS = { blue: -0.16, cold: -0.08, brown: 0.29, darkened: -0.22, transferWarm: 0.13, transferDark: -0.75 } as const;
/** Temper colours are more yellow than red by a fifth and more; bronze and copper are about as yellow as red. */
const STRAW_HUE = 1.2;
/** Least size of a patch, mm². */
const LEAST = { heat: 5, transfer: 0.35, rust: 0.06 } as const;

/** Tells the layers of a developed steel journal apart: bare, heat past golden brown, metal transferred from the shell, rust. */
export function readJournalLayers(seen: Seen, lit: Lit, pxPerMm: number): Layered {
  const { width, height } = lit.shade;
  const size = width * height;
  const layer = new Uint8Array(size);
  const sure = new Float32Array(size).fill(1);
  for (let i = 0; i < size; i++) if (!seen.there[i]) layer[i] = layerAt('unseen');
  const voids = markVoids(seen, lit, layer, pxPerMm);
  const soft = (p: Field, mm: number): Field => boxMean(p, Math.max(1, Math.round(mm * pxPerMm)), Math.max(1, Math.round(mm * pxPerMm)));
  const red = soft(lit.redder, 0.08);
  const yellow = soft(lit.yellower, 0.08);
  const shade = soft(lit.shade, 0.08);
  const chroma = field(width, height);
  for (let i = 0; i < size; i++) chroma.data[i] = (red.data[i]! + yellow.data[i]!) / 2;

  const core = rustCore(lit, chroma, layer, pxPerMm);
  // What is smeared on and what rusts has a sharp border; a temper colour changes slowly.
  const warm = new Uint8Array(size);
  for (let i = 0; i < size; i++)
    warm[i] =
      layer[i] === 0 &&
      red.data[i]! > LIMITS.transferWarm &&
      yellow.data[i]! > LIMITS.transferWarm / 2 &&
      shade.data[i]! > LIMITS.transferDark
        ? 1
        : core[i]!;
  for (const c of components(warm, width, height, Math.max(4, Math.round(LEAST.rust * pxPerMm ** 2)))) {
    const rusty = c.pixels.reduce((n, i) => n + core[i]!, 0) > 0.3 * c.area;
    if (!rusty && c.area < LEAST.transfer * pxPerMm ** 2) continue;
    const step = borderStep(c.pixels, shade, chroma, pxPerMm);
    const metal = step > SHARP && (step > VERY_SHARP || hueOf(c.pixels, red, yellow) < STRAW_HUE);
    const kept = rusty || metal ? c.pixels : standing(c, { shade, chroma, red, yellow }, pxPerMm);
    for (const i of kept) if (layer[i] === 0) layer[i] = layerAt(rusty || core[i] ? 'rust' : 'transfer');
  }

  const hotRed = soft(lit.redder, 0.2);
  const hotYellow = soft(lit.yellower, 0.2);
  const hotShade = soft(lit.shade, 0.2);
  const rusted = field(width, height);
  for (let i = 0; i < size; i++) if (layer[i] === layerAt('rust')) rusted.data[i] = 1;
  const nearRust = soft(rusted, 0.5);
  // Thin rust at the foot of rust looks like bronze.
  const beside = soft(rusted, 2);
  for (let i = 0; i < size; i++) if (layer[i] === layerAt('transfer') && beside.data[i]! > 0.02) layer[i] = layerAt('rust');
  const hot = new Uint8Array(size);
  for (let i = 0; i < size; i++) {
    if (layer[i] !== 0 || nearRust.data[i]! > 0.02) continue;
    const blue = hotYellow.data[i]! < LIMITS.blue && hotShade.data[i]! < LIMITS.darkened;
    const brown = hotRed.data[i]! > LIMITS.brown && hotShade.data[i]! < LIMITS.darkened / 2;
    const cold = seen.frosted[i] && hotRed.data[i]! < LIMITS.cold;
    hot[i] = blue || brown || cold ? 1 : 0;
    sure[i] = Math.min(1, Math.min(Math.abs(hotYellow.data[i]! - LIMITS.blue), Math.abs(hotRed.data[i]! - LIMITS.brown)) / 0.1);
  }
  // Between brown and purple yellow passes through zero: what lies between is closed along the axis.
  const filled = closeAlongAxis(hot, width, height, Math.round(0.5 * pxPerMm));
  for (const c of components(filled, width, height, Math.round(LEAST.heat * pxPerMm ** 2)))
    for (const i of c.pixels) if (layer[i] === 0) layer[i] = layerAt('heat');
  bridgeGlare(seen.glare, layer, width, height, pxPerMm);
  return { layer, sure, specks: 0, crazed: 0, net: new Uint8Array(size), voids };
}

/** Least step across the border of a patch of other metal, and the step from which its hue no longer matters. */
const SHARP = 0.2;
const VERY_SHARP = 0.3;

/** Yellowness over redness of a patch. */
function hueOf(pixels: readonly number[], red: Field, yellow: Field): number {
  let [r, y] = [0, 0];
  for (const i of pixels) {
    r += red.data[i]!;
    y += yellow.data[i]!;
  }
  return y / Math.max(1e-6, r);
}

/** Step of shade or chroma over 0.6 mm along the axis at the border of a set of pixels, at the softer third of it: a tint is soft on one side at least. */
function borderStep(pixels: readonly number[], shade: Field, chroma: Field, pxPerMm: number): number {
  const { width, height } = shade;
  const reach = Math.max(2, Math.round(0.3 * pxPerMm));
  const inside = new Set(pixels);
  const steps: number[] = [];
  for (const i of pixels) {
    if (inside.has(i - width) && inside.has(i + width)) continue;
    const up = Math.max(i % width, i - reach * width);
    const down = Math.min((height - 1) * width + (i % width), i + reach * width);
    steps.push(Math.max(Math.abs(shade.data[up]! - shade.data[down]!), 1.3 * Math.abs(chroma.data[up]! - chroma.data[down]!)));
  }
  return steps.length === 0 ? 0 : quantile(Float32Array.from(steps), 0.3);
}

/** Pixels of a warm patch that stand bright or warm out of what lies just above and below: smears on a tint run along the arc. */
function standing(
  c: Component,
  { shade, chroma, red, yellow }: Readonly<Record<'shade' | 'chroma' | 'red' | 'yellow', Field>>,
  pxPerMm: number,
): readonly number[] {
  const { width, height } = shade;
  const reach = Math.max(2, Math.round(0.3 * pxPerMm));
  const found = c.pixels.filter((i) => {
    const x = i % width;
    const y = (i - x) / width;
    let [darkest, coolest] = [Infinity, Infinity];
    for (const far of [-5, -3, -1, 1, 3, 5]) {
      const k = Math.min(height - 1, Math.max(0, y + far * reach)) * width + x;
      darkest = Math.min(darkest, shade.data[k]!);
      coolest = Math.min(coolest, chroma.data[k]!);
    }
    return shade.data[i]! - darkest > 0.25 || chroma.data[i]! - coolest > 0.22;
  });
  const enough = found.length >= 0.25 * c.area || found.length >= (0.5 * pxPerMm) ** 2;
  return enough && hueOf(found, red, yellow) < STRAW_HUE && borderStep(found, shade, chroma, pxPerMm) > SHARP ? found : [];
}

function closeAlongAxis(mask: Uint8Array, width: number, height: number, most: number): Uint8Array {
  const out = Uint8Array.from(mask);
  for (let x = 0; x < width; x++) {
    let last = -1;
    for (let y = 0; y < height; y++) {
      if (!mask[y * width + x]) continue;
      if (last >= 0 && y - last > 1 && y - last <= most) for (let k = last + 1; k < y; k++) out[k * width + x] = 1;
      last = y;
    }
  }
  return out;
}
