import { patch } from '../geometry.js';
import type { BuiltPart, Workbench } from './workbench.js';

/** Half a thrust washer lying flat; its arc runs from left to right over the far side. */
export function thrust({ group, add, radiusMm: R, widthMm: W, steel, face }: Workbench): BuiltPart {
  const inner = R - W;
  // Half a washer, lying flat; arc 0–180 from left to right over the far side.
  add(
    patch(128, 8, (u, v) => {
      const a = Math.PI * (1 - u);
      const r = inner + v * W;
      return [r * Math.cos(a), 2.5, -r * Math.sin(a) + R / 2];
    }),
    face(Math.PI * R, 0.35),
  );
  for (const r of [inner, R])
    add(
      patch(96, 1, (u, v) => [r * Math.cos(u * Math.PI), v * 2.5, -r * Math.sin(u * Math.PI) + R / 2]),
      steel,
    );
  for (const x of [-1, 1])
    add(
      patch(1, 1, (u, v) => [x * (inner + u * W), v * 2.5, R / 2]),
      steel,
    );
  return { group, sizeMm: 2 * R, lookMm: 2, backMm: R / 2 };
}
