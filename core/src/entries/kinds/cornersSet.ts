import Joi from 'joi';
import { figure, object, optional, pair, sha256, type Schema } from '../../kit/schema.js';
import { byPicture, defineEntry } from '../define.js';

const corners = Joi.array().items(pair(-100_000, 100_000)).length(4) as unknown as Schema<ReadonlyArray<readonly [number, number]>>;

export const cornersSet = defineEntry({
  kind: 'corners-set',
  name: 'Corners',
  says: 'Where the part lies in a picture, so that it can be laid flat.',
  body: object({
    sha256,
    corners,
    /** Pieces of a full turn: the arc in the middle of the picture, and how much of it a strip shows. */
    facingDeg: optional(figure(0, 360)),
    arcDeg: optional(figure(5, 360)),
  }),
  stands: 'station',
  slot: (b) => `corners:${b.sha256}`,
  tell: (b) => `four corners on ${b.sha256.slice(0, 8)}`,
  ofStation: (all) => ({ corners: byPicture(all) }),
});
