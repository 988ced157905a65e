import { bilinear } from '../photo/image/bilinear.js';

/** How a hand that holds a phone has strayed: to the right and down, pixels, and turned about the middle of the picture, degrees. */
export type Strayed = readonly [x: number, y: number, turnDeg: number];

/** A picture moved and turned about its middle, bilinear; what lies beyond its border is as on it. */
export function strayedBy(from: Float32Array, width: number, height: number, [dx, dy, turn]: Strayed): Float32Array {
  if (dx === 0 && dy === 0 && turn === 0) return from;
  const [c, s] = [Math.cos((turn * Math.PI) / 180), Math.sin((turn * Math.PI) / 180)];
  const out = new Float32Array(from.length);
  const within = (v: number, most: number): number => Math.min(most - 1.001, Math.max(0, v));
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const [ax, ay] = [x - dx - width / 2, y - dy - height / 2];
      const [qx, qy] = [within(c * ax + s * ay + width / 2, width), within(c * ay - s * ax + height / 2, height)];
      const [x0, y0] = [Math.floor(qx), Math.floor(qy)];
      const [fx, fy] = [qx - x0, qy - y0];
      const i = 3 * (y0 * width + x0);
      for (let k = 0; k < 3; k++) out[3 * (y * width + x) + k] = bilinear(from, i + k, 3, 3 * width, fx, fy);
    }
  return out;
}
