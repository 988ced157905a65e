import { looksLike, type CaseView, type Likeness } from '@true-ledger/core/case';
import { cause as causeOf } from '@true-ledger/core/cause';
import { likelyPlace, predictBench, type Diagnosis, type Predicted } from '@true-ledger/core/diagnosis';
import { routeDistance } from '@true-ledger/core/engine';
import { lineText } from '@true-ledger/core/measure';
import { clearanceRun } from '@true-ledger/core/measured';

/** Running clearance of a bearing in words, and whether it lies within its limits; null where it has none. */
export interface BenchClearance {
  readonly words: string;
  readonly within: boolean | null;
}

/** How far along the oil route each place lies. */
export function oilOrder(view: CaseView): ReadonlyMap<string, number> {
  return new Map(
    view.stations.flatMap(({ station }) => {
      const order = routeDistance(view.layout, station);
      return order === null ? [] : [[station.id, order] as const];
    }),
  );
}

/** The bench as the leading cause would have left it; empty while there is none. */
export function predictedByLeading(view: CaseView, diagnosis: Diagnosis | null): ReadonlyMap<string, Predicted> {
  const leading = diagnosis?.causes[0];
  const record = leading && causeOf(leading.id);
  if (!leading || !record) return new Map();
  return new Map(predictBench(view, record, likelyPlace(leading)?.place ?? null).map((p) => [p.station, p]));
}

/** Clearances that were measured, at both shells and the journal of each bearing; by gauges before by strip. */
export function clearances(view: CaseView): ReadonlyMap<string, BenchClearance> {
  const { gauged, strip } = clearanceRun(view);
  const found = new Map<string, BenchClearance>();
  for (const { place, line, lower, upper } of [...strip, ...gauged]) {
    const bearing = place.station === null ? undefined : view.byId.get(place.station)?.station.bearing;
    const within = lower === null && upper === null ? null : line.value >= (lower ?? -Infinity) && line.value <= (upper ?? Infinity);
    for (const { station } of view.stations)
      if (station.bearing !== null && station.bearing === bearing && station.surface && station.part !== 'thrust')
        found.set(station.id, { words: lineText({ ...line, expanded: null }), within });
  }
  return found;
}

/** Places that look like one. */
export function alikeTo(view: CaseView, id: string): readonly Likeness[] {
  const own = view.byId.get(id);
  return own ? looksLike(own, view.stations) : [];
}
