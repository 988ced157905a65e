import { boxMean, components, field } from '../reading/field.js';
import { layerAt } from '../reading/layer.js';
import type { Lit } from '../reading/illumination.js';

/** A crack is darker than what lies round it by this, in the logarithm of light. */
const CRACK = -0.33;
/** A net fills its neighbourhood with cracks to this share; a lone scratch does not. */
const DENSE = 0.045;
/** Length along the axis from which a dark thing is a crack of a net and no machining mark, mm, and how many times longer along the run it may be. */
const ACROSS = { mm: 0.55, run: 8 } as const;

/** Nets of cracks on a face told apart into layers: dark things that run every way, by how densely they lie. `crazed` is the share of the face under them, `net` 1 there. */
export function crackNet(lit: Lit, layer: Uint8Array, pxPerMm: number): { readonly crazed: number; readonly net: Uint8Array } {
  const { width, height } = lit.shade;
  const r = Math.round(pxPerMm * 0.9);
  const around = boxMean(lit.shade, 2 * r, r);
  const [sound, lining, unseen, hole] = [layerAt('sound'), layerAt('lining'), layerAt('unseen'), layerAt('void')];
  const dark = new Uint8Array(layer.length);
  for (let i = 0; i < dark.length; i++)
    dark[i] = (layer[i] === sound || layer[i] === lining) && lit.shade.data[i]! - around.data[i]! < CRACK ? 1 : 0;
  const cracks = field(width, height);
  for (const c of components(dark, width, height, Math.max(3, Math.round(0.012 * pxPerMm ** 2)))) {
    const [w, h] = [(c.right - c.left + 1) / pxPerMm, (c.bottom - c.top + 1) / pxPerMm];
    if (h > ACROSS.mm && w < ACROSS.run * h) for (const i of c.pixels) cracks.data[i] = 1;
  }
  const reach = Math.round(1.5 * pxPerMm);
  const density = boxMean(cracks, reach, reach);
  const net = new Uint8Array(layer.length);
  let [crazed, all] = [0, 0];
  for (let i = 0; i < layer.length; i++) {
    if (layer[i] === unseen || layer[i] === hole) continue;
    all++;
    if (density.data[i]! > DENSE) {
      crazed++;
      net[i] = 1;
    }
  }
  return { crazed: all === 0 ? 0 : crazed / all, net };
}
