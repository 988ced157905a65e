import { patch } from '../geometry.js';
import type { BuiltPart, Workbench } from './workbench.js';

/** A ring lying on its side, drawn thicker than it is, so that its face is seen large. */
export function ring({ group, add, radiusMm: R, widthMm: W, steel, face }: Workbench): BuiltPart {
  const gap = 0.03;
  const outer = (u: number): number => 2 * Math.PI * (gap / 2 + u * (1 - gap)) + Math.PI / 2;
  // Standing on edge and turned so that its face is seen large: only a piece of the turn, thick.
  const k = 4;
  add(
    patch(240, 6, (u, v) => [R * Math.cos(outer(u)), k * v * W, -R * Math.sin(outer(u))]),
    face(2 * Math.PI * R, 0.5),
  );
  const inner = R - 3.6;
  add(
    patch(240, 1, (u, v) => [inner * Math.cos(outer(u)), k * v * W, -inner * Math.sin(outer(u))]),
    steel,
  );
  for (const h of [0, k * W])
    add(
      patch(240, 1, (u, v) => [(inner + v * (R - inner)) * Math.cos(outer(u)), h, -(inner + v * (R - inner)) * Math.sin(outer(u))]),
      steel,
    );
  return { group, sizeMm: 2 * R, lookMm: 4, backMm: R };
}
