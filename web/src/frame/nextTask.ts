import { readAgainstSound } from '@true-ledger/core/case';
import { gradeText } from '@true-ledger/core/damage';
import type { OpenCase } from '../app/caseContext.js';

/** What is best done next, where that is done, and why. */
export interface NextTask {
  readonly to: string;
  /** In two or three words, for a button. */
  readonly what: string;
  readonly title: string;
}

/** The next step that brings the case on: what the client asked, then what shows damage and has no grade, then what is called sound over a picture that reads otherwise, then the look or test that would tell most, then the account. */
export function nextTask({ caseId, view, diagnosis }: OpenCase): NextTask {
  const at = (to: string): string => `/case/${caseId}/${to}`;
  if (!view.intake('complaint')) return { to: at('intake'), what: 'intake', title: 'Write down what the client complains of' };
  const ungraded = view.stations.find((s) => s.state === 'findings' && !s.grade);
  if (ungraded)
    return {
      to: at(`station/${ungraded.station.id}`),
      what: 'grade it',
      title: `${ungraded.station.name} shows damage and has no grade that was confirmed`,
    };
  const against = view.stations.find((s) => readAgainstSound(s) !== null);
  if (against)
    return {
      to: at(`station/${against.station.id}`),
      what: 'look again',
      title: `${against.station.name} is marked sound, and its picture reads ${gradeText(readAgainstSound(against)!)}`,
    };
  const check = diagnosis?.nextChecks[0];
  if (check) return { to: at('cause'), what: 'a check', title: check.name };
  return { to: at('document'), what: 'the account', title: 'Nothing more would tell much: write the account' };
}
