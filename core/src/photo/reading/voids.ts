import { components } from './field.js';
import type { Lit } from './illumination.js';
import { layerAt, PARTING } from './layer.js';
import type { Seen } from './light.js';

/** Oil holes (round, dark or of another colour) and tabs at the parting lines (bright steps). */
export function markVoids(seen: Seen, lit: Lit, layer: Uint8Array, pxPerMm: number): number {
  const { width, height } = lit.shade;
  const odd = new Uint8Array(layer.length);
  for (let i = 0; i < odd.length; i++)
    if (layer[i] === 0 && (lit.shade.data[i]! < -0.75 || lit.redder.data[i]! < -0.3 || lit.yellower.data[i]! < -0.4)) odd[i] = 1;
  let found = 0;
  const least = Math.round((1.2 * pxPerMm) ** 2);
  for (const c of components(odd, width, height, least)) {
    const w = c.right - c.left + 1;
    const h = c.bottom - c.top + 1;
    const full = c.area / (w * h);
    const mm = Math.sqrt(w * h) / pxPerMm;
    const cold = c.pixels.reduce((s, i) => s + lit.redder.data[i]! + lit.yellower.data[i]!, 0) / (2 * c.area) < 0.35;
    const clear = cold && c.left > 2 && c.right < width - 3 && c.top > 2 && c.bottom < height - 3;
    if (!clear || mm < 1.2 || mm > 9 || w / h > 1.7 || w / h < 0.6 || full < 0.6) continue;
    found++;
    const grow = Math.round(0.45 * pxPerMm);
    const [cx, cy, rx, ry] = [(c.left + c.right) / 2, (c.top + c.bottom) / 2, w / 2 + grow, h / 2 + grow];
    for (let y = Math.max(0, Math.floor(cy - ry)); y <= Math.min(height - 1, cy + ry); y++)
      for (let x = Math.max(0, Math.floor(cx - rx)); x <= Math.min(width - 1, cx + rx); x++)
        if (((x - cx) / rx) ** 2 + ((y - cy) / ry) ** 2 <= 1) layer[y * width + x] = layerAt('void');
  }
  const edge = Math.round(width * PARTING);
  const steps = new Uint8Array(layer.length);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      if (x >= edge && x < width - edge) continue;
      const i = y * width + x;
      if (layer[i] === 0 && Math.abs(lit.shade.data[i]!) > 0.55) steps[i] = 1;
    }
  for (const c of components(steps, width, height, Math.round(1.2 * pxPerMm ** 2))) {
    const w = c.right - c.left + 1;
    const h = c.bottom - c.top + 1;
    if (h > 0.5 * height || h < 0.8 * pxPerMm || c.area / (w * h) < 0.4 || (c.left > 3 && c.right < width - 4)) continue;
    for (let y = c.top; y <= c.bottom; y++) for (let x = c.left; x <= c.right; x++) layer[y * width + x] = layerAt('void');
  }
  return found;
}
