import { object, text } from '../../kit/schema.js';
import { defineEntry, ours } from '../define.js';

export const caseReleased = defineEntry({
  kind: 'case-released',
  name: 'Released',
  says: 'The case is let go: refused while something stands in the way.',
  body: object({ note: text(1000) }),
  stands: 'case',
  slot: () => 'released',
  tell: (b) => b.note || 'released',
  admit: (_, at) => {
    if (!at.layout) return null;
    const blocks = at.releaseBlocks();
    return blocks.length === 0
      ? null
      : { code: 'release-blocked', sentence: `The case was not released. ${blocks.join(' ')}`, field: 'kind' };
  },
  stays: true,
  ofCase: (all) => ({ released: ours(all[0]) }),
});
