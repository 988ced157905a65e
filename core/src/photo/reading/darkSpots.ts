import { boxMean, components, field, type Component } from './field.js';
import type { Lit } from './illumination.js';
import { layerAt, PARTING } from './layer.js';

/** How far below what lies round it (logarithm of light) a crack and a speck lie. */
const CRACK = -0.33;
const SPECK = -0.5;

/** Dark things on sound metal: specks that are compact, nets of cracks that are not. Lines along the run are left to the line finder. */
export function markDark(lit: Lit, layer: Uint8Array, pxPerMm: number): { specks: number; crazed: number; net: Uint8Array } {
  const { width, height } = lit.shade;
  const r = Math.round(pxPerMm * 0.9);
  const around = boxMean(lit.shade, 2 * r, r);
  const dark = new Uint8Array(layer.length);
  const lining = layerAt('lining');
  for (let i = 0; i < dark.length; i++)
    dark[i] = (layer[i] === 0 || layer[i] === lining) && lit.shade.data[i]! - around.data[i]! < CRACK ? 1 : 0;
  const rusty = field(width, height);
  const rustAt = layerAt('rust');
  for (let i = 0; i < layer.length; i++) if (layer[i] === rustAt) rusty.data[i] = 1;
  const rust = boxMean(rusty, Math.round(1.2 * pxPerMm), Math.round(1.2 * pxPerMm));
  const found: Component[] = [];
  // At a sliver machining marks and what is mirrored look like specks.
  const end = Math.round(1.6 * PARTING * width);
  const net = field(width, height);
  for (const c of components(dark, width, height, Math.max(3, Math.round(0.012 * pxPerMm ** 2)))) {
    const w = (c.right - c.left + 1) / pxPerMm;
    const h = (c.bottom - c.top + 1) / pxPerMm;
    const area = c.area / pxPerMm ** 2;
    const full = area / (w * h);
    if (c.right < end || c.left >= width - end) continue;
    const deepest = c.pixels.reduce((least, i) => Math.min(least, lit.shade.data[i]! - around.data[i]!), 0);
    if (w < 1.4 && h < 1.2 && w < 2.2 * h && h < 2.5 * w && full > 0.4 && deepest < SPECK && area > 0.02) {
      // Pits beside rust are rust.
      if (rust.data[Math.round(c.y) * width + Math.round(c.x)]! > 0.012) for (const i of c.pixels) layer[i] = layerAt('rust');
      else found.push(c);
    } else if (h > 0.55 && w < 8 * h) for (const i of c.pixels) net.data[i] = 1;
  }
  // A net fills its neighbourhood with cracks in every direction; a lone scratch does not.
  const reach = Math.round(1.5 * pxPerMm);
  const density = boxMean(net, reach, reach);
  const under = new Uint8Array(layer.length);
  const [unseen, hole] = [layerAt('unseen'), layerAt('void')];
  let crazed = 0;
  let total = 0;
  for (let i = 0; i < layer.length; i++) {
    if (layer[i] === unseen || layer[i] === hole) continue;
    total++;
    if (density.data[i]! > 0.045) {
      crazed++;
      under[i] = 1;
    }
  }
  const share = total === 0 ? 0 : crazed / total;
  // Many little dark spots in a net are pieces of cracks.
  if (share > 0.02) return { specks: 0, crazed: share, net: under };
  for (const c of found) for (const i of c.pixels) layer[i] = layerAt('embedded');
  return { specks: found.length, crazed: share, net: under };
}
