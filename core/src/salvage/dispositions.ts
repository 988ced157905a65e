import { showsFact, type CaseView } from '../case/views.js';
import { shellsOn, stationOf, type Station } from '../engine/stations.js';
import { sizeForAll } from '../measured/consequences.js';
import { ownDisposition } from './rules.js';
import type { Disposition, Operation, StandingDisposition } from '../workshop/operations.js';

/** How far an operation goes; a coupling may raise it, never lower it. */
const WEIGHT: Readonly<Record<Operation, number>> = {
  check: 0,
  reuse: 1,
  clean: 2,
  test: 3,
  polish: 4,
  hone: 5,
  face: 5,
  resize: 6,
  grind: 7,
  rebore: 7,
  'line-bore': 7,
  weld: 7,
  sleeve: 8,
  replace: 9,
  scrap: 10,
  keep: 10,
};

/** A place whose disposition is settled by another: what it is raised to, and why. */
interface Coupling {
  readonly to: (station: Station) => boolean;
  readonly operation: Operation;
  readonly reason: string;
  readonly because: readonly string[];
  readonly size?: string;
}

/** Proposed dispositions of every place: what its own evidence asks for, then what the others force, as far as it goes. Confirmed ones of the builder stand and force in their turn. */
export function standingDispositions(view: CaseView): StandingDisposition[] {
  const held = new Map(view.dispositions.map((d) => [d.station, d]));
  const proposed = new Map(view.stations.map((s) => [s.station.id, ownDisposition(view, s)]));
  const now = (id: string): { operation: Operation; size: string } => {
    const h = held.get(id)?.value;
    return h ? { operation: h.operation, size: h.size } : proposed.get(id)!;
  };
  // Couplings may raise what raises others in turn: at most as many rounds as there are kinds of operation.
  for (let round = 0; round < 6; round++) {
    let changed = false;
    for (const c of couplings(view, now))
      for (const { station } of view.stations) {
        const { id } = station;
        const own = proposed.get(id)!;
        if (!c.to(station) || c.because.includes(id)) continue;
        const raises = WEIGHT[c.operation] > WEIGHT[own.operation];
        const resized = c.size !== undefined && c.operation === own.operation && own.size !== c.size;
        if (!raises && !resized) continue;
        proposed.set(id, { ...own, operation: c.operation, size: c.size ?? own.size, reason: c.reason, because: c.because });
        changed = true;
      }
    if (!changed) break;
  }
  return view.stations.map((s): StandingDisposition => {
    const own: Disposition = proposed.get(s.station.id)!;
    const h = held.get(s.station.id);
    if (!h) return { ...own, proposed: own, confirmed: false, by: null };
    return {
      ...own,
      operation: h.value.operation,
      size: h.value.size,
      reason: h.value.reason || own.reason,
      proposed: own,
      confirmed: true,
      by: h.version.author.name,
    };
  });
}

const PIN = (s: Station): boolean => s.part === 'journal' && s.carries === 'rod';
const MAIN = (s: Station): boolean => s.part === 'journal' && s.carries === 'crank';
const CRANK = (s: Station): boolean => s.part === 'journal';
const BORE = (s: Station): boolean => s.part === 'bore';
const CAM = (s: Station): boolean => s.part === 'cam';
const ROD = (s: Station): boolean => s.part === 'rod';

function couplings(view: CaseView, now: (id: string) => { operation: Operation; size: string }): Coupling[] {
  const stations = view.stations.map((s) => s.station);
  const of = (operation: Operation, test: (s: Station) => boolean): string[] =>
    stations.filter((s) => test(s) && now(s.id).operation === operation).map((s) => s.id);
  const list: Coupling[] = [];
  const pins = of('grind', PIN);
  const mains = of('grind', MAIN);
  const newCrank = of('replace', CRANK);
  const sizeOf = (key: 'crank.pin' | 'crank.main' | 'bore', sign: string): string | undefined => {
    const step = sizeForAll(view, key)?.stepMm;
    return step ? `${sign}${step.toFixed(2)} mm` : undefined;
  };
  const sized = (key: 'crank.pin' | 'crank.main' | 'bore', sign: string): { size?: string } => {
    const size = sizeOf(key, sign);
    return size ? { size } : {};
  };
  if (newCrank.length > 0) {
    list.push({ to: CRANK, operation: 'replace', reason: 'the crank is replaced whole', because: newCrank });
    list.push({
      to: (s) => (s.part === 'shell' && s.half !== null) || s.part === 'thrust',
      operation: 'replace',
      reason: 'new shells to a new crank',
      because: newCrank,
    });
  }
  if (pins.length > 0) {
    list.push({
      to: PIN,
      operation: 'grind',
      reason: 'all crankpins to one size',
      because: pins,
      ...sized('crank.pin', '−'),
    });
    list.push({
      to: (s) => s.part === 'shell' && s.carries === 'rod',
      operation: 'replace',
      reason: 'shells of the ground size; fillets and hardness checked',
      because: pins,
      ...sized('crank.pin', '−'),
    });
  }
  if (mains.length > 0) {
    list.push({
      to: MAIN,
      operation: 'grind',
      reason: 'all mains to one size',
      because: mains,
      ...sized('crank.main', '−'),
    });
    list.push({
      to: (s) => s.part === 'shell' && s.carries === 'crank',
      operation: 'replace',
      reason: 'shells of the ground size; fillets and hardness checked',
      because: mains,
      ...sized('crank.main', '−'),
    });
  }
  for (const id of of('polish', CRANK)) {
    const on = shellsOn(view.layout, stationOf(view.layout, id)!).filter((s) => s.half !== null);
    list.push({ to: (s) => on.includes(s), operation: 'replace', reason: 'new shells to a polished journal', because: [id] });
  }
  const reboring = stations.filter((s) => BORE(s) && ['rebore', 'sleeve'].includes(now(s.id).operation)).map((s) => s.id);
  if (reboring.length > 0) {
    list.push({
      to: BORE,
      operation: 'rebore',
      reason: 'all bores to one size, so that the pistons weigh alike',
      because: reboring,
      ...sized('bore', '+'),
    });
    list.push({
      to: (s) => ['crown', 'skirt', 'rings'].includes(s.part),
      operation: 'replace',
      reason: 'pistons and rings of the new size; balanced',
      because: reboring,
      ...sized('bore', '+'),
    });
  }
  for (const id of of('hone', BORE)) {
    const { cylinder } = stationOf(view.layout, id)!;
    list.push({
      to: (s) => s.part === 'rings' && s.cylinder === cylinder,
      operation: 'replace',
      reason: 'new rings to a honed bore',
      because: [id],
    });
  }
  for (const { station: moved } of view.stations.filter(
    (s) => s.station.part === 'shell' && s.station.carries === 'rod' && showsFact(s, 'moved in its housing'),
  ))
    list.push({
      to: (s) => ROD(s) && s.cylinder === moved.cylinder,
      operation: 'resize',
      reason: 'its shell moved: housing measured with the cap torqued, resized or replaced',
      because: [moved.id],
    });
  const dirty = view.stations.filter((s) => showsFact(s, 'fouls the oil')).map((s) => s.station.id);
  if (dirty.length > 0)
    for (const [id, operation, reason] of [
      ['oil.gallery', 'clean', 'metal or grit went round: plugs out, every drilling brushed and blown, jets out'],
      ['oil.cooler', 'replace', 'metal or grit went round: a cooler is not washed clean for certain'],
      ['pump.gears', 'test', 'metal or grit went round: open, measure, relief valve out'],
      ['pump.relief', 'clean', 'metal or grit went round'],
      ['pickup.screen', 'clean', 'metal or grit went round'],
    ] as const)
      list.push({ to: (s) => s.id === id, operation, reason, because: dirty.slice(0, 3) });
  const hot = of('replace', ROD);
  if (hot.length > 0)
    list.push({
      to: ROD,
      operation: 'test',
      reason: 'a rod is out: housings and alignment of the others checked',
      because: hot,
    });
  const headOff = view.stations
    .filter((s) => ['bore', 'crown', 'chamber'].includes(s.station.part) && s.state !== 'not-examined')
    .map((s) => s.station.id);
  if (headOff.length > 0)
    list.push({
      to: (s) => s.id === 'gasket.head',
      operation: 'replace',
      reason: 'the head was off: a gasket is used once, bolts by type',
      because: headOff.slice(0, 1),
    });
  const cams = of('replace', CAM);
  if (cams.length > 0) list.push({ to: CAM, operation: 'replace', reason: 'cam and followers as a set', because: cams });
  return list;
}
