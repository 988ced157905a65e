import { figure, list, matching, nullable, object, oneOf } from '../../kit/schema.js';
import { bearingsOf } from '../../engine/bearings.js';
import { runSettingSchema, WEAR_FORM_NAMES, WEAR_FORMS } from '../../running/setting.js';
import { defineEntry } from '../define.js';

/** A bearing whose wear can be likened, and how like it is to what each form leaves. */
export const likenedBearing = matching(/^(rod|main)\.[1-9]\d?$/);
export const likenedForms = list(object({ form: oneOf(WEAR_FORMS), alike: figure(0, 1), setting: runSettingSchema }), WEAR_FORMS.length);

export const wearLikened = defineEntry({
  kind: 'wear-likened',
  name: 'Likeness of wear',
  says: 'What was read of a bearing likened to the wear that load and film predict, by its form, each with the setting that is likest. `of`: what was read, as a SHA-256 of its entries; when that changes, the likeness counts no more. Forms null: taken back.',
  body: object({
    bearing: likenedBearing,
    of: matching(/^[0-9a-f]{64}$/),
    forms: nullable(likenedForms),
  }),
  stands: 'case',
  slot: (b) => `likened:${b.bearing}`,
  tell: (b) =>
    b.forms === null
      ? `${b.bearing}: taken back`
      : `${b.bearing}: ${b.forms.map((f) => `${WEAR_FORM_NAMES[f.form]} ${f.alike.toFixed(2)}`).join(', ') || 'like none'}`,
  admit: (b, at) =>
    (at.layout && !bearingsOf(at.layout).includes(b.bearing)) || b.forms?.some((f) => f.setting.bearing !== b.bearing)
      ? {
          code: 'no-film',
          sentence: `This engine has no bearing "${b.bearing}" to liken like that. Nothing was recorded.`,
          field: 'bearing',
        }
      : null,
  ofCase: (all) => ({ likened: all.filter((e) => e.value.forms !== null) }),
});
