import { fedBy, oilRoute, routeDistance } from '../engine/oilRoute.js';
import { isExamined, standingGrade, type CaseView, type StationView } from '../case/views.js';
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

/** Every place of the engine as one cause, at a place of its own where it has one, would have left it, beside what was found. */
export function predictBench(view: CaseView, cause: Cause, place: string | null): Predicted[] {
  const links = linksOf(cause);
  const leans = (id: string): number => {
    const l = links.get(id);
    return l && !l.prevents ? STRENGTH[l.strength] : 0;
  };
  const route = oilRoute(view.layout);
  const reached = place ? new Set([place, ...(cause.downstream ? fedBy(route, place) : [])]) : null;
  const furthest = Math.max(1, view.layout.mains + 1);
  const seen = cause.links.flatMap((l) => {
    const f = feature(l.feature);
    return f?.parts && f.damage && !l.prevents ? [{ parts: f.parts, w: STRENGTH[l.strength] }] : [];
  });
  return view.stations.map((s): Predicted => {
    const where = reached ? (at(s, reached, place!) ? 1 : AWAY) : 1;
    const lean = where * spread(view, s, leans, furthest);
    const chance = 1 - seen.reduce((keep, { parts, w }) => (parts.includes(s.station.part) ? keep * (1 - w * lean) : keep), 1 - LEAK);
    const grade = isExamined(s) ? standingGrade(s) : null;
    return { station: s.station.id, chance, grade, fit: fitOf(chance, grade) };
  });
}

function at(s: StationView, reached: ReadonlySet<string>, place: string): boolean {
  const stem = s.station.bearing;
  if (place.startsWith('cylinder.')) return place === `cylinder.${s.station.cylinder}` || s.station.cylinder === 0;
  return stem !== null ? reached.has(stem) : s.station.cylinder === 0;
}

/** How the spread the cause is known for weighs one place: rods against mains, halves, distance along the oil. */
function spread(view: CaseView, s: StationView, leans: (id: string) => number, furthest: number): number {
  let lean = 1;
  const { carries, half } = s.station;
  if (carries === 'crank') lean *= 1 - Math.max(0.5 * leans('spread.rods-worse'), leans('spread.rods-only'));
  if (carries === 'rod') lean *= 1 - Math.max(0.5 * leans('spread.mains-worse'), leans('spread.mains-only'));
  if (half === 'upper') lean *= 1 - 0.6 * leans('spread.lower-halves');
  if (half === 'lower') lean *= 1 - 0.6 * leans('spread.upper-halves');
  const d = routeDistance(view.layout, s.station);
  if (d !== null) {
    lean *= 1 - 0.6 * leans('spread.grows-along-route') * (1 - d / furthest);
    lean *= 1 - 0.6 * leans('spread.fades-along-route') * (d / furthest);
  }
  if (['shell', 'rolling', 'journal'].includes(s.station.part)) lean *= 1 - 0.8 * leans('spread.bearings-clean');
  if (['skirt', 'bore', 'crown', 'rings'].includes(s.station.part)) lean *= 1 - 0.8 * leans('spread.pistons-clean');
  return lean;
}

function fitOf(chance: number, grade: number | null): PredictedFit {
  if (grade === null) return 'not examined';
  if (grade >= 2) return chance >= 0.25 ? 'as predicted' : 'not predicted';
  return chance >= 0.6 ? 'predicted, not there' : 'clean as predicted';
}
