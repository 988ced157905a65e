import { isExamined, standingGrade, type CaseView, type StationView } from '../case/views.js';
import type { Grade } from '../damage/classes.js';
import type { Station } from '../engine/stations.js';
import { measureProgram } from '../measure/program/program.js';
import type { SheetLine } from '../measure/sheets/line.js';
import { measurePlace } from '../measured/caseMeasure.js';

/** How a place stood in one strip. */
export interface PlaceStood {
  readonly grade: Grade | null;
  /** Share of the seen face that is neither sound nor polished, percent; null where no surface was drawn or read and nobody called it sound. */
  readonly damage: number | null;
}

/** A place in two strips of one engine; null where it was not looked at, or not there. */
export interface PlaceTwice {
  readonly station: Station;
  readonly before: PlaceStood | null;
  readonly after: PlaceStood | null;
}

/** A figure measured in both strips. */
interface MeasuredTwice {
  readonly place: string;
  readonly station: string | null;
  readonly before: SheetLine;
  readonly after: SheetLine;
  /** After less before, in the unit of the lines. */
  readonly change: number;
  /** Expanded uncertainty of the change, k = 2; null where that of one of the two is not known. */
  readonly expanded: number | null;
  /** The change is larger than its uncertainty. */
  readonly clear: boolean;
}

/** Two strips of one engine, place by place and figure by figure. */
export interface TwoStrips {
  readonly places: readonly PlaceTwice[];
  readonly measured: readonly MeasuredTwice[];
}

/** How a place stands; null where nobody looked at it. */
function placeStood(s: StationView): PlaceStood | null {
  if (!isExamined(s)) return null;
  // A surface on which nothing was drawn or read is no sound one: only who called it sound says so.
  const percent = s.charted ? s.summary?.percent : undefined;
  const damage = percent ? Math.max(0, 100 - percent.sound - percent.polished) : s.state === 'sound' ? 0 : null;
  return { grade: standingGrade(s), damage };
}

/**
 * Lays two strips of one engine side by side: every place that was looked at in one of them, and every figure that was measured in both. A change of a figure
 * carries the uncertainty of both, √(U₁² + U₂²) (GUM 5.1.2, readings of two days taken as independent).
 */
export function twoStrips(before: CaseView, after: CaseView): TwoStrips {
  const places = after.stations.flatMap((s): PlaceTwice[] => {
    const was = before.byId.get(s.station.id);
    const pair = { before: was ? placeStood(was) : null, after: placeStood(s) };
    return pair.before || pair.after ? [{ station: s.station, ...pair }] : [];
  });
  const there = new Map(measureProgram(before.layout).map((p) => [p.id, p]));
  const measured = measureProgram(after.layout).flatMap((place) => {
    const was = there.get(place.id);
    const [now, then] = [measurePlace(after, place).outcome, was ? measurePlace(before, was).outcome : null];
    return (now?.lines ?? []).flatMap((line): MeasuredTwice[] => {
      const old = then?.lines.find((l) => l.id === line.id && l.at === line.at && l.unit === line.unit);
      if (!old) return [];
      const change = line.value - old.value;
      const expanded = line.expanded === null || old.expanded === null ? null : Math.hypot(line.expanded, old.expanded);
      return [
        {
          place: place.name,
          station: place.station,
          before: old,
          after: line,
          change,
          expanded,
          clear: expanded !== null && Math.abs(change) > expanded,
        },
      ];
    });
  });
  return { places, measured };
}
