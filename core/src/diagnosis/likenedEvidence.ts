import { isExamined, type CaseView } from '../case/views.js';
import { foundWear, foundWearOf } from '../case/foundWear.js';
import type { EntryBodies } from '../entries/entries.js';
import type { Sourced } from '../ledger/state.js';
import { bearingsOf } from '../engine/bearings.js';
import { formsAt, WEAR_FORM_NAMES, WEAR_FORMS, type RunSetting, type WearForm } from '../running/setting.js';
import { likenessLogOdds } from '../running/likenessOdds.js';
import type { Put } from './evidenceItem.js';

/** Most a likeness may count, as a likelihood ratio: what a named sight does (0.95 to 0.05). */
export const MOST_LIKENED = 19;
/** Less than this says nothing, as a natural logarithm: half a deciban. */
const LEAST = 0.115;

type Likened = Sourced<EntryBodies['wear-likened']>;

/** Bearings whose likeness belongs to what was read of them and confirmed, and those read anew or not confirmed since. */
export function likenedBearings(view: CaseView): { readonly standing: readonly Likened[]; readonly stale: readonly Likened[] } {
  const stands = ({ value }: Likened): boolean =>
    value.of === foundWearOf(view, value.bearing) &&
    Object.keys(foundWear(view, value.bearing)).every((half) => isExamined(view.byId.get(`${value.bearing}.shell.${half}`)!));
  return { standing: view.likened.filter(stands), stale: view.likened.filter((l) => !stands(l)) };
}

/**
 * What the likeness of found to predicted wear says of each form, over all bearings that were likened (docs/methods/likeness.md). For it counts the likest bearing, less what the likest of so many
 * would come to by chance; against it counts their mean, by the share of the engine's bearings that was looked at.
 */
export function likenedEvidence(view: CaseView, put: Put): void {
  const { standing } = likenedBearings(view);
  if (standing.length === 0) return;
  const bearings = bearingsOf(view.layout);
  const each = standing.map((l) => ({ likened: l, odds: likenessLogOdds(l.value.forms!) }));
  for (const form of WEAR_FORMS) {
    const told = each.flatMap(({ likened, odds }) => (odds.has(form) ? [{ likened, odds: odds.get(form)! }] : []));
    if (told.length === 0) continue;
    const mean = told.reduce((sum, t) => sum + t.odds, 0) / told.length;
    const best = told.reduce((a, b) => (b.odds > a.odds ? b : a));
    const forIt = Math.max(mean, best.odds - Math.log(told.length));
    const places = bearings.filter((b) => formsAt(b).includes(form)).length;
    const odds = forIt > 0 ? forIt : mean * (told.length / places);
    if (Math.abs(odds) < LEAST) continue;
    const likelihoodRatio = Math.min(MOST_LIKENED, Math.exp(Math.abs(odds)));
    for (const { likened } of odds > 0 ? [best] : told)
      put(
        likenedFeature(form),
        odds > 0,
        'likened',
        {
          station: `${likened.value.bearing}.shell.upper`,
          entry: likened.version.entry,
          words: wordsOf(likened, form),
        },
        { likelihoodRatio },
      );
  }
}

const likenedFeature = (form: WearForm): string => `likened.${form}`;

/** The setting that left what a likened feature says, at the bearing it says it of; null for features of another kind. */
export function likenedSetting(view: CaseView, feature: string, entry: string | null): RunSetting | null {
  const own = view.likened.find((l) => l.version.entry === entry);
  return own?.value.forms?.find((f) => likenedFeature(f.form) === feature)?.setting ?? null;
}

function wordsOf({ value }: Likened, form: WearForm): string {
  const own = value.forms!.find((f) => f.form === form)!;
  const rivals = value.forms!.filter((f) => f.form !== form);
  const next = rivals.reduce((a, b) => (b.alike > a.alike ? b : a), rivals[0] ?? own);
  const other = next === own ? '' : `, ${WEAR_FORM_NAMES[next.form]} ${next.alike.toFixed(2)}`;
  return `${value.bearing.replace('.', ' ')}: ${own.alike.toFixed(2)} alike to what ${WEAR_FORM_NAMES[form]} would leave${other}`;
}
