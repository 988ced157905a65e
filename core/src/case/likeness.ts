import type { StationView } from './views.js';
import { WEAR_CLASSES, WEAR_CLASS_INFO, type WearClass } from '../damage/classes.js';
import type { WearMap } from '../damage/wearMap.js';

/** How alike two surfaces are, and what makes them so. */
export interface Likeness {
  readonly view: StationView;
  /** 0 nothing in common … 1 the same. */
  readonly alike: number;
  /** What they share most and differ in most, in words. */
  readonly why: string;
}

/** Surfaces are compared on a coarse grid, so that the same wear a little farther on is still alike. */
const ACROSS = 6;
const ALONG = 3;
const LEAST = 0.15;

/** Mean of every class in every field of the coarse grid, over what was seen. */
function coarse(map: WearMap, name: WearClass): Float32Array {
  const sum = new Float32Array(ACROSS * ALONG);
  const seen = new Float32Array(ACROSS * ALONG);
  for (let r = 0; r < map.rows; r++)
    for (let c = 0; c < map.columns; c++) {
      const cell = r * map.columns + c;
      const field = Math.floor((r * ALONG) / map.rows) * ACROSS + Math.floor((c * ACROSS) / map.columns);
      sum[field]! += map.shares[name][cell]! * map.seen[cell]!;
      seen[field]! += map.seen[cell]!;
    }
  return sum.map((v, k) => (seen[k]! > 0 ? v / seen[k]! : 0));
}

/** Shares are felt by their ratio: 1 % against 2 % differs as much as 10 % against 20 %. */
const felt = (share: number): number => Math.log1p(share * 100) / Math.log1p(100);

interface Drawn {
  readonly fields: ReadonlyMap<WearClass, Float32Array>;
  readonly total: ReadonlyMap<WearClass, number>;
  readonly lines: number;
}

function drawn(view: StationView): Drawn | null {
  if (!view.wear || !view.summary) return null;
  const classes = WEAR_CLASSES.filter((c) => c !== 'sound');
  return {
    fields: new Map(classes.map((c) => [c, coarse(view.wear!, c)])),
    total: new Map(classes.map((c) => [c, felt(view.summary!.percent[c] / 100)])),
    lines: Object.values(view.summary.lines).reduce((s, n) => s + n, 0),
  };
}

/** Overlap of two non-negative figures (Ruzicka 1958): the smaller over the larger, summed. */
function overlap(pairs: ReadonlyArray<readonly [number, number, number]>): number {
  let [small, large] = [0, 0];
  for (const [a, b, weight] of pairs) {
    small += weight * Math.min(a, b);
    large += weight * Math.max(a, b);
  }
  return large < 1e-6 ? 0 : small / large;
}

function compare(a: Drawn, b: Drawn): { alike: number; why: string } {
  const pairs: Array<readonly [number, number, number]> = [];
  const shared: Array<{ name: WearClass; both: number; apart: number }> = [];
  for (const [name, own] of a.fields) {
    const other = b.fields.get(name)!;
    const [ta, tb] = [a.total.get(name)!, b.total.get(name)!];
    // How much there is counts as much as where it lies.
    pairs.push([ta, tb, 3]);
    own.forEach((v, k) => pairs.push([felt(v), felt(other[k]!), 3 / (ACROSS * ALONG)]));
    if (ta + tb > 0.05) shared.push({ name, both: Math.min(ta, tb), apart: Math.abs(ta - tb) });
  }
  pairs.push([Math.log1p(a.lines) / 2, Math.log1p(b.lines) / 2, 1]);
  const most = [...shared].sort((x, y) => y.both - x.both)[0];
  const least = [...shared].sort((x, y) => y.apart - x.apart)[0];
  const name = (c: WearClass): string => WEAR_CLASS_INFO[c].name.toLowerCase();
  const words = [
    most && most.both > 0.05 ? `${name(most.name)} on both` : a.lines > 0 && b.lines > 0 ? 'lines on both' : '',
    least && least.apart > 0.12 ? `${name(least.name)} differs` : '',
  ].filter(Boolean);
  return { alike: overlap(pairs), why: words.join(', ') || 'little on either' };
}

/** Surfaces of the same part class that look most like one, the likest first. Only what was looked at and shows something counts. */
export function looksLike(view: StationView, others: readonly StationView[]): Likeness[] {
  const own = drawn(view);
  if (!own) return [];
  return others
    .flatMap((other): Likeness[] => {
      if (other.station.id === view.station.id || other.station.part !== view.station.part) return [];
      const theirs = drawn(other);
      if (!theirs) return [];
      const { alike, why } = compare(own, theirs);
      return alike >= LEAST ? [{ view: other, alike, why }] : [];
    })
    .sort((a, b) => b.alike - a.alike || a.view.station.id.localeCompare(b.view.station.id));
}
