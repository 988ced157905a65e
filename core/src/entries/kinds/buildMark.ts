import { id, object, oneOf, text } from '../../kit/schema.js';
import { defineEntry, spoken } from '../define.js';

export const MARK_KINDS = ['date-code', 'size-stamp', 'gasket', 'sealant', 'paint', 'fastener', 'other'] as const;
export const MARK_MEANINGS = ['opened-before', 'as-made', 'unclear'] as const;

export const buildMark = defineEntry({
  kind: 'build-mark',
  name: 'Build mark',
  says: 'A mark that tells who built or opened the engine.',
  body: object({ mark: id, kind: oneOf(MARK_KINDS), text: text(500), pointsTo: oneOf(MARK_MEANINGS) }),
  stands: 'case',
  slot: (b) => `build:${b.mark}`,
  tell: (b) => `${b.text} – ${spoken(b.pointsTo)}`,
  ofCase: (all) => ({ buildMarks: all }),
});
