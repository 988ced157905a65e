import { oilRoute, isUnfilteredNode } from '../engine/oilRoute.js';
import { isPressureFed, type EngineLayout } from '../engine/layout.js';
import { dynamicPaS, OIL_GRADES, USUAL_OIL, type Oil } from '../film/viscosity.js';
import { usualClearanceMm } from '../loads/engineFile.js';
import { OILED_BY } from '../loads/engineFilm.js';
import { fail, ok, type Result } from '../kit/result.js';
import type { OilFault, OilFaultKind } from './faults.js';
import { beside, drilling, resistance, solveNetwork, valve, type Element, type FlowLaw, type Solved } from './network.js';

/** Sizes of an oil circuit. What is not given is estimated from the engine. */
export interface CircuitSizes {
  readonly pump: 'fixed' | 'variable';
  /** Displacement to a turn of the crank, m³. */
  readonly pumpM3: number;
  /** Leak of the pump in itself at 1 bar and 10 mPa s, of its flow at rated speed. */
  readonly slip: number;
  readonly reliefPa: number;
  readonly bypassPa: number;
  readonly cooler: boolean;
  /** Cooling jets: how many (0: none), their bore and the pressure they open at. */
  readonly jets: number;
  readonly jetM: number;
  readonly jetOpensPa: number;
  /** Restrictor to the head, bore; 0: none. */
  readonly headM: number;
  /** Bore of the turbocharger's feed; 0: none. */
  readonly turboM: number;
  readonly feedHoleM: number;
  readonly crankHoleM: number;
  readonly galleryM: number;
  /** Oil in pipes, filter and gallery, m³. */
  readonly volumeM3: number;
  readonly gaugeAt: 'gallery' | 'filter' | 'head' | 'last-main';
}

export interface CircuitOf {
  readonly layout: EngineLayout;
  readonly sizes: CircuitSizes;
  readonly speedRpm: number;
  readonly oil: Oil;
  readonly oilC: number;
  readonly bearingC: number;
  /** Diametral clearance of a bearing, mm. */
  readonly clearanceMm: (bearing: string) => number;
  readonly faults: readonly OilFault[];
}

export interface Circuit extends Solved {
  readonly gaugePa: number;
  readonly pumpFlow: number;
  /** Flow every bearing gets, m³/s. */
  readonly bearingFlow: ReadonlyMap<string, number>;
  readonly viscosityPaS: number;
}

/** Eccentricity at which bearings leak: loaded ones run near it. Judgement; (1 + 1.5 ε²) is then 1.74. */
const ECCENTRICITY = 0.7;
const LEAK = 1 + 1.5 * ECCENTRICITY * ECCENTRICITY;
/** Width of the groove of a main shell, of its width, and arc of the groove, of the turn: the upper half is grooved. */
const GROOVE = { width: 0.2, arc: 0.5 } as const;
/** Over so much pressure a variable pump goes from all it gives to nothing, and its relief stands that far and half again above what it is set to. Pa. */
const TURNED_DOWN_PA = 0.5e5;
/** By so much of its setting the pressure rises when half of what the pump gives at rated speed goes over the relief valve. */
const RELIEF_RISE = 0.02;
/** Share of the oil that may be missing before the pickup first draws air, and with which it draws nothing else: it stands near the bottom of the sump. Judgement. */
const LEVEL = { airFrom: 0.4, dryFrom: 0.9 } as const;
/** Bore of a follower over that of its cylinder: what is left open where one comes out of it. */
const FOLLOWER_BORE = 0.24;
/** Of the gap around a follower in its bore, radial, m, and the length it seals on over its bore. */
const FOLLOWER_FIT = { gapM: 25e-6, length: 1 } as const;
/** Pressure a pump can draw with, Pa. */
const SUCTION_PA = 6e4;

/** Side leak of a main with a groove in its upper half, m³/s per Pa: slots of the length of the groove to both edges, Q = b c³ Δp (1 + 1.5 ε²) / (12 μ l) (Cameron, Principles of Lubrication, 1966). */
export function grooveLeak(diameterM: number, widthM: number, clearanceM: number, viscosityPaS: number): number {
  const land = (widthM * (1 - GROOVE.width)) / 2;
  return (2 * GROOVE.arc * Math.PI * diameterM * clearanceM ** 3 * LEAK) / (12 * viscosityPaS * land);
}

/** Leak of a big end fed from one hole of its pin, m³/s per Pa: Q = 0.675 c³ Δp / μ (d/L + 0.4)^1.75 (Martin, Tribology International 16, 1983), by the eccentricity as above. */
export function holeLeak(holeM: number, widthM: number, clearanceM: number, viscosityPaS: number): number {
  return ((0.675 * clearanceM ** 3) / viscosityPaS) * (holeM / widthM + 0.4) ** 1.75 * LEAK;
}

/**
 * Sizes that usually go with an engine; the pump is laid out so that at two fifths of rated speed and hot oil it still holds the relief pressure against every leak of the engine as new. What wore since, and what
 * is in the oil now, have no part in it: they are what the gauge is to show. Judgement, marked as an estimate where it is used.
 */
export function usualSizes(layout: EngineLayout): CircuitSizes {
  const diesel = layout.fuel === 'diesel';
  const scale = layout.boreMm / 86;
  const sizes = {
    pump: 'fixed' as const,
    slip: 0.06,
    reliefPa: diesel ? 5e5 : 4.5e5,
    bypassPa: 1e5,
    cooler: diesel,
    jets: layout.aspiration === 'turbocharged' || diesel ? layout.cylinders : 0,
    jetM: 0.0016 * scale,
    jetOpensPa: 1.8e5,
    headM: layout.valveGear === 'ports' || layout.valveGear === 'side-valve' ? 0 : 0.0022 * scale,
    turboM: layout.aspiration === 'turbocharged' ? 0.0024 * scale : 0,
    feedHoleM: 0.008 * scale,
    crankHoleM: 0.006 * scale,
    galleryM: 0.014 * scale,
    volumeM3: 3e-4 * scale ** 3 * (layout.cylinders / 4),
    gaugeAt: 'gallery' as const,
  };
  const rated = (layout.peakRpm * 0.4) / 60;
  const of: CircuitOf = {
    layout,
    sizes: { ...sizes, pumpM3: 1 },
    speedRpm: layout.peakRpm * 0.4,
    oil: OIL_GRADES[USUAL_OIL]!,
    oilC: 100,
    bearingC: 115,
    clearanceMm: (bearing) => usualClearanceMm(layout, bearing),
    faults: [],
  };
  // What flows when the pressure before the filter is held at that of the relief.
  const { nodes, elements } = networkOf(of, true);
  const held = solveNetwork(nodes, elements, { node: 'pump', law: (p) => [(sizes.reliefPa - p) * 1e-3, -1e-3] });
  const flow = held.flow.get('filter')! + [...held.flow].filter(([name]) => name.startsWith('before ')).reduce((sum, [, q]) => sum + q, 0);
  return { ...sizes, pumpM3: (flow * 1.1) / rated };
}

/** Nodes and elements of a circuit; `open`: without pump and relief. */
function networkOf(of: CircuitOf, open = false): { readonly nodes: string[]; readonly elements: Element[] } {
  const { layout, sizes, oil, oilC, bearingC, faults } = of;
  const mu = dynamicPaS({ ...oil, underShear: 1 }, oilC);
  const hot = dynamicPaS(oil, bearingC);
  const density = oil.density;
  const omega = (of.speedRpm * Math.PI) / 30;
  const fault = (kind: OilFaultKind, at?: string): OilFault | undefined =>
    faults.find((f) => f.kind === kind && (at === undefined || f.at === at));
  /** Diameter that is left at a place. */
  const left = (diameterM: number, at: string): number =>
    diameterM * Math.sqrt(Math.max(1e-4, 1 - (fault('restriction', at)?.amount ?? 0)));
  const route = oilRoute(layout);
  const nodes = ['pump', 'filtered'];
  const elements: Element[] = [];
  const add = (name: string, from: string, to: string | null, law: FlowLaw, head?: number): void => {
    elements.push({ name, from, to, law, ...(head === undefined ? {} : { head }) });
  };
  const hole = (diameterM: number, lengthM: number): FlowLaw => drilling(diameterM, lengthM, mu, density);
  if (!open) {
    const stuck = fault('relief-open');
    const opens = sizes.reliefPa + (sizes.pump === 'variable' ? 1.5 * TURNED_DOWN_PA : 0);
    const half = (sizes.pumpM3 * layout.peakRpm) / 60 / 2;
    const relief = valve(opens, half / (RELIEF_RISE * sizes.reliefPa));
    if (!fault('relief-shut'))
      add('relief', 'pump', null, stuck ? beside(relief, hole(0.006 * Math.sqrt(Math.max(0.02, stuck.amount ?? 0.5)), 0.01)) : relief);
  }
  // Filter with its bypass, and the cooler before it.
  const clogged = fault('filter-clogged');
  const media = resistance((((3e4 / 5e-4) * mu) / 0.012) * (clogged ? 1 + 40 * (clogged.amount ?? 1) : 1), 0);
  const bypass = valve(sizes.bypassPa, 5e-4 / 5e4);
  const filter = fault('filter-bypassed') ? beside(media, hole(0.008, 0.02)) : beside(media, bypass);
  if (sizes.cooler) {
    nodes.push('cooled');
    add('cooler', 'pump', 'cooled', hole(left(0.009, 'cooler'), 0.6));
    add('filter', 'cooled', 'filtered', narrowed(filter, fault('restriction', 'filter')?.amount));
  } else add('filter', 'pump', 'filtered', narrowed(filter, fault('restriction', 'filter')?.amount));
  // The gallery, from main to main.
  const mains = Array.from({ length: layout.mains }, (_, i) => `main.${i + 1}`);
  const fed = mains.filter((m) => !isUnfilteredNode(layout, m));
  let last = 'filtered';
  for (const main of fed) {
    const node = `gallery.${main.split('.')[1]}`;
    nodes.push(node);
    add(`to ${node}`, last, node, hole(left(sizes.galleryM, 'gallery'), last === 'filtered' ? 0.25 : 0.09));
    last = node;
  }
  if (fault('lost-plug')) add('lost plug', last, null, hole(0.012, 0.01));
  for (const main of mains) {
    nodes.push(main);
    const unfiltered = isUnfilteredNode(layout, main);
    const from = unfiltered ? 'pump' : `gallery.${main.split('.')[1]}`;
    const shut = fault('shut-feed', main) ?? fault('turned-shell', main);
    add(`${unfiltered ? 'before ' : ''}feed ${main}`, from, main, hole(shut ? 5e-5 : left(sizes.feedHoleM, main), 0.05));
    const c = (of.clearanceMm(main) / 2000) * (fault('clearance', main)?.amount ?? fault('clearance', 'main')?.amount ?? 1);
    const leak = grooveLeak(layout.mainDiameterMm / 1000, layout.mainShellWidthMm / 1000, c, hot);
    add(`leak ${main}`, main, null, oneWay(leak));
    for (const rod of route.feeds[main] ?? []) {
      if (!rod.startsWith('rod.')) continue;
      nodes.push(rod);
      // From the surface of the main to that of the pin: the crank throws the oil outwards.
      const head = 0.5 * density * omega * omega * ((layout.strokeMm / 2000) ** 2 - (layout.mainDiameterMm / 2000) ** 2);
      const way = hole(left(sizes.crankHoleM, rod), 0.08);
      add(`crank ${rod}`, main, rod, way, Math.min(head, HEAD_MOST));
      const rc = (of.clearanceMm(rod) / 2000) * (fault('clearance', rod)?.amount ?? fault('clearance', 'rod')?.amount ?? 1);
      add(`leak ${rod}`, rod, null, oneWay(holeLeak(sizes.crankHoleM, layout.rodShellWidthMm / 1000, rc, hot)));
    }
  }
  const branch = (name: string, diameterM: number, lengthM: number, law?: FlowLaw): void => {
    if (diameterM === 0) return;
    const unfiltered = isUnfilteredNode(layout, name);
    add(`${unfiltered ? 'before ' : ''}${name}`, unfiltered ? 'pump' : last, null, law ?? hole(left(diameterM, name), lengthM));
  };
  branch('head', sizes.headM, 0.3);
  branch('turbo', sizes.turboM, 0.4);
  if (hasFollowerGallery(layout)) {
    const bore = (FOLLOWER_BORE * layout.boreMm) / 1000;
    const slot = (Math.PI * FOLLOWER_FIT.gapM ** 3) / (12 * mu * FOLLOWER_FIT.length);
    const sealed = oneWay(slot * 2 * layout.cylinders);
    add('followers', last, null, fault('lost-follower') ? beside(sealed, hole(bore / 2, bore)) : sealed);
  }
  for (let j = 1; j <= sizes.jets; j++) {
    const lost = fault('lost-jet', `jet.${j}`);
    const through = sizes.jetM ** 2 * 0.5 * Math.sqrt(2 / density);
    // A jet that is lost leaves the hole it sat in.
    branch(`jet.${j}`, sizes.jetM, 0.02, lost ? hole(3 * sizes.jetM, 0.02) : valve(sizes.jetOpensPa, (through * Math.sqrt(4e5)) / 4e5));
  }
  return { nodes, elements };
}

/** Do followers in the block hang on the gallery? Those of a pushrod engine that are filled with oil do; those of a head are fed with it. */
const hasFollowerGallery = (layout: EngineLayout): boolean => layout.valveGear === 'pushrod' && FED_FOLLOWERS.includes(layout.followers);
const FED_FOLLOWERS: ReadonlyArray<EngineLayout['followers']> = ['hydraulic', 'roller'];

/** Most a turning crank is taken to add to its pins, Pa: beyond it the drilling would be drawn empty. */
const HEAD_MOST = 3e5;

/** A leak carries only what comes: air that a turning crank would draw back through it is no oil. */
function oneWay(perPa: number): FlowLaw {
  const back = perPa * 1e-6;
  return (p) => (p >= 0 ? [p * perPa, perPa] : [p * back, back]);
}

/** An element of which only a share of the way is left. */
function narrowed(law: FlowLaw, share: number | undefined): FlowLaw {
  if (share === undefined) return law;
  const factor = Math.max(1e-4, 1 - share);
  return (d) => {
    const [q, s] = law(d);
    return [q * factor, s * factor];
  };
}

/** Node of the circuit at which the gauge sits. */
export function gaugeNode({ layout, sizes }: Pick<CircuitOf, 'layout' | 'sizes'>): string {
  const fed = Array.from({ length: layout.mains }, (_, i) => i + 1).filter((m) => !isUnfilteredNode(layout, `main.${m}`));
  if (sizes.gaugeAt === 'filter' || fed.length === 0) return 'filtered';
  return `gallery.${sizes.gaugeAt === 'gallery' ? fed[0] : fed.at(-1)}`;
}

/** The circuit as it runs steadily. */
export function solveCircuit(of: CircuitOf): Circuit {
  const { nodes, elements } = networkOf(of);
  const { sizes, faults } = of;
  const mu = dynamicPaS({ ...of.oil, underShear: 1 }, of.oilC);
  const missing = faults.find((f) => f.kind === 'low-level')?.amount ?? 0;
  const sucked = Math.min(1, Math.max(0, (missing - LEVEL.airFrom) / (LEVEL.dryFrom - LEVEL.airFrom)));
  const air = Math.max(sucked, faults.find((f) => f.kind === 'air')?.amount ?? 0);
  const worn = faults.find((f) => f.kind === 'worn-pump')?.amount ?? 1;
  const blocked = faults.find((f) => f.kind === 'restriction' && f.at === 'pickup')?.amount ?? 0;
  const turns = of.speedRpm / 60;
  const ideal = sizes.pumpM3 * turns * (1 - air);
  // What the pickup lets through at the suction a pump can make: the strainer is laid out for twice the flow at rated speed.
  const strainer = drilling(
    0.014 * Math.cbrt(sizes.pumpM3 / 1.2e-5) * Math.sqrt(Math.max(1e-4, 1 - blocked)),
    0.3,
    mu,
    of.oil.density,
    2.5,
  );
  const most = strainer(SUCTION_PA)[0];
  const drawn = ideal / (1 + (ideal / most) ** 4) ** 0.25;
  const slip = ((sizes.slip * worn * (sizes.pumpM3 * of.layout.peakRpm)) / 60 / 1e5) * (0.01 / mu);
  /** What the pump gives against a pressure; a variable one turns itself down once it has reached the pressure it is set to. */
  const given = (p: number): readonly [number, number] => {
    if (sizes.pump === 'fixed' || p <= sizes.reliefPa) return [drawn - slip * p, -slip];
    const share = Math.max(0, 1 - (p - sizes.reliefPa) / TURNED_DOWN_PA);
    return [drawn * share - slip * p, (share > 0 ? -drawn / TURNED_DOWN_PA : 0) - slip];
  };
  const solved = solveNetwork(nodes, elements, { node: 'pump', law: given });
  const bearings = nodes.filter((n) => n.startsWith('main.') || n.startsWith('rod.'));
  return {
    ...solved,
    gaugePa: solved.pressure.get(gaugeNode(of))!,
    pumpFlow: given(solved.pressure.get('pump')!)[0],
    bearingFlow: new Map(bearings.map((b) => [b, solved.flow.get(`leak ${b}`)!])),
    viscosityPaS: mu,
  };
}

/** Why an engine has no circuit to reckon; null where it has. */
export const noCircuit = (layout: EngineLayout): string | null =>
  isPressureFed(layout) ? null : `This engine is oiled by ${OILED_BY[layout.lubrication]}: there is no pressure circuit.`;

/** Places a fault of every kind can be at on this engine; null for kinds that have no place. */
export function faultPlaces(layout: EngineLayout, sizes: CircuitSizes): Readonly<Record<OilFaultKind, readonly string[] | null>> {
  const mains = Array.from({ length: layout.mains }, (_, i) => `main.${i + 1}`);
  const bearings = [...mains, ...Array.from({ length: layout.cylinders }, (_, i) => `rod.${i + 1}`)];
  const parts = (['cooler', 'head', 'turbo'] as const).filter(
    (p) => ({ cooler: sizes.cooler, head: sizes.headM > 0, turbo: sizes.turboM > 0 })[p],
  );
  return {
    clearance: ['main', 'rod', ...bearings],
    'shut-feed': mains,
    'turned-shell': mains,
    restriction: ['pickup', 'filter', 'gallery', ...parts, ...bearings],
    'lost-jet': Array.from({ length: sizes.jets }, (_, i) => `jet.${i + 1}`),
    'relief-open': null,
    'relief-shut': null,
    'filter-bypassed': null,
    'filter-clogged': null,
    'lost-plug': null,
    'lost-follower': hasFollowerGallery(layout) ? ['followers'] : [],
    'low-level': null,
    air: null,
    'worn-pump': null,
  };
}

/** Checks that faults name places the engine has. */
export function checkFaults(layout: EngineLayout, sizes: CircuitSizes, faults: readonly OilFault[]): Result<null> {
  const places = faultPlaces(layout, sizes);
  for (const [i, fault] of faults.entries()) {
    const allowed = places[fault.kind];
    if (allowed && !allowed.includes(fault.at ?? ''))
      return fail(
        'oil-fault',
        allowed.length === 0
          ? `This engine has nothing a fault of the kind ${fault.kind} could be at.`
          : `A fault of the kind ${fault.kind} cannot be at "${fault.at ?? ''}" on this engine; it can be at ${allowed.join(', ')}.`,
        `faults.${i}.at`,
      );
    if (!allowed && fault.at !== undefined)
      return fail('oil-fault', `A fault of the kind ${fault.kind} has no place; leave "at" out.`, `faults.${i}.at`);
    const amount = fault.amount;
    const times = fault.kind === 'clearance' || fault.kind === 'worn-pump';
    if (amount !== undefined && (times ? amount <= 0 || amount > 20 : amount < 0 || amount >= 1))
      return fail(
        'oil-fault',
        times ? 'How many times as large lies above 0 and at most 20.' : 'A share lies from 0 to below 1.',
        `faults.${i}.amount`,
      );
  }
  return ok(null);
}
