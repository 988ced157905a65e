import { BufferGeometry, Float32BufferAttribute } from 'three';

/** A surface of `nu` × `nv` fields from a place for every u, v (0–1). Normals follow from the places; texture coordinates are u, v. */
export function patch(
  nu: number,
  nv: number,
  place: (u: number, v: number) => readonly [number, number, number],
  flip = false,
): BufferGeometry {
  const positions: number[] = [];
  const uvs: number[] = [];
  const index: number[] = [];
  for (let j = 0; j <= nv; j++)
    for (let i = 0; i <= nu; i++) {
      positions.push(...place(i / nu, j / nv));
      uvs.push(i / nu, j / nv);
    }
  for (let j = 0; j < nv; j++)
    for (let i = 0; i < nu; i++) {
      const a = j * (nu + 1) + i;
      const [b, c, d] = [a + 1, a + nu + 1, a + nu + 2];
      index.push(...(flip ? [a, c, b, b, c, d] : [a, b, c, b, d, c]));
    }
  const g = new BufferGeometry();
  g.setAttribute('position', new Float32BufferAttribute(positions, 3));
  g.setAttribute('uv', new Float32BufferAttribute(uvs, 2));
  g.setIndex(index);
  g.computeVertexNormals();
  return g;
}

/** Ring or disc in a plane of constant z between two radii (may follow a profile by angle). */
export function annulus(
  z: number,
  inner: (a: number) => number,
  outer: (a: number) => number,
  from: number,
  to: number,
  flip: boolean,
  steps = 96,
): BufferGeometry {
  return patch(
    steps,
    1,
    (u, v) => {
      const a = from + u * (to - from);
      const r = v === 0 ? inner(a) : outer(a);
      return [r * Math.cos(a), r * Math.sin(a), z];
    },
    flip,
  );
}
