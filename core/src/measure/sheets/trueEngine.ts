import type { EngineLayout } from '../../engine/layout.js';
import { journalOf, stationOf } from '../../engine/stations.js';
import type { FastenerPattern } from '../../strip/fasteners.js';

/**
 * The true geometry of a demonstration engine, for the stand-ins of gauges and for demo readings: every size follows from the layout, a seed and how badly a station
 * is damaged (0 sound to 1 gone). Sizes of different sheets agree with each other: a clearance is its housing less its walls less its journal.
 */
export interface TrueEngine {
  readonly layout: EngineLayout;
  readonly seed: string;
  readonly severity: (station: string) => number;
}

/** −1 to 1, the same for the same words (FNV-1a, then a mixing step). */
export function chance(words: string): number {
  let h = 2166136261;
  for (let i = 0; i < words.length; i++) h = Math.imul(h ^ words.charCodeAt(i), 16777619);
  h = Math.imul(h ^ (h >>> 15), 2246822507);
  h ^= h >>> 13;
  return ((h >>> 0) / 0xffffffff) * 2 - 1;
}

const DEPTH_WEAR = [1, 0.55, 0.3, 0.12] as const;
const AXIS_WEAR: Readonly<Record<string, number>> = { A: 1, B: 0.55, C: 0.82, D: 0.74 };

/** Diameter of a journal or pin at a plane and axis, mm. */
export function trueJournalMm(t: TrueEngine, station: string, plane: string, axis: string): number {
  const nominal = stationOf(t.layout, station)?.carries === 'rod' ? t.layout.pinDiameterMm : t.layout.mainDiameterMm;
  const w = t.severity(station);
  const h = (what: string): number => chance(`${t.seed} ${station} ${what}`);
  const made = nominal - 0.008 + 0.003 * h('made');
  const wear = axis === 'A' ? 0.002 + 0.032 * w : 0.001 + 0.019 * w;
  const along = plane === 'mid' ? -(0.001 + 0.006 * w) : (plane === 'front' ? -1 : 1) * (0.001 * h('taper') + 0.004 * w * h('lean'));
  return made - wear + along;
}

/** Diameter of a bore at one of its depths and an axis, mm. */
export function trueBoreMm(t: TrueEngine, cylinder: number, depth: number, axis: string): number {
  const station = `bore.${cylinder}`;
  const made = t.layout.boreMm + 0.007 + 0.004 * chance(`${t.seed} ${station}`);
  return made + (0.014 + 0.11 * t.severity(station)) * DEPTH_WEAR[depth]! * (AXIS_WEAR[axis] ?? 0.7);
}

/** True sizes of one bearing of a demonstration engine, mm; its two halves by how badly they are worn, 0 to 1. */
export interface TrueBearing {
  readonly journal: number;
  readonly wall: number;
  readonly severity: (half: 'upper' | 'lower') => number;
  readonly housing: (direction: string) => number;
}

/** A bearing of which a shell or the housing is at `station`. */
export function trueBearing(t: TrueEngine, station: string): TrueBearing {
  const shell = stationOf(t.layout, station)!;
  const main = shell.carries === 'crank';
  const nominal = main ? t.layout.mainDiameterMm : t.layout.pinDiameterMm;
  const wall = (main ? 2 : 1.5) + (nominal > 70 ? 0.5 : 0);
  const journal = journalOf(t.layout, shell)!.id;
  const severity = (half: 'upper' | 'lower'): number => t.severity(`${shell.unit}.shell.${half}`);
  const made = nominal + 2 * wall + 0.034 + 0.003 * chance(`${t.seed} ${shell.unit.replace('.', ' ')} housing`);
  return {
    journal: (trueJournalMm(t, journal, 'front', 'A') + trueJournalMm(t, journal, 'mid', 'A') + trueJournalMm(t, journal, 'rear', 'A')) / 3,
    wall,
    severity,
    housing: (direction) => made + (direction === 'vertical' ? 0.016 * severity('lower') : -0.003),
  };
}

/** True break-loose torque of a fastener, N·m: about as much as the bore has millimetres for a head, the pin for a cap, a tenth either way. */
export function trueTorque(t: TrueEngine, pattern: FastenerPattern, position: string): number {
  const size = pattern.id.startsWith('head') ? 1.05 * t.layout.boreMm : 0.95 * t.layout.pinDiameterMm;
  return size * (1 + 0.1 * chance(`${t.seed} ${pattern.id} ${position}`));
}
