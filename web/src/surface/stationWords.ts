import { gradeText } from '@true-ledger/core/damage';
import { standingGrade, type StationView } from '@true-ledger/core/case';
import { STATE_WORDS } from './GradeMark.js';

/** A place in one line: grade, lining, edge; or why there is no grade. */
export function stationWords(view: StationView): string {
  const g = standingGrade(view);
  if (g === null) return view.state === 'findings' ? 'findings, not graded' : STATE_WORDS[view.state];
  const w = view.summary;
  const lining = w && w.percent.lining >= 0.5 ? `, lining exposed ${Math.round(w.percent.lining)} %` : '';
  const edge =
    w && w.edgeBias !== null && Math.max(w.edgeShare.front, w.edgeShare.rear) > 0.6
      ? `, ${w.edgeShare.rear > w.edgeShare.front ? 'rear' : 'front'} edge`
      : '';
  return `grade ${gradeText(g)}${view.grade || g === 0 ? '' : ' (proposed)'}${lining}${edge}`;
}
