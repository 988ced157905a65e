import { patch } from '../geometry.js';
import type { BuiltPart, Workbench } from './workbench.js';

/** A tray with a low rim, for what came out with the oil. */
export function tray({ group, add, steel, face }: Workbench): BuiltPart {
  add(
    patch(1, 1, (u, v) => [(u - 0.5) * 120, 3, (0.5 - v) * 80]),
    face(120, 0.2),
  );
  for (const [w, d, x, z] of [
    [124, 2, 0, 41],
    [124, 2, 0, -41],
    [2, 84, 61, 0],
    [2, 84, -61, 0],
  ] as const)
    add(
      patch(4, 1, (u, v) => {
        // A low rim as a closed band of four sides.
        const corners = [
          [-w / 2, -d / 2],
          [w / 2, -d / 2],
          [w / 2, d / 2],
          [-w / 2, d / 2],
        ] as const;
        const [cx, cz] = corners[Math.round(u * 4) % 4]!;
        return [x + cx, v * 7, z + cz];
      }),
      steel,
    );
  return { group, sizeMm: 118, lookMm: 3, backMm: 44 };
}
