import Joi from 'joi';
import type { SheetPlace } from '../sheets/cells.js';
import type { Sheet, Sizes, SpecFields } from '../sheets/define.js';
import type { Reference, ReferenceKind } from '../sheets/line.js';
import type { SHEET_DEFINITIONS } from '../sheets/registry.js';
import { benchOf, BENCH_SHEETS } from './sheetOf.js';

/** Limit of one result, in the unit of the result. */
export interface LineLimit {
  readonly lower?: number;
  readonly upper?: number;
  readonly kind?: Exclude<ReferenceKind, 'rule of thumb'>;
}

/** What is known of a kind of place (`crank.pin`, `bore`): sizes, steps and limits by result, in mm or the unit of the result, with one source. */
export interface SheetSpec extends Pick<Sizes, 'minMm' | 'maxMm' | 'outOfRoundMaxMm' | 'taperMaxMm' | 'undersizesMm' | 'oversizesMm'> {
  readonly newWallMm?: number;
  readonly limits?: Readonly<Record<string, LineLimit>>;
  readonly source: string;
}

type KeysOf<S> = S extends Sheet<string, infer K> ? K : never;
/** Kind of place a specification is kept for: `crank.pin`, `bore`. */
export type SpecKey = KeysOf<(typeof SHEET_DEFINITIONS)[number]>;

/** Every kind of place a specification can be given for: its words, and the sheet whose results it limits. */
export const SPEC_KINDS = Object.fromEntries(
  BENCH_SHEETS.flatMap(({ id, bench }) => Object.entries(bench.specs).map(([key, { name, rank }]) => ({ key, name, rank, kind: id })))
    .sort((a, b) => a.rank - b.rank)
    .map(({ key, name, kind }) => [key, { name, kind }]),
) as Readonly<Record<SpecKey, { readonly name: string; readonly kind: string }>>;

/** Every kind of place a specification is kept for, in the order of the list. */
export const SPEC_KEYS = Object.keys(SPEC_KINDS) as SpecKey[];

/** What a specification of a kind of place can hold. */
export function specFields(key: SpecKey): SpecFields {
  return benchOf(SPEC_KINDS[key].kind).fields;
}

const size = Joi.number().min(0).max(5000);
const steps = Joi.array().items(Joi.number().positive().max(10)).max(12);

/** Shape of a specification of a kind of place. */
export const sheetSpecSchema = Joi.object({
  minMm: size,
  maxMm: Joi.when('minMm', {
    is: Joi.exist(),
    then: size.min(Joi.ref('minMm')).required().messages({ 'number.min': 'The upper size is smaller than the lower size.' }),
    otherwise: size,
  }),
  outOfRoundMaxMm: Joi.number().positive().max(5),
  taperMaxMm: Joi.number().positive().max(5),
  undersizesMm: steps,
  oversizesMm: steps,
  newWallMm: Joi.number().positive().max(20),
  limits: Joi.object()
    .max(40)
    .pattern(
      Joi.string().max(60),
      Joi.object({
        lower: Joi.number().min(-5000).max(5000),
        upper: Joi.number()
          .max(5000)
          .when('lower', { is: Joi.exist(), then: Joi.number().min(Joi.ref('lower')) })
          .messages({ 'number.min': 'The upper limit is below the lower limit.' }),
        kind: Joi.string().valid('limit', 'target', 'typical'),
      }).or('lower', 'upper'),
    ),
  source: Joi.string().max(200).allow('').required(),
});

/** What a sheet at this place computes with, and what its results are held against. */
export function specOfSheet(
  place: SheetPlace,
  spec: SheetSpec | null,
): { readonly sizes: Sizes; readonly bands: Readonly<Record<string, Reference>> } {
  if (!spec) return { sizes: {}, bands: {} };
  const fields = benchOf(place.kind).fields;
  const held = (...keys: ReadonlyArray<keyof SheetSpec>): Partial<SheetSpec> =>
    Object.fromEntries(keys.flatMap((k) => (spec[k] === undefined ? [] : [[k, spec[k]]])));
  return {
    sizes: {
      ...(fields.sizes ? held('minMm', 'maxMm') : {}),
      ...(fields.steps ? held(fields.steps) : {}),
      ...(fields.roundness ? held('outOfRoundMaxMm', 'taperMaxMm') : {}),
      source: spec.source,
    },
    bands: Object.fromEntries(Object.entries(spec.limits ?? {}).map(([id, limit]) => [id, { ...limit, source: spec.source }])),
  };
}
