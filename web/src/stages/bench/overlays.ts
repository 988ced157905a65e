import { looksLike, type CaseView, type Likeness } from '@true-ledger/core/case';
import { cause as causeOf } from '@true-ledger/core/cause';
import { likelyPlace, predictBench, type Diagnosis, type Predicted } from '@true-ledger/core/diagnosis';
import { routeDistance } from '@true-ledger/core/engine';
import { lineText } from '@true-ledger/core/measure';
import { clearanceRun } from '@true-ledger/core/measured';
import { settingWords, usualSetting, type PredictedWear, type RunSetting } from '@true-ledger/core/running';
import type { Outcome } from '@true-ledger/contract';

/** Running clearance of a bearing in words, and whether it lies within its limits; null where it has none. */
export interface BenchClearance {
  readonly words: string;
  readonly within: boolean | null;
}

/** What load and film would wear of the bearings, and at which setting. */
export interface LoadedBench {
  /** By bearing; null while it is reckoned. */
  readonly worn: ReadonlyMap<string, PredictedWear> | null;
  readonly words: string;
}

/** The setting the bench is shown at: the one kept last on Loads, else the usual one. */
export function benchSetting(view: CaseView): { readonly setting: RunSetting; readonly kept: boolean } {
  const kept = view.runs.at(-1)?.value.setting;
  return kept ? { setting: kept, kept: true } : { setting: usualSetting(view.layout, 'main.1', {}), kept: false };
}

/** What the bench says of the wear that is predicted at a setting. */
export function loadedBench(at: ReturnType<typeof benchSetting>, answer: Outcome<ReadonlyMap<string, PredictedWear>> | null): LoadedBench {
  if (!answer) return { worn: null, words: 'Letting every bearing run …' };
  if (!answer.ok) return { worn: new Map(), words: answer.problem.sentence };
  const dry = [...answer.value.values()].filter((w) => w.dry).length;
  const found =
    answer.value.size === 0
      ? 'no bearing wears'
      : `${answer.value.size} bearing${answer.value.size === 1 ? '' : 's'} wear${answer.value.size === 1 ? 's' : ''}${dry > 0 ? `, ${dry} of them dry` : ''}`;
  return {
    worn: answer.value,
    words: `At ${settingWords(at.setting)}: ${found}. ${at.kept ? 'The setting kept last on Loads.' : 'The usual setting; keep another on Loads to see it here.'}`,
  };
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
