import Joi from 'joi';
import { figure, object, pair, sha256, type Schema, name } from '../../kit/schema.js';
import { byPicture, defineEntry } from '../define.js';

export const tagRead = defineEntry({
  kind: 'tag-read',
  name: 'Part tag',
  says: 'What the part tag in a picture said.',
  body: object({
    sha256,
    station: name(80),
    /** Corners of the tag's code in pixels of the upright original: top left, top right, bottom right, bottom left. */
    corners: Joi.array().items(pair(-100_000, 100_000)).length(4) as unknown as Schema<ReadonlyArray<readonly [number, number]>>,
    codeMm: figure(0, 200).positive(),
    /** Factors on linear red, green, blue that make the tag's grey neutral. */
    gains: Joi.array().items(figure(0.2, 5)).length(3) as unknown as Schema<readonly [number, number, number]>,
  }),
  stands: 'either',
  slot: (b) => `tag:${b.sha256}`,
  tell: (b) => `tag of ${b.station} in ${b.sha256.slice(0, 8)}`,
  ofStation: (all) => ({ tags: byPicture(all) }),
});
