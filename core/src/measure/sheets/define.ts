import type { EngineLayout } from '../../engine/layout.js';
import type { ProblemCode } from '../../kit/problems.js';
import type { Problem } from '../../kit/result.js';
import { optional, type Schema } from '../../kit/schema.js';
import Joi from 'joi';
import { parseQuantity, type Quantity } from '../../units/quantity.js';
import type { Gauge, LimitBand } from '../../units/gauge.js';
import type { PlaceGroup, SheetPlace } from './cells.js';
import { doubtReading } from './doubt.js';
import { lengthOf, type Reference, type SheetLine } from './line.js';
import type { TrueEngine } from './trueEngine.js';

/** A figure as a file or a hand gives it: a number in the canonical unit, text that may name another, null where it was not read. */
export type Raw = number | string | null | undefined;
/** A figure in a sheet file: a number in the canonical unit, text with or without a unit, null where it was not read. */
export const raw: Schema<number | string | null> = Joi.alternatives(Joi.number(), Joi.string().max(40), Joi.valid(null)) as never;
/** A figure a sheet can do without. */
export const mayRead = optional(raw);

/** Reads figures as typed; the first that cannot be one ends the sheet, named by its place in the file. */
export class Reader {
  problem: Problem | null = null;

  length(given: unknown, field: string): number | null {
    const read = lengthOf(given, field);
    if (read.ok) return read.value;
    this.problem ??= read.problem;
    return null;
  }

  /** A size of a part: more than nothing. */
  size(given: unknown, field: string): number | null {
    const value = this.length(given, field);
    if (value === null || value > 0) return value;
    this.problem ??= { code: 'reading-impossible', sentence: `${value} mm cannot be the size of a part. Nothing was computed.`, field };
    return null;
  }

  need(given: unknown, field: string): number {
    const value = this.length(given, field);
    if (value === null) this.problem ??= { code: 'reading-missing', sentence: `"${field}" is needed and was not read.`, field };
    return value ?? 0;
  }

  quantity(given: unknown, quantity: Quantity, field: string): number | null {
    if (given === null || given === undefined || given === '-') return null;
    if (typeof given === 'number') return given;
    const read = parseQuantity(String(given), quantity);
    if (read.ok) return read.value.value;
    this.problem ??= { ...read.problem, field };
    return null;
  }

  /** The items of a list whose figure was read. */
  each<T, R>(list: readonly T[] | undefined, figure: (item: T, index: number) => number | null, make: (item: T, value: number) => R): R[] {
    return (list ?? []).flatMap((item, i) => {
      const value = figure(item, i);
      return value === null ? [] : [make(item, value)];
    });
  }
}

/** Sizes and steps of a specification, mm; limits by result are held against the results themselves. */
export interface Sizes {
  readonly minMm?: number;
  readonly maxMm?: number;
  readonly outOfRoundMaxMm?: number;
  readonly taperMaxMm?: number;
  readonly deepestMarkMm?: number;
  readonly undersizesMm?: readonly number[];
  readonly oversizesMm?: readonly number[];
  /** Least compression, bar. */
  readonly leastBar?: number;
  readonly source?: string;
}

/** What a sheet computes with, beside its readings. */
interface Instruments {
  /** Gauge by role. */
  gauge(role: string): Gauge;
  readonly sizes: Sizes;
}

/** What a sheet computes. */
export interface Run {
  readonly lines: readonly SheetLine[];
  readonly says?: readonly string[];
  readonly missing?: readonly string[];
  readonly questions?: readonly string[];
  readonly thumbs?: Readonly<Record<string, LimitBand>>;
  /** Limits that follow from the sizes of the specification. */
  readonly references?: Readonly<Record<string, Reference>>;
  /** Why nothing can be computed; `few`: more readings would mend it. */
  readonly refused?: { readonly problem: Problem; readonly few: boolean };
}

/** A result that can be given a limit. */
export interface SpecLine {
  readonly id: string;
  readonly name: string;
  readonly unit: string;
  readonly side: 'lower' | 'upper' | 'both';
}

/** A result limited from above. */
export const upper = (id: string, name: string, unit = 'mm'): SpecLine => ({ id, name, unit, side: 'upper' });
/** A result limited from both sides. */
export const both = (id: string, name: string, unit = 'mm'): SpecLine => ({ id, name, unit, side: 'both' });
/** A result limited from below. */
export const lower = (id: string, name: string, unit = 'mm'): SpecLine => ({ id, name, unit, side: 'lower' });

/** What a specification of a sheet can hold. */
export interface SpecFields {
  /** Sizes new, least and largest. */
  readonly sizes?: true;
  /** Out-of-round and taper. */
  readonly roundness?: true;
  readonly steps?: 'undersizesMm' | 'oversizesMm';
  /** Wall of a new half. */
  readonly newWall?: true;
  readonly lines: readonly SpecLine[];
}

/** A value a sheet may take from another, where it has no reading of its own: the mean of some cells of another place, or a size of the specification. */
type Borrowed =
  | { readonly cell: string; readonly station: string; readonly sheet: string; readonly of: (key: string) => boolean }
  | { readonly cell: string; readonly spec: 'newWallMm' };

/** One sheet at one place, as its sheet says it; the program adds what is the same for all. */
type DraftPlace = Pick<SheetPlace, 'station' | 'name' | 'short' | 'spec' | 'cells'> &
  Partial<Pick<SheetPlace, 'sheet' | 'fixed' | 'needs'>> & {
    /** When hands come to it within its group: number of the bearing or cylinder. Places of one turn follow in the order of their sheets. */
    readonly turn?: number;
  };

/** The values of the cells of a place, canonical units, to be made the readings of its sheet. */
export interface CellValues {
  /** Value of a cell; null where it was not read. */
  of(key: string): number | null;
  /** Values of these cells; null unless all of them were read. */
  all<const K extends readonly string[]>(keys: K): { readonly [I in keyof K]: number } | null;
  /** The same for a size of a part: nothing and less is a fault, named by the cell. */
  size(key: string): number | null;
}

/** Drawings the pages have for the spot where the next figure is read. */
export type DrawingKey =
  | 'journal'
  | 'bore'
  | 'piston'
  | 'ring'
  | 'bearing'
  | 'strip'
  | 'travel'
  | 'rod'
  | 'crank-on-rests'
  | 'straight-edge'
  | 'deck'
  | 'cam'
  | 'seat'
  | 'pump';
/** Charts the pages have for the results of a sheet. */
export type ChartKey = 'journal' | 'bore' | 'deck' | 'clearance' | 'lobes';

/** How a sheet stands at the bench: where it is read, by which gauges, what it follows from and what follows from it. */
interface AtBench<K extends string, R> {
  readonly group: PlaceGroup;
  /** Where it comes among the sheets of its group. */
  readonly rank: number;
  /** What a hand goes round with one gauge: `Journals`. */
  readonly round: string;
  /** How the part is drawn with the spot where the next figure is read. */
  readonly drawing: DrawingKey;
  /** How its results are drawn, where a table is not enough. */
  readonly chart?: ChartKey;
  /** The kinds of place a specification is kept for, and where each comes in the list of them. */
  readonly specs: Readonly<Record<K, { readonly name: string; readonly rank: number }>>;
  readonly fields: SpecFields;
  /** Every place of an engine it can be read at; `has` tells whether the engine has a station. */
  readonly places: (layout: EngineLayout, has: (station: string) => boolean) => readonly DraftPlace[];
  /** Its readings from the values of the cells; null: too few yet. */
  readonly readings: (cells: CellValues, place: SheetPlace) => R | null;
  /** True value of a cell on a demonstration engine, canonical unit. */
  readonly truth: (engine: TrueEngine, place: SheetPlace, key: string) => number;
  /** Values it may take from other sheets. */
  readonly borrows?: (layout: EngineLayout, place: SheetPlace) => readonly Borrowed[];
  /** Limit of a case's spec sheet that stands for a result where no specification was entered. */
  readonly limit?: { readonly quantity: string; readonly line: string };
  /** Results that speak of the part at the station, and so may propose its grade. */
  readonly speaks?: RegExp;
  /** Results that are a loss of metal in themselves. */
  readonly losses?: RegExp;
}

/** All there is to know of a measuring sheet; the program of an engine, specifications, stand-ins, the file format and its documentation follow from it. */
export interface SheetDefinition<Id extends string, K extends string, F, R> {
  readonly id: Id;
  readonly name: string;
  /** Readings of a sheet file, for the documentation (Markdown). */
  readonly says: string;
  /** Readings as a sheet file holds them. */
  readonly file: Schema<F>;
  /** Readings of a file in canonical units. Faults go to the reader. */
  readonly read: (given: F, reader: Reader) => R;
  readonly compute: (readings: R, by: Instruments) => Run;
  /** Absent: read from a file only, or at a station of the opening. */
  readonly bench?: AtBench<K, R>;
}

/** A sheet as the rest of core takes it, its own readings inside. */
export interface Sheet<Id extends string = string, K extends string = string> {
  readonly id: Id;
  readonly name: string;
  readonly says: string;
  readonly file: Joi.Schema;
  /** Makes the computation out of the readings of a file that passed `file`. */
  readonly ofFile: (given: unknown, reader: Reader) => (by: Instruments) => Run;
  readonly bench?: Omit<AtBench<K, never>, 'readings'> & {
    /** Makes the computation out of the cells of a place; null: too few yet. */
    readonly ofCells: (cells: CellValues, place: SheetPlace) => ((by: Instruments) => Run) | null;
  };
}

/** Closes a sheet over the type of its readings, so that the rest of core computes without knowing it. */
export function defineSheet<const Id extends string, F, R, K extends string = never>(d: SheetDefinition<Id, K, F, R>): Sheet<Id, K> {
  const { read, compute, bench, ...rest } = d;
  return {
    ...rest,
    ofFile: (given, reader) => {
      const readings = read(given as F, reader);
      return (by) => compute(readings, by);
    },
    ...(bench === undefined
      ? {}
      : {
          bench: {
            ...bench,
            ofCells: (cells, place) => {
              const readings = bench.readings(cells, place);
              return readings === null ? null : (by) => compute(readings, by);
            },
          },
        }),
  };
}

/** A sheet file (`docs/formats/measure.md`) with what it must give: it is a test, and the example that is shipped with the documentation. */
export interface WorkedExample {
  readonly file: object;
  /** Value by id of the result, in its unit. */
  readonly gives: Readonly<Record<string, number>>;
}

/** Limits of a result that follow from sizes of the specification; what is not given limits nothing. */
export function referencesOf(
  sizes: Sizes,
  limits: ReadonlyArray<readonly [id: string, key: 'minMm' | 'maxMm' | 'outOfRoundMaxMm' | 'taperMaxMm', side: 'lower' | 'upper']>,
): Record<string, Reference> {
  const source = sizes.source ?? 'specification';
  return Object.fromEntries(limits.flatMap(([id, key, side]) => (sizes[key] === undefined ? [] : [[id, { [side]: sizes[key], source }]])));
}

/** Each reading against the others and the middle of the specification: slips of the decimal point and strangers. */
export function questionsOf(readings: ReadonlyArray<{ readonly mm: number; readonly place: string }>, { minMm, maxMm }: Sizes): string[] {
  const expected = minMm !== undefined && maxMm !== undefined ? (minMm + maxMm) / 2 : undefined;
  return readings.flatMap((r, i) => {
    const doubt = doubtReading(
      r.mm,
      readings.filter((_, j) => j !== i).map((o) => o.mm),
      expected,
    );
    return doubt ? [`${r.place}: ${doubt.reason}`] : [];
  });
}

/** Faults of the readings themselves. */
export function refused(code: ProblemCode, sentence: string, field: string, few = false): Run {
  return { lines: [], refused: { problem: { code, sentence, field }, few } };
}
