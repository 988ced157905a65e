import { id, figure, object } from '../../kit/schema.js';
import { defineEntry } from '../define.js';

export const taskMoved = defineEntry({
  kind: 'task-moved',
  name: 'Plan',
  says: 'A task moved by hand: not before this calendar hour of the plan.',
  body: object({ task: id, notBeforeHours: figure(0, 24 * 3650) }),
  stands: 'case',
  slot: (b) => `task:${b.task}`,
  tell: (b) => `${b.task} not before hour ${b.notBeforeHours}`,
  ofCase: (all) => ({ moved: new Map(all.map((t) => [t.value.task, t.value.notBeforeHours])) as ReadonlyMap<string, number> }),
});
