import { MAP_CLASSES, type SurfaceMaps } from '@true-ledger/core/specimen';
import {
  DataTexture,
  LinearFilter,
  LinearMipmapLinearFilter,
  NoColorSpace,
  RGBAFormat,
  SRGBColorSpace,
  UnsignedByteType,
  type Texture,
} from 'three';

export interface SurfaceTextures {
  readonly colour: Texture;
  /** Green: roughness; blue: metalness, as three.js reads them. */
  readonly finish: Texture;
  /** Height, grey. */
  readonly relief: Texture;
  readonly dispose: () => void;
}

const toSrgb = (v: number): number => 255 * (v <= 0.0031308 ? 12.92 * v : 1.055 * v ** (1 / 2.4) - 0.055);
const HOLE = MAP_CLASSES.indexOf('hole');
/** Height that black to white spans, mm. */
export const RELIEF_MM = 0.6;

function texture(data: Uint8Array<ArrayBuffer>, maps: SurfaceMaps, colour: boolean): DataTexture {
  const t = new DataTexture(data, maps.columns, maps.rows, RGBAFormat, UnsignedByteType);
  t.colorSpace = colour ? SRGBColorSpace : NoColorSpace;
  t.magFilter = LinearFilter;
  t.minFilter = LinearMipmapLinearFilter;
  t.generateMipmaps = true;
  t.anisotropy = 8;
  t.needsUpdate = true;
  return t;
}

/** Painted maps as what a physically based material takes. */
export function surfaceTextures(maps: SurfaceMaps): SurfaceTextures {
  const n = maps.columns * maps.rows;
  const colour = new Uint8Array(n * 4);
  const finish = new Uint8Array(n * 4);
  const relief = new Uint8Array(n * 4);
  for (let i = 0; i < n; i++) {
    const hole = maps.truth[i] === HOLE;
    for (let k = 0; k < 3; k++) colour[4 * i + k] = hole ? 3 : Math.min(255, Math.max(0, toSrgb(Math.max(0, maps.colour[3 * i + k]!))));
    finish[4 * i + 1] = hole ? 255 : Math.min(255, Math.max(14, 255 * maps.roughness[i]!));
    finish[4 * i + 2] = hole ? 0 : 255 * (1 - Math.min(1, maps.dull[i]!));
    const h = hole ? 0 : Math.min(255, Math.max(0, 128 + (127 * maps.height[i]!) / (RELIEF_MM / 2)));
    relief[4 * i] = relief[4 * i + 1] = relief[4 * i + 2] = h;
    colour[4 * i + 3] = finish[4 * i + 3] = relief[4 * i + 3] = 255;
  }
  const made = { colour: texture(colour, maps, true), finish: texture(finish, maps, false), relief: texture(relief, maps, false) };
  return { ...made, dispose: () => Object.values(made).forEach((t) => t.dispose()) };
}
