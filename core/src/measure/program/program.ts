import type { EngineLayout } from '../../engine/layout.js';
import { stationsOf } from '../../engine/stations.js';
import { PLACE_GROUPS, placeId, type SheetPlace } from '../sheets/cells.js';
import type { TrueEngine } from '../sheets/trueEngine.js';
import { benchOf, BENCH_SHEETS } from './sheetOf.js';
import { memo } from '../../kit/memo.js';

const GROUPS = Object.keys(PLACE_GROUPS);

/**
 * Every sheet this engine can be measured by, place by place, in the order hands go round it: crank, bearings, cylinders, rods, head, pump; within these what
 * is at one bearing or cylinder together.
 */
export const measureProgram: (layout: EngineLayout) => readonly SheetPlace[] = memo('program of a layout', (layout: EngineLayout) => {
  const stations = new Set(stationsOf(layout).map((s) => s.id));
  const drafts = BENCH_SHEETS.flatMap(({ id: kind, bench }) =>
    bench
      .places(layout, (station) => stations.has(station))
      .map(({ turn = 0, ...draft }) => {
        const sheet = draft.sheet ?? kind;
        const place: SheetPlace = { fixed: {}, needs: [], ...draft, sheet, kind, group: bench.group, id: placeId(draft.station, sheet) };
        return { place, turn };
      }),
  );
  return drafts.sort((a, b) => GROUPS.indexOf(a.place.group) - GROUPS.indexOf(b.place.group) || a.turn - b.turn).map((d) => d.place);
});

/** Place by station and sheet; undefined when this engine has no such place. */
export function placeOf(layout: EngineLayout, station: string | null, sheet: string): SheetPlace | undefined {
  const id = placeId(station, sheet);
  return measureProgram(layout).find((p) => p.id === id);
}

/** True value of a cell on a demonstration engine, in its canonical unit. */
export function trueValue(engine: TrueEngine, place: SheetPlace, key: string): number {
  return benchOf(place.kind).truth(engine, place, key);
}
