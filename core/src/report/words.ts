import type { CaseView } from '../case/views.js';
import { INTAKE_CHOICES, type IntakeChoice } from '../entries/intakeChoices.js';

/** What every account says of itself at its end. */
export const STANDING_STATEMENT =
  'This account states what was seen and measured on the parts named in it. The work defers to the engine maker’s data, to local codes and to licensed practice; ' +
  'where these differ from this account, they apply. Suggestions of cause are weighed by stated rules and confirmed or overruled by the builder.';

/** What the account’s words of confidence stand for. */
export const CONFIDENCE_WORDS =
  'Practically certain: 90 % or more. Probable: 70 to 90 %. Possible: 40 to 70 %. Less likely: 10 to 40 %. Unlikely: under 10 %.';

/** The text, or a dash where there is none. */
export const orDash = (text: string): string => (text.trim() === '' ? '–' : text);

/** What was picked in a field of the intake, in words; a dash where nothing was. A code of an older list stands as it is. */
export function coded(field: IntakeChoice, view: CaseView): string {
  const words: Readonly<Record<string, string>> = INTAKE_CHOICES[field];
  return orDash(
    view
      .intake(field)
      .split(',')
      .map((code) => words[code] ?? code)
      .filter(Boolean)
      .join(', '),
  );
}
