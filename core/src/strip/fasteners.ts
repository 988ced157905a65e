import { bankCount, cylinderPlaces, type EngineLayout } from '../engine/layout.js';

/** Where one fastener sits on the drawing of its pattern, mm; `pair` joins the two that clamp the same joint. */
interface FastenerPosition {
  readonly id: string;
  readonly x: number;
  readonly y: number;
  readonly pair: string;
}

/** A set of fasteners eased in one step, drawn as it lies. */
export interface FastenerPattern {
  readonly id: string;
  readonly name: string;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly positions: readonly FastenerPosition[];
  /** Ids from the first to be eased to the last: from the ends towards the middle, so that the joint is let go evenly. */
  readonly easing: readonly string[];
}

function easingOrder(positions: readonly FastenerPosition[], widthMm: number, heightMm: number): string[] {
  const away = (p: FastenerPosition): number => Math.hypot(p.x - widthMm / 2, (p.y - heightMm / 2) * 0.5);
  const sorted = [...positions].sort((a, b) => away(b) - away(a) || a.x - b.x || a.y - b.y);
  // Opposite corners in turn: after each fastener comes the farthest of those about as far out.
  const order: FastenerPosition[] = [];
  while (sorted.length > 0) {
    const last = order.at(-1);
    const ring = sorted.filter((p) => away(p) > away(sorted[0]!) - heightMm * 0.3);
    const next = last
      ? ring.reduce((best, p) => (Math.hypot(p.x - last.x, p.y - last.y) > Math.hypot(best.x - last.x, best.y - last.y) ? p : best))
      : ring[0]!;
    order.push(next);
    sorted.splice(sorted.indexOf(next), 1);
  }
  return order.map((p) => p.id);
}

function pattern(id: string, name: string, widthMm: number, heightMm: number, positions: FastenerPosition[]): FastenerPattern {
  return { id, name, widthMm, heightMm, positions, easing: easingOrder(positions, widthMm, heightMm) };
}

/** Head of one bank: one row on each side at every gap between cylinders and at both ends. */
export function headPattern(layout: EngineLayout, bank: number): FastenerPattern {
  const n = cylinderPlaces(layout).filter((p) => p.bank === bank).length;
  const pitch = layout.boreMm * 1.15;
  const width = pitch * (n + 0.4);
  const height = layout.boreMm * 1.5;
  const columns = Array.from({ length: n + 1 }, (_, k) => (k + 0.2) * pitch);
  const positions = columns.flatMap((x, k) => [
    { id: `${k * 2 + 1}`, x, y: height * 0.14, pair: `${k + 1}` },
    { id: `${k * 2 + 2}`, x, y: height * 0.86, pair: `${k + 1}` },
  ]);
  const side = bankCount(layout) === 1 ? '' : (layout.firstBank === 'left') === (bank === 0) ? ', left bank' : ', right bank';
  return pattern(`head-${bank}`, `Head bolts${side}`, width, height, positions);
}

/** Cap of one bearing: two fasteners, four with cross bolts. */
export function capPattern(id: string, name: string, diameterMm: number, widthMm: number, cross: boolean): FastenerPattern {
  const width = diameterMm * 1.9;
  const height = Math.max(widthMm, diameterMm * 0.5);
  const y = height / 2;
  const positions: FastenerPosition[] = [
    { id: 'a', x: width * 0.14, y, pair: 'main' },
    { id: 'b', x: width * 0.86, y, pair: 'main' },
    ...(cross
      ? [
          { id: 'c', x: width * 0.03, y: height * 0.12, pair: 'cross' },
          { id: 'd', x: width * 0.97, y: height * 0.12, pair: 'cross' },
        ]
      : []),
  ];
  return pattern(id, name, width, height, positions);
}

/** Where a torque wrench is put, as a gauge says it: this sheet, and pattern and position as its cell. */
export const BREAK_LOOSE = 'break-loose';
/** Where a wrench is put, as a gauge on a wire names it. */
export const boltCell = (pattern: string, position: string): string => `${pattern}/${position}`;

/** Break-loose torque of one fastener, N·m. */
export interface BoltTorque {
  readonly position: string;
  readonly newtonMetre: number;
}

/** A pattern of fasteners as it came loose, N·m. */
export interface FastenerResult {
  readonly count: number;
  readonly least: number;
  readonly most: number;
  readonly mean: number;
  readonly spreadPercent: number;
  /** Pairs whose two torques differ by more than 30 % of their mean. */
  readonly uneven: ReadonlyArray<{ readonly pair: string; readonly percent: number; readonly positions: readonly string[] }>;
}

/** Share of a pair's mean by which its two break-loose torques may differ; rule of thumb. */
const PAIR_DIFFERENCE = 0.3;

/** Break-loose torque over a pattern, N·m. Null until two are read. */
export function fastenerResult(layoutOf: FastenerPattern, torques: readonly BoltTorque[]): FastenerResult | null {
  const known = torques.filter((t) => layoutOf.positions.some((p) => p.id === t.position));
  if (known.length < 2) return null;
  const values = known.map((t) => t.newtonMetre);
  const mean = values.reduce((a, b) => a + b, 0) / values.length;
  const least = Math.min(...values);
  const most = Math.max(...values);
  const pairs = new Map<string, BoltTorque[]>();
  for (const t of known) {
    const pair = layoutOf.positions.find((p) => p.id === t.position)!.pair;
    pairs.set(pair, [...(pairs.get(pair) ?? []), t]);
  }
  const uneven = [...pairs].flatMap(([pair, list]) => {
    const [a, b] = list;
    if (!a || !b) return [];
    const middle = (a.newtonMetre + b.newtonMetre) / 2;
    const share = middle > 0 ? Math.abs(a.newtonMetre - b.newtonMetre) / middle : 0;
    return share > PAIR_DIFFERENCE ? [{ pair, percent: share * 100, positions: [a.position, b.position] }] : [];
  });
  return { count: known.length, least, most, mean, spreadPercent: mean > 0 ? ((most - least) / mean) * 100 : 0, uneven };
}
