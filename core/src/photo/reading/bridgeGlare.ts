import { layerAt, LAYERS } from './layer.js';

/** Widest glare that is bridged, mm: between sound metal, and between what is worn alike. */
const MOST_GLARE_MM = { sound: 30, worn: 14 } as const;

/** Under glare nothing is seen: what lies on both sides of it along the arc is taken when they agree and it is not too wide, else the place is not seen. Its share is reported. */
export function bridgeGlare(glare: Uint8Array, layer: Uint8Array, width: number, height: number, pxPerMm: number): void {
  const reach = Math.max(2, Math.round(0.8 * pxPerMm));
  const rows = Math.max(1, Math.round(0.3 * pxPerMm));
  // What most of a patch beside the glare is; null when it is no surface.
  const beside = (x: number, y: number, step: 1 | -1): number | null => {
    const counts = new Uint16Array(LAYERS.length);
    for (let v = Math.max(0, y - rows); v <= Math.min(height - 1, y + rows); v++)
      for (let k = 1; k <= reach; k++) {
        const u = x + step * k;
        if (u >= 0 && u < width && !blind(v * width + u)) counts[before[v * width + u]!]!++;
      }
    let best = 0;
    counts.forEach((c, l) => {
      if (c > counts[best]!) best = l;
    });
    const share =
      counts[best]! /
      Math.max(
        1,
        counts.reduce((sum, c) => sum + c, 0),
      );
    const told = share > (LAYERS[best] === 'sound' ? 0.6 : 0.85) && LAYERS[best] !== 'void' && LAYERS[best] !== 'unseen';
    return told ? best : null;
  };
  // Where blue still tells lining under the glare it was seen.
  const before = Uint8Array.from(layer);
  const blind = (i: number): boolean => glare[i] === 1 && LAYERS[before[i]!] !== 'lining';
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      if (!blind(y * width + x)) continue;
      let end = x;
      while (end + 1 < width && blind(y * width + end + 1)) end++;
      const [left, right] = [beside(x, y, -1), beside(end, y, 1)];
      const most = (left === 0 ? MOST_GLARE_MM.sound : MOST_GLARE_MM.worn) * pxPerMm;
      const value = end - x < most && left !== null && left === right ? left : layerAt('unseen');
      for (let k = x; k <= end; k++) if (LAYERS[layer[y * width + k]!] !== 'void') layer[y * width + k] = value;
      x = end;
    }
}
