import Joi from 'joi';

declare const HELD: unique symbol;
/** A Joi schema that knows what it lets pass. */
export type Schema<T, S extends Joi.AnySchema = Joi.AnySchema> = S & { readonly [HELD]?: (held: T) => T };
/** What a schema lets pass. */
export type Held<S> = S extends { readonly [HELD]?: (held: infer T) => unknown } ? T : never;

type Fields = Readonly<Record<string, Joi.AnySchema | { readonly mayLack: Joi.AnySchema }>>;
type Flat<T> = { readonly [K in keyof T]: T[K] };
type Shape<F extends Fields> = Flat<
  { [K in keyof F as F[K] extends { readonly mayLack: unknown } ? never : K]: Held<F[K]> } & {
    [K in keyof F as F[K] extends { readonly mayLack: unknown } ? K : never]?: F[K] extends { readonly mayLack: infer S } ? Held<S> : never;
  }
>;

/** An object of exactly these members; all must be there but those said to be `optional`. */
export function object<F extends Fields>(fields: F): Schema<Shape<F>, Joi.ObjectSchema> {
  return Joi.object(
    Object.fromEntries(Object.entries(fields).map(([key, s]) => [key, 'mayLack' in s ? s.mayLack : (s as Joi.AnySchema).required()])),
  ) as never;
}

/** A member that may be absent. */
export function optional<S extends Joi.AnySchema>(schema: S): { readonly mayLack: S } {
  return { mayLack: schema };
}

/** What the schema lets pass, or null. */
export function nullable<S extends Joi.AnySchema>(schema: S): Schema<Held<S> | null> {
  return schema.allow(null) as never;
}

/** A schema whose type is stated: for what Joi can check and no helper here can infer. */
export function typed<T>(schema: Joi.AnySchema): Schema<T> {
  return schema as never;
}

/** One of these words. */
export function oneOf<const T extends readonly string[]>(words: T): Schema<T[number]> {
  return Joi.string().valid(...words) as never;
}

/** As many of these as there are. */
export function listOf<S extends Joi.AnySchema>(items: S): Schema<ReadonlyArray<Held<S>>, Joi.ArraySchema> {
  return Joi.array().items(items) as never;
}

/** At most `max` of these. */
export function list<S extends Joi.AnySchema>(items: S, max: number): Schema<ReadonlyArray<Held<S>>, Joi.ArraySchema> {
  return Joi.array().items(items).max(max) as never;
}

/** A figure within bounds, both included. */
export function figure(min: number, max: number): Schema<number, Joi.NumberSchema> {
  return Joi.number().min(min).max(max) as never;
}

/** A whole number within bounds, both included. */
export function whole(min: number, max: number): Schema<number, Joi.NumberSchema> {
  return figure(min, max).integer();
}

/** A figure above nothing. */
export function positive(max: number): Schema<number, Joi.NumberSchema> {
  return Joi.number().positive().max(max) as never;
}

/** What either schema lets pass. */
export function oneOrOther<A extends Joi.AnySchema, B extends Joi.AnySchema>(one: A, other: B): Schema<Held<A> | Held<B>> {
  return Joi.alternatives(one, other) as never;
}

/** Values of one kind by names nobody knows beforehand. */
export function record<S extends Joi.AnySchema>(value: S): Schema<Readonly<Record<string, Held<S>>>, Joi.ObjectSchema> {
  return Joi.object().pattern(Joi.string(), value) as never;
}

/** A point as two figures within bounds. */
export function pair(min: number, max: number): Schema<readonly [number, number]> {
  const part = figure(min, max).required();
  return Joi.array().ordered(part, part).length(2) as never;
}

/** Any finite figure. */
export const number: Schema<number> = Joi.number() as never;

/** Yes or no. */
export const flag: Schema<boolean> = Joi.boolean() as never;

/** Free text. Control characters and halves of a surrogate pair have no place in a ledger that others must be able to read. */
export const text = (max: number): Schema<string, Joi.StringSchema> =>
  Joi.string()
    .allow('')
    .max(max)
    .pattern(/(?![\t\n\r])[\p{Cc}\p{Cs}]/u, { invert: true })
    .messages({ 'string.pattern.invert.base': '{{#label}} holds a character that cannot be written down. Type it again' }) as never;

/** Text on one line. */
export const line = (max: number): Schema<string, Joi.StringSchema> => text(max).pattern(/[\t\n\r]/, { invert: true });

/** Text of this form. */
export const matching = (form: RegExp): Schema<string, Joi.StringSchema> => Joi.string().pattern(form) as never;

/** A name of at most so many characters, not empty. */
export const name = (max: number): Schema<string, Joi.StringSchema> => Joi.string().max(max) as never;

/** An id people or programs make. */
export const id = matching(/^[A-Za-z0-9._:-]{1,80}$/);

/** An id of a catalogue of ours, shorter than those people make. */
export const key = matching(/^[A-Za-z0-9._:-]{1,60}$/);

/** SHA-256 of a file, lower-case hex. */
export const sha256 = matching(/^[0-9a-f]{64}$/);

/** Calendar day, ISO 8601. */
export const day = matching(/^\d{4}-\d{2}-\d{2}$/);
