import { expose, type Shot } from './scene.js';
import { lightOnShell, type ShotPicture } from './shellScene.js';
import type { SurfaceMaps } from './sheet.js';
import type { ShellSpecimen } from './surfaceMaps.js';
import { strayedBy, type Strayed } from './stray.js';

/** One frame of a film whose lamp moves: where the first lamp stands over the part (as the tilt of its direction to the right and to the rear), and how the hand that holds the phone has strayed. */
export interface LampFrame {
  readonly lampAt: readonly [right: number, rear: number];
  readonly strayed: Strayed;
}

/** A lamp led over a part by hand in loops, while another hand holds the phone; `frames` frames, straying by `shakePx`. */
export function handLed(
  frames: number,
  { wide, shakePx }: { readonly wide: number; readonly shakePx: number },
  random: () => number,
): LampFrame[] {
  const [a, b, c, d] = [random(), random(), random(), random()].map((v) => 2 * Math.PI * v) as [number, number, number, number];
  const loops = 2 + random();
  const wave = (t: number, k: number, phase: number): number =>
    Math.sin(2 * Math.PI * k * t + phase) + 0.4 * Math.sin(2 * Math.PI * 2.3 * k * t + 2 * phase);
  return Array.from({ length: frames }, (_, k): LampFrame => {
    const t = k / Math.max(1, frames - 1);
    return {
      lampAt: [wide * Math.sin(2 * Math.PI * loops * t + a), 0.7 * wide * Math.sin(2 * Math.PI * (loops + 1.3) * t + b)],
      strayed: [
        shakePx * (wave(t, 1.3, c) - wave(0, 1.3, c)),
        shakePx * (wave(t, 1.7, d) - wave(0, 1.7, d)),
        0.04 * shakePx * (wave(t, 0.9, a) - wave(0, 0.9, a)),
      ],
    };
  });
}

/** Takes a frame of such a film. Rendered, and to be called so. */
export function lampFrame(s: ShellSpecimen, maps: SurfaceMaps, shot: Shot, { lampAt, strayed }: LampFrame, seed: number): ShotPicture {
  const { linear, corners, pose } = lightOnShell(s, maps, { ...shot, lampAt });
  return { pixels: expose(strayedBy(linear, shot.width, shot.height, strayed), { ...shot, seed }), corners, pose };
}
