import { layoutSchema, type EngineLayout } from '../../engine/layout.js';
import { validateLayout } from '../../engine/validate.js';
import { object, type Schema } from '../../kit/schema.js';
import { defineEntry } from '../define.js';

export const layoutSet = defineEntry({
  kind: 'layout-set',
  name: 'Layout',
  says: 'The engine: its layout, from which all places follow.',
  body: object({ layout: layoutSchema as Schema<EngineLayout> }),
  stands: 'case',
  slot: () => 'layout',
  tell: ({ layout: l }) => `${l.cylinders} cylinders ${l.arrangement}, ${l.boreMm} × ${l.strokeMm} mm, ${l.mains} mains`,
  admit: ({ layout }) => validateLayout(layout)[0] ?? null,
  stays: true,
  ofCase: (all) => ({ layoutSet: all[0] }),
});
