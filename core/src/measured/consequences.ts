import type { Grade } from '../damage/classes.js';
import type { EngineLayout } from '../engine/layout.js';
import type { CaseView } from '../case/views.js';
import { nextOversize, nextUndersize, USUAL_STEPS_MM } from '../measure/sheets/sizes.js';
import { DEEPEST_MARK, type SheetPlace } from '../measure/sheets/cells.js';
import { measurePlace, specOfPlace } from './caseMeasure.js';
import type { PlaceOutcome } from '../measure/program/outcome.js';
import { measureProgram, placeOf } from '../measure/program/program.js';
import { benchOf } from '../measure/program/sheetOf.js';
import type { SheetSpec, SpecKey } from '../measure/program/specs.js';

/** A grade that readings propose, and why. */
export interface ReadingGrade {
  readonly grade: Grade;
  readonly reason: string;
}

/**
 * Grade that readings alone propose, by the five-grade definitions (`docs/methods/grades.md`): a maker's limit passed is 3 Through; a loss a gauge finds, inside limits or too close to
 * call, is 2 Worn. Null where the gauge finds nothing: 0 and 1 are told apart by eye. Targets, typical figures and rules of thumb pass no limit.
 */
export function gradeFromReadings({ place, outcome }: PlaceOutcome): ReadingGrade | null {
  const { speaks, losses } = benchOf(place.kind);
  if (!outcome || !speaks) return null;
  const lines = outcome.lines.filter((l) => speaks.test(l.id));
  const past = lines.find((l) => l.verdict?.word === 'outside' && l.verdict.reference === 'limit');
  if (past) return { grade: 3, reason: `${past.name.toLowerCase()}: ${past.verdict!.reason}` };
  const near = lines.find((l) => l.verdict?.word === 'too close to call' && l.verdict.reference === 'limit');
  if (near) return { grade: 2, reason: `${near.name.toLowerCase()}: ${near.verdict!.reason}` };
  const thumb = lines.find((l) => l.verdict?.word === 'outside');
  if (thumb) return { grade: 2, reason: `${thumb.name.toLowerCase()}: ${thumb.verdict!.reason}; no maker's limit is known` };
  const loss = lines.find((l) => losses?.test(l.id) && l.expanded !== null && l.value > l.expanded);
  if (loss)
    return {
      grade: 2,
      reason: `${loss.name.toLowerCase()} of ${loss.value.toFixed(3)} mm is more than the ±${loss.expanded!.toFixed(3)} of the reading`,
    };
  return null;
}

/** One size for every journal or bore of a kind. */
export interface SizePlan {
  readonly spec: SpecKey;
  /** Step on diameter, mm; null where none is left, or none needed. */
  readonly stepMm: number | null;
  readonly finishMm: readonly [number, number] | null;
  readonly words: string;
  readonly worst: string;
  readonly measured: number;
  readonly of: number;
}

/** One result over every place of a kind, the most worn first. */
function extremes(view: CaseView, spec: SpecKey, lineId: string, sign: 1 | -1): { place: SheetPlace; value: number }[] {
  return measureProgram(view.layout)
    .flatMap((place) => {
      if (place.spec !== spec) return [];
      const line = measurePlace(view, place).outcome?.lines.find((l) => l.id === lineId);
      return line ? [{ place, value: line.value }] : [];
    })
    .sort((a, b) => sign * (a.value - b.value));
}

/** One size that fits all crankpins, all mains or all bores of the engine, the most worn and the deepest mark of any of them cleaned up; null until one is measured and the sizes new are known. */
export function sizeForAll(view: CaseView, key: 'crank.pin' | 'crank.main' | 'bore'): SizePlan | null {
  const places = measureProgram(view.layout).filter((p) => p.spec === key);
  const first = places[0];
  const spec = first ? specOfPlace(view, first) : null;
  if (!first || !spec || spec.minMm === undefined || spec.maxMm === undefined) return null;
  const bore = key === 'bore';
  const read = extremes(view, key, bore ? 'greatest' : 'least', bore ? -1 : 1);
  const worst = read[0];
  if (!worst) return null;
  const base = { spec: key, worst: worst.place.short, measured: read.length, of: places.length };
  const deepest = Math.max(0, ...places.map((p) => measurePlace(view, p).values.get(DEEPEST_MARK) ?? 0));
  const { minMm, maxMm } = spec;
  if (bore) {
    const size = nextOversize(worst.value, { min: minMm, max: maxMm }, spec.oversizesMm ?? USUAL_STEPS_MM, deepest);
    return {
      ...base,
      stepMm: size.step,
      finishMm: size.step === null ? null : [minMm + size.step, maxMm + size.step],
      words: size.words,
    };
  }
  const size = nextUndersize(
    worst.value,
    { minMm, maxMm, undersizesMm: spec.undersizesMm ?? USUAL_STEPS_MM, source: spec.source },
    deepest,
  );
  return size.kind === 'size'
    ? { ...base, stepMm: size.undersizeMm, finishMm: [size.finishMinMm, size.finishMaxMm], words: size.reason }
    : { ...base, stepMm: null, finishMm: null, words: size.reason };
}

/** Running clearance of a bearing once its journal is ground and new shells are in, mm. */
export interface ClearanceAfter {
  readonly place: SheetPlace;
  /** Least and greatest clearance over the finished band, mm. */
  readonly mm: readonly [number, number];
  readonly expanded: number;
  readonly words: string;
}

/** Limits of a clearance, from its own specification. */
function limitsOf(spec: SheetSpec | null): { lower?: number; upper?: number } {
  return spec?.limits?.['vertical'] ?? {};
}

/**
 * Running clearance once the journals are ground to the proposed size and new shells of that undersize are fitted: housing as measured, less two walls of a new half
 * (thicker by half the step), less the finished journal. The step cancels: what is left over comes from the housing and the finish band. Empty until sizes,
 * the wall of a new half and the housing are known.
 */
export function clearancesAfter(view: CaseView, bearing: 'main' | 'rod'): ClearanceAfter[] {
  const journal = specOfPlace(
    view,
    measureProgram(view.layout).find((p) => p.spec === `crank.${bearing === 'main' ? 'main' : 'pin'}`)!,
  );
  if (!journal || journal.minMm === undefined || journal.maxMm === undefined) return [];
  const { minMm, maxMm } = journal;
  return measureProgram(view.layout).flatMap((place) => {
    if (place.spec !== `${bearing}.clearance`) return [];
    const spec = specOfPlace(view, place);
    const wall = spec?.newWallMm;
    const own = measurePlace(view, place);
    const housing =
      own.values.get('housing.vertical') ??
      measurePlace(view, placeOf(view.layout, place.station, 'housing') ?? place).values.get('vertical');
    const expanded = own.outcome?.lines.find((l) => l.id === 'vertical')?.expanded ?? 0;
    if (wall === undefined || housing === undefined) return [];
    const mm = [housing - 2 * wall - maxMm, housing - 2 * wall - minMm] as const;
    const { lower, upper } = limitsOf(spec);
    const range = `${mm[0].toFixed(3)}–${mm[1].toFixed(3)} mm`;
    const words =
      lower === undefined && upper === undefined
        ? `${range}; no limit is known`
        : mm[0] < (lower ?? -Infinity)
          ? `${range}: the tight end is below ${lower!.toFixed(3)}`
          : mm[1] > (upper ?? Infinity)
            ? `${range}: the loose end is above ${upper!.toFixed(3)}; grind to the upper half of the band or look at the housing`
            : `${range}: inside the limits over the whole finish band`;
    return [{ place, mm, expanded, words }];
  });
}

/** What a rebore does to displacement and compression. */
export interface Rebore {
  readonly stepMm: number;
  readonly boreMm: number;
  readonly displacementCm3: readonly [before: number, after: number];
  readonly ratio: readonly [before: number, after: number];
}

/** What a rebore does: swept volume by the bore's square; the chamber stays (pistons of the same crown), so the ratio rises. */
export function reboreEffect(layout: EngineLayout, stepMm: number): Rebore {
  const swept = (boreMm: number): number => (Math.PI / 4) * boreMm ** 2 * layout.strokeMm;
  const before = swept(layout.boreMm);
  const after = swept(layout.boreMm + stepMm);
  const chamber = before / (layout.compressionRatio - 1);
  return {
    stepMm,
    boreMm: layout.boreMm + stepMm,
    displacementCm3: [(before * layout.cylinders) / 1000, (after * layout.cylinders) / 1000],
    ratio: [layout.compressionRatio, (after + chamber) / chamber],
  };
}
