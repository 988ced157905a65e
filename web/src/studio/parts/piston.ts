import { type BufferGeometry } from 'three';
import { patch } from '../geometry.js';
import { plain, type BuiltPart, type Workbench } from './workbench.js';

/** A piston on its side for the skirt, upright for the crown. */
export function piston({ form, group, add, face }: Workbench): BuiltPart {
  const PR = 43;
  const skirt = 36;
  const aluminium = plain(0xb9bbbd, 0.38);
  const dark = plain(0x2b2b2c, 0.6);
  // On its side for the skirt (axis along z, crown away), upright for the crown.
  const lying = form === 'piston';
  const place = (x: number, y: number, along: number): [number, number, number] =>
    lying ? [x, PR + y, skirt / 2 - along] : [x, along, -y];
  const band = (radius: number, from: number, to: number): BufferGeometry =>
    patch(128, 1, (u, v) => place(radius * Math.sin(2 * Math.PI * u), radius * Math.cos(2 * Math.PI * u), from + v * (to - from)));
  const ring = (r0: number, r1: number, at: number): BufferGeometry =>
    patch(96, 1, (u, v) => {
      const r = r0 + v * (r1 - r0);
      return place(r * Math.sin(2 * Math.PI * u), r * Math.cos(2 * Math.PI * u), at);
    });
  if (lying)
    add(
      patch(160, 24, (u, v) => place(PR * -Math.sin(2 * Math.PI * u), PR * -Math.cos(2 * Math.PI * u), v * skirt)),
      face(2 * Math.PI * PR, 0.45),
    );
  else add(band(PR, 0, skirt), aluminium);
  add(ring(PR - 5, PR, 0), aluminium);
  add(band(PR - 5, 0, skirt), aluminium);
  let at = skirt;
  for (const [size, radius, material] of [
    [3, 0.92, dark],
    [3.2, 0.995, aluminium],
    [2, 0.93, dark],
    [3.2, 0.995, aluminium],
    [2, 0.93, dark],
    [6.5, 0.99, aluminium],
  ] as const) {
    add(band(PR * radius, at, at + size), material);
    add(ring(PR * 0.9, PR, at), aluminium);
    at += size;
  }
  if (lying) add(ring(0, PR * 0.99, at), aluminium);
  else
    add(
      patch(96, 96, (u, v) => {
        // The square map on a disc: beyond the circle the corners fold onto the rim.
        const [x, y] = [(u - 0.5) * 2, (v - 0.5) * 2];
        const r = Math.max(Math.abs(x), Math.abs(y));
        const length = Math.hypot(x, y) || 1;
        const k = (r / length) * PR * 0.99;
        return [x * k, at, -y * k];
      }),
      face(2 * PR, 0),
    );
  return { group, sizeMm: lying ? 95 : 90, lookMm: lying ? PR + 10 : at - 6, backMm: lying ? 42 : PR + 8 };
}
