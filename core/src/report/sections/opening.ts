import type { CaseView } from '../../case/views.js';
import { checksFor } from '../../opening/checks.js';
import { notDone } from '../../case/checksNotMade.js';
import { stripStanding } from '../../case/stripStanding.js';
import type { ReportBlock, ReportSection } from '../blocks.js';

/** The checks before opening and what the strip recorded or passed over. */
export function opening(view: CaseView): ReportSection {
  const blocks: ReportBlock[] = [];
  const rows = checksFor(view.layout).flatMap((c) =>
    c.fields.flatMap((f) => {
      const said = [...view.checks.values()].filter(
        (a) => a.value.check === c.id && (a.value.field === f.id || a.value.field.startsWith(`${f.id}.`)) && a.value.text !== '',
      );
      if (said.length === 0) return [];
      const each = said.map(({ value: a }) => {
        const place = a.field.split('.')[1];
        const bare = a.unit && !/[a-z%"″]/i.test(a.text) ? `${a.text} ${a.unit}` : a.text;
        return place ? `${f.per === 'turn' ? `${(Number(place) - 1) * 30}°` : place}: ${bare}` : bare;
      });
      return [[c.name, f.label, each.join('; ')]];
    }),
  );
  blocks.push(
    rows.length > 0
      ? { kind: 'table', head: ['Before opening', '', 'Found'], rows }
      : { kind: 'text', key: 'opening.checks', text: 'No check was made before opening.' },
  );
  const passed = checksFor(view.layout).flatMap((c) => {
    const because = notDone(view, c.id);
    return because === null ? [] : [`${c.name}: ${because}`];
  });
  if (passed.length > 0) blocks.push({ kind: 'text', text: 'Checks not made', strong: true }, { kind: 'list', items: passed });
  const standing = stripStanding(view);
  const done = standing.steps.filter((s) => s.done).length;
  if (done > 0) blocks.push({ kind: 'text', key: 'opening.strip', text: `Strip: ${done} of ${standing.steps.length} steps were done.` });
  if (standing.lost.length > 0)
    blocks.push(
      { kind: 'text', text: 'Not recorded before it was gone', strong: true },
      {
        kind: 'list',
        items: standing.lost.map((i) => `${i.name}${view.holds.get(i.id)?.value.note ? `: ${view.holds.get(i.id)!.value.note}` : ''}`),
      },
    );
  const torque = standing.plan.steps.flatMap((s) => {
    const read = view.bolts.filter((b) => b.value.pattern === s.pattern?.id && b.value.newtonMetre !== null);
    return s.pattern && read.length > 0
      ? [[s.pattern.name, read.map((b) => `${b.value.position}: ${b.value.text} ${b.value.unit}`).join(', ')]]
      : [];
  });
  if (torque.length > 0) blocks.push({ kind: 'table', head: ['Break-loose torque', 'By position'], rows: torque });
  const expected = view.expectations.map(
    ({ value: e }) => `${e.text}: ${e.held === null ? 'not settled' : e.held ? 'held' : 'did not hold'}`,
  );
  if (expected.length > 0) blocks.push({ kind: 'text', text: 'Expected before looking', strong: true }, { kind: 'list', items: expected });
  return { id: 'opening', heading: 'Before opening and strip', blocks };
}
