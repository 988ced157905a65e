import { standingGrade, type CaseView, type StationView } from '../case/views.js';
import { BAD, spreadFindings, type SpreadFinding } from './spread.js';

/** Placements looked at where a sight may be at one of several places; more are passed over evenly. */
const PLACEMENTS = 24;

/** What a spread feature is in expectation over where open sights may be. */
interface OpenSpread {
  readonly finding: SpreadFinding;
  /** Share of the placements in which it is there, and in which it is not; in the rest too little is known. */
  readonly there: number;
  readonly not: number;
}

/**
 * Spread features where some sight of grade 2 or more may be at one or several of some places: reckoned for every placement, or for 24 spread evenly over them, in an order that does not hang on the
 * machine. Without open sights every share is 0 or 1.
 */
export function openSpread(view: CaseView): Readonly<Record<string, OpenSpread>> {
  const open = view.sights.flatMap(({ value: x }) =>
    x.present && x.of !== null && (x.grade ?? 0) >= BAD ? [{ among: x.among, of: x.of, grade: x.grade! }] : [],
  );
  const one = spreadFindings(view);
  if (open.length === 0)
    return Object.fromEntries(
      Object.entries(one).map(([id, finding]) => [id, { finding, there: finding.present ? 1 : 0, not: finding.present ? 0 : 1 }]),
    );
  const placements = evenly(
    open.reduce<ReadonlyArray<ReadonlyMap<string, number>>>(
      (all, x) =>
        evenly(
          all.flatMap((placed) =>
            subsets(x.among, x.of).map((at) => new Map([...placed, ...at.map((id): [string, number] => [id, x.grade])])),
          ),
          PLACEMENTS * 4,
        ),
      [new Map()],
    ),
    PLACEMENTS,
  );
  const each = placements.map((placed) => spreadFindings(withGrades(view, placed)));
  const ids = new Set(each.flatMap((findings) => Object.keys(findings)));
  return Object.fromEntries(
    [...ids].map((id) => {
      const found = each.flatMap((findings) => findings[id] ?? []);
      const there = found.filter((f) => f.present).length / each.length;
      const best = found.find((f) => f.present === there * each.length > found.length / 2) ?? found[0]!;
      return [id, { finding: best, there, not: found.length / each.length - there }];
    }),
  );
}

/** The case as if these places were graded so, where they are not graded worse already. */
function withGrades(view: CaseView, placed: ReadonlyMap<string, number>): CaseView {
  const stations = view.stations.map((s): StationView => {
    const grade = placed.get(s.station.id);
    if (grade === undefined || (standingGrade(s) ?? -1) >= grade) return s;
    const version = s.grade?.version ?? view.sights[0]!.version;
    return Object.defineProperties(Object.create(Object.getPrototypeOf(s) as object) as StationView, {
      ...Object.getOwnPropertyDescriptors(s),
      state: { value: 'findings', enumerable: true },
      grade: { value: { value: { grade, proposed: null, reason: '', book: view.book.version }, version }, enumerable: true },
    }) as StationView;
  });
  return { ...view, stations, byId: new Map([...view.byId, ...stations.map((s): [string, StationView] => [s.station.id, s])]) };
}

/** Every choice of `of` from a list, in the order of the list. */
function subsets(list: readonly string[], of: number): string[][] {
  if (of === 0) return [[]];
  return list.flatMap((first, i) => subsets(list.slice(i + 1), of - 1).map((rest) => [first, ...rest])).slice(0, 2000);
}

function evenly<T>(list: readonly T[], most: number): readonly T[] {
  return list.length <= most ? list : Array.from({ length: most }, (_, k) => list[Math.floor((k * list.length) / most)]!);
}
