import { FORM_SURFACE, type SpecimenForm } from '@true-ledger/core/specimen';
import {
  CircleGeometry,
  CylinderGeometry,
  DoubleSide,
  ExtrudeGeometry,
  Group,
  Mesh,
  MeshPhysicalMaterial,
  MeshStandardMaterial,
  Shape,
  type BufferGeometry,
  type Material,
} from 'three';
import { annulus, patch } from './geometry.js';
import { RELIEF_MM, type SurfaceTextures } from './textures.js';

/** A part on the bench: y up, resting on y = 0, its face towards the camera. */
export interface BuiltPart {
  readonly group: Group;
  /** Size across, mm: what the camera and the lamp go by. */
  readonly sizeMm: number;
  /** Height at which the camera looks, mm. */
  readonly lookMm: number;
  /** How far it reaches behind its middle, mm: where a tag may lie. */
  readonly backMm: number;
}

const plain = (colour: number, roughness: number, metalness = 0.75): MeshStandardMaterial =>
  new MeshStandardMaterial({ color: colour, roughness, metalness, side: DoubleSide });

function faceMaterial(t: SurfaceTextures, sizeMm: number, anisotropy: number): MeshPhysicalMaterial {
  return new MeshPhysicalMaterial({
    map: t.colour,
    roughnessMap: t.finish,
    metalnessMap: t.finish,
    roughness: 1,
    metalness: 1,
    bumpMap: t.relief,
    // The relief of the map, as deep as it is in millimetres; a little more, since a lamp rakes less here than on a bench.
    bumpScale: (RELIEF_MM * 60) / sizeMm,
    anisotropy,
    // Marks run along u: what they spread is spread across.
    anisotropyRotation: Math.PI / 2,
    side: DoubleSide,
  });
}

export function buildPart(form: SpecimenForm, t: SurfaceTextures): BuiltPart {
  const surface = FORM_SURFACE[form];
  const group = new Group();
  const add = (g: BufferGeometry, m: Material, shade = true): Mesh => {
    const mesh = new Mesh(g, m);
    mesh.castShadow = shade;
    mesh.receiveShadow = true;
    group.add(mesh);
    return mesh;
  };
  const R = surface.radiusMm;
  const W = surface.widthMm;
  const steel = plain(0xa9adb2, 0.38);
  const cast = plain(0x939495, 0.7, 0.45);
  const edge = plain(0xa8734c, 0.45);
  switch (form) {
    case 'shell':
    case 'race':
    case 'bore': {
      const wall = form === 'shell' ? 1.9 : form === 'race' ? 5 : 8;
      const outer = R + wall;
      add(
        patch(128, 24, (u, v) => [-R * Math.cos(u * Math.PI), outer - R * Math.sin(u * Math.PI), W / 2 - v * W]),
        faceMaterial(t, Math.PI * R, 0.5),
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
    case 'thrust': {
      const inner = R - W;
      // Half a washer, lying flat; arc 0–180 from left to right over the far side.
      add(
        patch(128, 8, (u, v) => {
          const a = Math.PI * (1 - u);
          const r = inner + v * W;
          return [r * Math.cos(a), 2.5, -r * Math.sin(a) + R / 2];
        }),
        faceMaterial(t, Math.PI * R, 0.35),
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
    case 'journal': {
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
        faceMaterial(t, 2 * Math.PI * R, 0.5),
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
    case 'piston':
    case 'crown': {
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
          faceMaterial(t, 2 * Math.PI * PR, 0.45),
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
          faceMaterial(t, 2 * PR, 0),
        );
      return { group, sizeMm: lying ? 95 : 90, lookMm: lying ? PR + 10 : at - 6, backMm: lying ? 42 : PR + 8 };
    }
    case 'ring': {
      const gap = 0.03;
      const outer = (u: number): number => 2 * Math.PI * (gap / 2 + u * (1 - gap)) + Math.PI / 2;
      // Standing on edge and turned so that its face is seen large: only a piece of the turn, thick.
      const k = 4;
      add(
        patch(240, 6, (u, v) => [R * Math.cos(outer(u)), k * v * W, -R * Math.sin(outer(u))]),
        faceMaterial(t, 2 * Math.PI * R, 0.5),
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
    case 'lobe': {
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
        faceMaterial(t, 110, 0.45),
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
    case 'follower': {
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
        faceMaterial(t, 2 * R, 0),
      );
      return { group, sizeMm: 44, lookMm: height - 3, backMm: R };
    }
    case 'gear': {
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
        const mesh = add(g, faceMaterial(t, 36, 0.1));
        mesh.rotation.x = -Math.PI / 2;
        const shaft = add(new CylinderGeometry(6, 6, 26, 48), steel);
        shaft.position.set(cx, 12, 0);
      }
      return { group, sizeMm: 60, lookMm: 12, backMm: 20 };
    }
    case 'tray': {
      add(
        patch(1, 1, (u, v) => [(u - 0.5) * 120, 3, (0.5 - v) * 80]),
        faceMaterial(t, 120, 0.2),
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
  }
}
