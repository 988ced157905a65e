import { CylinderGeometry } from 'three';
import { annulus, patch } from '../geometry.js';
import type { BuiltPart, Workbench } from './workbench.js';

/** A cam lobe on its shaft. */
export function lobe({ group, add, widthMm: W, steel, face }: Workbench): BuiltPart {
  const base = 16;
  const lift = 9;
  const radius = (a: number): number => base + lift * Math.max(0, Math.cos(Math.min(Math.PI / 2, Math.abs(a - Math.PI) * 0.9))) ** 1.6;
  const up = base + lift;
  add(
    patch(
      200,
      12,
      (u, v) => {
        const a = 2 * Math.PI * u;
        const r = radius(a);
        return [r * -Math.sin(a), up - r * Math.cos(a), W / 2 - v * W];
      },
      true,
    ),
    face(110, 0.45),
  );
  for (const z of [W / 2, -W / 2]) {
    const g = annulus(
      0,
      () => 0,
      (a) => radius((((a + 2.5 * Math.PI) % (2 * Math.PI)) + 2 * Math.PI) % (2 * Math.PI)),
      0,
      2 * Math.PI,
      false,
      160,
    );
    const end = add(g, steel);
    end.position.set(0, up, z);
  }
  for (const side of [-1, 1]) {
    const shaft = add(new CylinderGeometry(11, 11, 46, 64), steel);
    shaft.rotation.x = Math.PI / 2;
    shaft.position.set(0, up, side * (W / 2 + 23));
  }
  return { group, sizeMm: 58, lookMm: up + 8, backMm: 54 };
}
