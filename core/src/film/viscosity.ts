/** An oil by its kinematic viscosities at 40 and 100 °C (mm²/s), density at 15 °C (kg/m³), and what is left of its viscosity under shear in a bearing. */
export interface Oil {
  readonly at40: number;
  readonly at100: number;
  readonly density: number;
  /** Dynamic viscosity at high shear over that at low shear: 1 without improver. */
  readonly underShear: number;
  /** Lowest temperature at which it still flows, °C. */
  readonly poursC: number;
}

/** Oils by grade: middle figures of what is sold under them. Judgement; the maker's sheet stands before them. */
export const OIL_GRADES: Readonly<Record<string, Oil>> = {
  '0W-20': { at40: 44, at100: 8.4, density: 845, underShear: 0.9, poursC: -45 },
  '5W-30': { at40: 62, at100: 10.8, density: 852, underShear: 0.88, poursC: -42 },
  '10W-40': { at40: 95, at100: 14.2, density: 868, underShear: 0.86, poursC: -36 },
  '15W-40': { at40: 108, at100: 14.6, density: 878, underShear: 0.9, poursC: -30 },
  '20W-50': { at40: 158, at100: 18.2, density: 885, underShear: 0.88, poursC: -24 },
  'SAE 30': { at40: 92, at100: 11, density: 885, underShear: 1, poursC: -24 },
  'SAE 40': { at40: 135, at100: 14.2, density: 890, underShear: 1, poursC: -18 },
};

const KELVIN = 273.15;
/** Walther's shift of the viscosity, mm²/s (ASTM D341, above 2 mm²/s). */
const SHIFT = 0.7;
const walther = (v: number): number => Math.log10(Math.log10(v + SHIFT));
/** Fall of the density with the temperature, 1/K. */
const EXPANSION = 6.4e-4;

/** Kinematic viscosity through two points, mm²/s: lg lg (ν + 0.7) = A − B lg T (Walther; ASTM D341). */
export function kinematic(oil: Oil, celsius: number): number {
  const [t1, t2] = [Math.log10(40 + KELVIN), Math.log10(100 + KELVIN)];
  const slope = (walther(oil.at40) - walther(oil.at100)) / (t2 - t1);
  return 10 ** (10 ** (walther(oil.at40) - slope * (Math.log10(celsius + KELVIN) - t1))) - SHIFT;
}

/** Fuel in the oil as a very thin oil: petrol is near 0.5 mm²/s at bench heat, diesel near 2.5 at 40 °C. */
const FUEL = { petrol: { at40: 0.55, density: 745 }, diesel: { at40: 2.6, density: 835 } } as const;

/** Viscosity blending number of the share-weighted mixture (Refutas; ASTM D7152 procedure by mass is close to it). */
const blending = (v: number): number => 14.534 * Math.log(Math.log(v + 0.8)) + 10.975;
const unblending = (n: number): number => Math.exp(Math.exp((n - 10.975) / 14.534)) - 0.8;

/** The oil with a share of fuel in it (0–0.5 by mass). */
export function withFuel(oil: Oil, share: number, fuel: keyof typeof FUEL): Oil {
  if (share === 0) return oil;
  const thin = FUEL[fuel];
  const mixed = (of: number, thinAt: number): number => unblending((1 - share) * blending(of) + share * blending(thinAt));
  // At 100 °C fuel is thinner by about a half; much of petrol has left by then, which is not reckoned.
  return {
    ...oil,
    at40: mixed(oil.at40, thin.at40),
    at100: mixed(oil.at100, Math.max(0.35, thin.at40 / 2)),
    density: (1 - share) * oil.density + share * thin.density,
  };
}

/** Dynamic viscosity in a bearing, Pa s. */
export function dynamicPaS(oil: Oil, celsius: number): number {
  const density = oil.density * (1 - EXPANSION * (celsius - 15));
  return kinematic(oil, celsius) * 1e-6 * density * oil.underShear;
}

/** Oil taken where none is given. */
export const USUAL_OIL = '10W-40';
