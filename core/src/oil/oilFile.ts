import type { RunningEngine } from '../loads/engineFile.js';
import { fail, ok, type Result } from '../kit/result.js';
import { figure, object, oneOf, optional, typed, whole, type Held } from '../kit/schema.js';
import Joi from 'joi';
import { checkFaults, noCircuit, solveCircuit, usualSizes, type Circuit, type CircuitOf, type CircuitSizes } from './circuit.js';
import { faultsSchema, type OilFault } from './faults.js';
import { bearingsOf } from '../engine/bearings.js';

const BAR = 1e5;
const L_MIN = 60_000;

/** Sizes of the circuit as an engine file has them (docs/formats/oil.md). */
const circuitSchema = object({
  pump: optional(oneOf(['fixed', 'variable'])),
  pumpCcPerRev: optional(figure(0.1, 5000)),
  pumpSlip: optional(figure(0, 1)),
  reliefBar: optional(figure(0.2, 20)),
  bypassBar: optional(figure(0.1, 10)),
  cooler: optional(typed<boolean>(Joi.boolean())),
  jets: optional(whole(0, 32)),
  jetMm: optional(figure(0.3, 10)),
  jetOpensBar: optional(figure(0, 10)),
  headMm: optional(figure(0, 20)),
  turboMm: optional(figure(0, 20)),
  feedHoleMm: optional(figure(1, 50)),
  crankHoleMm: optional(figure(1, 50)),
  galleryMm: optional(figure(3, 100)),
  volumeCc: optional(figure(10, 100_000)),
  gaugeAt: optional(oneOf(['gallery', 'filter', 'head', 'last-main'])),
});
/** Reads what an engine file says of its oil circuit; the rest is estimated. */
export function readCircuit(
  engine: RunningEngine,
  said: { readonly circuit?: unknown; readonly faults?: unknown },
): Result<CircuitOf & { readonly estimated: readonly string[] }> {
  const none = noCircuit(engine.layout);
  if (none) return fail('oil-fault', `${none} Loads of the bearings are still to be had.`, 'engine.lubrication');
  for (const [key, schema] of [
    ['circuit', circuitSchema],
    ['faults', faultsSchema],
  ] as const) {
    if (said[key] === undefined) continue;
    const detail = schema.validate(said[key], { convert: false }).error?.details[0];
    if (detail)
      return fail(
        'engine-file',
        `The oil circuit was not read: ${detail.message}. See docs/formats/oil.md.`,
        [key, ...detail.path].join('.'),
      );
  }
  const file = (said.circuit ?? {}) as Held<typeof circuitSchema>;
  const usual = usualSizes(engine.layout);
  const metres = (mm: number | undefined): number | undefined => (mm === undefined ? undefined : mm / 1000);
  const bar = (value: number | undefined): number | undefined => (value === undefined ? undefined : value * BAR);
  const given: Partial<Record<keyof CircuitSizes, unknown>> = {
    pump: file.pump,
    pumpM3: file.pumpCcPerRev === undefined ? undefined : file.pumpCcPerRev * 1e-6,
    slip: file.pumpSlip,
    reliefPa: bar(file.reliefBar),
    bypassPa: bar(file.bypassBar),
    cooler: file.cooler,
    jets: file.jets,
    jetM: metres(file.jetMm),
    jetOpensPa: bar(file.jetOpensBar),
    headM: metres(file.headMm),
    turboM: metres(file.turboMm),
    feedHoleM: metres(file.feedHoleMm),
    crankHoleM: metres(file.crankHoleMm),
    galleryM: metres(file.galleryMm),
    volumeM3: file.volumeCc === undefined ? undefined : file.volumeCc * 1e-6,
    gaugeAt: file.gaugeAt,
  };
  const known = Object.fromEntries(Object.entries(given).filter(([, v]) => v !== undefined)) as Partial<CircuitSizes>;
  const sizes: CircuitSizes = { ...usual, ...known };
  const faults = (said.faults ?? []) as readonly OilFault[];
  const checked = checkFaults(engine.layout, sizes, faults);
  if (!checked.ok) return checked;
  return ok({
    layout: engine.layout,
    sizes,
    speedRpm: engine.speedRpm,
    oil: engine.oil,
    oilC: engine.oilC,
    bearingC: engine.bearingC,
    clearanceMm: engine.clearanceMm,
    faults,
    estimated: [
      ...engine.estimated,
      ...Object.keys(usual)
        .filter((k) => known[k as keyof CircuitSizes] === undefined)
        .map((k) => `circuit.${k}`),
    ],
  });
}

/** A bearing that gets less than this share of what it gets in a healthy engine is starved. */
const STARVED = 0.25;
/** Bearings that are named before the rest is counted. */
const NAMED = 2;
/** A needle that moves by less nobody sees, Pa. */
const UNSEEN_PA = 0.2e5;

/** What a circuit shows beside the same engine without its faults. */
export interface OilVerdict {
  readonly circuit: Circuit;
  readonly healthy: Circuit;
  readonly starved: readonly string[];
  /** What a driver would have seen, and what he would not. */
  readonly driver: string;
}

export function oilVerdict(of: CircuitOf): OilVerdict {
  const circuit = solveCircuit(of);
  const healthy = of.faults.length === 0 ? circuit : solveCircuit({ ...of, faults: [] });
  const starved = bearingsOf(of.layout).filter((b) => circuit.bearingFlow.get(b)! < STARVED * healthy.bearingFlow.get(b)!);
  const moved = circuit.gaugePa - healthy.gaugePa;
  const bar = (pa: number): string => (pa / BAR).toFixed(1);
  const needle =
    of.faults.length === 0
      ? `The gauge shows ${bar(circuit.gaugePa)} bar.`
      : Math.abs(moved) < UNSEEN_PA
        ? `The gauge shows ${bar(circuit.gaugePa)} bar, as it always does${moved > 1e3 ? ', if anything a little more' : ''}.`
        : `The gauge shows ${bar(circuit.gaugePa)} bar instead of ${bar(healthy.gaugePa)}.`;
  const places = starved.map((b) => b.replace('.', ' '));
  const named = places.length > NAMED ? `${places.slice(0, NAMED).join(', ')} and ${places.length - NAMED} more` : places.join(' and ');
  const hidden =
    starved.length === 0 ? '' : ` ${named[0]!.toUpperCase()}${named.slice(1)} ${starved.length === 1 ? 'gets' : 'get'} next to nothing.`;
  return { circuit, healthy, starved, driver: `${needle}${hidden}` };
}

/** Speed an engine is turned at by its starter, rpm. */
const CRANKING_RPM = 200;
/** Temperatures of a warm-up, °C. */
const WARMING_C = [-20, -10, 0, 20, 40, 60, 80, 100, 120] as const;

/** The gauge from cold to hot at this speed, a steady state each; temperatures at which the oil does not flow are left out. */
export const warmUp = (of: CircuitOf): ReadonlyArray<{ readonly oilC: number; readonly circuit: Circuit }> =>
  WARMING_C.filter((c) => c >= of.oil.poursC + 5).map((oilC) => ({
    oilC,
    circuit: solveCircuit({ ...of, oilC, bearingC: oilC + (of.bearingC - of.oilC) }),
  }));

/** How long a dry gallery stays dry when the engine is turned by its starter: seconds until the oil stands at every main, with what the pump gives against no pressure. Null where it gives nothing. */
export function primeS(of: CircuitOf): ReadonlyMap<string, number> | null {
  const cranking = solveCircuit({
    ...of,
    speedRpm: CRANKING_RPM,
    oilC: Math.max(of.oil.poursC + 5, 15),
    bearingC: Math.max(of.oil.poursC + 5, 15),
  });
  if (cranking.pumpFlow <= 0) return null;
  // Half of the oil is in pump, cooler and filter, the other half along the gallery.
  const mains = of.layout.mains;
  return new Map(
    Array.from({ length: mains }, (_, i) => [`main.${i + 1}`, (of.sizes.volumeM3 * (0.5 + (0.5 * (i + 1)) / mains)) / cranking.pumpFlow]),
  );
}

const round = (value: number): number => Number(value.toPrecision(6));

/** The circuit of a running engine as JSON (docs/formats/oil.md). */
export function oilJson(of: CircuitOf & { readonly estimated: readonly string[] }): object {
  const { circuit, healthy, starved, driver } = oilVerdict(of);
  const prime = primeS(of);
  return {
    format: 'true-ledger/oil',
    version: 1,
    speedRpm: of.speedRpm,
    oilTemperatureC: of.oilC,
    viscosityMpaS: round(circuit.viscosityPaS * 1000),
    faults: of.faults,
    gauge: { at: of.sizes.gaugeAt, bar: round(circuit.gaugePa / BAR), healthyBar: round(healthy.gaugePa / BAR) },
    driver,
    pump: {
      displacementCcPerRev: round(of.sizes.pumpM3 * 1e6),
      flowLMin: round(circuit.pumpFlow * L_MIN),
      healthyFlowLMin: round(healthy.pumpFlow * L_MIN),
    },
    starved,
    bearings: bearingsOf(of.layout).map((b) => ({
      bearing: b,
      pressureBar: round(Math.max(0, circuit.pressure.get(b)!) / BAR),
      flowLMin: round(circuit.bearingFlow.get(b)! * L_MIN),
      healthyFlowLMin: round(healthy.bearingFlow.get(b)! * L_MIN),
    })),
    pressuresBar: Object.fromEntries([...circuit.pressure].map(([n, p]) => [n, round(Math.max(0, p) / BAR)])),
    flowsLMin: Object.fromEntries([...circuit.flow].map(([n, q]) => [n, round(q * L_MIN)])),
    unbalanced: circuit.unbalanced,
    warmUp: warmUp(of).map(({ oilC, circuit: c }) => ({
      oilTemperatureC: oilC,
      gaugeBar: round(c.gaugePa / BAR),
      reliefLMin: round((c.flow.get('relief') ?? 0) * L_MIN),
    })),
    prime: prime === null ? null : { crankingRpm: CRANKING_RPM, oilAtS: Object.fromEntries([...prime].map(([n, s]) => [n, round(s)])) },
    estimated: of.estimated,
  };
}
