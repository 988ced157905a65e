import type { EngineLayout } from '../engine/layout.js';
import { bearingsOf } from '../engine/bearings.js';
import { runningEngine } from '../loads/engineFile.js';
import { faultPlaces, solveCircuit } from '../oil/circuit.js';
import type { OilFault, OilFaultKind } from '../oil/faults.js';
import { readCircuit } from '../oil/oilFile.js';
import { ok, type Result } from '../kit/result.js';
import { operatingOf } from './run.js';
import type { RunSetting } from './setting.js';

/** How hurt the bearings are that were looked at, 0 to 1; what was not looked at is left out. */
export type FoundHurt = ReadonlyMap<string, number>;

/** A fault of the oil circuit that is tried on the bearings that were found hurt. */
export interface FaultExplanation {
  readonly fault: OilFault;
  /** Bearings that get less oil than they need, of those that were looked at or not. */
  readonly short: readonly string[];
  /** Likeness of who runs short to who was found hurt, 0 to 1. */
  readonly alike: number;
  /** What the gauge shows against the engine without the fault, bar. */
  readonly gaugeMovedBar: number;
}

/** From this share on a bearing is hurt so that its clearance is no longer what it ran with: grade 2. */
const HURT = 0.5;

/** Clearances as they were before the failure: those of hurt bearings are left out, and taken as built. */
export const asBuilt = (clearancesMm: RunSetting['clearancesMm'], found: FoundHurt): RunSetting['clearancesMm'] =>
  Object.fromEntries(Object.entries(clearancesMm).filter(([bearing]) => (found.get(bearing) ?? 0) < HURT));

/** Sizes every kind of fault is tried with; undefined for the usual one. */
const AMOUNTS: Partial<Record<OilFaultKind, readonly number[]>> = {
  clearance: [2, 4],
  restriction: [0.9, 0.99],
  'relief-open': [0.5, 0.9],
  air: [0.3, 0.6],
  'low-level': [0.6, 0.8],
  'worn-pump': [5, 15],
};
/** A bearing that gets this share of its oil is not hurt by what it lacks; one that gets none is hurt most. Judgement. */
const ENOUGH = 0.6;

const lacks = (share: number): number => Math.min(1, Math.max(0, (ENOUGH - share) / ENOUGH));

/** Tries every fault at every place on who was found hurt, the likest first; of one kind at one place the likest size stands. Those that leave nobody short are left out. */
export function explainedByFault(layout: EngineLayout, setting: RunSetting, found: FoundHurt): Result<FaultExplanation[]> {
  const made = runningEngine(layout, operatingOf({ ...setting, clearancesMm: asBuilt(setting.clearancesMm, found) }));
  if (!made.ok) return made;
  const circuit = readCircuit(made.value, { faults: [] });
  if (!circuit.ok) return circuit;
  const of = circuit.value;
  const healthy = solveCircuit(of);
  const bearings = bearingsOf(layout);
  const best = new Map<string, FaultExplanation>();
  for (const [kind, places] of Object.entries(faultPlaces(layout, of.sizes)) as Array<[OilFaultKind, readonly string[] | null]>)
    for (const at of places ?? [undefined])
      for (const amount of AMOUNTS[kind] ?? [undefined]) {
        const fault: OilFault = { kind, ...(at === undefined ? {} : { at }), ...(amount === undefined ? {} : { amount }) };
        const run = solveCircuit({ ...of, faults: [fault] });
        const hurt = new Map(bearings.map((b) => [b, lacks(run.bearingFlow.get(b)! / healthy.bearingFlow.get(b)!)]));
        const alike = likenessOf(hurt, found);
        const key = `${kind} ${at ?? ''}`;
        if (alike === null || alike <= (best.get(key)?.alike ?? 0)) continue;
        const short = bearings.filter((b) => hurt.get(b)! > 0);
        best.set(key, { fault, short, alike, gaugeMovedBar: (run.gaugePa - healthy.gaugePa) / 1e5 });
      }
  // What differs by less than a hundredth is the same: the kinds stand in their own order then.
  return ok([...best.values()].sort((a, b) => Math.round(100 * b.alike) - Math.round(100 * a.alike)));
}

/** Cosine of predicted and found over the bearings that were looked at; null where one of them shows nothing. */
function likenessOf(predicted: ReadonlyMap<string, number>, found: FoundHurt): number | null {
  let [pp, ff, pf] = [0, 0, 0];
  for (const [bearing, f] of found) {
    const p = predicted.get(bearing) ?? 0;
    pp += p * p;
    ff += f * f;
    pf += p * f;
  }
  return pp === 0 || ff === 0 ? null : pf / Math.sqrt(pp * ff);
}
