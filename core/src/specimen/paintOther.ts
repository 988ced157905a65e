import type { DamageOf } from './damages.js';
import { fractal, lattice, smoothNoise, smoothstep } from './noise.js';
import { arcOff, classAt, SOOT, type Rgb, type Sheet } from './sheet.js';

export const BRONZE: Rgb = [0.78, 0.47, 0.29];
const BRIGHT_ALUMINIUM: Rgb = [0.8, 0.8, 0.81];

/** 1 in the middle of an oval patch, 0 at its border and beyond; `rough` frays the border. */
function inPatch(
  s: Sheet,
  d: { readonly arc: number; readonly halfDeg: number; readonly axial: number; readonly axialHalf: number },
  arc: number,
  axial: number,
  rough: number,
  seed: number,
): number {
  const q = Math.hypot(arcOff(s, arc, d.arc) / d.halfDeg, (axial - d.axial) / d.axialHalf) + rough * fractal(arc / 8, axial * 9, seed);
  return smoothstep(1, 0.55, q);
}

/** Reflectance of steel by its temper film: what interference takes from each channel, by thickness. */
const TEMPER: ReadonlyArray<readonly [at: number, tint: Rgb]> = [
  [0, [1, 1, 1]],
  [0.2, [1.02, 0.93, 0.68]],
  [0.38, [0.86, 0.6, 0.33]],
  [0.5, [0.58, 0.34, 0.3]],
  [0.62, [0.36, 0.22, 0.42]],
  [0.78, [0.17, 0.24, 0.5]],
  [0.92, [0.22, 0.34, 0.5]],
  [1.1, [0.3, 0.31, 0.33]],
];
export function temperTint(t: number): Rgb {
  const k = Math.max(
    1,
    TEMPER.findIndex(([at]) => at >= t),
  );
  const [a, from] = TEMPER[(t > 1.1 ? TEMPER.length - 1 : k) - 1]!;
  const [b, to] = TEMPER[t > 1.1 ? TEMPER.length - 1 : k]!;
  const f = Math.max(0, Math.min(1, (t - a) / (b - a)));
  return [0, 1, 2].map((c) => from[c]! * (1 - f) + to[c]! * f) as unknown as Rgb;
}

export function temper(s: Sheet, d: DamageOf<'temper'>, seed: number): void {
  const ring = d.halfDeg >= 180;
  s.each((i, arc, axial, x, y) => {
    const across = Math.abs(axial - d.axial) / d.axialHalf + 0.1 * fractal(arc / 25, axial * 4, seed);
    const q = ring ? across : Math.hypot(across, arcOff(s, arc, d.arc) / d.halfDeg);
    const t = d.most * smoothstep(1.25, 0.15, q) + 0.02 * lattice(y, Math.floor(x / 300), seed);
    if (t < 0.03) return;
    s.tint(i, temperTint(t));
    if (t > 0.4) s.truth[i] = classAt('heat');
  });
}

export function transfer(s: Sheet, d: DamageOf<'transfer'>, seed: number): void {
  s.each((i, arc, axial, x, y) => {
    const inside = inPatch(s, d, arc, axial, 0.15, seed);
    if (inside <= 0) return;
    const [u, v] = [arc * s.arcMm, axial * s.widthMm];
    // Smears lie along the run: long and thin islands.
    const smear = 0.5 + 0.5 * fractal(u / 5.5, v / 0.75, seed + 2, 3);
    if (smear < 1 - (0.28 + 0.5 * d.cover) * (0.55 + 0.45 * inside)) return;
    s.truth[i] = classAt('transfer');
    s.put(i, d.metal === 'bronze' ? BRONZE : BRIGHT_ALUMINIUM, 0.95 + 0.12 * fractal(x / 40, y / 9, seed + 5));
    s.roughness[i] = 0.34;
    s.height[i] = 0.02 + 0.01 * fractal(u / 2, v / 0.3, seed + 3);
  });
}

export function scuff(s: Sheet, d: DamageOf<'scuff'>, seed: number): void {
  s.each((i, arc, axial, x, y) => {
    const side = arcOff(s, arc, d.arc) / d.halfDeg;
    if (side > 1.15) return;
    const u = arc * s.arcMm;
    // Each streak has its own beginning and end.
    const lane = Math.floor(u / 0.45);
    const reach = 0.16 * lattice(lane, 5, seed);
    if (axial < d.from - reach || axial > d.to + 0.16 * lattice(lane, 8, seed)) return;
    const streak = 0.5 + 0.5 * fractal(u / 0.7, axial * 1.6, seed, 3) + 0.16 * smoothNoise(u / 0.22, axial * 4, seed + 2);
    const t = streak - (1.02 - 0.52 * d.amount * smoothstep(1.15, 0.5, side));
    if (t <= 0) return;
    const deep = Math.min(1, t / 0.14);
    s.tint(i, [1 - 0.6 * deep, 1 - 0.6 * deep, 1 - 0.59 * deep]);
    s.roughness[i] = 0.3 + 0.3 * deep;
    s.height[i] = -0.03 * deep + 0.008 * lattice(x, Math.floor(y / 60), seed);
    if (deep > 0.4) s.truth[i] = classAt('scuffed');
  });
}

export function coat(s: Sheet, d: DamageOf<'coat'>, seed: number): void {
  s.within(d.fromDeg, d.toDeg, d.from, d.to, (i, arc, axial, x, y) => {
    if (axial < d.from || axial > d.to) return;
    const dots = 0.12 * smoothNoise(x / 3.2, y / 3.2, seed);
    s.put(i, [0.06, 0.062, 0.065], 1 + dots);
    s.roughness[i] = 0.6;
    s.dull[i] = 0.55;
    s.height[i] = 0.012;
  });
}

export function pits(s: Sheet, d: DamageOf<'pits'>, seed: number): void {
  for (let k = 0; k < d.count; k++) {
    const far = Math.sqrt(s.random());
    const turn = 2 * Math.PI * s.random();
    const arc = d.arc + d.halfDeg * far * Math.cos(turn);
    const axial = d.axial + d.axialHalf * far * Math.sin(turn);
    const r = d.mostMm * (0.2 + 0.8 * s.random() ** 2);
    const [deg, share] = [(1.3 * r) / s.arcMm, (1.3 * r) / s.widthMm];
    s.within(arc - deg, arc + deg, axial - share, axial + share, (i, a, v, x, y) => {
      const q =
        Math.hypot((arcOff(s, a, ((arc % 360) + 360) % 360) * s.arcMm) / r, ((v - axial) * s.widthMm) / r) *
        (1 + 0.3 * smoothNoise(x / 4, y / 4, seed + k));
      if (q > 1) {
        if (q < 1.3) s.height[i]! += 0.01;
        return;
      }
      s.truth[i] = classAt('missing');
      s.height[i] = -0.35 * r * (1 - q * q);
      s.put(i, d.bright ? [0.5, 0.5, 0.5] : [0.1, 0.09, 0.08], 0.7 + 0.5 * q);
      s.roughness[i] = 0.65;
      s.dull[i] = d.bright ? 0.1 : 0.5;
    });
  }
}

export function crack(s: Sheet, d: DamageOf<'crack'>, seed: number): void {
  const turn = (d.turnDeg * Math.PI) / 180;
  const half = d.longMm / 2;
  s.each((i, arc, axial) => {
    const [u, v] = [(arc - d.arc) * s.arcMm, (axial - d.axial) * s.widthMm];
    const along = u * Math.cos(turn) + v * Math.sin(turn);
    if (Math.abs(along) > half) return;
    const wander = 0.35 * fractal(along / 2.2, 0, seed, 4);
    const off = Math.abs(-u * Math.sin(turn) + v * Math.cos(turn) - wander);
    const wide = 0.06 * (1 - (along / half) ** 4) + 0.02;
    if (off > wide * 3) return;
    if (off < wide) {
      s.put(i, SOOT, 0.5);
      s.height[i] = -0.1;
      s.dull[i] = 0.9;
      s.truth[i] = classAt('missing');
    } else s.tint(i, [0.75, 0.72, 0.68]);
  });
}

export function deposit(s: Sheet, d: DamageOf<'deposit'>, seed: number): void {
  const colour: Rgb = d.brown ? [0.16, 0.075, 0.03] : SOOT;
  s.each((i, arc, axial, x, y) => {
    const inside = inPatch(s, d, arc, axial, 0.45, seed);
    if (inside <= 0) return;
    const [u, v] = [arc * s.arcMm, axial * s.widthMm];
    const cover = Math.max(
      0,
      Math.min(1, d.amount * inside * (0.95 + 0.4 * fractal(u / 7, v / 7, seed + 3, 5) + 0.12 * smoothNoise(u / 0.5, v / 0.5, seed + 5))),
    );
    if (cover < 0.04) return;
    for (let k = 0; k < 3; k++)
      s.colour[3 * i + k] =
        s.colour[3 * i + k]! * (1 - cover) + colour[k as 0 | 1 | 2] * cover * (1 + 0.5 * fractal(x / 6, y / 6, seed + 7));
    s.dull[i] = Math.max(s.dull[i]!, 0.85 * cover);
    s.roughness[i] = s.roughness[i]! * (1 - cover) + (d.brown ? 0.35 : 0.8) * cover;
    s.height[i]! += 0.03 * cover * (0.5 + fractal(u, v, seed + 11, 4));
    if (cover > 0.5) s.truth[i] = classAt('deposit');
  });
}

export function glaze(s: Sheet, d: DamageOf<'glaze'>, seed: number): void {
  s.each((i, arc, axial) => {
    const inside = Math.min(smoothstep(d.from - 0.03, d.from + 0.04, axial), smoothstep(d.to + 0.03, d.to - 0.04, axial));
    const t = d.amount * inside * (0.85 + 0.3 * fractal(arc / 20, axial * 6, seed));
    if (t <= 0) return;
    const mean = 0.46;
    for (let k = 0; k < 3; k++) s.colour[3 * i + k] = s.colour[3 * i + k]! * (1 - 0.8 * t) + mean * 0.8 * t;
    s.roughness[i] = s.roughness[i]! * (1 - t) + 0.12 * t;
    s.height[i]! *= 1 - t;
  });
}

export function gone(s: Sheet, d: DamageOf<'gone'>, seed: number): void {
  const deg = (2 * d.radiusMm) / s.arcMm;
  const share = (2 * d.radiusMm) / s.widthMm;
  s.within(d.arc - deg, d.arc + deg, d.axial - share, d.axial + share, (i, arc, axial, x, y) => {
    const [u, v] = [(arc - d.arc) * s.arcMm, (axial - d.axial) * s.widthMm];
    const round = 0.14 * fractal(Math.atan2(v, u) * 1.2 + 9, 0, seed, 3);
    const broken = 0.5 * fractal(u / (0.5 * d.radiusMm), v / (0.5 * d.radiusMm), seed + 3, 4);
    const q = Math.hypot(u, v) / d.radiusMm + (1 - d.ragged) * round + d.ragged * broken;
    if (q > 1.35) return;
    if (q > 1) {
      // Molten lip or bruised edge.
      const lip = 1 - (q - 1) / 0.35;
      s.height[i]! += 0.25 * lip * (1 - d.ragged);
      s.roughness[i] = 0.3;
      s.tint(i, d.ragged > 0.5 ? [0.85, 0.84, 0.82] : [0.7, 0.66, 0.6]);
      return;
    }
    s.truth[i] = classAt('missing');
    s.height[i] = -Math.min(3, d.radiusMm * 0.5) * (1 - q * q);
    if (d.ragged > 0.5) {
      // A fresh fracture: grey, sparkling grain.
      s.put(i, [0.36, 0.355, 0.35], 0.7 + 0.6 * fractal(x / 2, y / 2, seed + 8, 2));
      s.roughness[i] = 0.6;
    } else {
      s.put(i, SOOT, 1 + 0.5 * fractal(x / 9, y / 9, seed + 8));
      s.dull[i] = 0.9;
      s.roughness[i] = 0.6;
    }
  });
}

export function etch(s: Sheet, d: DamageOf<'etch'>, seed: number): void {
  s.each((i, arc, axial, x, y) => {
    const inside = smoothstep(1.1, 0.5, arcOff(s, arc, d.arc) / d.halfDeg + 0.25 * fractal(arc / 12, axial * 5, seed));
    const t = d.amount * inside * (0.7 + 0.5 * fractal((arc * s.arcMm) / 2, (axial * s.widthMm) / 2, seed + 2));
    if (t <= 0.03) return;
    s.tint(i, [1 - 0.5 * t, 1 - 0.53 * t, 1 - 0.55 * t]);
    s.roughness[i] = Math.min(0.9, s.roughness[i]! + 0.4 * t);
    s.dull[i] = Math.max(s.dull[i]!, 0.5 * t);
    const spot = smoothNoise(x / 2.2, y / 2.2, seed + 5);
    if (t > 0.35 && spot > 0.62) {
      s.height[i] = -0.03;
      s.tint(i, [0.4, 0.38, 0.36]);
      s.truth[i] = classAt('missing');
    }
  });
}

export function brinell(s: Sheet, d: DamageOf<'brinell'>, seed: number): void {
  s.each((i, arc, axial) => {
    const off = Math.abs((((arc % d.pitchDeg) + d.pitchDeg) % d.pitchDeg) - d.pitchDeg / 2) / d.widthDeg;
    const t = d.amount * smoothstep(1, 0.3, off + 0.15 * fractal(arc / 3, axial * 6, seed)) * smoothstep(0.5, 0.42, Math.abs(axial - 0.5));
    if (t <= 0) return;
    s.tint(i, [1 - 0.5 * t, 1 - 0.58 * t, 1 - 0.64 * t]);
    s.roughness[i] = 0.2 + 0.4 * t;
    s.height[i]! -= 0.006 * t;
  });
}

export function step(s: Sheet, d: DamageOf<'step'>, seed: number): void {
  s.each((i, arc, axial) => {
    const off = (axial - d.axial) * s.widthMm + 0.08 * fractal(arc / 10, 0, seed);
    if (Math.abs(off) > d.widthMm) return;
    s.height[i]! += d.heightMm * (1 - Math.abs(off) / d.widthMm);
    const shade = off < 0 ? 0.86 : 0.62;
    s.tint(i, [shade, shade * 0.98, shade * 0.95]);
  });
}

export function contact(s: Sheet, d: DamageOf<'contact'>, seed: number): void {
  s.each((i, arc, axial) => {
    const t = d.amount * inPatch(s, d, arc, axial, 0.18, seed);
    if (t <= 0) return;
    s.roughness[i] = s.roughness[i]! * (1 - 0.65 * t);
    s.tint(i, [1 + 0.12 * t, 1 + 0.115 * t, 1 + 0.1 * t]);
    s.height[i]! *= 1 - t;
  });
}
