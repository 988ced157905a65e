import Joi from 'joi';
import { fail, ok, type Result } from '../../kit/result.js';
import type { Sizes } from '../sheets/define.js';
import { lengthOf, type Reference } from '../sheets/line.js';

const reference = Joi.object({
  lower: Joi.number(),
  upper: Joi.number(),
  kind: Joi.string().valid('limit', 'target', 'typical'),
  source: Joi.string().max(200).allow(''),
});

/** What a specification may hold beside limits by result: sizes in mm, step lists, and where it comes from. */
const SIZE_KEYS = ['minMm', 'maxMm', 'outOfRoundMaxMm', 'taperMaxMm', 'deepestMarkMm'];
const STEP_KEYS = ['undersizesMm', 'oversizesMm'];
const OTHER_KEYS: Readonly<Record<string, 'string' | 'number'>> = { source: 'string', leastBar: 'number' };

/** A specification sorted into what is computed with and what results are held against. */
export interface Spec {
  readonly sizes: Sizes;
  readonly bands: Readonly<Record<string, Reference>>;
  readonly unused: readonly string[];
}

/** Sorts a specification into sizes and limits. A figure that cannot be one ends the sheet; a key that no sheet knows is told, not passed over. */
export function readSpec(raw: Readonly<Record<string, unknown>>): Result<Spec> {
  const sizes: Record<string, unknown> = {};
  const bands: Record<string, Reference> = {};
  const unused: string[] = [];
  for (const [key, value] of Object.entries(raw)) {
    const field = `spec.${key}`;
    if (SIZE_KEYS.includes(key)) {
      const mm = lengthOf(value, field);
      if (!mm.ok) return mm;
      if (mm.value !== null) sizes[key] = mm.value;
    } else if (STEP_KEYS.includes(key)) {
      const list = Joi.array().items(Joi.number().positive()).max(40).validate(value, { convert: false });
      if (list.error) return fail('spec', `${key} is a list of steps in mm, each more than nothing. Nothing was computed.`, field);
      sizes[key] = list.value;
    } else if (typeof value === OTHER_KEYS[key]) sizes[key] = value;
    else if (typeof value === 'object' && value !== null && !Array.isArray(value)) {
      const band = reference.validate(value, { convert: false });
      const detail = band.error?.details[0];
      if (detail) return fail('sheet-file', `The limit "${key}" cannot be read: ${detail.message}.`, [field, ...detail.path].join('.'));
      const known = band.value as Reference;
      if (known.lower !== undefined && known.upper !== undefined && known.lower > known.upper)
        return fail('spec-upside-down', `The lower limit of "${key}" is above the upper. Nothing was computed.`, field);
      bands[key] = known;
    } else unused.push(key);
  }
  const [min, max] = [sizes['minMm'], sizes['maxMm']];
  if (typeof min === 'number' && typeof max === 'number' && min > max)
    return fail('spec-upside-down', 'The least size new is above the largest. Nothing was computed.', 'spec.minMm');
  return ok({ sizes, bands, unused });
}
