import { caseFacts, type CaseFacts } from '@true-ledger/core/across';
import { benchPlan, engineTemplate, unrolledBench } from '@true-ledger/core/engine';
import type { CaseState } from '@true-ledger/core/ledger';
import { caseView, coverage, isExamined, standingGrade, type CaseView } from '@true-ledger/core/case';
import { answerItems, diagnose, releaseCheck, type Diagnosis } from '@true-ledger/core/diagnosis';
import { MACHINE_WORK } from '@true-ledger/core/workshop';
import { WAITS, type CaseSummary, type Waits } from '@true-ledger/contract';

export type StoredSummary = Omit<CaseSummary, 'id' | 'number' | 'title' | 'reference' | 'updated' | 'behind'>;

/** What the shelf shows of a case whose figures are not computed yet. */
export function blankSummary(drafts: ReadonlyArray<{ readonly kind: string; readonly body: unknown }>): StoredSummary {
  const opened = drafts.find((d) => d.kind === 'case-opened')?.body as { demo?: boolean } | undefined;
  return {
    engine: '',
    stage: 'Intake',
    waitingOn: '',
    signed: 0,
    coverage: 0,
    unexplained: 0,
    leading: null,
    leadingProbability: null,
    demo: opened?.demo === true,
  };
}

/** What is kept beside a case: what the shelf shows, and what is counted across cases; null while it has no engine, and of a practice engine. */
export interface CaseFigures {
  readonly summary: StoredSummary;
  readonly facts: CaseFacts | null;
}

export function figuresOf(state: CaseState): CaseFigures {
  const view = caseView(state);
  return { summary: summarise(state), facts: view && !view.practice ? caseFacts(view) : null };
}

/** Searchable figures kept beside a case; computed from the fold in a thread after it has grown, never edited by hand. */
export function summarise(state: CaseState): StoredSummary {
  const view = caseView(state);
  if (!view) return { ...blankSummary([]), waitingOn: 'engine layout' };
  const d = diagnose(view);
  const seen = coverage(view);
  const lead = d.causes[0];
  const opened = state.groups['']?.['case']?.at(-1)?.body as { demo?: boolean } | undefined;
  return {
    engine: engineTemplate(view.layout.template)?.name ?? view.layout.template,
    stage: stageOf(view),
    ...(view.shelved && view.shelved.value.as !== 'in-hand' ? { shelved: view.shelved.value.as } : {}),
    waitingOn: waitingOn(view, d),
    waits: waits(view),
    writers: writers(state),
    signed: view.signed.at(-1)?.value.version ?? 0,
    coverage: seen.examined / Math.max(1, seen.total),
    unexplained: d.unexplained.length,
    leading: lead && seen.examined > 0 ? lead.name : null,
    leadingProbability: lead && seen.examined > 0 ? lead.probability : null,
    demo: opened?.demo === true,
    bench: unrolledInSmall(view),
  };
}

/** The engine unrolled with its grades, five figures a place. */
function unrolledInSmall(view: CaseView): NonNullable<StoredSummary['bench']> {
  const bench = unrolledBench(view.layout, benchPlan(view.layout), 'cylinder');
  return {
    widthMm: Math.round(bench.widthMm),
    heightMm: Math.round(bench.heightMm),
    cells: bench.cells.flatMap((c) => [...[c.x, c.y, c.width, c.height].map(Math.round), gradeAt(view, c.station.id) ?? -1]),
  };
}

function gradeAt(view: CaseView, id: string): number | null {
  const station = view.byId.get(id);
  return station && isExamined(station) ? standingGrade(station) : null;
}

/**
 * Whom or what it waits for outside: questions nobody answered; and, once a route is chosen, the machine shop and the parts, until the engine begins to go
 * together. Of machine work and parts nobody writes that they came; the first step of the assembly says so.
 */
function waits(view: CaseView): Waits[] {
  const asked = new Set(openQuestions(view).map((q) => q.value.to.replace('-', ' ')));
  const begun = [...view.assembly.values()].some((s) => s.value.state === 'done');
  const operations = view.plan?.route && !begun ? view.dispositions.map((d) => d.value.operation) : [];
  return WAITS.filter(
    (w) =>
      asked.has(w) ||
      (w === 'machine shop' && operations.some((o) => MACHINE_WORK.has(o))) ||
      (w === 'parts' && (wantedParts(view) > 0 || operations.some((o) => o === 'replace' || o === 'scrap'))),
  );
}

const wantedParts = (view: CaseView): number => view.stations.filter((s) => s.wanted?.value.state === 'wanted').length;

/** Accounts of this shop that wrote what stands in it. */
function writers(state: CaseState): string[] {
  const authors = Object.values(state.groups).flatMap((group) => Object.values(group).flatMap((slot) => slot.map((v) => v.author)));
  return [...new Set(authors.filter((a) => a.shop === undefined).map((a) => a.id))].sort();
}

function openQuestions(view: CaseView): CaseView['questions'] {
  return view.questions.filter((q) => q.value.answer === null && q.value.text !== '');
}

/** What the case waits for: whoever was asked, else the first thing on the way that is not done. */
function waitingOn(view: CaseView, d: Diagnosis): string {
  const asked = openQuestions(view).map((q) => q.value.to.replace('-', ' '));
  if (asked.length > 0) return `${[...new Set(asked)].join(', ')}: ${asked.length} question${asked.length === 1 ? '' : 's'}`;
  const parts = wantedParts(view);
  if (parts > 0) return `parts: ${parts} wanted`;
  if (!view.intake('complaint')) return 'intake';
  const blank = view.stations.filter((s) => s.state === 'not-examined').length;
  const confirmed = view.decisions.some((x) => x.value.decision === 'confirmed');
  if (!confirmed && !view.report('conclusion')) return blank > 0 ? `${blank} places to look at` : 'a cause';
  if (!view.report('conclusion')) return 'conclusion';
  if (confirmed && !view.released) {
    const open = answerItems(view).filter((i) => i.state === 'open' || i.state === 'planned').length;
    if (open > 0) return `${open} action${open === 1 ? '' : 's'} or check${open === 1 ? '' : 's'}`;
    if (!view.plan?.route) return 'a route';
    if (view.signed.length > 0) return releaseCheck(view, d).ready ? 'release' : 'what stands against release';
  }
  const outside = waits(view);
  return view.signed.length === 0 ? 'signature' : outside.length > 0 ? outside.join(', ') : 'nothing';
}

/** Where the case is: the last stage with something in it. */
function stageOf(view: CaseView): string {
  if (view.report('conclusion') || view.signed.length > 0) return 'Document';
  if (view.plan?.route || view.dispositions.length > 0) return 'Decide';
  if (view.decisions.length > 0) return 'Cause';
  if (view.stations.some((s) => s.readings.length > 0)) return 'Measure';
  if (view.stations.some(isExamined)) return 'Bench';
  if ([...view.steps.values()].some((x) => x.value.state === 'done')) return 'Strip';
  if (view.checks.size > 0) return 'Before opening';
  return 'Intake';
}
