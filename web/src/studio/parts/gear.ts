import { CylinderGeometry, ExtrudeGeometry, Shape } from 'three';
import type { BuiltPart, Workbench } from './workbench.js';

/** Two pump gears in mesh, lying. */
export function gear({ group, add, steel, face }: Workbench): BuiltPart {
  const teeth = 9;
  const profile = (cx: number, turn: number): Shape => {
    const s = new Shape();
    for (let k = 0; k <= teeth * 24; k++) {
      const a = (2 * Math.PI * k) / (teeth * 24) + turn;
      const r = 13.2 + 3.4 * Math.tanh(2.6 * Math.cos(teeth * (a - turn)));
      const [x, y] = [cx + r * Math.cos(a), r * Math.sin(a)];
      if (k === 0) s.moveTo(x, y);
      else s.lineTo(x, y);
    }
    return s;
  };
  const gears: Array<[cx: number, turn: number]> = [
    [-13.4, 0],
    [13.4, Math.PI / teeth],
  ];
  for (const [cx, turn] of gears) {
    const g = new ExtrudeGeometry(profile(cx, turn), {
      depth: 14,
      bevelEnabled: true,
      bevelSize: 0.25,
      bevelThickness: 0.25,
      bevelSegments: 1,
      curveSegments: 1,
    });
    const uv = g.getAttribute('uv');
    const position = g.getAttribute('position');
    for (let i = 0; i < uv.count; i++) uv.setXY(i, (position.getX(i) - cx + 18) / 36, (position.getY(i) + 18) / 36);
    const mesh = add(g, face(36, 0.1));
    mesh.rotation.x = -Math.PI / 2;
    const shaft = add(new CylinderGeometry(6, 6, 26, 48), steel);
    shaft.position.set(cx, 12, 0);
  }
  return { group, sizeMm: 60, lookMm: 12, backMm: 20 };
}
