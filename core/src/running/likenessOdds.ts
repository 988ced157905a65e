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
  combustion: [-1.09, 4.53, 3.69],
  'over-speed': [-5.09, 7.93, 7.27],
  'thin-film': [-1.89, 4.83, 1.88],
  dry: [-8.28, 10.17, 1.79],
  'bent-rod': [-2.03, 4.53, 4.87],
  'twisted-rod': [-0.96, 4.27, 5.77],
  'bent-crank': [-4.83, 7.75, 3.59],
  'cap-aside': [-2.41, 4.45, 3.02],
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
