import {
  benchPlan,
  caseView,
  coverage,
  diagnose,
  engineTemplate,
  isExamined,
  standingGrade,
  type CaseState,
  type CaseView,
} from '@true-ledger/core';
import type { CaseSummary } from '@true-ledger/contract';

export type StoredSummary = Omit<CaseSummary, 'id' | 'number' | 'updated'>;

/** Searchable figures kept beside a case; rebuilt from the fold at every append, never edited by hand. */
export function summarise(state: CaseState): StoredSummary {
  const view = caseView(state);
  if (!view)
    return {
      title: '',
      reference: '',
      engine: '',
      stage: 'Intake',
      coverage: 0,
      unexplained: 0,
      leading: null,
      leadingProbability: null,
      demo: false,
      strip: [],
    };
  const d = diagnose(view);
  const seen = coverage(view);
  const lead = d.causes[0];
  const opened = state.groups['']?.['case']?.at(-1)?.body as { demo?: boolean } | undefined;
  return {
    title: view.title,
    reference: view.intake('reference'),
    engine: engineTemplate(view.layout.template)?.name ?? view.layout.template,
    stage: stageOf(view),
    coverage: seen.examined / Math.max(1, seen.total),
    unexplained: d.unexplained.length,
    leading: lead && seen.examined > 0 ? lead.name : null,
    leadingProbability: lead && seen.examined > 0 ? lead.probability : null,
    demo: opened?.demo === true,
    strip: benchPlan(view.layout)
      .rows.filter((r) => r.kind === 'shell' || r.kind === 'journal' || r.kind === 'bore')
      .flatMap((r) => r.cells.map((c) => ({ station: c.station.id, grade: gradeAt(view, c.station.id) }))),
  };
}

function gradeAt(view: CaseView, id: string): number | null {
  const station = view.byId.get(id);
  return station && isExamined(station) ? standingGrade(station) : null;
}

/** Where the case is: the last stage with something in it. */
function stageOf(view: CaseView): string {
  if (view.report('conclusion')) return 'Document';
  if (view.decisions.length > 0) return 'Cause';
  if (view.stations.some((s) => s.readings.length > 0)) return 'Measure';
  if (view.stations.some(isExamined)) return 'Bench';
  return 'Intake';
}
