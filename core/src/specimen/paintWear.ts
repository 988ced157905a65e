import type { DamageOf } from './damages.js';
import { fractal, lattice, smoothNoise, smoothstep } from './noise.js';
import { bareLining } from './paintShell.js';
import { BRONZE, temperTint } from './paintOther.js';
import { classAt, RUST, WHITE_METAL, type Sheet } from './sheet.js';

/** Wear of a part of one metal: temper colours, torn streaks, bronze of the shell smeared on. */
function bareMetal(s: Sheet, i: number, w: { torn: number; heat: number; scuffed: number; transfer: number }): void {
  if (w.heat > 0.03) {
    const t = Math.min(1, 0.1 + 0.8 * w.heat * (0.85 + 0.3 * w.torn));
    s.tint(i, temperTint(t));
    if (t > 0.4) s.truth[i] = classAt('heat');
  }
  if (w.scuffed > 0.03 && w.torn < w.scuffed * 1.12 - 0.06) {
    s.tint(i, [0.45, 0.45, 0.46]);
    s.roughness[i] = 0.55;
    s.truth[i] = classAt('scuffed');
  }
  if (w.transfer > 0.03 && w.torn < w.transfer * 1.12 - 0.06) {
    s.put(i, BRONZE, 0.95);
    s.roughness[i] = 0.34;
    s.height[i] = 0.02;
    s.truth[i] = classAt('transfer');
  }
}

/** Paints what a wear map says, torn along the run. */
export function wear(s: Sheet, d: DamageOf<'wear'>, seed: number): void {
  const { columns: w, rows: h, shares } = d.map;
  const between = (list: Float32Array, arc: number, axial: number): number => {
    const u = Math.max(0, Math.min(w - 1.001, (arc / 180) * w - 0.5));
    const v = Math.max(0, Math.min(h - 1.001, axial * h - 0.5));
    const [a, b] = [Math.floor(u), Math.floor(v)];
    const [fu, fv] = [u - a, v - b];
    const at = (x: number, y: number): number => list[Math.min(h - 1, y) * w + Math.min(w - 1, x)]!;
    return (at(a, b) * (1 - fu) + at(a + 1, b) * fu) * (1 - fv) + (at(a, b + 1) * (1 - fu) + at(a + 1, b + 1) * fu) * fv;
  };
  s.each((i, arc, axial, x, y) => {
    const torn =
      0.5 +
      0.3 * smoothNoise(arc / 9, axial * 34, seed) +
      0.22 * lattice(y, Math.floor(x / 180), seed + 1) * smoothNoise(x / 140, y * 0.5, seed + 2);
    const patchy = 0.5 + 0.62 * fractal((arc * s.arcMm) / 1.2, (axial * s.widthMm) / 1.2, seed + 4);
    s.roughness[i]! -= 0.12 * between(shares.polished, arc, axial);
    const scuffed = between(shares.scuffed, arc, axial);
    const lining = between(shares.lining, arc, axial) + (s.lined ? scuffed : 0);
    const heat = between(shares.heat, arc, axial);
    if (!s.lined) bareMetal(s, i, { torn, heat, scuffed, transfer: between(shares.transfer, arc, axial) });
    else if (heat > 0.05) {
      const t = heat * (0.9 + 0.2 * torn);
      const black = smoothstep(0.45, 0.95, t);
      const brown = smoothstep(0.05, 0.5, t);
      s.put(
        i,
        [0, 1, 2].map((k) => WHITE_METAL[k]! * (1 - brown * [0.35, 0.5, 0.72][k]!) * (1 - black) + 0.022 * black) as [
          number,
          number,
          number,
        ],
        1,
      );
      if (t > 0.3) s.truth[i] = 2;
    }
    if (lining > 0.03 && torn < lining * 1.12 - 0.06) bareLining(s, i, x, y, seed);
    const steel = between(shares.steel, arc, axial);
    if (steel > 0.05 && torn < steel) s.put(i, [0.33, 0.34, 0.36], 1);
    const rust = between(shares.rust, arc, axial);
    if (rust > 0.02 && patchy < rust * 1.1) {
      s.truth[i] = 3;
      s.put(i, RUST, 0.6 + 0.6 * fractal(x / 14, y / 14, seed + 9));
      s.dull[i] = 0.95;
      s.roughness[i] = 0.9;
    }
    const dirt = between(shares.embedded, arc, axial) + between(shares.deposit, arc, axial);
    if (dirt > 0.02 && 0.5 + 0.5 * smoothNoise((arc * s.arcMm) / 0.35, (axial * s.widthMm) / 0.35, seed + 6) > 1.02 - 0.35 * dirt) {
      s.truth[i] = 4;
      s.put(i, [0.06, 0.055, 0.05], 1);
      s.dull[i] = 0.6;
    }
  });
}
