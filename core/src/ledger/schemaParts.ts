import Joi from 'joi';

/** Free text. Control characters and halves of a surrogate pair have no place in a ledger that others must be able to read. */
export const text = (max: number): Joi.StringSchema =>
  Joi.string()
    .allow('')
    .max(max)
    .pattern(/(?![\t\n\r])[\p{Cc}\p{Cs}]/u, { invert: true })
    .messages({ 'string.pattern.invert.base': '{{#label}} holds a character that cannot be written down. Type it again' });

/** Text on one line. */
export const line = (max: number): Joi.StringSchema => text(max).pattern(/[\t\n\r]/, { invert: true });

export const id = Joi.string().pattern(/^[A-Za-z0-9._:-]{1,80}$/);
