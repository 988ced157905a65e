import Joi from 'joi';
import { WEAR_CLASSES } from '../../damage/classes.js';
import { LINE_DEPTHS, type SurfaceMark } from '../../damage/wearMap.js';
import { figure, id, object, oneOf, optional, pair, type Schema } from '../../kit/schema.js';
import { defineEntry } from '../define.js';

const mark = object({
  id,
  shape: oneOf(['stroke', 'line']),
  class: oneOf([...WEAR_CLASSES, 'unseen', 'erase']),
  points: Joi.array().items(pair(-0.05, 1.05)).min(1).max(2000),
  radiusMm: figure(0, 200).positive(),
  depth: optional(oneOf(LINE_DEPTHS)),
  made: oneOf(['found-so', 'by-us']),
}) as unknown as Schema<SurfaceMark>;

export const markMade = defineEntry({
  kind: 'mark-made',
  name: 'Mark',
  says: 'A stroke or line drawn by hand on a surface.',
  body: object({ mark }),
  stands: 'station',
  slot: (b) => `mark:${b.mark.id}`,
  tell: ({ mark: m }) => `${m.class}${m.shape === 'line' ? ` line, ${m.depth ?? 'hair'}` : ''}`,
  ofStation: (all) => ({ marks: all }),
});
