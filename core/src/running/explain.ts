import type { EngineLayout } from '../engine/layout.js';
import type { Aslant } from '../film/aslant.js';
import { oilRoute } from '../engine/oilRoute.js';
import { AXIAL_ROWS } from '../film/wearField.js';
import { noCircuit } from '../oil/circuit.js';
import type { OilFault } from '../oil/faults.js';
import { usualClearanceMm } from '../loads/engineFile.js';
import { ARCS, likeness, wearPredictor } from './run.js';
import { ASLANT_NAMES, formsAt, type RunSetting, type WearForm } from './setting.js';

/** What was found of a bearing's halves on the raster of their wear maps: share worn of what was seen, and share seen. A half that was not read is left out. */
export type FoundWear = Readonly<
  Partial<Record<'upper' | 'lower', { readonly worn: ArrayLike<number>; readonly seen: ArrayLike<number> }>>
>;

/** A way of running that is tried on what was found. */
export interface Explanation {
  readonly name: string;
  /** Form of the wear it would leave; null for what would leave none of its own. */
  readonly form: WearForm | null;
  readonly setting: RunSetting;
  /** Likeness of the wear it predicts to what was found over both halves, 0 to 1; null where it predicts none. */
  readonly alike: number | null;
}

/** Settings whose likeness lies within this of the best fit equally well: what was read is no finer. Judgement. */
export const EQUALLY = 0.05;

/** How far aslant a bearing is tried, of its clearance. */
const ASLANT_OF_CLEARANCE = [0.25, 0.5] as const;
/** What load leaves shows where the film is thin, so that what loads a bearing is tried with hot oil too, °C. */
const HOT = [120, 150] as const;

/** The fault that leaves a bearing without oil: its own feed shut, or that of the main its pin is drilled from. Null where none is fed under pressure. */
export function shutFeed(layout: EngineLayout, bearing: string): OilFault | null {
  if (noCircuit(layout)) return null;
  const { feeds } = oilRoute(layout);
  const at = bearing.startsWith('main')
    ? bearing
    : Object.keys(feeds).find((main) => main.startsWith('main') && feeds[main]!.includes(bearing));
  return at === undefined ? null : { kind: 'shut-feed', at };
}

type Trial = readonly [form: WearForm | null, name: string, change: Partial<RunSetting>];

/** Ways an engine may have run, small and large, each from the setting at hand. */
function trials(layout: EngineLayout, from: RunSetting): readonly Trial[] {
  const clearanceMm = from.clearancesMm[from.bearing] ?? usualClearanceMm(layout, from.bearing);
  const clearance = (times: number): Partial<RunSetting> => ({
    clearancesMm: { ...from.clearancesMm, [from.bearing]: clearanceMm * times },
  });
  const rpm = (times: number): number => Math.round((times * layout.peakRpm) / 50) * 50;
  const alsoHot = (form: WearForm, name: string, change: Partial<RunSetting>): Trial[] => [
    [form, name, change],
    ...HOT.map((oilTemperatureC): Trial => [form, `${name}, oil at ${oilTemperatureC} °C`, { ...change, oilTemperatureC }]),
  ];
  const feed = shutFeed(layout, from.bearing);
  const aslant = formsAt(from.bearing).filter((form): form is Aslant['kind'] => form in ASLANT_NAMES);
  return [
    [null, 'as set', {}],
    ...[0.4, 0.6].map((times): Trial => [null, `clearance ${times} times as large`, clearance(times)]),
    ...[0.05, 0.1, 0.2].map((fuelShare): Trial => ['thin-film', `${100 * fuelShare} % fuel in the oil`, { fuelShare }]),
    ...[120, 140, 160].map((oilTemperatureC): Trial => ['thin-film', `oil at ${oilTemperatureC} °C`, { oilTemperatureC }]),
    ...[1.5, 2, 3].flatMap((times) => alsoHot('thin-film', `clearance ${times} times as large`, clearance(times))),
    ...[1, 1.15, 1.3].flatMap((times) => alsoHot('over-speed', `at ${rpm(times)} rpm`, { speedRpm: rpm(times) })),
    ...[0.2, 0.3].flatMap((times) => alsoHot('combustion', `lugging at ${rpm(times)} rpm`, { speedRpm: rpm(times), loadShare: 1 })),
    ...alsoHot('combustion', 'heavy combustion at half speed', { speedRpm: rpm(0.5), loadShare: 1.5 }),
    ...(feed ? [0.2, 0.6, 1].map((times): Trial => ['dry', `no oil, at ${rpm(times)} rpm`, { speedRpm: rpm(times), faults: [feed] }]) : []),
    ...aslant.flatMap((kind) =>
      ASLANT_OF_CLEARANCE.flatMap((share) => {
        const um = Math.max(2, Math.round(1000 * clearanceMm * share));
        const tilted = { aslant: { kind, amountM: um * 1e-6 } };
        const name = `${ASLANT_NAMES[kind]} by ${um} µm`;
        return [[kind, name, tilted] as const, [kind, `${name}, oil at ${HOT[0]} °C`, { ...tilted, oilTemperatureC: HOT[0] }] as const];
      }),
    ),
  ];
}

/** A way of running with the wear it predicts of the upper half and then of the lower, on their rasters; null where it predicts none. */
export interface Tried extends Omit<Explanation, 'alike'> {
  readonly predicted: Float64Array | null;
}

/** What every way of running would leave of the bearing that is looked at. */
export function triedAll(layout: EngineLayout, from: RunSetting): Tried[] {
  const wearOf = wearPredictor(layout);
  return trials(layout, from).map(([form, name, change]): Tried => {
    const setting = { ...from, ...change };
    const wear = wearOf(setting, form === 'dry');
    return { name, form, setting, predicted: wear && joined((half) => wear[half]) };
  });
}

const joined = (of: (half: 'upper' | 'lower') => ArrayLike<number>): Float64Array =>
  Float64Array.from([...Array.from(of('upper')), ...Array.from(of('lower'))]);

/**
 * Tries ways of running on what was found of the bearing that is looked at: the likeness of the wear each predicts, the likest first. Those that predict no wear come last. It compares place by
 * place, so that what tilts a bearing shows by its edges; a half that was not read counts as not seen.
 */
export function explained(layout: EngineLayout, from: RunSetting, found: FoundWear): Explanation[] {
  return likened(triedAll(layout, from), found);
}

/** Holds what was tried against what was found. */
export function likened(tried: readonly Tried[], found: FoundWear): Explanation[] {
  const cells = tried.find((t) => t.predicted)?.predicted?.length ?? 0;
  const none = new Float64Array(cells / 2);
  const worn = joined((half) => found[half]?.worn ?? none);
  const seen = joined((half) => found[half]?.seen ?? none);
  return tried
    .map(({ predicted, ...way }): Explanation => ({ ...way, alike: predicted ? likeness(predicted, worn, seen) : null }))
    .sort((a, b) => (b.alike ?? -1) - (a.alike ?? -1));
}

/** Least share of both halves that must have been seen, and of what was seen that must be worn, for a bearing to be likened. Judgement. */
const SEEN_LEAST = 1 / 3;
const WORN_LEAST = 0.02;
/** A bearing of which more than this is worn went on wearing all over: the form it began with is gone. Judgement. */
const WORN_MOST = 0.6;

/** Why a bearing cannot be likened, in a sentence; null when it can. */
export function whyNotLikened(found: FoundWear): string | null {
  let [seen, worn] = [0, 0];
  let cells = 0;
  for (const half of [found.upper, found.lower]) {
    for (let i = 0; i < (half?.seen.length ?? 0); i++) {
      seen += half!.seen[i]!;
      worn += half!.seen[i]! * half!.worn[i]!;
    }
    cells += ARCS * AXIAL_ROWS;
  }
  if (seen < SEEN_LEAST * cells)
    return `Only ${Math.round((100 * seen) / cells)} % of the two halves was seen, a third at least is needed. Read the other half.`;
  if (worn > WORN_MOST * seen)
    return 'It is worn nearly all over: the form it began with is gone. Liken a bearing that is less hurt, or look at who was hurt.';
  return worn < WORN_LEAST * seen ? 'Next to nothing is worn here: there is nothing to liken.' : null;
}
