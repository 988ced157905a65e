import type { DamageOf } from './damages.js';
import { fractal, lattice, smoothNoise, smoothstep } from './noise.js';
import { classAt, RUST, STEEL, type Rgb, type Sheet } from './sheet.js';

/** Lays the lining bare at a texel. */
export function bareLining(s: Sheet, i: number, x: number, y: number, seed: number): void {
  s.truth[i] = 1;
  s.put(i, s.lining, 0.92 + 0.1 * fractal(x / 60, y / 12, seed));
  s.roughness[i] = 0.36;
  s.height[i] = -0.012;
}

/** The back of a shell where overlay and lining are both gone. */
function bareSteel(s: Sheet, i: number, x: number, y: number, seed: number): void {
  s.truth[i] = classAt('steel');
  s.put(i, STEEL, 0.92 + 0.1 * fractal(x / 50, y / 10, seed + 5));
  s.roughness[i] = 0.3;
  s.height[i] = -0.3;
}

/** What is left of the overlay where heat went on to blue. */
const BLUED: Rgb = [0.075, 0.09, 0.125];
const BLACKENED: Rgb = [0.022, 0.022, 0.022];

export function polish(s: Sheet, d: DamageOf<'polish'>): void {
  s.each((i, arc) => {
    s.roughness[i]! -= 0.16 * d.amount * smoothstep(1, 0.4, Math.abs(arc - d.arc) / d.halfDeg);
  });
}

export function wipe(s: Sheet, d: DamageOf<'wipe'>, seed: number): void {
  s.each((i, arc, axial, x, y) => {
    const reach = Math.abs(arc - d.arc) / d.halfDeg;
    const row =
      0.34 * smoothNoise(axial * 26, d.arc, seed) +
      0.3 * lattice(y, Math.floor(x / 200), seed + 1) * smoothNoise(x / 160, y * 0.5, seed + 2);
    if (reach + row >= d.amount) return;
    if (d.steel !== undefined && reach + row < d.amount - d.steel) bareSteel(s, i, x, y, seed);
    else bareLining(s, i, x, y, seed);
  });
}

export function edge(s: Sheet, d: DamageOf<'edge'>, seed: number): void {
  s.each((i, arc, axial, x, y) => {
    if (arc < d.fromDeg || arc > d.toDeg) return;
    const t = (arc - d.fromDeg) / (d.toDeg - d.fromDeg);
    const depth =
      d.depth * Math.sin(Math.PI * t) ** 0.6 * (1 + 0.25 * fractal(arc / 14, 0, seed)) + 0.02 * lattice(y, Math.floor(x / 120), seed);
    if ((d.edge === 'front' ? axial : 1 - axial) < depth) bareLining(s, i, x, y, seed);
  });
}

export function score(s: Sheet, d: DamageOf<'score'>, seed: number): void {
  if (d.widthMm >= 0.15) s.lines++;
  s.each((i, arc, axial, x, y) => {
    if (arc < d.fromDeg || arc > d.toDeg) return;
    const end = Math.min(1, (arc - d.fromDeg) / 5, (d.toDeg - arc) / 5);
    const off = Math.abs(axial - d.axial) * s.widthMm;
    const half = (d.widthMm / 2) * (0.55 + 0.45 * end) * (1 + 0.12 * smoothNoise(arc / 6, 0, seed));
    if (off > half) return;
    const deep = 1 - (off / half) ** 2;
    s.height[i]! -= 0.03 * deep;
    if (d.through && off < half * 0.92) bareLining(s, i, x, y, seed);
    else for (let k = 0; k < 3; k++) s.colour[3 * i + k]! *= 1 - 0.5 * deep * (0.6 + 0.4 * end);
  });
}

export function heat(s: Sheet, d: DamageOf<'heat'>, seed: number): void {
  const end = d.blue ? BLUED : BLACKENED;
  s.each((i, arc, axial, x, y) => {
    const t =
      d.most * smoothstep(1, 0.1, Math.abs(arc - d.arc + 4 * fractal(axial * 3, arc / 30, seed)) / d.halfDeg) +
      0.04 * lattice(y, Math.floor(x / 300), seed);
    if (t <= 0.04) return;
    const straw = smoothstep(0.05, 0.3, t);
    const brown = smoothstep(0.28, 0.62, t);
    const black = smoothstep(0.55, 0.95, t);
    const at = [0, 1, 2].map((k) => {
      let v = s.colour[3 * i + k]!;
      v *= 1 - straw * [0.03, 0.12, 0.34][k]!;
      v *= 1 - brown * [0.42, 0.55, 0.62][k]!;
      return v * (1 - black) + end[k]! * black;
    }) as [number, number, number];
    s.put(i, at, 1);
    if (t > 0.3) s.truth[i] = 2;
  });
}

export function rust(s: Sheet, d: DamageOf<'rust'>, seed: number): void {
  s.each((i, arc, axial, x, y) => {
    const region = smoothstep(1, 0.3, Math.hypot((arc - d.arc) / d.halfDeg, (axial - 0.5) / 0.55));
    const f = fractal((arc * s.arcMm) / 1.1, (axial * s.widthMm) / 1.1, seed, 4);
    if (f * 0.9 + region * 0.55 - 0.62 < 0.28 - 0.3 * d.amount) return;
    s.truth[i] = 3;
    s.put(i, RUST, 0.6 + 0.6 * fractal(x / 14, y / 14, seed + 9));
    s.roughness[i] = 0.9;
    s.dull[i] = 0.95;
    s.height[i] = -0.02;
  });
}

export function specks(s: Sheet, d: DamageOf<'specks'>, seed: number): void {
  for (let k = 0; k < d.count; k++) {
    const r = 0.12 + 0.3 * s.random() ** 2;
    const [cx, cy] = [s.random() * s.columns, (0.04 + 0.92 * s.random()) * s.rows];
    const [rx, ry] = [(r / s.arcMm / s.spanDeg) * s.columns, (r / s.widthMm) * s.rows];
    s.specks++;
    for (let y = Math.max(0, Math.floor(cy - 1.6 * ry)); y <= Math.min(s.rows - 1, cy + 1.6 * ry); y++)
      for (let x = Math.max(0, Math.floor(cx - 1.6 * rx)); x <= Math.min(s.columns - 1, cx + 1.6 * rx); x++) {
        const q = Math.hypot((x - cx) / rx, (y - cy) / ry) * (1 + 0.25 * smoothNoise(x / 3, y / 3, seed));
        const i = y * s.columns + x;
        if (q < 1) {
          s.truth[i] = 4;
          s.put(i, [0.06, 0.055, 0.05], 1);
          s.dull[i] = 0.6;
        } else if (q < 1.5) s.height[i]! += 0.012 * (1.5 - q);
      }
  }
}

export function fatigue(s: Sheet, d: DamageOf<'fatigue'>, seed: number): void {
  // Cells of a Voronoi net about a millimetre wide; cracks where the two nearest seeds are as far.
  const cell = 1.15;
  s.each((i, arc, axial, x, y) => {
    const inside = smoothstep(
      1,
      0.75,
      Math.hypot((arc - d.arc) / d.halfDeg, (axial - d.axial) / 0.42) + 0.2 * fractal(arc / 8, axial * 8, seed),
    );
    if (inside <= 0.02) return;
    const [px, py] = [(arc * s.arcMm) / cell, (axial * s.widthMm) / cell];
    const [gx, gy] = [Math.floor(px), Math.floor(py)];
    let [first, second, owner] = [9, 9, 0];
    for (let oy = -1; oy <= 1; oy++)
      for (let ox = -1; ox <= 1; ox++) {
        const [cx, cy] = [gx + ox, gy + oy];
        const dist = Math.hypot(cx + 0.5 + 0.45 * lattice(cx, cy, seed) - px, cy + 0.5 + 0.45 * lattice(cx, cy, seed + 1) - py);
        if (dist < first) [second, first, owner] = [first, dist, cx * 7919 + cy];
        else if (dist < second) second = dist;
      }
    const lost = lattice(owner, 3, seed) * 0.5 + 0.5 < d.lost * inside;
    if (lost) {
      bareLining(s, i, x, y, seed);
      s.roughness[i] = 0.55;
      s.height[i] = -0.15;
    } else if (second - first < 0.1 * inside && inside > 0.3) {
      for (let k = 0; k < 3; k++) s.colour[3 * i + k]! *= 0.28;
      s.height[i] = -0.05;
    }
  });
}
