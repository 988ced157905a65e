import { readCaseFile } from '../bundle/caseFile/read.js';
import type { CaseFile } from '../bundle/caseFile/format.js';
import { stripStanding } from '../case/stripStanding.js';
import type { CaseView } from '../case/views.js';
import { feature } from '../cause/data/features.js';
import { diagnose, type Diagnosis } from '../diagnosis/diagnose.js';
import { stationsOf } from '../engine/stations.js';
import { STEP_MINUTES, stepsTo } from '../strip/laidBare.js';
import { stripPlan } from '../strip/plan.js';
import type { HiddenEngine } from './hidden.js';
import { lookOfFeature, lookStands, practiceLooks, type PracticeLook } from './looks.js';
import { notedBy } from './shown.js';
import { storyOf } from './story.js';

/** How an engine was stripped by a rule. */
export interface StrippedBy {
  readonly minutes: number;
  readonly looks: number;
  /** Causes that are in the engine and lead the list, of those that are in it. An engine with none is found where nothing reaches the mark. */
  readonly found: number;
  readonly of: number;
  /** The cause that leads is one that is in the engine. */
  readonly leadingRight: boolean;
  /** Mean over the hidden causes of the natural logarithm of the chance the evidence gave them. */
  readonly logScore: number;
  /** Features that nothing can decide any more: what showed them was passed over. */
  readonly lost: number;
}

/** The case file of an engine after some looks, written by somebody who sees and names everything rightly. */
export function fileAfter(hidden: HiddenEngine, looks: readonly PracticeLook[], done: readonly string[]): CaseFile {
  const story = storyOf(hidden);
  const notes = looks.map((l) => notedBy(hidden, l));
  const all = <K extends 'checks' | 'findings' | 'sound' | 'history' | 'evidence'>(key: K): NonNullable<CaseFile[K]>[number][] =>
    notes.flatMap((n) => (n[key] ?? []) as NonNullable<CaseFile[K]>[number][]);
  const said = new Set(looks.map((l) => l.id));
  return {
    format: 'true-ledger/case',
    version: 2,
    engine: { template: hidden.layout.template },
    intake: story.intake,
    // What he was asked about again is said once.
    history: [...story.history.filter((h) => !said.has(`ask:${h.feature}`)), ...all('history')],
    states: Object.fromEntries(hidden.goneBefore.map((id) => [id, 'before-us' as const])),
    sound: all('sound'),
    findings: all('findings'),
    evidence: all('evidence'),
    checks: all('checks'),
    strip: { done: [...done] },
  };
}

/** The case after some looks. */
export function viewAfter(hidden: HiddenEngine, looks: readonly PracticeLook[], done: readonly string[]): CaseView {
  const read = readCaseFile(fileAfter(hidden, looks, done));
  if (!read.ok) throw new Error(`a practice engine wrote what cannot be read: ${read.problem.sentence} (${read.problem.field})`);
  return read.value.view;
}

/** Chance at which a cause is taken to be found, and the strip ends. */
const SURE = 0.8;

/** Strips as most do: everything before opening, then step by step, every part as it is laid bare, until one cause is sure or all is seen. */
export function stripPlainly(hidden: HiddenEngine): StrippedBy {
  const looks = practiceLooks(hidden.layout).filter((l) => l.kind !== 'measure' && l.kind !== 'ask');
  const made: PracticeLook[] = [];
  const done: string[] = [];
  // The differential is asked now and then, after every fourth step.
  const sure = (): boolean => (diagnose(viewAfter(hidden, made, done)).causes[0]?.probability ?? 0) >= SURE;
  for (const check of looks.filter((l) => l.kind === 'check')) made.push(check);
  for (const step of stripPlan(hidden.layout).steps) {
    if (done.length % 4 === 3 && sure()) break;
    done.push(step.id);
    const view = viewAfter(hidden, [], done);
    made.push(...looks.filter((l) => l.after === step.id && isWorthALook(hidden, l) && lookStands(view, l).open));
  }
  return told(hidden, made, done);
}

/** Running parts, and what the oil and the pan hold; what stands beside them nobody looks at one by one. */
function isWorthALook(hidden: HiddenEngine, look: PracticeLook): boolean {
  return look.kind !== 'part' || !stationsOf(hidden.layout).find((s) => `part:${s.id}` === look.id)!.aside;
}

/** Looks where the differential says it tells most a minute, opening no more than it needs and recording first what that destroys, until one cause is sure or nothing is worth asking. */
export function stripByNextCheck(hidden: HiddenEngine, most = 90): StrippedBy {
  const looks = practiceLooks(hidden.layout);
  const plan = stripPlan(hidden.layout);
  const made: PracticeLook[] = [];
  const done: string[] = [];
  /** Had, or found gone. */
  const tried = new Set<PracticeLook>();
  const look = (l: PracticeLook): void => {
    tried.add(l);
    if (lookStands(viewAfter(hidden, [], done), l).open) made.push(l);
  };
  for (let n = 0; n < most; n++) {
    const view = viewAfter(hidden, made, done);
    const d = diagnose(view);
    if ((d.causes[0]?.probability ?? 0) >= SURE) break;
    const opens = (l: PracticeLook): number => (l.after ? stepsTo(plan, l.after, new Set(done)).length : 0);
    const next = d.nextChecks
      .flatMap((check) => {
        const left = looksFor(hidden, looks, check.feature).filter((l) => !tried.has(l));
        return left.sort((a, b) => opens(a) - opens(b)).map((l) => ({ check, look: l }));
      })
      .at(0);
    if (!next) break;
    const recording = next.check.first.flatMap((r) => r.tells.flatMap((f) => lookOfFeature(hidden.layout, f) ?? []));
    for (const l of new Set(recording)) if (!tried.has(l)) look(l);
    if (next.look.after) done.push(...stepsTo(plan, next.look.after, new Set(done)).map((s) => s.id));
    look(next.look);
  }
  return told(hidden, made, done);
}

/** Looks that decide a feature: the check that shows it, its own, or the parts it lies on. */
function looksFor(hidden: HiddenEngine, looks: readonly PracticeLook[], id: string): PracticeLook[] {
  const f = feature(id)!;
  const own = lookOfFeature(hidden.layout, id);
  if (own && (own.kind === 'check' || (!f.parts && f.kind !== 'spread'))) return [own];
  const stations = stationsOf(hidden.layout).filter(
    (s) => (f.parts ? f.parts.includes(s.part) : !s.aside) && !hidden.goneBefore.includes(s.id),
  );
  return stations.flatMap((s) => looks.filter((l) => l.id === `part:${s.id}`));
}

function told(hidden: HiddenEngine, made: readonly PracticeLook[], done: readonly string[]): StrippedBy {
  const view = viewAfter(hidden, made, done);
  return {
    minutes: made.reduce((sum, l) => sum + l.minutes, 0) + done.length * STEP_MINUTES,
    looks: made.length,
    ...foundOf(hidden, diagnose(view)),
    lost: stripStanding(view).lostFeatures.size,
  };
}

/** How right a differential is about a hidden engine. */
function foundOf(hidden: HiddenEngine, d: Diagnosis): Pick<StrippedBy, 'found' | 'of' | 'leadingRight' | 'logScore'> {
  const inIt = hidden.causes.map((c) => c.cause);
  const leading = d.causes.slice(0, Math.max(1, inIt.length));
  const chance = (id: string): number => Math.max(1e-4, d.causes.find((c) => c.id === id)?.probability ?? 0);
  const none = inIt.length === 0;
  return {
    found: none ? Number((leading[0]?.probability ?? 0) < 0.5) : inIt.filter((id) => leading.some((c) => c.id === id)).length,
    of: none ? 1 : inIt.length,
    leadingRight: none ? (leading[0]?.probability ?? 0) < 0.5 : inIt.includes(d.causes[0]?.id ?? ''),
    logScore: none
      ? Math.log(Math.max(1e-4, 1 - (leading[0]?.probability ?? 0)))
      : inIt.reduce((s, id) => s + Math.log(chance(id)), 0) / inIt.length,
  };
}
