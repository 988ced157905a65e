import type { Explanation } from './explain.js';
import type { WearForm } from './setting.js';

/** The best likeness of each form at one bearing, 0 to 1. */
export interface FormLikeness {
  readonly form: WearForm;
  readonly alike: number;
}

/**
 * What likeness is worth, form by form: log-odds = a + b · likeness + c · lead over the likest other form. Logistic regression on worlds drawn by `scripts/wearLikeness.mjs`: wear of the form among
 * that of all others and among wear that none of them leaves, as pictures show it. Found on three engines and tried on three others (docs/methods/likeness.md).
 */
const FIGURES: Readonly<Record<WearForm, readonly [a: number, b: number, c: number]>> = {
  combustion: [-0.31, 4.41, 5.26],
  'over-speed': [-4.24, 7.85, 6.34],
  'thin-film': [-1.28, 4.95, 4.16],
  dry: [-15.97, 18.33, 4.51],
  'bent-rod': [-2.29, 5.06, 3.28],
  'twisted-rod': [0.29, 2.63, 5.6],
  'bent-crank': [-2.45, 4.94, 7.23],
  'cap-aside': [-2.96, 5.59, 2.65],
};

/** The best way of running of each form, the likest first; forms that predict no wear, or of which too little was seen, are left out. */
export function likestByForm(ways: readonly Explanation[]): Array<Explanation & FormLikeness> {
  const best = new Map<WearForm, Explanation & FormLikeness>();
  for (const way of ways)
    if (way.form !== null && way.alike !== null && way.alike > (best.get(way.form)?.alike ?? -1))
      best.set(way.form, { ...way, form: way.form, alike: way.alike });
  return [...best.values()].sort((a, b) => b.alike - a.alike);
}

/** Natural logarithm of the likelihood ratio of each form at one bearing: how much likelier its likeness is where the form is there than where it is not. */
export function likenessLogOdds(forms: readonly FormLikeness[]): Map<WearForm, number> {
  return new Map(
    forms.map(({ form, alike }) => {
      const rival = Math.max(0, ...forms.filter((other) => other.form !== form).map((other) => other.alike));
      const [a, b, c] = FIGURES[form];
      return [form, a + b * alike + c * (alike - rival)];
    }),
  );
}
