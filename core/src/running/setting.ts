import type { EngineLayout } from '../engine/layout.js';
import { ASLANT, type Aslant } from '../film/aslant.js';
import { OIL_GRADES, USUAL_OIL } from '../film/viscosity.js';
import { figure, matching, nullable, object, oneOf, record, typed, type Held } from '../kit/schema.js';
import { faultsSchema, type OilFault } from '../oil/faults.js';

/** How an engine is let run on the page. */
export const runSettingSchema = object({
  speedRpm: figure(1, 30_000),
  /** Of full load. */
  loadShare: figure(0, 1.5),
  oilGrade: oneOf(Object.keys(OIL_GRADES) as [string, ...string[]]),
  oilTemperatureC: figure(-60, 200),
  fuelShare: figure(0, 0.5),
  /** Diametral, mm, by bearing; others as usual. */
  clearancesMm: typed<Readonly<Record<string, number>>>(record(figure(0.0001, 10)).max(64)),
  faults: typed<readonly OilFault[]>(faultsSchema),
  /** What makes the bearing run aslant; null for nothing. */
  aslant: nullable(typed<Aslant>(object({ kind: oneOf(ASLANT), amountM: figure(0, 1e-3) }))),
  /** Bearing that is looked at: `rod.1`, `main.3`. */
  bearing: matching(/^(rod|main)\.[1-9]\d?$/),
});
export type RunSetting = Held<typeof runSettingSchema>;

/** Forms that the load and the film give to the wear of a bearing, as far as one can be told from another. */
export const WEAR_FORMS = ['combustion', 'over-speed', 'thin-film', 'dry', ...ASLANT] as const;
export type WearForm = (typeof WEAR_FORMS)[number];

/** What makes a bearing run aslant, in words. */
export const ASLANT_NAMES: Readonly<Record<Aslant['kind'], string>> = {
  'bent-rod': 'bent rod',
  'twisted-rod': 'twisted rod',
  'bent-crank': 'bent crank',
  'cap-aside': 'cap set aside',
};

/** What gives a form, in words. */
export const WEAR_FORM_NAMES: Readonly<Record<WearForm, string>> = {
  combustion: 'heavy combustion',
  'over-speed': 'over-speed',
  'thin-film': 'a film too thin all over',
  dry: 'running dry',
  ...ASLANT_NAMES,
};

/** Forms that can be at a bearing: no rod bends a main. */
export const formsAt = (bearing: string): readonly WearForm[] =>
  WEAR_FORMS.filter((form) => bearing.startsWith('rod') || !form.endsWith('-rod'));

/** A way of running in words. */
export function settingWords(s: RunSetting): string {
  return [
    `${s.speedRpm} rpm`,
    `load ${Math.round(100 * s.loadShare)} %`,
    `${s.oilGrade} at ${s.oilTemperatureC} °C`,
    s.fuelShare > 0 ? `${Math.round(100 * s.fuelShare)} % fuel in it` : '',
    s.clearancesMm[s.bearing] === undefined ? '' : `clearance ${s.clearancesMm[s.bearing]!.toFixed(3)} mm`,
    ...s.faults.map((f) => `${f.kind.replaceAll('-', ' ')}${f.at ? ` at ${f.at.replace('.', ' ')}` : ''}`),
    s.aslant ? `${ASLANT_NAMES[s.aslant.kind]} by ${Math.round(s.aslant.amountM * 1e6)} µm` : '',
  ]
    .filter(Boolean)
    .join(', ');
}

/** The setting a bearing is likened from: six tenths of the highest speed at full load, hot, with the clearances that were measured. */
export const usualSetting = (layout: EngineLayout, bearing: string, clearancesMm: Readonly<Record<string, number>>): RunSetting => ({
  speedRpm: Math.round((layout.peakRpm * 0.6) / 50) * 50,
  loadShare: 1,
  oilGrade: layout.fuel === 'diesel' ? '15W-40' : USUAL_OIL,
  oilTemperatureC: 95,
  fuelShare: 0,
  clearancesMm,
  faults: [],
  aslant: null,
  bearing,
});
