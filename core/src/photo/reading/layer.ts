import type { WearClass } from '../../damage/classes.js';

/** Classes that a picture tells apart. `scored` is the groove of a line, which counts as line and not as area; `void` is an oil hole or a tab, which is no surface. */
export type Layer = Exclude<WearClass, 'polished'> | 'scored' | 'void' | 'unseen';
/** Layers a pixel may belong to. */
export const LAYERS: readonly Layer[] = [
  ...(['sound', 'lining', 'heat', 'rust', 'embedded', 'scuffed', 'transfer', 'steel', 'deposit', 'missing'] as const),
  'scored',
  'void',
  'unseen',
];

/** Class of area that a layer counts as; null for what is no surface or not seen. */
export const wearOf = (layer: Layer): WearClass | null =>
  layer === 'void' || layer === 'unseen' ? null : layer === 'scored' ? 'sound' : layer;

/** Chances of classes, one plane a class, on a smaller picture of the same surface; 0 where nothing is seen. */
export interface Chances {
  readonly width: number;
  readonly height: number;
  readonly classes: readonly Layer[];
  readonly planes: readonly Float32Array[];
}

/** A surface told apart by layer. */
export interface Layered {
  /** Index into `LAYERS` by pixel. */
  readonly layer: Uint8Array;
  /** Distance from the nearest limit, 0 (undecided) to 1. */
  readonly sure: Float32Array;
  readonly specks: number;
  /** Share of the surface under a net of cracks. */
  readonly crazed: number;
  /** 1 where the surface lies under a net of cracks. */
  readonly net: Uint8Array;
  /** Oil holes; tabs are left out of the face but not counted. */
  readonly voids: number;
  /** Chances of the classes where a classifier told them apart: shares follow from these, since in a field of fine streaks hardly a pixel is all of one. */
  readonly chances?: Chances;
}

/** Index of a layer in `LAYERS`. */
export const layerAt = (name: Layer): number => LAYERS.indexOf(name);

/** Share of the arc at each parting line where the face is seen at a sliver, its corner shows the lining and it mirrors the bench: what lies wholly in there is no finding. */
export const PARTING = 0.045;
