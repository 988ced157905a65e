import { surfaceReadSchema, type SurfaceRead } from '../../damage/surfaceRead.js';
import type { Schema } from '../../kit/schema.js';
import { defineEntry } from '../define.js';

export const surfaceRead = defineEntry({
  kind: 'surface-read',
  name: 'Read',
  says: 'What the reader saw in a picture of the surface.',
  body: surfaceReadSchema as Schema<SurfaceRead>,
  stands: 'station',
  slot: (b) => `surface:${b.sha256}`,
  tell: (b) =>
    `${b.sha256.slice(0, 8)} read: ${Object.keys(b.shares).join(', ') || 'nothing but sound'}, ${b.lines.length} line${b.lines.length === 1 ? '' : 's'}, confidence ${b.confidence}`,
  ofStation: (all) => ({ reads: all }),
});
