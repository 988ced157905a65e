import type { Pixels } from '../photo/flatten.js';
import type { Point } from '../photo/homography.js';
import { projectShell, shellPose } from '../photo/shellPose.js';
import type { WearClass } from '../damage/classes.js';
import type { WearMap } from '../damage/wearMap.js';

/** A simple rendered stand-in for a photograph of a part, made from a wear map. The picture says so; it proves nothing about real pictures. */
export interface StandIn {
  readonly pixels: Pixels;
  /** Shells: corners of the parting plane in the order the flattening expects. */
  readonly corners: readonly Point[] | null;
}

const TINT: Readonly<Record<WearClass, readonly [number, number, number]>> = {
  sound: [150, 152, 150],
  polished: [196, 192, 184],
  lining: [184, 112, 62],
  steel: [120, 126, 132],
  heat: [58, 44, 48],
  rust: [118, 62, 30],
  deposit: [60, 52, 40],
  embedded: [96, 100, 116],
  scuffed: [112, 100, 92],
  transfer: [206, 208, 210],
  missing: [20, 20, 20],
};

/** Deterministic noise in −1…1 from two integers. */
function grain(x: number, y: number, seed: number): number {
  let h = (x * 374761393 + y * 668265263 + seed * 2147483647) | 0;
  h = Math.imul(h ^ (h >>> 13), 1274126177);
  return (((h ^ (h >>> 16)) >>> 0) / 4294967295) * 2 - 1;
}

function tintAt(map: WearMap, u: number, v: number, jitter: number): readonly [number, number, number] {
  const column = Math.min(map.columns - 1, Math.max(0, Math.floor(u * map.columns + jitter * 0.35)));
  const row = Math.min(map.rows - 1, Math.max(0, Math.floor(v * map.rows + jitter * 0.25)));
  const cell = row * map.columns + column;
  const sum: [number, number, number] = [0, 0, 0];
  for (const [name, share] of Object.entries(map.shares) as Array<[WearClass, Float32Array]>) {
    const s = share[cell] as number;
    if (s > 0) for (let k = 0; k < 3; k++) sum[k]! += TINT[name][k]! * s;
  }
  return sum;
}

/** Draws a half shell seen into its face from above, `size` × 3/4 `size` pixels, lying on a bench plate. */
export function renderShell(map: WearMap, radiusMm: number, widthMm: number, seed: number, size = 960): StandIn {
  const width = size;
  const height = Math.round(size * 0.75);
  const spread = size * 0.36;
  const depth = (spread * widthMm) / radiusMm / 2;
  const cx = width / 2 + grain(seed, 1, 7) * 12;
  const cy = height / 2 + grain(seed, 2, 7) * 10;
  const lean = 0.03 + grain(seed, 3, 7) * 0.02;
  const corners: Point[] = [
    [cx - spread * (1 + lean), cy + depth],
    [cx - spread * (1 - lean), cy - depth],
    [cx + spread * (1 - lean), cy - depth],
    [cx + spread * (1 + lean), cy + depth],
  ];
  const data = new Uint8ClampedArray(width * height * 4);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const light = 96 + 18 * (x / width) - 14 * (y / height) + grain(x, y >> 2, seed) * 5;
      put(data, (y * width + x) * 4, light * 0.96, light, light * 1.03);
    }
  const pose = shellPose(corners, { width, height }, radiusMm, widthMm);
  if (pose.ok) {
    const steps = size * 3;
    const bands = Math.round(depth * 2.6);
    for (let i = 0; i < steps; i++) {
      const u = (i + 0.5) / steps;
      const a = u * Math.PI;
      const shade = 0.55 + 0.5 * Math.sin(a) ** 0.7 + 0.12 * Math.cos(a * 2.2 + 0.6);
      for (let j = 0; j < bands; j++) {
        const v = (j + 0.5) / bands;
        const [px, py] = projectShell(pose.value, u * 180, v);
        const x = Math.round(px);
        const y = Math.round(py);
        if (x < 0 || y < 0 || x >= width || y >= height) continue;
        const edge = v < 0.02 || v > 0.98 ? 1.25 : 1;
        const n = 1 + grain(x, Math.floor(v * 90), seed) * 0.05 + grain(x, y, seed + 3) * 0.03;
        const tint = tintAt(map, u, v, grain(x >> 1, y >> 1, seed + 9));
        put(data, (y * width + x) * 4, tint[0] * shade * n * edge, tint[1] * shade * n * edge, tint[2] * shade * n * edge);
      }
    }
  }
  return { pixels: { width, height, data }, corners: pose.ok ? corners : null };
}

/** Draws the side of a journal, bore strip or skirt: the front half of a cylinder with its axis across the picture. */
export function renderCylinder(map: WearMap, seed: number, size = 960): StandIn {
  const width = size;
  const height = Math.round(size * 0.75);
  const data = new Uint8ClampedArray(width * height * 4);
  const x0 = width * 0.16;
  const x1 = width * 0.84;
  const r = height * 0.36;
  const cy = height / 2;
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const at = (y * width + x) * 4;
      const back = 88 + 20 * (1 - y / height) + grain(x, y >> 2, seed) * 5;
      put(data, at, back, back * 1.01, back * 1.04);
      const dy = (y - cy) / r;
      const cheek = (x < x0 && x > x0 - 60) || (x > x1 && x < x1 + 60);
      if (cheek && Math.abs(dy) < 1.22) put(data, at, 92 + grain(x, y, seed) * 8, 94 + grain(x, y, seed) * 8, 98 + grain(x, y, seed) * 8);
      if (x < x0 || x > x1 || Math.abs(dy) >= 1) continue;
      const v = (x - x0) / (x1 - x0);
      const u = 0.25 + Math.asin(dy) / (2 * Math.PI) + 0.25;
      const shade = 0.35 + 0.75 * Math.sqrt(1 - dy * dy) * (0.85 + 0.25 * Math.cos((dy + 0.45) * 3));
      const n = 1 + grain(Math.floor(v * 260), Math.floor(u * 40), seed) * 0.05 + grain(x, y, seed + 3) * 0.03;
      const tint = tintAt(map, u, v, grain(x >> 1, y >> 1, seed + 9));
      put(data, at, tint[0] * shade * n, tint[1] * shade * n, tint[2] * shade * n);
    }
  return { pixels: { width, height, data }, corners: null };
}

function put(data: Uint8ClampedArray, at: number, r: number, g: number, b: number): void {
  data[at] = r;
  data[at + 1] = g;
  data[at + 2] = b;
  data[at + 3] = 255;
}
