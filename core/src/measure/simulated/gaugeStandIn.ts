import type { Gauge } from '../../units/gauge.js';
import type { Cell } from '../sheets/cells.js';
import { cellUnits } from '../program/readCell.js';

/** What is wrong with a gauge stand-in, as the person who holds it has set it. */
export interface GaugeFaults {
  /** Added to every reading, mm. */
  readonly biasMm: number;
  /** Times the repeatability of its record. */
  readonly noise: number;
  /** Added for every reading taken since it was last set, mm. */
  readonly driftMm: number;
  /** Shows its last figure whatever it is on. */
  readonly stuck: boolean;
  /** Sends nothing. */
  readonly silent: boolean;
}

/** A stand-in as good as its record. */
export const NO_FAULTS: GaugeFaults = { biasMm: 0, noise: 1, driftMm: 0, stuck: false, silent: false };

/** A stand-in as it stands: its faults, readings since it was last set, and what it showed last. */
export interface StandInState {
  readonly faults: GaugeFaults;
  /** Readings taken since it was last set against its master. */
  readonly count: number;
  readonly last: string | null;
}

/** What pressing the data key brings. */
export type Press = { readonly kind: 'reading'; readonly text: string; readonly unit: string } | { readonly kind: 'silent' };

/** Standard normal from two uniforms (Box–Muller). */
function normal(random: () => number): number {
  return Math.sqrt(-2 * Math.log(Math.max(1e-12, random()))) * Math.cos(2 * Math.PI * random());
}

/**
 * Presses the data key of a gauge stand-in on a true value: truth plus bias, drift and noise, rounded to the gauge's resolution. A stuck gauge shows its last figure, a silent one
 * sends nothing. Other quantities than lengths carry noise of a thousandth of their value.
 */
export function pressKey(
  gauge: Gauge,
  state: StandInState,
  truth: number,
  cell: Cell | null,
  random: () => number,
): { press: Press; state: StandInState } {
  const { faults } = state;
  if (faults.silent) return { press: { kind: 'silent' }, state };
  const length = !cell || cell.quantity === 'length';
  const unit = cell ? cellUnits(cell)[0]! : gauge.kind === 'torque-wrench' ? 'N·m' : 'mm';
  if (faults.stuck && state.last !== null)
    return { press: { kind: 'reading', text: state.last, unit }, state: { ...state, count: state.count + 1 } };
  const scatter = length ? gauge.repeatabilityMm : Math.abs(truth) / 1000;
  const off = length ? faults.biasMm + faults.driftMm * state.count : 0;
  const seen = truth + off + faults.noise * scatter * normal(random);
  const resolution = length ? gauge.resolutionMm : cell?.quantity === 'angle' ? 1 : 0.1;
  const digits = Math.max(0, Math.round(-Math.log10(resolution)));
  const rounded = Math.round(seen / resolution) * resolution;
  const text = (Math.abs(rounded) < resolution / 2 ? 0 : rounded).toFixed(digits);
  return { press: { kind: 'reading', text, unit }, state: { ...state, count: state.count + 1, last: text } };
}

/** A trace of a cylinder wall as the profilometer stand-in sends it: plateau honing with its peaks worn by `worn` (0 new to 1), µm over mm, with the noise of the pickup. */
export function standInTrace(
  worn: number,
  faults: GaugeFaults,
  random: () => number,
  points = 8000,
  stepMm = 0.0005,
): Array<[number, number]> {
  const grooves = Array.from({ length: 60 }, () => ({
    at: random() * points * stepMm,
    width: 0.008 + 0.02 * random(),
    depth: 1.5 + 4 * random(),
  }));
  const peaks = Array.from({ length: 40 }, () => ({ phase: random() * 2 * Math.PI, wave: 0.02 + 0.12 * random(), high: 0.08 * random() }));
  return Array.from({ length: points }, (_, i) => {
    const x = i * stepMm;
    let z = peaks.reduce((s, p) => s + p.high * Math.sin((2 * Math.PI * x) / p.wave + p.phase), 0) * (1 - 0.8 * worn);
    for (const g of grooves) z -= g.depth * (1 - 0.3 * worn) * Math.exp(-(((x - g.at) / g.width) ** 2));
    z += 0.02 * faults.noise * normal(random) + faults.driftMm * 1000 * (i / points);
    return [x, z];
  });
}
