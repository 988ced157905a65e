import Joi from 'joi';

const uuid = Joi.string().pattern(/^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/);
const hash = Joi.string().pattern(/^[0-9a-f]{64}$/);

/** Text that any store keeps as it came: no NUL, no half of a surrogate pair. */
const storable = (max: number): Joi.StringSchema =>
  Joi.string()
    .max(max)
    .pattern(/[\0\p{Cs}]/u, { invert: true });

/**
 * A line of the ledger, to the letter: the members it has and no others, each of its type, so that what is verified today verifies after it was stored and
 * read back. The one schema for appending, taking in a bundle and verifying. Bodies are held to the schema of their kind apart from this.
 */
const entrySchema: Joi.ObjectSchema = Joi.object({
  id: uuid.required(),
  caseId: uuid.required(),
  seq: Joi.number().integer().min(1).max(10_000_000).required(),
  kind: storable(40).required(),
  station: storable(80).allow(null).required(),
  author: Joi.object({ id: uuid.required(), name: storable(200).required() }).required(),
  time: Joi.string()
    .pattern(/^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d\.\d{3}Z$/)
    .custom((value: string, helpers) => (Number.isNaN(Date.parse(value)) ? helpers.error('any.invalid') : value))
    .required(),
  supersedes: uuid.allow(null).required(),
  body: Joi.object().unknown(true).allow(null).required(),
  salt: storable(64).allow('').required(),
  bodyHash: hash.required(),
  prev: hash.required(),
  hash: hash.required(),
})
  .required()
  .prefs({ convert: false, abortEarly: true });

/** What the shape of a line says against it; null when it is an entry to the letter. Never throws, whatever it is given. */
export function shapeFault(line: unknown): string | null {
  const { error } = entrySchema.validate(line);
  if (!error) return null;
  const detail = error.details[0];
  return `its shape is not that of an entry (${detail?.path.join('.') || 'the line'})`;
}
