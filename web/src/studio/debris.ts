import { seeded, type DebrisKind, type Severity } from '@true-ledger/core/specimen';
import {
  BufferGeometry,
  CatmullRomCurve3,
  DoubleSide,
  Float32BufferAttribute,
  Group,
  Mesh,
  MeshPhysicalMaterial,
  SphereGeometry,
  TorusGeometry,
  TubeGeometry,
  Vector3,
} from 'three';

/** Colour, roughness, metalness and size (mm) of what lies on the tray. */
const LOOK: Readonly<
  Record<
    DebrisKind,
    {
      readonly colour: number;
      readonly rough: number;
      readonly metal: number;
      readonly size: number;
      readonly count: readonly [number, number, number];
    }
  >
> = {
  copper: { colour: 0xc27a4a, rough: 0.3, metal: 1, size: 2.4, count: [25, 90, 240] },
  paste: { colour: 0x4b4a48, rough: 0.55, metal: 0.25, size: 7, count: [6, 14, 30] },
  aluminium: { colour: 0xd9dbde, rough: 0.25, metal: 1, size: 3, count: [20, 80, 200] },
  sliver: { colour: 0x9aa0a6, rough: 0.28, metal: 1, size: 7, count: [8, 26, 70] },
  fuzz: { colour: 0x2c2d2f, rough: 0.75, metal: 0.7, size: 5, count: [220, 700, 1500] },
  'ring-pieces': { colour: 0x8a8d90, rough: 0.35, metal: 1, size: 12, count: [2, 5, 9] },
  plastic: { colour: 0xb59a5c, rough: 0.5, metal: 0, size: 7, count: [3, 9, 22] },
  sealant: { colour: 0x8c3b2c, rough: 0.4, metal: 0, size: 16, count: [2, 6, 13] },
  sand: { colour: 0xb7a483, rough: 0.85, metal: 0, size: 0.9, count: [150, 500, 1300] },
  'rust-mud': { colour: 0x5c3216, rough: 0.8, metal: 0.05, size: 8, count: [6, 14, 30] },
};

/** A thin torn flake. */
function flake(size: number, random: () => number): BufferGeometry {
  const n = 9;
  const points: number[] = [0, 0.12 * size, 0];
  const index: number[] = [];
  for (let k = 0; k < n; k++) {
    const a = (2 * Math.PI * k) / n;
    const r = size * (0.3 + 0.7 * random());
    points.push(r * Math.cos(a), 0.3 * size * (random() - 0.2), 0.7 * r * Math.sin(a));
    index.push(0, k + 1, ((k + 1) % n) + 1);
  }
  const g = new BufferGeometry();
  g.setAttribute('position', new Float32BufferAttribute(points, 3));
  g.setIndex(index);
  g.computeVertexNormals();
  return g;
}

function needle(size: number, random: () => number, thick: number, curl: number): BufferGeometry {
  const points = Array.from({ length: 6 }, (_, k) => {
    const s = k / 5 - 0.5;
    return new Vector3(size * s, Math.abs(curl * size * (s * s - 0.1)) + thick, curl * size * Math.sin(3 * s + 2 * random()));
  });
  return new TubeGeometry(new CatmullRomCurve3(points), 14, thick, 5);
}

/** What a tray holds: pieces strewn over it, thicker towards the middle; the same for the same seed. */
export function strewn(kind: DebrisKind, severity: Severity, seed: number): Group {
  const look = LOOK[kind];
  const random = seeded(seed);
  const group = new Group();
  const material = new MeshPhysicalMaterial({
    color: look.colour,
    roughness: look.rough,
    metalness: look.metal,
    side: DoubleSide,
    ...(kind === 'sealant' || kind === 'paste' ? { clearcoat: 0.5 } : {}),
  });
  const normal = (): number => random() + random() + random() - 1.5;
  // A handful of shapes, used over and over: a thousand grains need no thousand forms.
  const shapes = Array.from({ length: 12 }, () => {
    const size = look.size * (0.4 + 0.9 * random());
    switch (kind) {
      case 'copper':
      case 'aluminium':
        return flake(size, random);
      case 'plastic':
        return flake(size, random).scale(1, 1.6, 1);
      case 'sliver':
        return needle(size, random, 0.18, 0.25);
      case 'fuzz':
        return needle(size * 0.5, random, 0.05, 0.15);
      case 'sealant':
        return needle(size, random, 0.9, 0.5);
      case 'ring-pieces':
        return new TorusGeometry(43, 1.2, 4, 24, (0.12 + 0.25 * random()) as number).rotateX(Math.PI / 2).translate(-43, 1.2, 0);
      case 'sand':
        return new SphereGeometry(size, 5, 4).scale(1, 0.8, 0.9);
      default: {
        const g = new SphereGeometry(size, 24, 16).scale(1, 0.22, 0.8);
        const p = g.getAttribute('position');
        for (let i = 0; i < p.count; i++)
          p.setXYZ(i, p.getX(i) * (0.8 + 0.35 * random()), p.getY(i) * (0.8 + 0.5 * random()), p.getZ(i) * (0.8 + 0.35 * random()));
        g.computeVertexNormals();
        return g;
      }
    }
  });
  for (let k = 0; k < look.count[severity - 1]!; k++) {
    const mesh = new Mesh(shapes[k % shapes.length]!, material);
    mesh.position.set(
      Math.max(-54, Math.min(54, 26 * normal())),
      3.1 + (kind === 'fuzz' ? 1.4 * random() : 0.15),
      Math.max(-36, Math.min(36, 17 * normal())),
    );
    mesh.rotation.set(
      kind === 'fuzz' ? 1.2 * (random() - 0.5) : 0.3 * (random() - 0.5),
      2 * Math.PI * random(),
      kind === 'fuzz' ? 1.2 * (random() - 0.5) : 0.3 * (random() - 0.5),
    );
    mesh.castShadow = true;
    mesh.receiveShadow = true;
    group.add(mesh);
  }
  return group;
}
