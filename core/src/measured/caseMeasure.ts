import type { Sourced } from '../ledger/state.js';
import type { CaseView } from '../case/views.js';
import type { EntryBodies } from '../entries/entries.js';
import type { SheetPlace } from '../measure/sheets/cells.js';
import { placeOutcome, type DerivedValue, type PlaceOutcome, type Take } from '../measure/program/outcome.js';
import { measureProgram, placeOf } from '../measure/program/program.js';
import { benchOf } from '../measure/program/sheetOf.js';
import type { SheetSpec, SpecKey } from '../measure/program/specs.js';
import { memo } from '../kit/memo.js';
import type { SheetLimit } from '../measure/specSheet.js';

/** A reading with the entry it came by. */
export type ReadingEntry = Sourced<EntryBodies['reading-taken']>;

/** Readings of one place, in the order they were written; no place left unread is dropped here. */
export function placeReadings(view: CaseView, place: SheetPlace): ReadingEntry[] {
  const all = place.station === null ? view.readings : (view.byId.get(place.station)?.readings ?? []);
  return all.filter((r) => r.value.sheet === place.sheet);
}

/** The specification an entered limit stands for; kept by the limit, so that one limit is one specification wherever it is asked for. */
const specOfLimit = memo('specification of a limit', (limit: SheetLimit, line: string, source: string): SheetSpec => ({
  limits: {
    [line]: { ...(limit.lower === null ? {} : { lower: limit.lower }), ...(limit.upper === null ? {} : { upper: limit.upper }) },
  },
  source,
}));

/** Specification of a place: entered for its kind, or a limit of the case's copy of its spec sheet. */
export function specOfPlace(view: CaseView, place: SheetPlace): SheetSpec | null {
  const own = view.specs[place.spec as SpecKey]?.value.spec;
  if (own) return own;
  const stands = benchOf(place.kind).limit;
  const limit = stands && view.limits?.value.limits.find((l) => l.quantity === stands.quantity);
  if (!limit || (limit.lower === null && limit.upper === null)) return null;
  return specOfLimit(limit, stands.line, view.limits?.value.sheet?.source ?? 'limit entered in this case');
}

/** The mean of some cells of another place, with their gauge. */
function meanOf(view: CaseView, place: SheetPlace | undefined, of: (key: string) => boolean): DerivedValue | null {
  if (!place) return null;
  const read = placeReadings(view, place).filter((r) => r.value.value !== null && of(r.value.cell));
  const last = read.at(-1);
  if (!last) return null;
  return { value: read.reduce((s, r) => s + r.value.value!, 0) / read.length, gauge: last.value.gauge };
}

/** What a sheet takes from others, as it says it may. */
function borrowedValues(view: CaseView, place: SheetPlace, spec: SheetSpec | null): Map<string, DerivedValue> {
  const found = new Map<string, DerivedValue>();
  for (const b of benchOf(place.kind).borrows?.(view.layout, place) ?? []) {
    if ('spec' in b) {
      const value = spec?.[b.spec];
      const gauge = placeReadings(view, place).at(-1)?.value.gauge;
      if (value !== undefined && gauge) found.set(b.cell, { value, gauge });
    } else {
      const mean = meanOf(view, placeOf(view.layout, b.station, b.sheet), b.of);
      if (mean) found.set(b.cell, mean);
    }
  }
  return found;
}

interface Held {
  readonly readings: readonly ReadingEntry[];
  readonly spec: SheetSpec | null;
  readonly derived: string;
  readonly outcome: PlaceOutcome;
}

/** Kept by place and case, the last outcome of each: it is asked for again at every change of the case and holds as long as what it rests on does. */
const held = new WeakMap<SheetPlace, Map<string, Held>>();
const same = (a: readonly ReadingEntry[], b: readonly ReadingEntry[]): boolean =>
  a.length === b.length && a.every((r, i) => r.version === b[i]!.version);

/** The sheet of a place as the case stands. Kept until a reading, the specification or a value it takes from elsewhere changes. */
export function measurePlace(view: CaseView, place: SheetPlace): PlaceOutcome {
  const readings = placeReadings(view, place);
  const spec = specOfPlace(view, place);
  const derived = borrowedValues(view, place, spec);
  const key = [...derived].map(([k, d]) => `${k}=${d.value}/${d.gauge.id}`).join(';');
  const own = held.get(place) ?? new Map<string, Held>();
  held.set(place, own);
  const known = own.get(view.caseId);
  if (known && known.spec === spec && known.derived === key && same(known.readings, readings)) return known.outcome;
  const takes = readings.map((r): Take => ({
    cell: r.value.cell,
    take: r.value.take,
    value: r.value.value,
    gauge: r.value.gauge,
    time: r.version.time,
  }));
  const outcome = placeOutcome(place, takes, spec, derived);
  if (own.size > 8) own.clear();
  own.set(view.caseId, { readings, spec, derived: key, outcome });
  return outcome;
}

/** Every sheet that holds a reading. */
export function measuredPlaces(view: CaseView): PlaceOutcome[] {
  return measureProgram(view.layout).flatMap((place) => (placeReadings(view, place).length > 0 ? [measurePlace(view, place)] : []));
}

/** Values read at one cell's like elsewhere (the same sheet, cell and kind of part at other stations), for the doubt of a new one. */
export function elsewhereOf(view: CaseView, place: SheetPlace, cellKey: string): number[] {
  return measureProgram(view.layout).flatMap((p) => {
    if (p === place || p.sheet !== place.sheet || p.spec !== place.spec) return [];
    return placeReadings(view, p).flatMap((r) => (r.value.cell === cellKey && r.value.value !== null ? [r.value.value] : []));
  });
}
