import { type BufferGeometry, CircleGeometry } from 'three';
import { patch } from '../geometry.js';
import type { BuiltPart, Workbench } from './workbench.js';

/** A journal between its webs, with the shaft going on at both ends; the axis runs away from the camera. */
export function journal({ group, add, radiusMm: R, widthMm: W, steel, cast, face }: Workbench): BuiltPart {
  const web = 1.6 * R;
  const up = web;
  // The axis lies along z; u = 0.5 looks up.
  const round = (radius: number, z0: number, z1: number): BufferGeometry =>
    patch(128, 1, (u, v) => {
      const a = 2 * Math.PI * u;
      return [radius * -Math.sin(a), up - radius * Math.cos(a), z0 + v * (z1 - z0)];
    });
  add(
    patch(160, 24, (u, v) => [R * -Math.sin(2 * Math.PI * u), up - R * Math.cos(2 * Math.PI * u), W / 2 - v * W], true),
    face(2 * Math.PI * R, 0.5),
  );
  for (const side of [-1, 1]) {
    const z0 = side * (W / 2 + 0.4);
    const z1 = side * (W / 2 + 0.85 * R);
    add(round(web, z0, z1), cast);
    for (const z of [z0, z1]) {
      const disc = add(new CircleGeometry(web, 96), cast);
      disc.position.set(0, up, z);
    }
    add(round(1.15 * R, z1, side * (W / 2 + 2.4 * R)), steel);
    const end = add(new CircleGeometry(1.15 * R, 96), steel);
    end.position.set(0, up, side * (W / 2 + 2.4 * R));
  }
  return { group, sizeMm: 2.9 * R, lookMm: up + 0.4 * R, backMm: 3 * R };
}
