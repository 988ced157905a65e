import Joi from 'joi';
import type { Problem } from '../../kit/result.js';
import { parseQuantity, type Quantity } from '../../units/quantity.js';
import type { Gauge, LimitBand } from '../../units/gauge.js';
import { doubtReading } from '../journal.js';
import { lengthOf, type Reference, type SheetLine } from './line.js';

export const figure = Joi.alternatives(Joi.number(), Joi.string().max(40), Joi.valid(null));
export const temperature = {
  temperatureC: Joi.number().min(-30).max(120),
  material: Joi.string().valid('steel', 'grey-iron', 'aluminium'),
};
export const list = (fields: Record<string, Joi.Schema>, min = 1): Joi.ArraySchema =>
  Joi.array().items(Joi.object(fields)).min(min).max(2000).required();

/** Reads figures as typed; the first that cannot be one ends the sheet with its place. */
export class Reader {
  problem: Problem | null = null;

  length(raw: unknown, field: string): number | null {
    const read = lengthOf(raw, field);
    if (read.ok) return read.value;
    this.problem ??= read.problem;
    return null;
  }

  /** A size of a part: more than nothing. */
  size(raw: unknown, field: string): number | null {
    const value = this.length(raw, field);
    if (value === null || value > 0) return value;
    this.problem ??= { code: 'reading-impossible', sentence: `${value} mm cannot be the size of a part. Nothing was computed.`, field };
    return null;
  }

  need(raw: unknown, field: string): number {
    const value = this.length(raw, field);
    if (value === null) this.problem ??= { code: 'reading-missing', sentence: `"${field}" is needed and was not read.`, field };
    return value ?? 0;
  }

  quantity(raw: unknown, quantity: Quantity, field: string): number | null {
    if (raw === null || raw === undefined || raw === '-') return null;
    if (typeof raw === 'number') return raw;
    const read = parseQuantity(String(raw), quantity);
    if (read.ok) return read.value.value;
    this.problem ??= { ...read.problem, field };
    return null;
  }
}

export interface Run {
  readonly lines: readonly SheetLine[];
  readonly says?: readonly string[];
  readonly missing?: readonly string[];
  readonly questions?: readonly string[];
  readonly thumbs?: Readonly<Record<string, LimitBand>>;
  /** Limits that follow from the sizes of the specification. */
  readonly references?: Readonly<Record<string, Reference>>;
}

export interface SheetKind {
  readonly name: string;
  readonly schema: Joi.Schema;
  readonly run: (r: never, read: Reader, gauge: (role: string) => Gauge, spec: Readonly<Record<string, unknown>>) => Run;
}

export type Raw = number | string | null | undefined;

export function kind<T>(
  name: string,
  schema: Joi.Schema,
  run: (r: T, read: Reader, gauge: (role: string) => Gauge, spec: Readonly<Record<string, unknown>>) => Run,
): SheetKind {
  return { name, schema, run: run as unknown as SheetKind['run'] };
}

export const steps = (raw: unknown): number[] => (Array.isArray(raw) ? raw.filter((x): x is number => typeof x === 'number' && x > 0) : []);
export const size = (spec: Readonly<Record<string, unknown>>, key: string): number | undefined =>
  typeof spec[key] === 'number' ? (spec[key] as number) : undefined;

/** Limits of a result that follow from sizes of the specification; what is not given limits nothing. */
export function referencesOf(
  spec: Readonly<Record<string, unknown>>,
  limits: ReadonlyArray<readonly [id: string, key: string, side: 'lower' | 'upper']>,
): Record<string, Reference> {
  const source = typeof spec['source'] === 'string' ? spec['source'] : 'specification';
  return Object.fromEntries(
    limits.flatMap(([id, key, side]) => {
      const mm = size(spec, key);
      return mm === undefined ? [] : [[id, { [side]: mm, source }]];
    }),
  );
}

/** Each reading against the others and the middle of the specification: slips of the decimal point and strangers. */
export function questionsOf(
  readings: ReadonlyArray<{ readonly mm: number; readonly place: string }>,
  spec: Readonly<Record<string, unknown>>,
): string[] {
  const min = size(spec, 'minMm');
  const max = size(spec, 'maxMm');
  const expected = min !== undefined && max !== undefined ? (min + max) / 2 : undefined;
  return readings.flatMap((r, i) => {
    const doubt = doubtReading(
      r.mm,
      readings.filter((_, j) => j !== i).map((o) => o.mm),
      expected,
    );
    return doubt ? [`${r.place}: ${doubt.reason}`] : [];
  });
}
