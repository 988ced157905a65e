import { cylinderPlaces, type EngineLayout } from '../engine/layout.js';
import { guardBand, type LimitBand, type Verdict } from '../units/gauge.js';

/** Rule-of-thumb limits used where the spec sheet gives none; always shown as such. */
export const THUMB = {
  /** A cylinder is low when it lies this share below the highest. */
  compressionSpread: 0.15,
  /** Rise with oil that points at the rings. */
  wetRise: 0.1,
  leakPercent: 20,
  hotIdleBar: 0.7,
  endFloatMm: 0.3,
  /** Nose play beyond this suggests worn front main. */
  nosePlayMm: 0.12,
  /** A position is a notch when it takes this many times the median torque. */
  notch: 1.6,
  /** U of a workshop pressure gauge and of an indicator on the nose, k = 2. */
  pressureU: 0.1,
  indicatorU: 0.02,
} as const;

/** Compression by cylinder, bar, dry and wet, with what it points to. */
export interface CompressionResult {
  readonly highest: number;
  readonly lowest: number;
  /** (highest − lowest) / highest, percent. */
  readonly spreadPercent: number;
  readonly low: readonly number[];
  /** Two low neighbours in one bank, when nothing else is low. */
  readonly adjacent: readonly [number, number] | null;
  readonly allLow: boolean;
  /** Rise of each low cylinder with oil, percent; only where both were read. */
  readonly wetRise: ReadonlyArray<{ readonly cylinder: number; readonly percent: number }>;
  readonly words: string;
}

/** Compression of all cylinders, bar; index 0 is cylinder 1, null where not read. `leastBar` is the maker's least value when known. */
export function compressionResult(
  layout: EngineLayout,
  dry: ReadonlyArray<number | null>,
  wet: ReadonlyArray<number | null> = [],
  leastBar?: number,
): CompressionResult | null {
  const read = dry.flatMap((v, i) => (v === null ? [] : [{ cylinder: i + 1, v }]));
  if (read.length === 0) return null;
  const highest = Math.max(...read.map((r) => r.v));
  const lowest = Math.min(...read.map((r) => r.v));
  const isLow = (v: number): boolean => v < highest * (1 - THUMB.compressionSpread) || (leastBar !== undefined && v < leastBar);
  const low = read.filter((r) => isLow(r.v)).map((r) => r.cylinder);
  const place = new Map(cylinderPlaces(layout).map((p) => [p.cylinder, p]));
  const [a, b] = low;
  const beside = (x: number, y: number): boolean =>
    place.get(x)?.bank === place.get(y)?.bank && Math.abs((place.get(x)?.along ?? 0) - (place.get(y)?.along ?? 9)) === 1;
  const adjacent = low.length === 2 && a !== undefined && b !== undefined && beside(a, b) ? ([a, b] as const) : null;
  const allLow = leastBar !== undefined && read.length === layout.cylinders && read.every((r) => r.v < leastBar);
  const wetRise = low.flatMap((cylinder) => {
    const d = dry[cylinder - 1];
    const w = wet[cylinder - 1];
    return d === null || d === undefined || w === null || w === undefined || d <= 0 ? [] : [{ cylinder, percent: ((w - d) / d) * 100 }];
  });
  const spreadPercent = highest > 0 ? ((highest - lowest) / highest) * 100 : 0;
  const rings = wetRise.filter((r) => r.percent >= THUMB.wetRise * 100).map((r) => r.cylinder);
  const words = [
    `${lowest.toFixed(1)} to ${highest.toFixed(1)} bar, spread ${spreadPercent.toFixed(0)} %`,
    low.length === 0 ? 'none low' : allLow ? 'all below the maker’s least' : `low: cylinder ${low.join(', ')}`,
    ...(adjacent ? [`${adjacent[0]} and ${adjacent[1]} are neighbours: look at the gasket between them`] : []),
    ...(rings.length > 0 ? [`oil lifts cylinder ${rings.join(', ')}: rings or bore`] : []),
    ...(wetRise.length > rings.length ? ['oil does not lift the rest: valve or gasket'] : []),
  ].join('; ');
  return { highest, lowest, spreadPercent, low, adjacent, allLow, wetRise, words };
}

/** Torque round a turn of the crank, N·m. */
export interface TurningResult {
  readonly medianAhead: number | null;
  readonly medianBack: number | null;
  /** Positions, degrees from where the reading began, that take far more than the median in either direction. */
  readonly notches: readonly number[];
  readonly words: string;
}

const median = (values: readonly number[]): number => {
  const s = [...values].sort((x, y) => x - y);
  const m = s.length >> 1;
  return s.length % 2 === 1 ? (s[m] as number) : ((s[m - 1] as number) + (s[m] as number)) / 2;
};

/** Turning torque round one turn, N·m at every 30°, both ways; null where not read. */
export function turningResult(ahead: ReadonlyArray<number | null>, back: ReadonlyArray<number | null>): TurningResult | null {
  const at = (list: ReadonlyArray<number | null>): Array<{ deg: number; v: number }> =>
    list.flatMap((v, i) => (v === null ? [] : [{ deg: (i * 360) / list.length, v }]));
  const a = at(ahead);
  const b = at(back);
  if (a.length + b.length < 3) return null;
  const medianAhead = a.length > 0 ? median(a.map((x) => x.v)) : null;
  const medianBack = b.length > 0 ? median(b.map((x) => x.v)) : null;
  const over = (list: typeof a, m: number | null): number[] =>
    m === null ? [] : list.filter((x) => x.v > m * THUMB.notch).map((x) => x.deg);
  const notches = [...new Set([...over(a, medianAhead), ...over(b, medianBack)])].sort((x, y) => x - y);
  const way = [
    medianAhead === null ? null : `${medianAhead.toFixed(0)} N·m ahead`,
    medianBack === null ? null : `${medianBack.toFixed(0)} N·m back`,
  ]
    .filter(Boolean)
    .join(', ');
  return {
    medianAhead,
    medianBack,
    notches,
    words: `${way} (median)${notches.length > 0 ? `; binds at ${notches.join('°, ')}°` : `; nowhere above ${THUMB.notch} times it`}`,
  };
}

/** A figure held against a limit. */
export interface Limited {
  readonly verdict: Verdict;
  /** Where the limit comes from: a source, or `rule of thumb`. */
  readonly source: string;
}

/** Guard-banded verdict of one reading against the spec sheet's limit, else against the stated rule of thumb. */
export function againstLimit(
  value: number,
  expanded: number,
  limit: { band: LimitBand; source: string } | null,
  thumb: LimitBand,
  unit: string,
): Limited {
  return { verdict: guardBand(value, expanded, limit?.band ?? thumb, 2, unit), source: limit?.source ?? 'rule of thumb' };
}
