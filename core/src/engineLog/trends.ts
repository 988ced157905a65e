import { changePoint, type ChangePoint } from '../statistics/changePoint.js';
import { individualsChart, signalsAt, type IndividualsChart } from '../statistics/controlChart.js';
import { robustSlope, type RobustSlope } from '../statistics/robustSlope.js';
import { linesOf, type EngineRecord, type LineOf, type LogLine, type PressureState } from './lines.js';

/** Days since 1970 of a day. */
export const dayNumber = (day: string): number => Date.parse(`${day}T00:00:00Z`) / 86_400_000;

/** Service so long that consumption and wear are told for it: 100 h or 1000 km. */
export const TOLD_FOR = { h: 100, km: 1000 } as const;

/** A stick is read to about a tenth of its marks; two readings differ by chance by as much as this, of the marks. */
const READING = 0.15;

/** The level as it would stand had nobody topped up, on one stick since one oil change: so that a fall is what was used, and a rise is something that came in. */
export interface LevelSpan {
  readonly stick: string;
  readonly oil: string | null;
  readonly points: ReadonlyArray<{ readonly line: LineOf<'level'>; readonly at: number; readonly litres: number }>;
  /** Litres to one of `unit`. */
  readonly slope: RobustSlope | null;
  readonly unit: 'counter' | 'day';
  /** The last reading stands higher than one before it by more than a stick is misread, litres; null: it does not. */
  readonly risen: { readonly litres: number; readonly since: LineOf<'level'> } | null;
}

/** Levels span by span: a change of oil begins a new one, another stick is another. */
export function levelSpans(engine: EngineRecord, lines: readonly LogLine[]): LevelSpan[] {
  const spans: Array<{ stick: string; oil: string | null; all: LineOf<'level'>[]; litres: number[] }> = [];
  let oil: string | null = null;
  let added = 0;
  let open = new Map<string, (typeof spans)[number]>();
  for (const l of lines) {
    if (l.kind === 'oil-change') {
      [oil, added, open] = [l.body.oil, 0, new Map()];
    } else if (l.kind === 'top-up') added += l.body.litres;
    else if (l.kind === 'level') {
      let span = open.get(l.body.stick);
      if (!span) {
        span = { stick: l.body.stick, oil, all: [], litres: [] };
        open.set(l.body.stick, span);
        spans.push(span);
      }
      span.all.push(l);
      span.litres.push(l.body.share * engine.marksL - added);
    }
  }
  return spans.map(({ stick, oil, all, litres }) => {
    const counted = all.every((l) => l.counter !== null);
    const points = all.map((line, i) => ({ line, at: counted ? line.counter! : dayNumber(line.day), litres: litres[i]! }));
    const last = points.at(-1)!;
    const lowest = points.slice(0, -1).reduce((least, p) => (p.litres < least.litres ? p : least), last);
    const rise = last.litres - lowest.litres;
    return {
      stick,
      oil,
      points,
      slope: robustSlope(points.map((p) => [p.at, p.litres])),
      unit: counted ? 'counter' : 'day',
      risen: rise > READING * engine.marksL ? { litres: rise, since: lowest.line } : null,
    };
  });
}

/** Oil used between two readings of the counter: litres to 100 h or 1000 km. */
export interface Consumption {
  readonly from: number;
  readonly to: number;
  readonly day: string;
  readonly rate: number;
}

/** Consumption of every span that is long enough to tell: from its first level to its last, over a quarter of what it is told for at least. */
export function consumptions(engine: EngineRecord, lines: readonly LogLine[]): Consumption[] {
  const told = TOLD_FOR[engine.counter];
  return levelSpans(engine, lines).flatMap(({ points, unit }) => {
    const [first, last] = [points[0]!, points.at(-1)!];
    if (unit !== 'counter' || last.at - first.at < told / 4) return [];
    return [{ from: first.at, to: last.at, day: last.line.day, rate: ((first.litres - last.litres) / (last.at - first.at)) * told }];
  });
}

/** Readings of a gauge over the years. */
export interface PressureTrend {
  readonly state: PressureState;
  readonly points: ReadonlyArray<LineOf<'pressure'>>;
  readonly slope: RobustSlope | null;
  readonly change: ChangePoint | null;
  /** Of the readings before the last. */
  readonly chart: IndividualsChart | null;
  /** The last reading lies under what chance gives, or is the last of a run that does. */
  readonly low: boolean;
}

/** A gauge on the dash is read to a tenth of a bar. */
const GAUGE_BAR = 0.1;
/** Readings a chart is made from, at least. */
const CHARTED = 5;

export function pressureTrend(lines: readonly LogLine[], state: PressureState): PressureTrend {
  const points = linesOf(lines, 'pressure').filter((l) => l.body.state === state);
  const values = points.map((p) => p.body.bar);
  const chart = values.length > CHARTED ? individualsChart(values.slice(0, -1), GAUGE_BAR) : null;
  return {
    state,
    points,
    slope: robustSlope(points.map((p) => [p.counter ?? dayNumber(p.day), p.body.bar])),
    change: changePoint(values),
    chart,
    low: chart !== null && signalsAt(values, chart).some((s) => s.side === 'below'),
  };
}
