import { isExamined, standingGrade, type CaseView } from '../case/views.js';
import { STRENGTH, type Cause, type Feature } from '../cause/types.js';
import type { EvidenceItem } from './evidenceItem.js';
import { isPerished } from './nextCheck.js';

export interface UnexplainedFinding {
  readonly station: string;
  readonly name: string;
  readonly grade: number;
  readonly why: string;
  /** A pattern or sight was named there; else only a grade stands. */
  readonly named: boolean;
}

/** A finding tells a cause where the cause usually brings it about and little else does. Judgement. */
const TELLS = { link: STRENGTH.usually, leak: 0.05 } as const;

/** What would tell the leading cause and can no longer be looked at: the part itself is gone, and nobody saw it. */
export function goneThatWouldTell(
  view: CaseView,
  leader: Cause,
  features: ReadonlyMap<string, Feature>,
  items: ReadonlyMap<string, EvidenceItem>,
): string[] {
  return leader.links.flatMap((link) => {
    const f = features.get(link.feature);
    const tells = f && !link.prevents && STRENGTH[link.strength] >= TELLS.link && f.leak <= TELLS.leak;
    return tells && !items.has(f.id) && isPerished(view, f) ? [f.name] : [];
  });
}

/** What other damage brings about with this chance or more is accounted for. */
const EXPLAINED = 0.3;

/** Findings of grade 2 or more that neither a believed cause nor other damage accounts for. */
export function unexplainedFindings(
  view: CaseView,
  evidence: readonly EvidenceItem[],
  believed: readonly Cause[],
  explained: ReadonlyMap<string, number>,
): UnexplainedFinding[] {
  return view.stations.flatMap((s): UnexplainedFinding[] => {
    const grade = isExamined(s) ? standingGrade(s) : null;
    if (grade === null || grade < 2) return [];
    const own = evidence.filter(
      (e) => e.present && e.feature.kind !== 'spread' && e.sources.some((source) => source.station === s.station.id),
    );
    if (own.length === 0)
      return [
        { station: s.station.id, name: s.station.name, grade, why: 'graded, but no pattern is named and nothing is drawn', named: false },
      ];
    const accounted = (id: string): boolean =>
      (explained.get(id) ?? 0) >= EXPLAINED || believed.some((c) => c.links.some((l) => l.feature === id && !l.prevents));
    const orphan = own.filter((e) => !(e.feature.of ?? [e.feature.id]).some(accounted));
    return orphan.length === own.length
      ? [
          {
            station: s.station.id,
            name: s.station.name,
            grade,
            why: `${orphan.map((e) => e.feature.name.toLowerCase()).join(', ')}: no believed cause does this`,
            named: true,
          },
        ]
      : [];
  });
}
