import type { EngineLayout } from '../engine/layout.js';

/** Moving masses of one cylinder and of its throw. */
export interface Masses {
  /** Piston with rings and pin. */
  readonly pistonKg: number;
  readonly rodKg: number;
  /** Share of the rod's mass that goes round with the crankpin; the rest goes with the piston. */
  readonly rodBigEndShare: number;
  /** Moment of inertia of the rod about its centre of mass less that of the two masses it is replaced by, kg m². 0: two masses. */
  readonly rodInertiaExcessKgM2: number;
  /** Unbalance of a throw by itself (pin and webs, without rod): mass times radius. */
  readonly throwKgM: number;
  /** Share of the rotating unbalance, throw and big end, that counterweights take away. */
  readonly counterweightShare: number;
}

export const PISTON_MATERIALS = ['aluminium', 'steel', 'cast-iron'] as const;
export type PistonMaterial = (typeof PISTON_MATERIALS)[number];

/**
 * Masses per cube of the bore, kg/dm³, for engines of which none is known. Judgement, from what such parts usually weigh: a piston of light alloy of 86 mm bore with rings and pin is about 0.47 kg in
 * a petrol engine and 0.75 kg in a diesel, its rod 0.55 and 1.1 kg.
 */
const PER_BORE: Readonly<Record<'spark' | 'diesel', { readonly piston: number; readonly rod: number }>> = {
  spark: { piston: 0.74, rod: 0.86 },
  diesel: { piston: 1.18, rod: 1.73 },
};
const MATERIAL: Readonly<Record<PistonMaterial, number>> = { aluminium: 1, steel: 1.15, 'cast-iron': 1.6 };
const STEEL_KG_M3 = 7850;
/** Webs and what else turns with the pin, over the pin by itself. Judgement. */
const WEBS = 1.6;
/** How far an estimated mass may be off, either way. Judgement. */
export const MASS_DOUBT = 0.2;

/** Masses as they were given, the rest estimated from bore, fuel and material of the piston; `estimated` names those. */
export function massesOf(
  layout: EngineLayout,
  given: Partial<Masses> & { readonly pistonMaterial?: PistonMaterial } = {},
): { readonly masses: Masses; readonly estimated: ReadonlyArray<keyof Masses> } {
  const { pistonMaterial = 'aluminium', ...known } = given;
  const per = PER_BORE[layout.fuel === 'diesel' ? 'diesel' : 'spark'];
  const bore3 = (layout.boreMm / 100) ** 3;
  const pinM = layout.pinDiameterMm / 1000;
  const usual: Masses = {
    pistonKg: per.piston * bore3 * MATERIAL[pistonMaterial],
    rodKg: per.rod * bore3,
    rodBigEndShare: 2 / 3,
    rodInertiaExcessKgM2: 0,
    throwKgM: WEBS * STEEL_KG_M3 * (Math.PI / 4) * pinM * pinM * (layout.rodShellWidthMm / 1000) * (layout.strokeMm / 2000),
    counterweightShare: 0.7,
  };
  const estimated = (Object.keys(usual) as Array<keyof Masses>).filter((key) => known[key] === undefined && key !== 'rodInertiaExcessKgM2');
  return { masses: { ...usual, ...known }, estimated };
}
