import { CylinderGeometry } from 'three';
import { patch } from '../geometry.js';
import type { BuiltPart, Workbench } from './workbench.js';

/** A bucket follower standing up, its face above. */
export function follower({ group, add, radiusMm: R, steel, face }: Workbench): BuiltPart {
  const height = 26;
  const body = add(new CylinderGeometry(R, R, height, 96, 1, true), steel);
  body.position.y = height / 2;
  add(
    patch(64, 64, (u, v) => {
      const [x, y] = [(u - 0.5) * 2, (v - 0.5) * 2];
      const r = Math.max(Math.abs(x), Math.abs(y));
      const k = (r / (Math.hypot(x, y) || 1)) * R;
      return [x * k, height, -y * k];
    }),
    face(2 * R, 0),
  );
  return { group, sizeMm: 44, lookMm: height - 3, backMm: R };
}
