import { axisDeg, cylinderPlaces, firingIntervals, mainPositions, pinCount, pinNumber, type EngineLayout } from '../engine/layout.js';
import { crankAt, deadCentres, type CrankSize } from './crank.js';
import type { Masses } from './masses.js';

/** A force across a shaft over the cycle, N, at every step; which frame is said where it is used. */
export interface ForceCycle {
  readonly x: Float64Array;
  readonly y: Float64Array;
}

/** What one cylinder does over the cycle. Steps run from firing top dead centre of cylinder 1. */
interface CylinderLoads {
  readonly cylinder: number;
  readonly pin: number;
  /** Crank degrees at which it fires. */
  readonly firesDeg: number;
  /** Of the journal on its shells, in the frame of the rod: x towards the piston, y a quarter turn on with the rotation. */
  readonly bigEnd: ForceCycle;
  /** The same force in the frame of the throw: x outwards from the crank. */
  readonly pinFixed: ForceCycle;
  /** Speed of the crankpin in the rod, rad/s, positive with the rotation of the crank. */
  readonly pinSpeed: Float64Array;
  /** Angle of the rod from its bore, rad. */
  readonly rodAngle: Float64Array;
  /** Of the piston on its bore: positive towards Y, the side the crankpin goes to from the top. */
  readonly sideThrust: Float64Array;
  readonly pistonSpeed: Float64Array;
  readonly pistonAcceleration: Float64Array;
}

/** One main over the cycle: force of its journal on the shells in the frame of the block (x along bank of cylinder 1 to the head, y a quarter turn on with the rotation), and in that of the crank (x along throw of cylinder 1). */
interface MainLoads {
  readonly main: number;
  readonly block: ForceCycle;
  readonly crankFixed: ForceCycle;
}

export interface EngineLoads {
  readonly cycleDeg: number;
  readonly steps: number;
  readonly speedRadS: number;
  readonly cylinders: readonly CylinderLoads[];
  readonly mains: readonly MainLoads[];
  /** Of all cylinders on the crank, N m. */
  readonly torque: Float64Array;
  /** Crank angle of cylinder 1's throw from its bore at step 0, rad: not nought where the bore is offset. */
  readonly throwAtStart: number;
}

export interface LoadsOf {
  readonly layout: EngineLayout;
  readonly speedRpm: number;
  readonly masses: Masses;
  readonly offsetM: number;
  /** Over the piston less that under it, at every step from firing top dead centre of the cylinder, Pa. By cylinder number. */
  readonly gas: (cylinder: number) => Float64Array;
}

export const crankSize = (layout: EngineLayout, offsetM = 0): CrankSize => ({
  throwM: layout.strokeMm / 2000,
  rodM: layout.rodLengthMm / 1000,
  offsetM,
});

const forces = (steps: number): ForceCycle => ({ x: new Float64Array(steps), y: new Float64Array(steps) });

/** Crank degrees at which every cylinder fires after cylinder 1, by cylinder number. */
export function firesAt(layout: EngineLayout): number[] {
  const intervals = firingIntervals(layout) ?? [];
  const at: number[] = [];
  let deg = 0;
  layout.firingOrder.forEach((cylinder, i) => {
    at[cylinder - 1] = deg;
    deg += intervals[i] ?? 0;
  });
  const one = at[0] ?? 0;
  const cycle = layout.cycle === 'four-stroke' ? 720 : 360;
  return at.map((d) => (((d - one) % cycle) + cycle) % cycle);
}

/**
 * Forces over one cycle at steady speed. Piston and rod as rigid bodies, the rod as two masses and a couple; friction and the weight of parts left out. A span of the crank between two mains is taken
 * as a beam on two supports (statically determinate), throws evenly spaced; a crank with one main puts all on it, the tilting moment is not reckoned.
 */
export function engineLoads({ layout, speedRpm, masses, offsetM, gas }: LoadsOf): EngineLoads {
  const cycleDeg = layout.cycle === 'four-stroke' ? 720 : 360;
  const crank = crankSize(layout, offsetM);
  const { throwM: r, rodM } = crank;
  const top = deadCentres(crank).topRad;
  const omega = (speedRpm * Math.PI) / 30;
  const area = (Math.PI / 4) * (layout.boreMm / 1000) ** 2;
  const bigEndKg = masses.rodKg * masses.rodBigEndShare;
  const recipKg = masses.pistonKg + masses.rodKg - bigEndKg;
  const fires = firesAt(layout);
  const places = cylinderPlaces(layout);
  const steps = gas(1).length;
  const step = ((cycleDeg / steps) * Math.PI) / 180;
  const torque = new Float64Array(steps);
  /** On the crank at every pin, in the frame of the block. */
  const onPins = Array.from({ length: pinCount(layout) }, () => forces(steps));
  const cylinders = places.map((place): CylinderLoads => {
    const pressure = gas(place.cylinder);
    const firesDeg = fires[place.cylinder - 1] ?? 0;
    const delay = Math.round((firesDeg / cycleDeg) * steps);
    const axis = (axisDeg(layout, place.bank) * Math.PI) / 180;
    const out: CylinderLoads = {
      cylinder: place.cylinder,
      pin: pinNumber(layout, place),
      firesDeg,
      bigEnd: forces(steps),
      pinFixed: forces(steps),
      pinSpeed: new Float64Array(steps),
      rodAngle: new Float64Array(steps),
      sideThrust: new Float64Array(steps),
      pistonSpeed: new Float64Array(steps),
      pistonAcceleration: new Float64Array(steps),
    };
    const pinForce = onPins[place.pin]!;
    for (let i = 0; i < steps; i++) {
      // The angle itself is exact; only the pressure is taken at the nearest step.
      const phi = top + i * step - (firesDeg * Math.PI) / 180;
      const s = crankAt(crank, phi);
      const force = pressure[(((i - delay) % steps) + steps) % steps]! * area;
      const acceleration = s.ddx * omega * omega;
      const [sinD, cosD] = [Math.sin(s.delta), Math.cos(s.delta)];
      // Couple the rod needs beyond its two masses, as forces across its ends.
      const across = (masses.rodInertiaExcessKgM2 * s.ddDelta * omega * omega) / rodM;
      const along = (recipKg * acceleration + force - across * sinD) / cosD;
      const centrifugal = bigEndKg * r * omega * omega;
      const [sinP, cosP] = [Math.sin(phi), Math.cos(phi)];
      // Of the pin on the rod, in the frame of the cylinder.
      const fx = along * cosD + across * sinD - centrifugal * cosP;
      const fy = along * sinD - across * cosD - centrifugal * sinP;
      out.bigEnd.x[i] = fx * cosD + fy * sinD;
      out.bigEnd.y[i] = -fx * sinD + fy * cosD;
      out.pinFixed.x[i] = fx * cosP + fy * sinP;
      out.pinFixed.y[i] = -fx * sinP + fy * cosP;
      out.pinSpeed[i] = omega * (1 - s.dDelta);
      out.rodAngle[i] = s.delta;
      out.sideThrust[i] = along * sinD - across * cosD;
      out.pistonSpeed[i] = s.dx * omega;
      out.pistonAcceleration[i] = acceleration;
      torque[i]! += r * (-fy * cosP + fx * sinP);
      pinForce.x[i]! -= fx * Math.cos(axis) - fy * Math.sin(axis);
      pinForce.y[i]! -= fx * Math.sin(axis) + fy * Math.cos(axis);
    }
    return out;
  });
  // The throw itself and its counterweights, along the throw.
  const rotating = masses.throwKgM - masses.counterweightShare * (masses.throwKgM + bigEndKg * r * rodsPerPin(layout));
  onPins.forEach((force, pin) => {
    const on = places.find((p) => p.pin === pin)!;
    const at = (axisDeg(layout, on.bank) * Math.PI) / 180 + top - ((fires[on.cylinder - 1] ?? 0) * Math.PI) / 180;
    for (let i = 0; i < steps; i++) {
      force.x[i]! += rotating * omega * omega * Math.cos(at + i * step);
      force.y[i]! += rotating * omega * omega * Math.sin(at + i * step);
    }
  });
  const mains = mainShares(layout).map((shares, k): MainLoads => {
    const block = forces(steps);
    const crankFixed = forces(steps);
    for (let i = 0; i < steps; i++) {
      shares.forEach((share, pin) => {
        block.x[i]! += share * onPins[pin]!.x[i]!;
        block.y[i]! += share * onPins[pin]!.y[i]!;
      });
      const [sin, cos] = [Math.sin(top + i * step), Math.cos(top + i * step)];
      crankFixed.x[i] = block.x[i]! * cos + block.y[i]! * sin;
      crankFixed.y[i] = -block.x[i]! * sin + block.y[i]! * cos;
    }
    return { main: k + 1, block, crankFixed };
  });
  return { cycleDeg, steps, speedRadS: omega, cylinders, mains, torque, throwAtStart: top };
}

const rodsPerPin = (layout: EngineLayout): number => layout.cylinders / pinCount(layout);

/** What share of the force on every pin each main carries: a beam between the mains on either side, the pin in the middle of its place. */
export function mainShares(layout: EngineLayout): number[][] {
  const at = mainPositions(layout);
  const pins = pinCount(layout);
  return at.map((_, k) =>
    Array.from({ length: pins }, (_, pin) => {
      if (at.length === 1) return 1;
      const front = at.findLastIndex((p) => p <= pin);
      const rear = at.findIndex((p) => p >= pin + 1);
      // Beyond the last main the span next to it carries on as a lever.
      const [a, b] = rear < 0 ? [at.length - 2, at.length - 1] : front < 0 ? [0, 1] : [front, rear];
      const share = (pin + 0.5 - at[a]!) / (at[b]! - at[a]!);
      return k === a ? 1 - share : k === b ? share : 0;
    }),
  );
}
