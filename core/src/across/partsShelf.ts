import type { PartClass } from '../engine/stations.js';
import type { CaseFacts } from './facts.js';

/** What of a case the shelf is made of. */
export interface ShelfCase {
  readonly id: string;
  readonly number: string;
  readonly facts: Pick<CaseFacts, 'family' | 'familyName' | 'kept' | 'wanted'>;
}

/** A part the shop keeps, or one it wants, with the case it comes from. */
interface OfCase {
  readonly caseId: string;
  readonly number: string;
  readonly family: string;
  readonly familyName: string;
  readonly station: string;
  readonly part: PartClass;
}

/** A part on the shelf, and the cases it was promised to: more than one is one too many. */
export interface KeptPart extends OfCase {
  readonly name: string;
  readonly size: string;
  readonly place: string;
  readonly promised: ReadonlyArray<{ readonly caseId: string; readonly number: string }>;
}

/** A part that is wanted, and the free ones on the shelf that may fit. */
interface WantedPart extends OfCase {
  readonly what: string;
  readonly fits: readonly string[];
}

/** What lies on the parts shelf of a shop, and what it still has to find. */
export interface PartsShelf {
  readonly kept: readonly KeptPart[];
  readonly wanted: readonly WantedPart[];
}

/** Name of a part on the shelf, as a wanted one points to it. */
export const shelfName = (p: Pick<OfCase, 'caseId' | 'station'>): string => `${p.caseId}/${p.station}`;

/** `rod.2.shell.upper` → `rod.shell.upper`: a part fits any cylinder of its kind of engine, but an upper half is no lower one. */
const place = (station: string): string =>
  station
    .split('.')
    .filter((x) => !/^\d+$/.test(x))
    .join('.');

/** Free parts on the shelf that may fit a place of an engine, none of its own case. */
export function fitting<K extends KeptPart>(kept: readonly K[], caseId: string, family: string, station: string): K[] {
  return kept.filter((k) => k.promised.length === 0 && k.family === family && place(k.station) === place(station) && k.caseId !== caseId);
}

/**
 * The parts shelf of a shop, from the figures of its cases. A kept part may fit where the kind of engine and the place (its number aside) are the same; its
 * size decides, and that is for the builder to read. A part that is taken stays listed with whom it was promised to until its case says that it is gone.
 */
export function partsShelf(cases: readonly ShelfCase[]): PartsShelf {
  const promised = new Map<string, Array<{ caseId: string; number: string }>>();
  for (const c of cases)
    for (const w of c.facts.wanted ?? [])
      if (w.state === 'had' && w.shelf) promised.set(w.shelf, [...(promised.get(w.shelf) ?? []), { caseId: c.id, number: c.number }]);
  const of = (c: ShelfCase, station: string, part: PartClass): OfCase => ({
    caseId: c.id,
    number: c.number,
    family: c.facts.family,
    familyName: c.facts.familyName,
    station,
    part,
  });
  const kept = cases.flatMap((c) =>
    (c.facts.kept ?? []).map((k): KeptPart => {
      const own = of(c, k.station, k.part);
      return { ...own, name: k.name, size: k.size, place: k.place, promised: promised.get(shelfName(own)) ?? [] };
    }),
  );
  const wanted = cases.flatMap((c) =>
    (c.facts.wanted ?? [])
      .filter((w) => w.state === 'wanted')
      .map((w): WantedPart => {
        return { ...of(c, w.station, w.part), what: w.what, fits: fitting(kept, c.id, c.facts.family, w.station).map(shelfName) };
      }),
  );
  return { kept, wanted };
}
