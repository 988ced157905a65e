import type { EngineLayout } from '../engine/layout.js';
import { fedBy, oilRoute, routeDistance } from '../engine/oilRoute.js';
import type { Station } from '../engine/stations.js';
import { isExamined, standingGrade, type CaseView } from '../case/views.js';
import { feature } from '../cause/data/features.js';
import { linksOf } from './diagnose.js';
import { STRENGTH, type Cause } from '../cause/types.js';

type PredictedFit = 'as predicted' | 'predicted, not there' | 'not predicted' | 'clean as predicted' | 'not examined';

/** What a cause predicts at one place: chance of damage (0 to 1), grade found, and whether the two fit. */
export interface Predicted {
  readonly station: string;
  /** Chance that this cause would have hurt the place. */
  readonly chance: number;
  readonly grade: number | null;
  readonly fit: PredictedFit;
}

/** Damage of itself, without this cause. */
const LEAK = 0.05;
const AWAY = 0.06;

/** How far a cause, at a place of its own where it has one, leans on each place of the engine, 0 to 1: by what its oil reaches and by the spread it is known for. */
export function leanOf(layout: EngineLayout, cause: Cause, place: string | null): (station: Station) => number {
  const links = linksOf(cause);
  const leans = (id: string): number => {
    const l = links.get(id);
    return l && !l.prevents ? STRENGTH[l.strength] : 0;
  };
  const reached = place ? new Set([place, ...(cause.downstream ? fedBy(oilRoute(layout), place) : [])]) : null;
  const furthest = Math.max(1, layout.mains + 1);
  return (s) => (reached && !at(s, reached, place!) ? AWAY : 1) * spread(layout, s, leans, furthest);
}

/** Every place of the engine as one cause, at a place of its own where it has one, would have left it, beside what was found. */
export function predictBench(view: CaseView, cause: Cause, place: string | null): Predicted[] {
  const leanAt = leanOf(view.layout, cause, place);
  const seen = cause.links.flatMap((l) => {
    const f = feature(l.feature);
    return f?.parts && f.damage && !l.prevents ? [{ parts: f.parts, w: STRENGTH[l.strength] }] : [];
  });
  return view.stations.map((s): Predicted => {
    const lean = leanAt(s.station);
    const chance = 1 - seen.reduce((keep, { parts, w }) => (parts.includes(s.station.part) ? keep * (1 - w * lean) : keep), 1 - LEAK);
    const grade = isExamined(s) ? standingGrade(s) : null;
    return { station: s.station.id, chance, grade, fit: fitOf(chance, grade) };
  });
}

function at(s: Station, reached: ReadonlySet<string>, place: string): boolean {
  if (place.startsWith('cylinder.')) return place === `cylinder.${s.cylinder}` || s.cylinder === 0;
  return s.bearing !== null ? reached.has(s.bearing) : s.cylinder === 0;
}

/** How the spread the cause is known for weighs one place: rods against mains, halves, distance along the oil. */
function spread(layout: EngineLayout, s: Station, leans: (id: string) => number, furthest: number): number {
  let lean = 1;
  const { carries, half } = s;
  if (carries === 'crank') lean *= 1 - Math.max(0.5 * leans('spread.rods-worse'), leans('spread.rods-only'));
  if (carries === 'rod') lean *= 1 - Math.max(0.5 * leans('spread.mains-worse'), leans('spread.mains-only'));
  if (half === 'upper') lean *= 1 - 0.6 * leans('spread.lower-halves');
  if (half === 'lower') lean *= 1 - 0.6 * leans('spread.upper-halves');
  const d = routeDistance(layout, s);
  if (d !== null) {
    lean *= 1 - 0.6 * leans('spread.grows-along-route') * (1 - d / furthest);
    lean *= 1 - 0.6 * leans('spread.fades-along-route') * (d / furthest);
  }
  if (['shell', 'rolling', 'journal'].includes(s.part)) lean *= 1 - 0.8 * leans('spread.bearings-clean');
  if (['skirt', 'bore', 'crown', 'rings'].includes(s.part)) lean *= 1 - 0.8 * leans('spread.pistons-clean');
  return lean;
}

function fitOf(chance: number, grade: number | null): PredictedFit {
  if (grade === null) return 'not examined';
  if (grade >= 2) return chance >= 0.25 ? 'as predicted' : 'not predicted';
  return chance >= 0.6 ? 'predicted, not there' : 'clean as predicted';
}
