import type { CaseView } from '../case/views.js';
import { stripStanding } from '../case/stripStanding.js';
import { feature, FEATURES } from '../cause/data/features.js';
import type { EngineLayout } from '../engine/layout.js';
import { stationsOf, type Station } from '../engine/stations.js';
import { applies, engineTags } from '../engine/tags.js';
import { memo } from '../kit/memo.js';
import { checksFor, featuresOf } from '../opening/checks.js';
import { HOLD_RECORDS } from '../strip/holds.js';
import { apartBy, laidBareBy, measuredAfter } from '../strip/laidBare.js';
import { stripPlan } from '../strip/plan.js';

/** One thing an apprentice can spend minutes on: a check before opening, a part, a question to the owner, or something to be measured. */
export interface PracticeLook {
  /** `check:dipstick`, `part:rod.2.shell.upper`, `ask:told.ran-on`, `measure:measured.taper`. */
  readonly id: string;
  readonly kind: 'check' | 'part' | 'ask' | 'measure';
  readonly name: string;
  readonly minutes: number;
  /** Step of the strip that lays it bare; null: it can be had at once. */
  readonly after: string | null;
}

/** Minutes of a look at one part among many of its kind, and of a reading. Judgement. */
const PART_MINUTES = 2;
export const READING_MINUTES = 1;

/** Everything that can be looked at in an engine, in the order a strip comes to it. */
export const practiceLooks: (layout: EngineLayout) => readonly PracticeLook[] = memo('looks of an engine', (layout: EngineLayout) => {
  const tags = engineTags(layout);
  const known = FEATURES.filter((f) => applies(f.needs, tags) && !f.of && !f.likened);
  const inChecks = new Set(checksFor(layout).flatMap(featuresOf));
  const stations = stationsOf(layout);
  const many = (s: Station): boolean => stations.filter((x) => x.part === s.part).length > 2;
  const minutesOf = (s: Station): number =>
    many(s) ? PART_MINUTES : Math.max(PART_MINUTES, ...known.flatMap((f) => (f.parts?.includes(s.part) ? [f.check.minutes] : [])));
  const order = new Map(stripPlan(layout).steps.map((step, i) => [step.id, i]));
  const looks: PracticeLook[] = [
    ...known.flatMap((f): PracticeLook[] =>
      f.kind === 'told' && !inChecks.has(f.id)
        ? [{ id: `ask:${f.id}`, kind: 'ask', name: f.check.step, minutes: f.check.minutes, after: null }]
        : [],
    ),
    ...checksFor(layout).map((c): PracticeLook => ({ id: `check:${c.id}`, kind: 'check', name: c.name, minutes: c.minutes, after: null })),
    ...stations.map((s): PracticeLook => ({
      id: `part:${s.id}`,
      kind: 'part',
      name: s.name,
      minutes: minutesOf(s),
      after: laidBareBy(layout, s),
    })),
    ...known.flatMap((f): PracticeLook[] =>
      (f.kind === 'measured' || f.kind === 'fluid') && !inChecks.has(f.id)
        ? [{ id: `measure:${f.id}`, kind: 'measure', name: f.check.step, minutes: f.check.minutes, after: measuredAfter(layout, f.id) }]
        : [],
    ),
  ];
  return looks.sort((a, b) => (a.after ? order.get(a.after)! + 1 : 0) - (b.after ? order.get(b.after)! + 1 : 0));
});

/** A look by its id; undefined where this engine has none such. */
export const practiceLook = (layout: EngineLayout, id: string): PracticeLook | undefined => practiceLooks(layout).find((l) => l.id === id);

/** Steps of the strip that are done. */
export const doneNow = (view: CaseView): ReadonlySet<string> =>
  new Set([...view.steps].flatMap(([id, s]) => (s.value.state === 'done' ? [id] : [])));

/** Whether a look can be had as the strip stands; else why not, in words. `gone`: it never comes back. `everDone`: steps that were done once, though they were opened again: what they destroyed does not come back by that. */
export function lookStands(
  view: CaseView,
  look: PracticeLook,
  everDone: ReadonlySet<string> = doneNow(view),
): { readonly open: true } | { readonly open: false; readonly gone: boolean; readonly why: string } {
  const standing = stripStanding(view);
  const isDone = (id: string): boolean => view.steps.get(id)?.value.state === 'done';
  if (look.after && !isDone(look.after))
    return {
      open: false,
      gone: false,
      why: `${look.name} is not laid bare yet: it comes with the step “${standing.plan.byId.get(look.after)!.name}”.`,
    };
  if (look.kind === 'check') {
    const id = look.id.slice('check:'.length);
    // What a check shows is gone when every step that destroys it is done.
    const destroyed = HOLD_RECORDS.filter((r) => {
      const by = r.by('');
      return by.kind === 'check' && by.check === id;
    }).map((r) => r.kindOf);
    const guards = standing.steps.filter((s) => s.step.holds.some((h) => destroyed.includes(h.kindOf)));
    if (guards.length > 0 && guards.every((s) => everDone.has(s.step.id)))
      return {
        open: false,
        gone: true,
        why: `${look.name}: passed over. ${guards.at(-1)!.step.name} is done, and it cannot be seen any more.`,
      };
    const turned = ['compression', 'leak-down', 'oil-pressure', 'turning'].includes(id) && everDone.has(apartBy(view.layout) ?? '');
    if (turned) return { open: false, gone: true, why: `${look.name}: the engine is apart and cannot be turned any more.` };
  }
  const station = look.kind === 'part' ? view.byId.get(look.id.slice('part:'.length)) : undefined;
  if (station && (station.state === 'before-us' || station.state === 'lost' || station.state === 'not-present'))
    return { open: false, gone: true, why: `${look.name} was altered or gone before it came: there is nothing to look at.` };
  return { open: true };
}

/** What a look that was asked for by a feature is called in the list of looks; undefined where the feature lies on parts. */
export const lookOfFeature = (layout: EngineLayout, id: string): PracticeLook | undefined => {
  const f = feature(id);
  const check = checksFor(layout).find((c) => featuresOf(c).includes(id));
  return check ? practiceLook(layout, `check:${check.id}`) : practiceLook(layout, f?.kind === 'told' ? `ask:${id}` : `measure:${id}`);
};
