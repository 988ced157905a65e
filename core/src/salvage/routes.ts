import type { RouteId } from '../workshop/routeIds.js';
import { cause as causeOf, isListed } from '../cause/data/causes.js';
import { answerItems } from '../diagnosis/answers.js';
import type { Diagnosis } from '../diagnosis/diagnose.js';
import { isExamined, standingGrade, type CaseView } from '../case/views.js';
import { partsList } from './machineSheet.js';
import { MACHINE_WORK, type StandingDisposition } from '../workshop/operations.js';
import type { RouteLine } from './monteCarlo.js';
import { movedInMain } from './rules.js';
import { positionOf } from '../damage/schools.js';
import type { Estimate, PriceBook } from '../workshop/prices.js';

/** A way on from here, with its costs, its risks and what becomes of each part. */
export interface Route {
  readonly id: RouteId;
  readonly name: string;
  readonly lines: readonly RouteLine[];
  readonly hours: Estimate;
  /** Chance that the same failure comes again within the warranty, 0–1, and what it is made of. */
  readonly repeatRisk: number;
  readonly riskWords: readonly string[];
  /** What the route leaves as it is. */
  readonly unmended: readonly string[];
  /** Months of warranty a shop would give on it. */
  readonly warrantyMonths: number;
  /** What is done with the parts on this route; empty where the engine is exchanged or left. */
  readonly dispositions: readonly StandingDisposition[];
  /** Lines for which the price book has no price. */
  readonly unpriced: readonly string[];
}

const estimate = (low: number, likely: number, high: number): Estimate => ({ low, likely, high });
const times = (e: Estimate, by: number): Estimate => estimate(e.low * by, e.likely * by, e.high * by);

/** Routes side by side, from the dispositions, the price book and what each leaves unmended. */
export function routesOf(view: CaseView, diagnosis: Diagnosis, dispositions: readonly StandingDisposition[], book: PriceBook): Route[] {
  const prices = new Map(book.lines.map((l) => [l.key, l]));
  const cylinders = view.layout.cylinders;
  const missing = new Map<RouteId, Set<string>>();
  const price = (route: RouteId, key: string, quantity: number, what?: string): RouteLine[] => {
    const p = prices.get(key);
    if (!p) {
      missing.set(route, (missing.get(route) ?? new Set()).add(what ?? key));
      return [];
    }
    if (quantity <= 0) return [];
    return [{ what: what ?? p.what, kind: p.kind, quantity, cost: p.price, days: p.leadDays }];
  };
  const parts = (route: RouteId, list: readonly StandingDisposition[]): RouteLine[] =>
    partsList(view.layout, list).flatMap((l) => price(route, l.key, l.quantity, l.part));
  const machine = (route: RouteId, list: readonly StandingDisposition[]): RouteLine[] => {
    const count = new Map<string, number>();
    for (const d of list) if (MACHINE_WORK.has(d.operation)) count.set(d.operation, (count.get(d.operation) ?? 0) + 1);
    return [...count].flatMap(([op, n]) => price(route, op, op === 'face' || op === 'line-bore' ? 1 : n));
  };
  const open = answerItems(view).filter((i) => i.state === 'open' || i.state === 'planned');
  const confirmed = view.decisions.filter((d) => d.value.decision === 'confirmed').map((d) => d.value.cause);
  const believed =
    confirmed.length > 0 ? confirmed : diagnosis.causes.filter((c) => isListed(c.id) && c.probability >= 0.5).map((c) => c.id);
  const names = believed.map((id) => causeOf(id)?.name ?? id);
  // What lies in the use of the engine, or in an oil cooler that stays, is not mended by another engine.
  const outside = believed.filter((id) => {
    const cause = causeOf(id);
    return cause?.answerable === 'use' || cause?.staysInCar === true;
  });
  const unexplained = diagnosis.unexplained.filter((u) => !view.unexplained.get(u.station)?.value.accepted);
  const unseen = view.stations.filter((s) => s.state !== 'not-present' && !isExamined(s));
  const share = unseen.length / Math.max(1, view.stations.length);
  const carried = dispositions.filter(
    (d) => ['clean', 'reuse', 'check'].includes(d.operation) && (standingGrade(view.byId.get(d.station)!) ?? 0) >= 1,
  );
  /** Independent chances that something brings it back. */
  const risk = (items: ReadonlyArray<readonly [number, string]>): { repeatRisk: number; riskWords: string[] } => ({
    repeatRisk: 1 - items.reduce((keep, [p]) => keep * (1 - p), 1),
    riskWords: items.filter(([p]) => p > 0.004).map(([p, words]) => `${Math.round(p * 100)} % ${words}`),
  });
  const openRisk: readonly [number, string] = [
    Math.min(0.3, 0.03 * open.length),
    `${open.length} action${open.length === 1 ? '' : 's'} or check${open.length === 1 ? '' : 's'} not done`,
  ];
  const causeRisk = (left: number): readonly [number, string] => [
    believed.length === 0 ? 0.3 : left,
    believed.length === 0 ? 'no cause is known' : `${names.join(', ').toLowerCase()} may act again`,
  ];
  const strangeRisk: readonly [number, string] = [
    Math.min(0.25, 0.05 * unexplained.length),
    `${unexplained.length} finding${unexplained.length === 1 ? '' : 's'} unexplained`,
  ];
  const unseenRisk = (weight: number): readonly [number, string] => [weight * share, `${unseen.length} places not examined`];
  const carriedRisk = (weight: number): readonly [number, string] => [
    Math.min(0.2, weight * 0.01 * carried.length),
    `${carried.length} worn parts carried over`,
  ];
  const bottom = (id: string): boolean => /^(rod|main|crank|pump|pickup|filter|oil|bolts\.(rod|main))/.test(id);
  const repaired = dispositions.filter(
    (d) => bottom(d.station) || (d.operation !== 'check' && d.operation !== 'reuse' && d.operation !== 'clean' && d.operation !== 'keep'),
  );
  // A full rebuild renews what wears, whatever its grade, and looks at what was not examined.
  const rebuilt = dispositions.map((d): StandingDisposition =>
    /\.shell\.|\.thrust\.|^rings\.|^gasket\.|^filter\.|^timing\.|^bolts\.(rod|head)/.test(d.station) ? { ...d, operation: 'replace' } : d,
  );
  // A main that has turned: the housing is work on both routes that keep the block, or the block is not kept at all.
  const turned = new Set(view.stations.filter(movedInMain).map((s) => s.station.bearing)).size;
  const spunMain = turned > 0 ? positionOf('spun-main', new Map([...view.schools].map(([id, x]) => [id, x.value.position]))) : null;
  const housing = (route: RouteId): RouteLine[] =>
    spunMain === null
      ? []
      : [
          ...(spunMain === 'sleeve' ? price(route, 'sleeve', turned, 'Main housing sleeved') : []),
          ...price(route, 'line-bore', 1, 'Main line, line-bored'),
        ];
  const housingRisk: ReadonlyArray<readonly [number, string]> = spunMain === null ? [] : [[0.05, 'a main has turned in its housing once']];
  const scale = 1 + cylinders / 4;
  const routes: Array<Omit<Route, 'unpriced' | 'dispositions'>> = [
    {
      id: 'repair',
      name: 'Repair what failed',
      lines: [...parts('repair', repaired), ...machine('repair', repaired), ...housing('repair'), ...price('repair', 'oil', 1)],
      hours: times(estimate(10, 14, 26), scale),
      ...risk([causeRisk(0.05), openRisk, strangeRisk, unseenRisk(0.25), carriedRisk(1), ...housingRisk]),
      unmended: [
        ...unseen.slice(0, 4).map((s) => `${s.station.name}: not examined`),
        ...(unseen.length > 4 ? [`and ${unseen.length - 4} more places`] : []),
        ...open.slice(0, 3).map((i) => i.item),
      ],
      warrantyMonths: 6,
    },
    {
      id: 'rebuild',
      name: 'Full rebuild',
      lines: [
        ...parts('rebuild', rebuilt),
        ...machine('rebuild', rebuilt),
        ...housing('rebuild'),
        ...price('rebuild', 'hone', rebuilt.some((d) => ['rebore', 'hone', 'sleeve'].includes(d.operation)) ? 0 : cylinders),
        ...price('rebuild', 'oil', 1),
      ],
      hours: times(estimate(22, 30, 46), scale),
      ...risk([causeRisk(0.04), openRisk, strangeRisk, carriedRisk(0.2), ...housingRisk]),
      unmended: open.slice(0, 4).map((i) => i.item),
      warrantyMonths: 12,
    },
    {
      id: 'short-engine',
      name: 'Short engine',
      lines: [
        ...price('short-engine', 'short-engine', 1),
        ...price('short-engine', 'gasket', 1),
        ...price('short-engine', 'filter', 1),
        ...price('short-engine', 'cooler', view.byId.has('oil.cooler') ? 1 : 0),
        ...price('short-engine', 'oil', 1),
      ],
      hours: times(estimate(9, 12, 20), scale),
      ...risk([causeRisk(outside.length > 0 ? 0.08 : 0.03), openRisk, [0.02, 'head and outside parts carried over']]),
      unmended: [
        'Head, pump drive and everything outside the short engine',
        ...(outside.length > 0 ? [`${outside.map((id) => causeOf(id)?.name.toLowerCase()).join(', ')}: it lies outside the engine`] : []),
      ],
      warrantyMonths: 12,
    },
    {
      id: 'used-engine',
      name: 'Used engine, inspected',
      lines: [
        ...price('used-engine', 'used-engine', 1),
        ...price('used-engine', 'gasket', 1),
        ...price('used-engine', 'filter', 1),
        ...price('used-engine', 'timing', view.layout.camDrive === 'none' ? 0 : 1),
        ...price('used-engine', 'oil', 1),
      ],
      hours: times(estimate(8, 11, 22), scale),
      ...risk([causeRisk(outside.length > 0 ? 0.08 : 0.03), openRisk, [0.12, 'wear and history of the used engine not known']]),
      unmended: ['Its own wear and history', ...(outside.length > 0 ? ['What brought this failure on from outside'] : [])],
      warrantyMonths: 3,
    },
    {
      id: 'new-engine',
      name: 'New engine',
      lines: [...price('new-engine', 'new-engine', 1), ...price('new-engine', 'oil', 1)],
      hours: times(estimate(7, 9, 15), scale),
      ...risk([causeRisk(outside.length > 0 ? 0.06 : 0.01), openRisk]),
      unmended:
        outside.length > 0 ? [`${outside.map((id) => causeOf(id)?.name.toLowerCase()).join(', ')}: it lies outside the engine`] : [],
      warrantyMonths: 24,
    },
    {
      id: 'run-on',
      name: 'Run on as it is',
      lines: price('run-on', 'oil', 1).concat(price('run-on', 'filter', 1)),
      hours: view.stations.some((s) => (standingGrade(s) ?? 0) >= 3) ? estimate(6, 9, 16) : estimate(3, 4, 7),
      ...risk([
        [
          view.stations.some((s) => (standingGrade(s) ?? 0) >= 3)
            ? 0.9
            : view.stations.some((s) => (standingGrade(s) ?? 0) >= 2)
              ? 0.45
              : 0.05,
          'the damage stays in the engine',
        ],
        causeRisk(0.6),
      ]),
      unmended: ['Everything that was found', ...names],
      warrantyMonths: 0,
    },
  ];
  const done: Readonly<Partial<Record<RouteId, readonly StandingDisposition[]>>> = { repair: repaired, rebuild: rebuilt };
  const offered = routes.filter((r) => spunMain !== 'condemn' || !done[r.id]);
  return offered.map((r) => ({ ...r, dispositions: done[r.id] ?? [], unpriced: [...(missing.get(r.id) ?? [])] }));
}

/** Days work waits at a machine shop before its turn. */
export const QUEUE_DAYS: Estimate = { low: 2, likely: 5, high: 15 };
