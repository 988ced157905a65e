import type { WearMap } from '../damage/wearMap.js';

/** Damage on a developed surface: arc in degrees, axial 0 front to 1 rear, areas with half widths. */
export type Damage =
  | { readonly kind: 'polish'; readonly arc: number; readonly halfDeg: number; readonly amount: number }
  /** `steel`: share of the depth from which on lining and all are gone. */
  | { readonly kind: 'wipe'; readonly arc: number; readonly halfDeg: number; readonly amount: number; readonly steel?: number }
  | { readonly kind: 'edge'; readonly edge: 'front' | 'rear'; readonly depth: number; readonly fromDeg: number; readonly toDeg: number }
  | {
      readonly kind: 'score';
      readonly axial: number;
      readonly fromDeg: number;
      readonly toDeg: number;
      readonly widthMm: number;
      readonly through: boolean;
    }
  | { readonly kind: 'fatigue'; readonly arc: number; readonly halfDeg: number; readonly axial: number; readonly lost: number }
  /** Overlay coloured by heat: 0.3 past straw, 0.6 brown; beyond that black, or blue where the oil had burnt off before. */
  | { readonly kind: 'heat'; readonly arc: number; readonly halfDeg: number; readonly most: number; readonly blue?: boolean }
  | { readonly kind: 'rust'; readonly arc: number; readonly halfDeg: number; readonly amount: number }
  | { readonly kind: 'specks'; readonly count: number }
  /** Whatever a wear map says, torn along the run. */
  | { readonly kind: 'wear'; readonly map: WearMap }
  /** Temper colours on steel: 0.2 straw, 0.4 golden brown, 0.6 purple, 0.8 blue, 1 grey. */
  | (Patch & { readonly kind: 'temper'; readonly most: number })
  /** Metal of the other part, in smears along the run. */
  | (Patch & { readonly kind: 'transfer'; readonly cover: number; readonly metal: 'bronze' | 'aluminium' })
  /** Torn streaks along the axis. */
  | {
      readonly kind: 'scuff';
      readonly arc: number;
      readonly halfDeg: number;
      readonly from: number;
      readonly to: number;
      readonly amount: number;
    }
  /** A printed layer, no damage. */
  | { readonly kind: 'coat'; readonly fromDeg: number; readonly toDeg: number; readonly from: number; readonly to: number }
  /** Holes with sharp or molten edges: corrosion, cavitation, peppering, spalls. */
  | (Patch & { readonly kind: 'pits'; readonly count: number; readonly mostMm: number; readonly bright?: boolean })
  | { readonly kind: 'crack'; readonly arc: number; readonly axial: number; readonly turnDeg: number; readonly longMm: number }
  /** Carbon, lacquer or sludge. */
  | (Patch & { readonly kind: 'deposit'; readonly amount: number; readonly brown?: boolean })
  /** Bore: hatch worn to a glaze between two heights. */
  | { readonly kind: 'glaze'; readonly from: number; readonly to: number; readonly amount: number }
  /** Material gone: melted, struck, broken out. `ragged` 0 round … 1 broken. */
  | { readonly kind: 'gone'; readonly arc: number; readonly axial: number; readonly radiusMm: number; readonly ragged: number }
  /** Dull, dark, etched. */
  | { readonly kind: 'etch'; readonly arc: number; readonly halfDeg: number; readonly amount: number }
  /** Marks of rolling elements at rest. */
  | { readonly kind: 'brinell'; readonly pitchDeg: number; readonly widthDeg: number; readonly amount: number }
  /** A step or ridge along the run. */
  | { readonly kind: 'step'; readonly axial: number; readonly widthMm: number; readonly heightMm: number }
  /** Extra bright contact bands across the run. */
  | {
      readonly kind: 'contact';
      readonly arc: number;
      readonly halfDeg: number;
      readonly axial: number;
      readonly axialHalf: number;
      readonly amount: number;
    };

interface Patch {
  readonly arc: number;
  readonly halfDeg: number;
  readonly axial: number;
  readonly axialHalf: number;
}

export type DamageOf<K extends Damage['kind']> = Extract<Damage, { kind: K }>;
