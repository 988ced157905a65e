import { type BufferGeometry } from 'three';
import { patch } from '../geometry.js';
import type { BuiltPart, Workbench } from './workbench.js';

/** A half shell, half a race or half a bore, standing on its back with the face up. */
export function halfRound({ form, group, add, radiusMm: R, widthMm: W, steel, cast, edge, face }: Workbench): BuiltPart {
  const wall = form === 'shell' ? 1.9 : form === 'race' ? 5 : 8;
  const outer = R + wall;
  add(
    patch(128, 24, (u, v) => [-R * Math.cos(u * Math.PI), outer - R * Math.sin(u * Math.PI), W / 2 - v * W]),
    face(Math.PI * R, 0.5),
  );
  const back = form === 'shell' ? steel : form === 'race' ? steel : cast;
  add(
    patch(96, 1, (u, v) => [-outer * Math.cos(u * Math.PI), outer - outer * Math.sin(u * Math.PI), W / 2 - v * W]),
    back,
  );
  for (const side of [0, 1]) {
    const z = W / 2 - side * W;
    const lining = form === 'shell' ? R + 0.35 : R;
    const rim = (from: number, to: number): BufferGeometry =>
      patch(96, 1, (u, v) => {
        const r = from + v * (to - from);
        return [-r * Math.cos(u * Math.PI), outer - r * Math.sin(u * Math.PI), z];
      });
    if (form === 'shell') add(rim(R, lining), edge);
    add(rim(lining, outer), back);
    const x = side === 0 ? -1 : 1;
    add(
      patch(1, 1, (u, v) => [x * (R + u * wall), outer, W / 2 - v * W]),
      back,
    );
  }
  return { group, sizeMm: Math.max(2 * outer, W), lookMm: outer * 0.55, backMm: W / 2 };
}
