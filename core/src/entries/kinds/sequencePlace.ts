import { figure, object } from '../../kit/schema.js';
import { defineEntry } from '../define.js';
import { nodeId, nodeWords } from '../sequenceNode.js';

export const sequencePlace = defineEntry({
  kind: 'sequence-place',
  name: 'Sequence',
  says: 'Where a node of the sequence was put by hand.',
  body: object({ node: nodeId, x: figure(-20_000, 20_000), y: figure(-20_000, 20_000) }),
  stands: 'case',
  slot: (b) => `place:${b.node}`,
  tell: (b) => `${nodeWords(b.node)} moved`,
  ofCase: (all) => ({ sequencePlaces: all }),
});
