import { figure, id, object, oneOf, optional, text, type Schema } from '../kit/schema.js';

/** Kinds of gauge a shop has. */
export const GAUGE_KINDS = [
  'outside-micrometer',
  'bore-gauge',
  'indicator',
  'caliper',
  'feeler',
  'depth-gauge',
  'torque-wrench',
  'profilometer',
  'other',
] as const;
export type GaugeKind = (typeof GAUGE_KINDS)[number];

/** A gauge as it stands beside a reading. Lengths mm; for a torque wrench the same figures are N·m. */
export interface Gauge {
  readonly id: string;
  readonly name: string;
  /** Number on the gauge itself. */
  readonly serial?: string;
  readonly kind: GaugeKind;
  readonly resolutionMm: number;
  /** Expanded calibration uncertainty, k = 2. */
  readonly expandedUncertaintyMm: number;
  /** Standard deviation of repeats by this gauge and hand; used when fewer than three repeats exist. */
  readonly repeatabilityMm: number;
  readonly masterMm?: number;
  readonly checkedOn?: string;
}

/** A gauge as it is kept with a reading. */
export const gaugeSchema = object({
  id,
  name: text(80),
  kind: oneOf(GAUGE_KINDS),
  resolutionMm: figure(0, 1).positive(),
  expandedUncertaintyMm: figure(0, 1),
  repeatabilityMm: figure(0, 1),
  serial: optional(text(60)),
  masterMm: optional(figure(0, 5000)),
  checkedOn: optional(text(20)),
}) as unknown as Schema<Gauge>;

/** Days a check against a master is taken to hold; a rule of thumb, the shop's own rule goes before. */
const CHECK_HOLDS_DAYS = 365;

/** What stands against trusting a gauge on the day of a reading (`YYYY-MM-DD…`): its check was too long ago. Null when in date, or no check is on record. */
export function checkDoubt(gauge: Pick<Gauge, 'name' | 'checkedOn'>, on: string): string | null {
  const days = (Date.parse(on.slice(0, 10)) - Date.parse(gauge.checkedOn?.slice(0, 10) ?? '')) / 86_400_000;
  if (!(days > CHECK_HOLDS_DAYS)) return null;
  return `${gauge.name} was last checked on ${gauge.checkedOn}, ${Math.round(days)} days earlier: overdue (rule of thumb: ${CHECK_HOLDS_DAYS} days). Check it against its master before a verdict rests on it.`;
}

/** Standard uncertainty of the part of a reading that varies from one reading to the next: resolution (rectangular) and repeatability. GUM 4.3.7, H.1. */
function randomUncertainty(gauge: Gauge, repeats = 1): number {
  return Math.sqrt(gauge.resolutionMm ** 2 / 12 + gauge.repeatabilityMm ** 2 / Math.max(1, repeats));
}

/** Standard uncertainty of one absolute reading: random part and calibration (U_cal / 2), root sum of squares. */
export function readingUncertainty(gauge: Gauge, repeats = 1): number {
  return Math.sqrt(randomUncertainty(gauge, repeats) ** 2 + (gauge.expandedUncertaintyMm / 2) ** 2);
}

/** One reading with the gauge that took it and how strongly a result follows it. */
export interface Term {
  readonly gauge: Gauge;
  readonly c: number;
  readonly repeats?: number;
}

/**
 * Expanded uncertainty (k = 2) of a combination of readings by several gauges (GUM 5.1.2): the random part of each reading adds by root sum of squares; the
 * calibration of one gauge is common to its readings, enters with the sum of their sensitivities and cancels in differences.
 */
export function combine(terms: readonly Term[]): number {
  const byGauge = new Map<string, Term[]>();
  for (const t of terms) byGauge.set(t.gauge.id, [...(byGauge.get(t.gauge.id) ?? []), t]);
  let square = 0;
  for (const own of byGauge.values()) {
    const calibration = own[0]!.gauge.expandedUncertaintyMm / 2;
    const sum = own.reduce((s, t) => s + t.c, 0);
    square += (calibration * sum) ** 2;
    for (const t of own) square += (t.c * randomUncertainty(t.gauge, t.repeats ?? 1)) ** 2;
  }
  return 2 * Math.sqrt(square);
}

/** The same for readings of one gauge, by their sensitivities. */
export function combinedExpanded(gauge: Gauge, sensitivities: readonly number[], repeats = 1): number {
  return combine(sensitivities.map((c) => ({ gauge, c, repeats })));
}

type VerdictWord = 'within' | 'outside' | 'too close to call';

/** A value held against its limits with the uncertainty between them (guard band, JCGM 106). */
export interface Verdict {
  readonly word: VerdictWord;
  readonly reason: string;
  /** Which limit the value is nearest to, or past. */
  readonly side?: 'lower' | 'upper';
  /** What would settle a verdict that is too close to call. */
  readonly settle?: string;
}

/** Limits of a value; a side may be open. */
export interface LimitBand {
  readonly lower?: number;
  readonly upper?: number;
}

/**
 * Guard-banded verdict: inside by more than U is `within`, outside by more than U is `outside`, anything between is too close to call
 * (decision rule after JCGM 106:2012, 8.3). `digits` and `unit` only shape the sentence.
 */
export function guardBand(value: number, expanded: number, limit: LimitBand, digits = 3, unit = 'mm'): Verdict {
  const f = (x: number): string => x.toFixed(digits);
  const margins: Array<{ side: 'lower' | 'upper'; limit: number; margin: number }> = [];
  if (limit.upper !== undefined) margins.push({ side: 'upper', limit: limit.upper, margin: limit.upper - value });
  if (limit.lower !== undefined) margins.push({ side: 'lower', limit: limit.lower, margin: value - limit.lower });
  const tight = margins.sort((a, b) => a.margin - b.margin)[0];
  if (!tight) return { word: 'too close to call', reason: 'no limit is known', settle: 'Enter the limit with its source.' };
  const { side } = tight;
  const where = `${side} limit ${f(tight.limit)} ${unit}`;
  if (tight.margin < -expanded)
    return {
      word: 'outside',
      side,
      reason: `${f(value)} is past the ${where} by ${f(-tight.margin)}, more than the ±${f(expanded)} of the reading`,
    };
  if (tight.margin >= expanded)
    return {
      word: 'within',
      side,
      reason: `${f(value)} clears the ${where} by ${f(tight.margin)}, the reading is good to ±${f(expanded)}`,
    };
  const distance = Math.abs(tight.margin);
  return {
    word: 'too close to call',
    side,
    reason: `${f(value)} lies ${f(distance)} from the ${where} and the reading is only good to ±${f(expanded)}`,
    settle:
      distance < 1e-9
        ? 'The value sits on the limit: no gauge settles it, decide by the part.'
        : `A gauge good to ±${f(distance)} would settle it, or the mean of more readings.`,
  };
}
