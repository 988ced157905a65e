import type { Pixels } from '../photo/flatten.js';
import { wallSeen, type ScopePose } from '../photo/film/boreView.js';
import { expose, type Shot } from './scene.js';
import type { SurfaceMaps } from './sheet.js';
import type { SurfaceSpecimen } from './surfaceMaps.js';

/** What closes the bore below: the crown of its piston, dull and dark. */
const FLOOR_LIGHT = [0.06, 0.055, 0.05] as const;
/** Light of the scope's own lamps, which sit round its lens: falls with the square of the distance; this much of it comes back from walls opposite. */
const AMBIENT = 0.05;
/** How much of what metal mirrors comes straight back to the lamps, by the roughness along and across its marks. */
const SHEEN = 5;

/** A frame of a borescope that is drawn out of a bore. `s` spans 360°; depth 0 of the pose is the front edge of the surface, its rear edge lies deepest. */
export function boreFrame(s: SurfaceSpecimen, maps: SurfaceMaps, shot: Shot, poses: readonly ScopePose[], seed: number): Pixels {
  const { width, height } = shot;
  const linear = new Float32Array(width * height * 3);
  const lens = { width, height, focalPx: shot.focal * Math.max(width, height) };
  const deep = s.widthMm / s.radiusMm;
  const texelMm = s.widthMm / maps.rows;
  const arcTexelMm = (2 * Math.PI * s.radiusMm) / maps.columns;
  for (const pose of poses) {
    const seen = wallSeen(pose, lens);
    for (let py = 0; py < height; py++)
      for (let px = 0; px < width; px++) {
        const at = 3 * (py * width + px);
        const { arc, depth, far } = seen(px + 0.5, py + 0.5);
        if (depth >= deep || depth < 0) {
          const light = depth < 0 ? 0 : 0.4 / (0.3 + (deep - pose.depth) ** 2);
          for (let k = 0; k < 3; k++) linear[at + k]! += (FLOOR_LIGHT[k]! * light) / poses.length;
          continue;
        }
        const turn = (((arc / (2 * Math.PI)) % 1) + 1) % 1;
        const x = Math.min(maps.columns - 1, Math.floor(turn * maps.columns));
        const y = Math.min(maps.rows - 1, Math.floor((depth / deep) * maps.rows));
        const i = y * maps.columns + x;
        // Straight back towards the lens: how far the wall leans away from it along the bore, and round it.
        const along = (depth - pose.depth) / far;
        const facing = Math.sqrt(Math.max(0.02, 1 - along * along));
        const up = maps.height[Math.max(0, y - 1) * maps.columns + x]!;
        const down = maps.height[Math.min(maps.rows - 1, y + 1) * maps.columns + x]!;
        const left = maps.height[y * maps.columns + ((x - 1 + maps.columns) % maps.columns)]!;
        const right = maps.height[y * maps.columns + ((x + 1) % maps.columns)]!;
        const slope = (down - up) / (2 * texelMm);
        const aslant = (right - left) / (2 * arcTexelMm);
        const rough = maps.roughness[i]! + 0.12;
        const lean = Math.atan2(along, facing) + Math.atan(slope);
        const sheen = (0.12 / rough) * Math.exp(-((lean / (SHEEN * rough)) ** 2 + (aslant / rough) ** 2) / 2);
        const dull = maps.dull[i]!;
        const light = 1 / (0.15 + far * far) + AMBIENT;
        for (let k = 0; k < 3; k++)
          linear[at + k]! +=
            (maps.colour[3 * i + k]! * light * ((1 - dull) * (sheen + 0.1 * facing) + dull * 0.55 * facing)) / poses.length;
      }
  }
  return expose(linear, { ...shot, seed });
}

/** A hand that draws a scope out of a bore: `frames` frames from `from` deep to `to` (radii), uneven, straying and tilting; each as the poses over its exposure. */
export function handDrawn(
  frames: number,
  from: number,
  to: number,
  {
    uneven,
    strays,
    tilts,
    rolls,
    exposed,
  }: { readonly uneven: number; readonly strays: number; readonly tilts: number; readonly rolls: number; readonly exposed: number },
  random: () => number,
): (readonly ScopePose[])[] {
  const waves = Array.from({ length: 6 }, () => [1, 2, 3].map((n) => ({ n, phase: 2 * Math.PI * random(), high: random() / n })));
  const wave = (k: number, t: number): number => waves[k]!.reduce((sum, w) => sum + w.high * Math.sin(2 * Math.PI * w.n * t + w.phase), 0);
  const pose = (t: number): ScopePose => ({
    tilt: [tilts * wave(0, t), tilts * wave(1, t)],
    roll: rolls * (wave(2, t) - wave(2, 0)),
    off: [strays * wave(3, t), strays * wave(4, t)],
    depth: from + (to - from) * (t + (uneven / (2 * Math.PI)) * (wave(5, t) - wave(5, 0)) * (1 - t)),
  });
  return Array.from({ length: frames }, (_, k) => [0, 0.5, 1].map((e) => pose((k + exposed * e) / Math.max(1, frames - 1))));
}
