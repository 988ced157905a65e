import { formatLength, type LengthUnit } from '../../../units/length.js';
import { combinedExpanded, guardBand, readingUncertainty, type Gauge, type Verdict } from '../../../units/gauge.js';
import { nextUndersize, type SizeAnswer } from '../sizes.js';

/** Where along a journal it is read. */
export const PLANES = ['front', 'mid', 'rear'] as const;
/** Across the throw (`A`) and along it (`B`), at right angles. */
export const AXES = ['A', 'B'] as const;
export type Plane = (typeof PLANES)[number];
export type Axis = (typeof AXES)[number];

/** One diameter of a journal, mm. */
export interface JournalReading {
  readonly plane: Plane;
  readonly axis: Axis;
  readonly mm: number;
}

/** Sizes new and limits of a journal, mm. */
export interface JournalSpec {
  readonly minMm: number;
  readonly maxMm: number;
  readonly outOfRoundMaxMm?: number;
  readonly taperMaxMm?: number;
  /** Undersize steps, mm. */
  readonly undersizesMm: readonly number[];
  readonly source: string;
}

/** A result with its expanded uncertainty and where on the part it stands. */
export interface MeasuredValue {
  readonly value: number;
  /** Expanded uncertainty, k = 2. */
  readonly expanded: number;
  /** Where on the part, in words. */
  readonly at: string;
  readonly verdict?: Verdict;
}

/** Result of a journal or crankpin sheet; a value is absent until the readings it needs are there. Lengths mm. */
export interface JournalResult {
  readonly count: number;
  readonly max?: MeasuredValue;
  readonly min?: MeasuredValue;
  readonly outOfRound?: MeasuredValue;
  /** Signed front → rear: positive is larger at the rear. */
  readonly taper?: MeasuredValue;
  /** Positive barrel, negative hourglass; one per axis. */
  readonly barrel: ReadonlyArray<MeasuredValue & { readonly axis: Axis }>;
  readonly wear?: MeasuredValue;
  readonly size?: SizeAnswer;
}

/**
 * Journal sheet: out-of-round is the greatest A–B difference over the planes, taper the greatest front–rear difference over the axes (signed),
 * barrel/hourglass = mid − mean(ends) per axis, wear from the specification minimum to the least reading.
 */
export function journalSheet(
  readings: readonly JournalReading[],
  gauge: Gauge,
  spec: JournalSpec | null,
  deepestMarkMm = 0,
): JournalResult {
  const at = (plane: Plane, axis: Axis): number | undefined => readings.find((r) => r.plane === plane && r.axis === axis)?.mm;
  const sorted = [...readings].sort((a, b) => a.mm - b.mm);
  const least = sorted[0];
  const most = sorted.at(-1);
  const absolute = 2 * readingUncertainty(gauge);
  const difference = combinedExpanded(gauge, [1, -1]);
  const where = (r: JournalReading): string => `${r.plane}, axis ${r.axis}`;

  const rounds = PLANES.flatMap((plane) => {
    const a = at(plane, 'A');
    const b = at(plane, 'B');
    return a === undefined || b === undefined ? [] : [{ plane, value: Math.abs(a - b) }];
  });
  const tapers = AXES.flatMap((axis) => {
    const front = at('front', axis);
    const rear = at('rear', axis);
    return front === undefined || rear === undefined ? [] : [{ axis, value: rear - front }];
  });
  const barrel = AXES.flatMap((axis) => {
    const front = at('front', axis);
    const mid = at('mid', axis);
    const rear = at('rear', axis);
    if (front === undefined || mid === undefined || rear === undefined) return [];
    return [{ axis, value: mid - (front + rear) / 2, expanded: combinedExpanded(gauge, [1, -0.5, -0.5]), at: `axis ${axis}` }];
  });
  const round = rounds.reduce<(typeof rounds)[number] | undefined>((best, r) => (!best || r.value > best.value ? r : best), undefined);
  const taper = tapers.reduce<(typeof tapers)[number] | undefined>(
    (best, t) => (!best || Math.abs(t.value) > Math.abs(best.value) ? t : best),
    undefined,
  );

  return {
    count: readings.length,
    ...(most && least
      ? {
          max: {
            value: most.mm,
            expanded: absolute,
            at: where(most),
            ...(spec ? { verdict: guardBand(most.mm, absolute, { upper: spec.maxMm }) } : {}),
          },
          min: {
            value: least.mm,
            expanded: absolute,
            at: where(least),
            ...(spec ? { verdict: guardBand(least.mm, absolute, { lower: spec.minMm }) } : {}),
          },
        }
      : {}),
    ...(round
      ? {
          outOfRound: {
            value: round.value,
            expanded: difference,
            at: round.plane,
            ...(spec?.outOfRoundMaxMm !== undefined
              ? { verdict: guardBand(round.value, difference, { upper: spec.outOfRoundMaxMm }) }
              : {}),
          },
        }
      : {}),
    ...(taper
      ? {
          taper: {
            value: taper.value,
            expanded: difference,
            at: `axis ${taper.axis}, ${Math.abs(taper.value) < 5e-7 ? 'none' : taper.value > 0 ? 'larger at the rear' : 'larger at the front'}`,
            ...(spec?.taperMaxMm !== undefined
              ? { verdict: guardBand(Math.abs(taper.value), difference, { upper: spec.taperMaxMm }) }
              : {}),
          },
        }
      : {}),
    barrel,
    ...(least && spec
      ? {
          wear: {
            value: spec.minMm - least.mm,
            expanded: absolute,
            at: `least reading against the specification minimum, ${where(least)}`,
          },
          size: nextUndersize(least.mm, spec, deepestMarkMm),
        }
      : {}),
  };
}

/** One sentence on a shape value per axis: `A hourglass −0.0045 mm`. */
export function barrelText(value: MeasuredValue & { readonly axis: Axis }, unit: LengthUnit = 'mm'): string {
  const word = Math.abs(value.value) < 5e-7 ? 'straight' : value.value > 0 ? 'barrel' : 'hourglass';
  return `${value.axis} ${word} ${formatLength(value.value, unit, { signed: true, digits: unit === 'mm' ? 4 : undefined })}`;
}
