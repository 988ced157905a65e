import type { CaseView } from './views.js';
import { HOLD_RECORDS, itemStations, type HoldItem } from '../strip/holds.js';
import { stripPlan, type StripPlan } from '../strip/plan.js';
import type { StripStep } from '../strip/steps/step.js';
import { memo } from '../kit/memo.js';

/** How a hold item stands. `gone`: the part was missing or altered before it came to us, so there is nothing to lose. */
type HoldState = 'recorded' | 'open' | 'lost' | 'gone';

/** How one thing that a step destroys stands: recorded, lost with a reason, or still open. */
export interface HoldStanding {
  readonly item: HoldItem;
  readonly state: HoldState;
  readonly words: string;
}

/** How one step of the strip stands: done or not, what it waits for, what it would destroy. */
export interface StepStanding {
  readonly step: StripStep;
  readonly done: boolean;
  /** Steps that should come first and are not done. */
  readonly waitsFor: readonly StripStep[];
  readonly holds: readonly HoldStanding[];
}

/** The strip of a case as a whole: its plan in the order of the case, each step, and what is lost or at risk next. */
export interface StripStanding {
  readonly plan: StripPlan;
  readonly steps: readonly StepStanding[];
  readonly started: boolean;
  /** Items that the next possible steps would destroy. */
  readonly atRisk: readonly HoldItem[];
  readonly lost: readonly HoldItem[];
  /** Features that nothing can decide any more. */
  readonly lostFeatures: ReadonlySet<string>;
}

/** Where the strip stands: steps done, what each would destroy, what is lost. */
export const stripStanding: (view: CaseView) => StripStanding = memo('standing of the strip', (view: CaseView): StripStanding => {
  const plan = stripPlan(view.layout, view.stepOrder);
  const isDone = (id: string): boolean => view.steps.get(id)?.value.state === 'done';
  const guards = new Map<string, StripStep[]>();
  for (const s of plan.steps) for (const h of s.holds) guards.set(h.id, [...(guards.get(h.id) ?? []), s]);
  const standings = new Map<string, HoldStanding>();
  const standing = (item: HoldItem): HoldStanding => {
    const held = standings.get(item.id);
    if (held) return held;
    const made = judge(
      view,
      item,
      (guards.get(item.id) ?? []).every((s) => isDone(s.id)),
    );
    standings.set(item.id, made);
    return made;
  };
  const steps = plan.steps.map((step) => ({
    step,
    done: isDone(step.id),
    waitsFor: step.after.flatMap((id) => (plan.byId.has(id) && !isDone(id) ? [plan.byId.get(id)!] : [])),
    holds: step.holds.map(standing),
  }));
  const all = [...new Map(plan.steps.flatMap((s) => s.holds.map((h) => [h.id, h] as const))).values()].map(standing);
  const next = steps.filter((s) => !s.done && s.waitsFor.length === 0);
  const risk = new Map(next.flatMap((s) => s.holds.filter((h) => h.state === 'open').map((h) => [h.item.id, h.item] as const)));
  const result: StripStanding = {
    plan,
    steps,
    started: steps.some((s) => s.done),
    atRisk: [...risk.values()],
    lost: all.filter((h) => h.state === 'lost').map((h) => h.item),
    lostFeatures: featuresLost(all),
  };
  return result;
});

/** A feature is lost when some item that covers it is lost and none that covers it is recorded or can still be. */
function featuresLost(all: readonly HoldStanding[]): ReadonlySet<string> {
  const features = new Set(HOLD_RECORDS.flatMap((r) => r.features));
  const lost = new Set<string>();
  for (const f of features) {
    const covering = all.filter((h) => h.item.features.includes(f));
    if (covering.some((h) => h.state === 'lost') && covering.every((h) => h.state === 'lost' || h.state === 'gone')) lost.add(f);
  }
  return lost;
}

function judge(view: CaseView, item: HoldItem, guardsDone: boolean): HoldStanding {
  const said = view.holds.get(item.id)?.value;
  const found = evidenceOf(view, item);
  if (found === 'gone') return { item, state: 'gone', words: 'missing or altered before it came to us' };
  if (found !== null) return { item, state: 'recorded', words: found };
  if (said?.outcome === 'recorded') return { item, state: 'recorded', words: said.note || 'noted' };
  if (said?.outcome === 'lost') return { item, state: 'lost', words: said.note || 'passed over' };
  return guardsDone
    ? { item, state: 'lost', words: 'every step that destroys it is done' }
    : { item, state: 'open', words: 'not recorded yet' };
}

/** Words for what records an item by itself, null when nothing does yet. */
function evidenceOf(view: CaseView, item: HoldItem): string | null {
  const by = item.by;
  switch (by.kind) {
    case 'check': {
      const answers = [...view.checks.values()].filter(
        (a) =>
          a.value.check === by.check &&
          (a.value.text !== '' || a.value.chosen.length > 0) &&
          (!by.fields || by.fields.some((f) => a.value.field === f || a.value.field.startsWith(`${f}.`))),
      );
      return answers.length > 0
        ? answers
            .map((a) => a.value.text)
            .slice(0, 3)
            .join('; ')
        : null;
    }
    case 'photos': {
      const wanted = itemStations(
        item,
        view.stations.map((s) => s.station),
      );
      if (wanted.length === 0) return 'gone';
      const open = wanted.filter((id) => {
        const s = id === '' ? null : view.byId.get(id);
        return !s || (s.state !== 'before-us' && s.state !== 'not-present');
      });
      if (open.length === 0) return 'gone';
      const count = (id: string): number => (id === '' ? view.photos.length : (view.byId.get(id)?.photos.length ?? 0));
      const total = open.reduce((sum, id) => sum + count(id), 0);
      return open.every((id) => count(id) > 0) ? `${total} picture${total === 1 ? '' : 's'}` : null;
    }
    case 'bolts': {
      const pattern = stripPlan(view.layout).steps.find((s) => s.pattern?.id === by.pattern)?.pattern;
      const read = view.bolts.filter((b) => b.value.pattern === by.pattern && b.value.newtonMetre !== null).length;
      return pattern && read >= pattern.positions.length * 0.8 ? `${read} of ${pattern.positions.length} read` : null;
    }
    case 'cap': {
      const cap = view.caps.get(by.cap)?.value;
      return cap ? `${cap.number || 'no number'}, ${cap.agrees ? 'agrees' : 'does not agree'}` : null;
    }
    case 'easing':
      return view.easing.length >= 2 ? `${view.easing.length} readings` : null;
    case 'note':
      return null;
  }
}

/** Items that would be lost if these steps were done now: open, and guarded by no other step that is still to come. */
export function lostBySteps(standing: StripStanding, stepIds: readonly string[]): HoldItem[] {
  const gone = new Set(stepIds);
  const kept = new Set(standing.steps.filter((s) => !gone.has(s.step.id) && !s.done).flatMap((s) => s.step.holds.map((h) => h.id)));
  const open = standing.steps
    .filter((s) => gone.has(s.step.id))
    .flatMap((s) => s.holds.filter((h) => h.state === 'open' && !kept.has(h.item.id)).map((h) => h.item));
  return [...new Map(open.map((item) => [item.id, item])).values()];
}

/** Reasons already given in the strip of a case, the last first: most are given more than once. */
export function reasonsGiven(view: CaseView): string[] {
  const given = [...view.steps.values(), ...view.holds.values()].sort((a, b) => b.version.seq - a.version.seq);
  return [...new Set(given.map((g) => g.value.note.trim()).filter((note) => note !== '' && note !== 'not done after all'))];
}
