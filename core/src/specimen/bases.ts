import { fractal, lattice, smoothNoise } from './noise.js';
import { ALUMINIUM, IRON, STEEL, WHITE_METAL, type Sheet } from './sheet.js';

/** What a surface is made of and how it was finished before anything happened to it. */
export type Finish =
  'overlay' | 'ground-steel' | 'turned-aluminium' | 'cast-aluminium' | 'honed-iron' | 'ring-face' | 'hardened-steel' | 'plain-steel';

/** Lays the bare finish. Machining runs along the arc unless the finish says otherwise. */
export function layFinish(s: Sheet, finish: Finish): void {
  const { seed, put } = s;
  switch (finish) {
    case 'overlay':
      s.each((i, _, __, x, y) => {
        // Machining runs round the bore: long along the arc, fine across it.
        const run = 0.7 * lattice(y, Math.floor(x / 260), seed) + 0.5 * smoothNoise(x / 90, y * 0.9, seed + 3);
        put(i, WHITE_METAL, 1 + 0.09 * run + 0.04 * fractal(x / 120, y / 60, seed + 5));
        s.roughness[i] = 0.3 + 0.03 * run;
        s.height[i] = 0.0008 * run;
      });
      return;
    case 'ground-steel':
    case 'hardened-steel':
      s.each((i, _, __, x, y) => {
        const run = 0.6 * lattice(y, Math.floor(x / 420), seed) + 0.5 * smoothNoise(x / 160, y * 1.1, seed + 3);
        put(i, STEEL, 1 + 0.05 * run + 0.03 * fractal(x / 160, y / 70, seed + 5));
        s.roughness[i] = (finish === 'ground-steel' ? 0.17 : 0.22) + 0.03 * run;
        s.height[i] = 0.0004 * run;
      });
      return;
    case 'turned-aluminium':
      s.each((i, _, axial, x, y) => {
        // Turned with a feed of about 0.25 mm: fine even grooves round the part.
        const groove = Math.sin((axial * s.widthMm * 2 * Math.PI) / 0.26);
        const run = 0.5 * lattice(y, Math.floor(x / 320), seed) + 0.4 * smoothNoise(x / 120, y * 0.8, seed + 3);
        put(i, ALUMINIUM, 1 + 0.05 * groove + 0.06 * run);
        s.roughness[i] = 0.33 + 0.03 * run;
        s.height[i] = 0.003 * groove;
      });
      return;
    case 'cast-aluminium':
      s.each((i, _, __, x, y) => {
        const grain = fractal(x / 7, y / 7, seed, 4);
        put(i, ALUMINIUM, 0.82 + 0.14 * grain);
        s.roughness[i] = 0.5 + 0.08 * grain;
        s.height[i] = 0.02 * grain;
      });
      return;
    case 'honed-iron':
      s.each((i, arc, axial, x, y) => {
        // Two hands of stones, at 50° to each other.
        const [u, v] = [arc * s.arcMm, axial * s.widthMm];
        const one = smoothNoise((u * 0.423 + v * 0.906) / 0.09, (u * 0.906 - v * 0.423) / 6, seed);
        const two = smoothNoise((u * 0.423 - v * 0.906) / 0.09, (u * 0.906 + v * 0.423) / 6, seed + 9);
        const cut = Math.min(one, two);
        put(i, IRON, 1 + 0.16 * cut + 0.05 * fractal(x / 90, y / 90, seed + 5));
        s.roughness[i] = 0.34 - 0.05 * cut;
        s.height[i] = 0.004 * cut;
      });
      return;
    case 'ring-face':
      s.each((i, _, axial, x, y) => {
        const run = 0.5 * lattice(y, Math.floor(x / 500), seed) + 0.4 * smoothNoise(x / 200, y, seed + 3);
        const barrel = Math.abs(axial - 0.5) * 2;
        put(i, [0.52, 0.52, 0.53], 1 + 0.05 * run - 0.12 * barrel ** 4);
        s.roughness[i] = 0.25 + 0.12 * barrel ** 3;
        s.height[i] = -0.01 * barrel ** 2 + 0.0006 * run;
      });
      return;
    case 'plain-steel':
      s.each((i, _, __, x, y) => {
        const grain = fractal(x / 30, y / 30, seed, 5);
        put(i, [0.42, 0.415, 0.41], 1 + 0.12 * grain);
        s.roughness[i] = 0.42 + 0.08 * grain;
        s.height[i] = 0.004 * grain;
      });
  }
}
