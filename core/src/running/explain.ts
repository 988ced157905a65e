import type { EngineLayout } from '../engine/layout.js';
import { ASLANT, type Aslant } from '../film/wearField.js';
import { likeness, runEngine, type RunSetting } from './run.js';

/** What was found of a bearing's halves on the raster of their wear maps: share worn of what was seen, and share seen. A half that was not read is left out. */
export type FoundWear = Readonly<
  Partial<Record<'upper' | 'lower', { readonly worn: ArrayLike<number>; readonly seen: ArrayLike<number> }>>
>;

/** A way of running that is tried on what was found. */
export interface Explanation {
  readonly name: string;
  readonly setting: RunSetting;
  /** Likeness of the wear it predicts to what was found over both halves, 0 to 1; null where it predicts none. */
  readonly alike: number | null;
}

/** Settings whose likeness lies within this of the best fit equally well: what was read is no finer. Judgement. */
export const EQUALLY = 0.05;

/** How far aslant a bearing is tried, of its clearance. */
const ASLANT_OF_CLEARANCE = [0.25, 0.5] as const;

/** What makes a bearing run aslant, in words. */
export const ASLANT_NAMES: Readonly<Record<Aslant['kind'], string>> = {
  'bent-rod': 'bent rod',
  'twisted-rod': 'twisted rod',
  'bent-crank': 'bent crank',
  'cap-aside': 'cap set aside',
};

/** Ways an engine may have run, small and large, each from the setting at hand. */
function trials(
  layout: EngineLayout,
  from: RunSetting,
  clearanceMm: number,
): ReadonlyArray<readonly [name: string, change: Partial<RunSetting>]> {
  const clearance = (times: number): Partial<RunSetting> => ({
    clearancesMm: { ...from.clearancesMm, [from.bearing]: clearanceMm * times },
  });
  return [
    ['as set', {}],
    ...[0.05, 0.1, 0.2].map((fuelShare) => [`${100 * fuelShare} % fuel in the oil`, { fuelShare }] as const),
    ...[120, 140].map((oilTemperatureC) => [`oil at ${oilTemperatureC} °C`, { oilTemperatureC }] as const),
    ...[0.4, 0.6].map((times) => [`clearance ${times} times as large`, clearance(times)] as const),
    ...[1.5, 2, 3].map((times) => [`clearance ${times} times as large`, clearance(times)] as const),
    ...[1, 1.15, 1.3].map(
      (times) =>
        [`at ${Math.round((times * layout.peakRpm) / 50) * 50} rpm`, { speedRpm: Math.round((times * layout.peakRpm) / 50) * 50 }] as const,
    ),
    ...[0.2, 0.3].map((times) => {
      const speedRpm = Math.round((times * layout.peakRpm) / 50) * 50;
      return [`lugging at ${speedRpm} rpm, hot`, { speedRpm, loadShare: 1, oilTemperatureC: 120 }] as const;
    }),
    ...ASLANT.filter((kind) => from.bearing.startsWith('rod') || !kind.endsWith('rod')).flatMap((kind) =>
      ASLANT_OF_CLEARANCE.map((share) => {
        const um = Math.max(2, Math.round(1000 * clearanceMm * share));
        return [`${ASLANT_NAMES[kind]} by ${um} µm`, { aslant: { kind, amountM: um * 1e-6 } }] as const;
      }),
    ),
    [
      'heavy combustion at half speed, hot',
      { speedRpm: Math.round((0.5 * layout.peakRpm) / 50) * 50, loadShare: 1.5, oilTemperatureC: 120 },
    ],
  ];
}

/**
 * Tries ways of running on what was found of the bearing that is looked at: the likeness of the wear each predicts, the likest first. Those that predict no wear come last. It compares place by
 * place, so that what tilts a bearing shows by its edges.
 */
export function explained(layout: EngineLayout, from: RunSetting, clearanceMm: number, found: FoundWear): Explanation[] {
  const halves = (['upper', 'lower'] as const).filter((half) => found[half]);
  const joined = (of: (half: 'upper' | 'lower') => ArrayLike<number>): Float64Array =>
    Float64Array.from(halves.flatMap((half) => Array.from(of(half))));
  const worn = joined((half) => found[half]!.worn);
  const seen = joined((half) => found[half]!.seen);
  return trials(layout, from, clearanceMm)
    .map(([name, change]): Explanation => {
      const setting = { ...from, ...change };
      const run = runEngine(layout, setting);
      const film = run.ok ? run.value.film : null;
      return {
        name,
        setting,
        alike: film?.wears
          ? likeness(
              joined((half) => film.predicted[half]),
              worn,
              seen,
            )
          : null,
      };
    })
    .sort((a, b) => (b.alike ?? -1) - (a.alike ?? -1));
}
