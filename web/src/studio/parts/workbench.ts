import { FORM_SURFACE, type SpecimenForm } from '@true-ledger/core/specimen';
import { DoubleSide, Group, Mesh, MeshPhysicalMaterial, MeshStandardMaterial, type BufferGeometry, type Material } from 'three';
import { RELIEF_MM, type SurfaceTextures } from '../textures.js';

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

/** A metal without a picture on it: colour as 0xrrggbb, roughness and metalness from 0 to 1. */
export const plain = (colour: number, roughness: number, metalness = 0.75): MeshStandardMaterial =>
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

/** What the parts are built with: the group they stand in, their size, and the metals they have in common. */
export interface Workbench {
  readonly form: SpecimenForm;
  readonly group: Group;
  /** Puts a piece into the group; it throws and takes shadow. */
  readonly add: (geometry: BufferGeometry, material: Material) => Mesh;
  readonly radiusMm: number;
  readonly widthMm: number;
  readonly steel: Material;
  readonly cast: Material;
  /** Bronze of a shell's edge. */
  readonly edge: Material;
  /** The face that bears the damage, as large as given; `anisotropy` 0 to 1 is how far marks along u spread its shine. */
  readonly face: (sizeMm: number, anisotropy: number) => Material;
}

/** An empty bench for a part of this form. */
export function workbench(form: SpecimenForm, textures: SurfaceTextures): Workbench {
  const group = new Group();
  const { radiusMm, widthMm } = FORM_SURFACE[form];
  return {
    form,
    group,
    add: (geometry, material) => {
      const mesh = new Mesh(geometry, material);
      mesh.castShadow = true;
      mesh.receiveShadow = true;
      group.add(mesh);
      return mesh;
    },
    radiusMm,
    widthMm,
    steel: plain(0xa9adb2, 0.38),
    cast: plain(0x939495, 0.7, 0.45),
    edge: plain(0xa8734c, 0.45),
    face: (sizeMm, anisotropy) => faceMaterial(textures, sizeMm, anisotropy),
  };
}
