import { randomLcg, randomNormal } from 'd3-random';
import Papa from 'papaparse';
import type { EngineRecord } from './lines.js';
import { SPECIES, species } from './species.js';
import { TOLD_FOR } from './trends.js';

/** What can go wrong between a sample bottle and its result. */
export const LABORATORY_FAULTS = ['none', 'late', 'lost', 'swapped', 'slipped', 'other-units'] as const;
export type LaboratoryFault = (typeof LABORATORY_FAULTS)[number];

/** What is really in the oil of an engine, for the stand-in to find. */
export interface TrueOil {
  /** Given off, mg/kg in 100 h or 1000 km; what is not named is a trace. */
  readonly wear: Readonly<Record<string, number>>;
  /** As found, in the first unit of each species. */
  readonly other: Readonly<Record<string, number>>;
}

/** A healthy engine's oil. Invented figures of an ordinary kind. */
export function healthyOil(engine: Pick<EngineRecord, 'fuel' | 'counter'>): TrueOil {
  const diesel = engine.fuel === 'diesel';
  const hours = engine.counter === 'km' ? 0.2 : 1;
  return {
    wear: Object.fromEntries(
      Object.entries({ Fe: 9, Cu: 2.4, Pb: 1.8, Sn: 0.7, Al: 2.2, Cr: 0.9, Ni: 0.4, Ag: 0.1 }).map(([e, r]) => [e, r * hours]),
    ),
    other: {
      Si: 7,
      Na: 6,
      K: 2,
      water: 0.03,
      fuel: diesel ? 0.6 : 1.4,
      soot: diesel ? 0.7 : 0.1,
      B: 60,
      Ca: diesel ? 3100 : 2200,
      Mg: diesel ? 40 : 500,
      Zn: 1150,
      P: 1000,
      Mo: diesel ? 5 : 80,
      visc40: diesel ? 102 : 88,
      visc100: diesel ? 14.1 : 13.2,
      tbn: diesel ? 9.6 : 7.2,
      oxidation: 8,
    },
  };
}

/** Spread of a laboratory and of drawing, as the logarithm of a figure. */
const SPREAD = 0.07;

/** A report as the simulated laboratory writes it: the CSV of docs/formats/oil-results.md. The seed makes the same report twice. */
export function simulatedReport(
  { counter }: Pick<EngineRecord, 'counter'>,
  sample: { readonly reference: string; readonly reported: string; readonly inOil: number },
  oil: TrueOil,
  fault: LaboratoryFault,
  seed: number,
): string {
  const stray = randomNormal.source(randomLcg(seed))(0, SPREAD);
  const figures = Object.entries({
    ...Object.fromEntries(Object.entries(oil.wear).map(([e, rate]) => [e, (rate * sample.inOil) / TOLD_FOR[counter]])),
    ...oil.other,
  }).map(([id, value]) => ({ id, value: value * Math.exp(stray()) }));
  // Of a slip, the additive in the middle of the list; other units, all by mass as if they were by mg to the tenth of a litre.
  const slip = figures.findIndex((f) => f.id === 'Zn');
  const told = figures.map(({ id, value }, i) =>
    fault === 'slipped' && i === slip ? value * 10 : fault === 'other-units' && species(id)!.units['mg/kg'] === 1 ? value / 10 : value,
  );
  return Papa.unparse([
    ['reference', 'reported', 'laboratory', ...figures.map(({ id }) => `${id} ${Object.keys(SPECIES.find((s) => s.id === id)!.units)[0]}`)],
    [sample.reference, sample.reported, 'Stand-in laboratory', ...told.map((v) => Number(v.toPrecision(3)))],
  ]);
}
