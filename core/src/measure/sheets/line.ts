import { fail, ok, type Result } from '../../kit/result.js';
import { formatLength, parseLength, type LengthUnit } from '../../units/length.js';
import { guardBand, type Gauge, type LimitBand, type Verdict } from '../../units/gauge.js';

/** One result of a sheet, in the unit it names. */
export interface SheetLine {
  readonly id: string;
  readonly name: string;
  readonly value: number;
  readonly unit: 'mm' | 'bar' | 'N·m' | '%' | 'N' | '°' | 'kPa' | 'm/s';
  /** Expanded uncertainty, k = 2; null where nothing is known of the gauge. */
  readonly expanded: number | null;
  /** Where on the part, or of what, in words. */
  readonly at: string;
  /** The sign tells a direction: a limit with an upper side only holds for the amount. */
  readonly signed?: boolean;
  readonly verdict?: Verdict & { readonly reference: ReferenceKind; readonly source: string };
}

/** The three references, never mixed: maker's service limit, what a good build aims at, what this family usually shows. */
export type ReferenceKind = 'limit' | 'target' | 'typical' | 'rule of thumb';

/** What a result is held against. */
export interface Reference extends LimitBand {
  readonly kind?: 'limit' | 'target' | 'typical';
  readonly source?: string;
}

/** What a sheet gives: results held against their limits, and words on the whole. */
export interface SheetOutcome {
  readonly sheet: string;
  readonly lines: readonly SheetLine[];
  /** Sentences on the whole: shape, size, what it points to. */
  readonly says: readonly string[];
  /** What was not read and therefore not computed. */
  readonly missing: readonly string[];
  /** Readings that look like a slip of the hand; they were computed with all the same. */
  readonly questions: readonly string[];
}

/**
 * Takes repeats of one place together: their mean, and the gauge as it then reads. The scatter is that of the repeats (pooled over the places) once three or
 * more were taken somewhere, else the gauge's own; it shrinks with the least number of repeats any place has (GUM 4.2).
 */
export function takeRepeats<T extends { readonly mm: number }>(
  readings: readonly T[],
  place: (r: T) => string,
  gauge: Gauge,
): { readonly readings: T[]; readonly gauge: Gauge } {
  const places = new Map<string, T[]>();
  for (const r of readings) places.set(place(r), [...(places.get(place(r)) ?? []), r]);
  const groups = [...places.values()];
  if (groups.length === readings.length) return { readings: [...readings], gauge };
  let squares = 0;
  let freedom = 0;
  const means = groups.map((own) => {
    const mm = own.reduce((s, r) => s + r.mm, 0) / own.length;
    if (own.length >= 3) {
      squares += own.reduce((s, r) => s + (r.mm - mm) ** 2, 0);
      freedom += own.length - 1;
    }
    return { ...own[0]!, mm };
  });
  const scatter = freedom > 0 ? Math.sqrt(squares / freedom) : gauge.repeatabilityMm;
  return { readings: means, gauge: { ...gauge, repeatabilityMm: scatter / Math.sqrt(Math.min(...groups.map((g) => g.length))) } };
}

/** Linear expansion, 1/K (steel 11.5, grey iron 10.5, aluminium 23 ×10⁻⁶). */
export const EXPANSION = { steel: 11.5e-6, 'grey-iron': 10.5e-6, aluminium: 23e-6 } as const;
/** Materials whose growth with temperature is known here. */
export type Material = keyof typeof EXPANSION;
export const MATERIALS = ['steel', 'grey-iron', 'aluminium'] as const satisfies readonly Material[];

/** A length read at a temperature, as it would be at 20 °C (ISO 1), exactly: the gauge reads in its own grown millimetres, the part is divided by its own growth. */
export function at20(mm: number, temperatureC: number, part: Material, gauge: Material = 'steel'): number {
  const warmer = temperatureC - 20;
  return (mm * (1 + EXPANSION[gauge] * warmer)) / (1 + EXPANSION[part] * warmer);
}

/** A reading as a file may carry it: a figure in mm, or text as a hand types it (`2.0855"`, `1.5 thou`); `-` and null are not read. */
export function lengthOf(raw: unknown, field: string, unit: LengthUnit = 'mm'): Result<number | null> {
  if (raw === null || raw === undefined) return ok(null);
  if (typeof raw === 'number') return Number.isFinite(raw) ? ok(raw) : fail('reading', `${field} is not a figure.`, field);
  if (typeof raw !== 'string') return fail('reading', `${field} is neither a figure nor text.`, field);
  // Plays and offsets may be negative; here a sign is a sign, not an offset from a master.
  const sign = /^\s*[-−]\s*\d/.test(raw) ? -1 : 1;
  const read = parseLength(raw.replace(/^\s*[-−+]\s*(?=[\d.,])/, ''), { unit });
  if (!read.ok) return { ok: false, problem: { ...read.problem, field } };
  return ok(read.value.kind === 'value' ? sign * read.value.mm : null);
}

/** Holds results against the specification, else against the sheet's rule of thumb, marked as such. */
export function judge(
  lines: readonly SheetLine[],
  spec: Readonly<Record<string, Reference>>,
  thumbs: Readonly<Record<string, LimitBand>> = {},
): SheetLine[] {
  return lines.map((line) => {
    const own = spec[line.id];
    const band = own ?? thumbs[line.id];
    if (!band || (band.lower === undefined && band.upper === undefined) || line.expanded === null) return line;
    const value = line.signed && band.lower === undefined ? Math.abs(line.value) : line.value;
    const verdict = guardBand(value, line.expanded, band, line.unit === 'mm' ? 3 : 2, line.unit);
    return {
      ...line,
      verdict: {
        ...verdict,
        reference: own ? (own.kind ?? 'limit') : 'rule of thumb',
        source: own?.source ?? (own ? 'specification' : 'rule of thumb'),
      },
    };
  });
}

const LINE_DIGITS: Readonly<Record<SheetLine['unit'], number>> = { mm: 3, bar: 2, 'N·m': 1, '%': 1, N: 1, '°': 0, kPa: 1, 'm/s': 2 };

/** A result with its uncertainty in words: `52.966 ± 0.0031 mm`, lengths in the wanted unit. */
export function lineText(l: SheetLine, unit: LengthUnit = 'mm'): string {
  if (l.unit === 'mm') {
    const value = formatLength(l.value, unit, { signed: l.signed === true });
    if (l.expanded === null) return value;
    return `${value} ± ${formatLength(l.expanded, unit, { digits: unit === 'mm' ? 4 : undefined })}`;
  }
  const digits = LINE_DIGITS[l.unit];
  return `${l.value.toFixed(digits).replace('-', '−')} ${l.unit}${l.expanded === null ? '' : ` ± ${l.expanded.toFixed(digits)} ${l.unit}`}`;
}
