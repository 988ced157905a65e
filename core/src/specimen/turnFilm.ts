import type { Pixels } from '../photo/flatten.js';
import type { Point } from '../photo/homography.js';
import { lattice } from './noise.js';
import { strayedBy, type Strayed } from './stray.js';
import { HOLE_LIGHT, roundStage, type RoundForm } from './roundScene.js';
import { add, dot, expose, unit, type Shot } from './scene.js';
import { MAP_CLASSES, type SurfaceMaps } from './sheet.js';
import type { SurfaceSpecimen } from './surfaceMaps.js';

/** One frame of a film: how far the part has turned and the hand has strayed. */
export interface FilmFrame {
  /** Arc that lies uppermost, degrees, at the beginning and at the end of the exposure. */
  readonly facingDeg: readonly [from: number, to: number];
  readonly strayed: Strayed;
}

/** A round part that is turned before a camera that stays. */
export interface TurnFilm {
  /** Corners of what is seen of the face while nothing has strayed: left-front, left-rear, right-rear, right-front. */
  readonly corners: readonly Point[];
  readonly frame: (f: FilmFrame, seed: number) => Pixels;
}

/** Slopes of the surface along the axis for which the light it mirrors is kept. */
const MOST_SLOPE = 2;
const SLOPES = 17;
const TAPS = 8;

/** Sets up a film of a turning part. What each pixel mirrors is found once: only the surface moves below it. Rendered, and to be called so. */
export function turnFilm(s: SurfaceSpecimen, maps: SurfaceMaps, shot: Shot, form: RoundForm): TurnFilm {
  const stage = roundStage(s, shot, form);
  const { width, height } = shot;
  const still = new Float32Array(width * height * 3);
  const faces: { at: number; phi: number; row: number; shift: number; up: number; light: Float32Array }[] = [];
  for (let py = 0; py < height; py++)
    for (let px = 0; px < width; px++) {
      const at = (py * width + px) * 3;
      const sent = stage.light(px, py, (p, d, normal) => {
        const light = new Float32Array(3 * SLOPES);
        for (let k = 0; k < SLOPES; k++) {
          const n = unit(add(normal, [0, 1, 0], MOST_SLOPE * ((2 * k) / (SLOPES - 1) - 1)));
          light.set(stage.mirrored(p, unit(add(d, n, -2 * dot(d, n)))), 3 * k);
        }
        faces.push({
          at,
          phi: (Math.atan2(p[0], -p[2]) * 180) / Math.PI,
          row: Math.min(maps.rows - 1, Math.max(0, Math.floor((-p[1] / s.widthMm) * maps.rows))),
          shift: lattice(Math.round(p[0] * 40), Math.round(p[1] * 40), shot.seed) * 0.5,
          up: -normal[2],
          light,
        });
        return HOLE_LIGHT;
      });
      still.set(sent, at);
    }
  const texelMm = s.widthMm / maps.rows;
  const hole = MAP_CLASSES.indexOf('hole');
  const shine = (f: (typeof faces)[number], facing: number, weight: number, out: Float32Array): void => {
    const arc = (((f.phi + facing) % 360) + 360) % 360;
    const i = f.row * maps.columns + Math.min(maps.columns - 1, Math.floor((arc / maps.spanDeg) * maps.columns));
    const rough = maps.roughness[i]!;
    const above = maps.height[Math.min(maps.height.length - 1, i + maps.columns)]!;
    const below = maps.height[Math.max(0, i - maps.columns)]!;
    const slope = (0.8 * (above - below)) / (2 * texelMm);
    const dull = maps.dull[i]!;
    for (let k = 0; k < 3; k++) {
      let sum = 0;
      for (let t = 0; t < TAPS; t++) {
        const tilt = slope + ((t + 0.5 + f.shift) / TAPS - 0.5) * 2.4 * rough;
        const q = Math.min(SLOPES - 1.001, Math.max(0, ((tilt / MOST_SLOPE + 1) / 2) * (SLOPES - 1)));
        const low = Math.floor(q);
        sum += f.light[3 * low + k]! * (1 - q + low) + f.light[3 * low + 3 + k]! * (q - low);
      }
      out[f.at + k]! +=
        weight *
        (maps.truth[i] === hole
          ? HOLE_LIGHT[k]!
          : maps.colour[3 * i + k]! * ((1 - dull) * (sum / TAPS) + dull * 0.55 * stage.skyward[k]! * Math.max(0.15, f.up)));
    }
  };
  return {
    corners: stage.corners,
    frame: ({ facingDeg: [from, to], strayed }, seed) => {
      const linear = still.slice();
      for (const f of faces) {
        linear.fill(0, f.at, f.at + 3);
        shine(f, from, 0.5, linear);
        shine(f, to, 0.5, linear);
      }
      return expose(strayedBy(linear, width, height, strayed), { ...shot, seed });
    },
  };
}

/** A hand on a crank and a hand on a phone: `frames` frames over `turnDeg`, uneven by the share `uneven`, straying by `shakePx`. `exposed` is the share of a frame's time in which light falls. */
export function handTurned(
  frames: number,
  startDeg: number,
  turnDeg: number,
  { uneven, shakePx, exposed }: { readonly uneven: number; readonly shakePx: number; readonly exposed: number },
  random: () => number,
): FilmFrame[] {
  const waves = [1, 2, 3].map((n) => ({ n, phase: 2 * Math.PI * random(), high: random() / n }));
  const wave = (t: number, k: number): number => waves.reduce((sum, w) => sum + w.high * Math.sin(2 * Math.PI * w.n * t * k + w.phase), 0);
  const at = (t: number): number => startDeg + turnDeg * (t + (uneven / (2 * Math.PI)) * (wave(t, 1) - wave(0, 1)) * (1 - t) * 1.5);
  return Array.from({ length: frames }, (_, k): FilmFrame => {
    const t = k / Math.max(1, frames - 1);
    const next = (k + exposed) / Math.max(1, frames - 1);
    return {
      facingDeg: [at(t), at(next)],
      strayed: [
        shakePx * (wave(t, 3.1) - wave(0, 3.1)),
        shakePx * (wave(t, 4.7) - wave(0, 4.7)),
        0.05 * shakePx * (wave(t, 2.3) - wave(0, 2.3)),
      ],
    };
  });
}
