import { crankAt, deadCentres, type CrankSize } from './crank.js';

/** The closed cycle a pressure is reckoned from where none was measured. Pressures absolute. */
export interface GasCycle {
  readonly cycle: 'four-stroke' | 'two-stroke';
  readonly compressionRatio: number;
  readonly intakePa: number;
  readonly exhaustPa: number;
  /** Crank degrees after firing top dead centre at which the valves or ports shut the charge in (negative: before), and open for exhaust. */
  readonly closesDeg: number;
  readonly opensDeg: number;
  /** Start of the heat release, degrees after firing top dead centre (negative: before), and its length. */
  readonly ignitionDeg: number;
  readonly burnDeg: number;
  /** Form of Wiebe's curve: share burnt 1 − exp (−6.908 y^(m+1)), 99.9 % at y = 1. */
  readonly wiebeM: number;
  readonly compressionExponent: number;
  readonly expansionExponent: number;
}

/** What the cycle is scaled to. */
export type GasTarget = { readonly peakPa: number } | { readonly imepPa: number };

export interface GasPressure {
  /** Absolute pressure at every step of the cycle, from firing top dead centre of this cylinder; Pa. */
  readonly pressurePa: Float64Array;
  readonly peakPa: number;
  readonly peakDeg: number;
  /** Work of the whole cycle over the swept volume. */
  readonly imepPa: number;
  /** Heat released, J; null for an imported table. */
  readonly heatJ: number | null;
}

/** Degrees over which the pressure falls to that of the exhaust once it opens. Judgement. */
const BLOWDOWN_DEG = 35;
/** Steps of a degree within which the equation of the first law is integrated. */
const SUBSTEPS = 2;
const WIEBE = 6.908;

/** Volume over the piston, m³, and its derivative by the crank angle, at `phi` (rad). */
export function chamber(
  crank: CrankSize,
  boreM: number,
  compressionRatio: number,
): (phi: number) => readonly [volume: number, slope: number] {
  const area = (Math.PI / 4) * boreM * boreM;
  const { topM, bottomM } = deadCentres(crank);
  const clearance = (area * (topM - bottomM)) / (compressionRatio - 1);
  return (phi) => {
    const { x, dx } = crankAt(crank, phi);
    return [clearance + area * (topM - x), -area * dx];
  };
}

/** What is the same whatever the heat: volume, share burnt and their slopes by the degree at the start, the middle and the end of every step of the closed part, its steps, and how many of them reach each of the places that are told. */
interface ClosedPart {
  readonly stepDeg: Float64Array;
  readonly ends: readonly number[];
  readonly volume: Float64Array;
  readonly volumeSlope: Float64Array;
  readonly share: Float64Array;
  readonly shareSlope: Float64Array;
}

function closedPart(crank: CrankSize, boreM: number, gas: GasCycle, places: readonly number[], mostDeg: number): ClosedPart {
  const volumeAt = chamber(crank, boreM, gas.compressionRatio);
  const top = deadCentres(crank).topRad;
  const burnt = (deg: number): number => {
    const y = (deg - gas.ignitionDeg) / gas.burnDeg;
    return y <= 0 ? 0 : 1 - Math.exp(-WIEBE * y ** (gas.wiebeM + 1));
  };
  const steps: number[] = [];
  const at: number[] = [];
  const ends: number[] = [];
  let deg = gas.closesDeg;
  for (const end of places) {
    const count = Math.max(1, Math.ceil((end - deg) / mostDeg - 1e-9));
    const h = (end - deg) / count;
    for (let i = 0; i < count; i++) {
      steps.push(h);
      at.push(deg, deg + h / 2, deg + h);
      deg += h;
    }
    deg = end;
    ends.push(steps.length);
  }
  const volumes = at.map((d) => volumeAt(top + (d * Math.PI) / 180));
  const h = 1e-4;
  return {
    stepDeg: Float64Array.from(steps),
    ends,
    volume: Float64Array.from(volumes, ([v]) => v),
    volumeSlope: Float64Array.from(volumes, ([, dv]) => dv * (Math.PI / 180)),
    share: Float64Array.from(at, burnt),
    shareSlope: Float64Array.from(at, (d) => (d < gas.ignitionDeg ? 0 : (burnt(d + h) - burnt(d - h)) / (2 * h))),
  };
}

/**
 * Pressure over a cycle in `steps` even steps: polytropic compression, heat released after Wiebe, polytropic expansion, exchange at constant pressures. First law for the closed part:
 * dp = (n − 1)/V dQ − n p/V dV with the exponent n between compression and expansion by the share burnt; the heat is what is left after losses to the walls.
 */
export function gasPressure(crank: CrankSize, boreM: number, gas: GasCycle, target: GasTarget, steps: number): GasPressure {
  const made = (heatJ: number): GasPressure => ({ ...cycleWith(heatJ), heatJ });
  const cycleDeg = gas.cycle === 'four-stroke' ? 720 : 360;
  const stepDeg = cycleDeg / steps;
  const first = Math.ceil(gas.closesDeg / stepDeg);
  const last = Math.floor(gas.opensDeg / stepDeg);
  const closed = closedPart(
    crank,
    boreM,
    gas,
    [...Array.from({ length: last - first + 1 }, (_, i) => (first + i) * stepDeg), gas.opensDeg],
    stepDeg / SUBSTEPS,
  );

  function cycleWith(heatJ: number): Omit<GasPressure, 'heatJ'> {
    const pressurePa = new Float64Array(steps);
    const { volume, volumeSlope, share, shareSlope } = closed;
    const slope = (k: number, p: number): number => {
      // Without a fire nothing but the charge is let expand.
      const n = gas.compressionExponent + (gas.expansionExponent - gas.compressionExponent) * (heatJ === 0 ? 0 : share[k]!);
      return ((n - 1) / volume[k]!) * heatJ * shareSlope[k]! - ((n * p) / volume[k]!) * volumeSlope[k]!;
    };
    // From where the charge is shut in to where the exhaust opens, by Runge and Kutta.
    let p = gas.intakePa;
    let k = 0;
    const to = (stop: number): void => {
      for (; k < stop; k++) {
        const h = closed.stepDeg[k]!;
        const a = slope(3 * k, p);
        const b = slope(3 * k + 1, p + (h / 2) * a);
        const c = slope(3 * k + 1, p + (h / 2) * b);
        const e = slope(3 * k + 2, p + h * c);
        p += (h / 6) * (a + 2 * b + 2 * c + e);
      }
    };
    const at = (step: number): number => ((step % steps) + steps) % steps;
    for (let i = first; i <= last; i++) {
      to(closed.ends[i - first]!);
      pressurePa[at(i)] = p;
    }
    to(closed.ends.at(-1)!);
    const opened = p;
    // Open: the exhaust pressure until the intake stroke of a four-stroke, whose pressures are then those of the intake; a two-stroke is scavenged at that of the intake.
    for (let i = last + 1; i < first + steps; i++) {
      const since = i * stepDeg - gas.opensDeg;
      const exhausting = gas.cycle === 'two-stroke' ? since < BLOWDOWN_DEG : i * stepDeg < 360;
      const rest = exhausting ? gas.exhaustPa : gas.intakePa;
      pressurePa[at(i)] = since < BLOWDOWN_DEG ? rest + (opened - rest) * (1 - since / BLOWDOWN_DEG) ** 2 : rest;
    }
    return summed(pressurePa);
  }

  function summed(pressurePa: Float64Array): Omit<GasPressure, 'heatJ'> {
    let peakPa = 0;
    let peakDeg = 0;
    pressurePa.forEach((p, i) => {
      if (p > peakPa) [peakPa, peakDeg] = [p, i * stepDeg];
    });
    return {
      pressurePa,
      peakPa,
      peakDeg: peakDeg > cycleDeg / 2 ? peakDeg - cycleDeg : peakDeg,
      imepPa: imepOf(crank, boreM, pressurePa, cycleDeg),
    };
  }

  // Heat and target rise together and nearly straight: the false position, in Illinois' form, is there in a few passes.
  const reached = (g: GasPressure): number => ('peakPa' in target ? g.peakPa - target.peakPa : g.imepPa - target.imepPa);
  const least = made(0);
  let below = reached(least);
  if (below >= 0) return least;
  let [low, high] = [0, 100];
  let best = made(high);
  while (reached(best) < 0 && high < 1e9) {
    [low, below] = [high, reached(best)];
    high *= 4;
    best = made(high);
  }
  let above = reached(best);
  let side = 0;
  for (let pass = 0; pass < 60 && Math.abs(reached(best)) > 1; pass++) {
    const heat = (low * above - high * below) / (above - below);
    best = made(heat);
    const off = reached(best);
    if (off < 0) {
      [low, below] = [heat, off];
      if (side < 0) above /= 2;
      side = -1;
    } else {
      [high, above] = [heat, off];
      if (side > 0) below /= 2;
      side = 1;
    }
  }
  return best;
}

/** Indicated mean effective pressure of a pressure over the cycle: ∮ p dV over the swept volume, by the trapezium rule on the exact volumes. */
export function imepOf(crank: CrankSize, boreM: number, pressurePa: Float64Array, cycleDeg: number): number {
  const { topRad, topM, bottomM } = deadCentres(crank);
  const steps = pressurePa.length;
  const step = ((cycleDeg / steps) * Math.PI) / 180;
  const place = (i: number): number => crankAt(crank, topRad + i * step).x;
  let work = 0;
  for (let i = 0; i < steps; i++) work += ((pressurePa[i]! + pressurePa[(i + 1) % steps]!) / 2) * (place(i) - place(i + 1));
  return work / (topM - bottomM);
}
