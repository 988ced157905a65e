import { GRADE_INFO, gradeText, type Grade } from '@true-ledger/core/damage';
import type { StationState } from '@true-ledger/core/entries';
import type { ReactNode } from 'react';
import { COLOUR } from '../app/tokens.js';
import './surface.css';

export const STATE_WORDS: Readonly<Record<StationState, string>> = {
  'not-examined': 'not examined',
  sound: 'sound',
  findings: 'findings',
  'before-us': 'altered or missing before it came to us',
  lost: 'lost during the strip',
  'not-present': 'not present',
};

/** Grade as numeral, notches and layer colour together; hatch where not examined, stripe where lost. */
export function GradeMark({
  grade,
  state,
  confirmed = true,
  size = 20,
}: {
  grade: Grade | null;
  state: StationState;
  confirmed?: boolean;
  size?: number;
}): ReactNode {
  if (grade === null) {
    const word = STATE_WORDS[state];
    return (
      <span
        className={`grade-mark ${state === 'findings' ? 'ungraded' : state}`}
        style={{ width: size, height: size }}
        role="img"
        aria-label={word}
        title={word}
      />
    );
  }
  const dark = grade >= 3;
  return (
    <span
      className="grade-mark graded"
      data-text={grade}
      role="img"
      aria-label={`grade ${gradeText(grade)}${confirmed ? '' : ', proposed'}`}
      title={`${gradeText(grade)}${confirmed || grade === 0 ? '' : ' (proposed)'}`}
      style={{
        width: size,
        height: size,
        background: GRADE_INFO[grade].colour,
        color: dark ? COLOUR.white : COLOUR.ink,
        outline: confirmed || grade === 0 ? undefined : `1px dashed ${COLOUR.accent}`,
      }}
    >
      <i aria-hidden="true" style={{ width: `${grade * 22}%`, background: dark ? COLOUR.white : COLOUR.ink }} />
    </span>
  );
}
