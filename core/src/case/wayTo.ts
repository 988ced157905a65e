import { memo } from '../kit/memo.js';
import type { HoldItem } from '../strip/holds.js';
import { laidBareBy, stepsTo } from '../strip/laidBare.js';
import type { StripStep } from '../strip/steps/step.js';
import { lostBySteps, stripStanding } from './stripStanding.js';
import { isExamined, type CaseView } from './views.js';

/** What it takes to lay something bare: the steps still to be done, and what nothing would show any more after them. */
export interface WayTo {
  readonly steps: readonly StripStep[];
  readonly loses: readonly HoldItem[];
}

const AT_HAND: WayTo = { steps: [], loses: [] };

/** Steps that are done, or must have been: a part that was looked at was laid bare, whether or not anybody said so. */
const openedSteps: (view: CaseView) => ReadonlySet<string> = memo('opened steps', (view: CaseView) => {
  const { plan } = stripStanding(view);
  const opened = new Set([...view.steps].flatMap(([id, s]) => (s.value.state === 'done' ? [id] : [])));
  for (const s of view.stations) {
    const by = isExamined(s) ? laidBareBy(view.layout, s.station) : null;
    if (by) for (const step of stepsTo(plan, by, opened)) opened.add(step.id);
  }
  return opened;
});

/** The way to what a step lays bare; nothing to do where it is done, or where no step is needed (null). */
export function wayTo(view: CaseView, step: string | null): WayTo {
  const opened = openedSteps(view);
  if (step === null || opened.has(step)) return AT_HAND;
  const standing = stripStanding(view);
  const steps = stepsTo(standing.plan, step, opened);
  const before = new Set(lostBySteps(standing, [...opened]).map((h) => h.id));
  const after = lostBySteps(standing, [...opened, ...steps.map((s) => s.id)]);
  return { steps, loses: after.filter((h) => !before.has(h.id)) };
}
