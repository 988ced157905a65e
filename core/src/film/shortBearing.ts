/**
 * The short bearing of Ocvirk: no circumferential flow, pressure where the film closes (π film). All in the directions of the eccentricity: x along it, y a quarter turn on. The film is
 * h = c (1 − ε cos a), thinnest at a = 0.
 */

/** A vector of the plane across the bearing. */
export type Vector = readonly [x: number, y: number];

/**
 * Film force of a journal that moves with unit velocity at the angle `beta` from its eccentricity, as a multiple of μ V L³ R / c³. Integrated in closed form with Sommerfeld's substitution
 * cos γ = (cos a − ε) / (1 − ε cos a), that is γ = a + 2 atan (κ sin a / (1 − κ cos a)) with κ = ε / (1 + √(1 − ε²)), over the half of the film that closes, a = β ± π/2.
 */
export function shortImpedance(eccentricity: number, beta: number): Vector {
  const e = eccentricity;
  const root = Math.sqrt(1 - e * e);
  const k = e / (1 + root);
  const gamma = (a: number): number => a + 2 * Math.atan((k * Math.sin(a)) / (1 - k * Math.cos(a)));
  const from = gamma(beta - Math.PI / 2);
  const to = gamma(beta + Math.PI / 2);
  const between = (antiderivative: (g: number) => number): number => antiderivative(to) - antiderivative(from);
  const cc = between((g) => e * e * g + 2 * e * Math.sin(g) + g / 2 + Math.sin(2 * g) / 4) / (root * root * root * root * root);
  const cs = between((g) => -e * Math.cos(g) + (Math.sin(g) * Math.sin(g)) / 2) / (root * root * root * root);
  const ss = between((g) => g / 2 - Math.sin(2 * g) / 4) / (root * root * root);
  const [x, y] = [Math.cos(beta), Math.sin(beta)];
  return [x * cc + y * cs, x * cs + y * ss];
}

/** Steady running of a short bearing at an eccentricity: what its load number and attitude are. */
export interface SteadyRunning {
  /** S (L/D)² with S = μ n L D / W · (R / c)², n in revolutions a second. */
  readonly shortSommerfeld: number;
  /** From the load to the line of centres, with the rotation, degrees. */
  readonly attitudeDeg: number;
}

/** Ocvirk's steady solution: S (L/D)² = (1 − ε²)² / (π ε √(π² (1 − ε²) + 16 ε²)), tan φ = π √(1 − ε²) / (4 ε) (Ocvirk, NACA TN 2808, 1952). */
export function ocvirkSteady(eccentricity: number): SteadyRunning {
  const q = 1 - eccentricity * eccentricity;
  return {
    shortSommerfeld: (q * q) / (Math.PI * eccentricity * Math.sqrt(Math.PI * Math.PI * q + 16 * eccentricity * eccentricity)),
    attitudeDeg: (Math.atan((Math.PI * Math.sqrt(q)) / (4 * eccentricity)) * 180) / Math.PI,
  };
}
