/** What every account says of itself at its end. */
export const STANDING_STATEMENT =
  'This account states what was seen and measured on the parts named in it. The work defers to the engine maker’s data, to local codes and to licensed practice; ' +
  'where these differ from this account, they apply. Suggestions of cause are weighed by stated rules and confirmed or overruled by the builder.';

/** What the account’s words of confidence stand for. */
export const CONFIDENCE_WORDS =
  'Practically certain: 90 % or more. Probable: 70 to 90 %. Possible: 40 to 70 %. Less likely: 10 to 40 %. Unlikely: under 10 %.';

/** The text, or a dash where there is none. */
export const orDash = (text: string): string => (text.trim() === '' ? '–' : text);

export const COMPLAINTS: Readonly<Record<string, string>> = {
  knock: 'Knock',
  seized: 'Seized',
  'low-pressure': 'Low oil pressure',
  smoke: 'Smoke',
  'loss-of-power': 'Loss of power',
  overheating: 'Overheating',
  'metal-in-oil': 'Metal in oil',
  'oil-level-rising': 'Oil level rising',
  'oil-level-falling': 'Oil level falling',
  leak: 'Leak',
  'no-start': 'Does not start',
  'noise-after-repair': 'Noise after repair',
  none: 'None, planned inspection',
};
export const ONSETS: Readonly<Record<string, string>> = {
  sudden: 'Sudden',
  gradual: 'Gradual',
  'after-work': 'After work on the engine',
  'after-start-up': 'After start-up',
};
export const COMPLAINT_PLACES: Readonly<Record<string, string>> = {
  top: 'Top',
  bottom: 'Bottom',
  front: 'Front end',
  rear: 'Flywheel end',
  'one-cylinder': 'One cylinder',
  everywhere: 'Everywhere',
};
export const COMPLAINT_WHENS: Readonly<Record<string, string>> = {
  cold: 'Cold',
  hot: 'Hot',
  load: 'Under load',
  idle: 'At idle',
  always: 'Always',
};
export const SMOKES: Readonly<Record<string, string>> = { blue: 'Blue', white: 'White', black: 'Black' };
export const FAMILY_EXPERIENCE: Readonly<Record<string, string>> = {
  none: 'None: no pattern experience of this engine family is held',
  some: 'Some: seen before in this shop',
  held: 'Known: many seen in this shop',
};
export const AFTER_SIGNS: Readonly<Record<string, string>> = {
  stopped: 'Stopped at once',
  'driven-on': 'Run on',
  restarted: 'Stopped, then restarted',
  unknown: 'Not known',
};
export const QUESTION_OWNERS: Readonly<Record<string, string>> = {
  private: 'Private client',
  warranty: 'Maker’s warranty',
  insurer: 'Insurer',
  own: 'Own engine',
  inspection: 'Planned inspection',
};

/** Words for the codes of a list kept as text, parted by commas. */
export function coded(table: Readonly<Record<string, string>>, value: string): string {
  return orDash(
    value
      .split(',')
      .map((v) => table[v] ?? v)
      .filter(Boolean)
      .join(', '),
  );
}
