import type { CaseView } from '../case/views.js';
import { cylinderPlaces, pinNumber } from '../engine/layout.js';
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

/** Patterns that say metal or grit went round with the oil. */
const DIRT = new Set([
  'scoring',
  'own-debris-scoring',
  'embedded',
  'spun-shell',
  'dry-seizure',
  'copper-flake',
  'bright-aluminium',
  'steel-sliver',
  'ring-pieces',
  'timing-plastic',
  'grit',
  'casting-sand',
  'gallery-swarf',
  'cooler-debris',
]);

/** A place whose disposition is settled by another: what it is raised to, and why. */
interface Coupling {
  readonly to: (station: string) => boolean;
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
    for (const c of couplings(view, [...proposed.keys()], now))
      for (const [id, own] of proposed) {
        if (!c.to(id) || c.because.includes(id)) continue;
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

function couplings(view: CaseView, ids: readonly string[], now: (id: string) => { operation: Operation; size: string }): Coupling[] {
  const of = (operation: Operation, test: (id: string) => boolean): string[] =>
    ids.filter((id) => test(id) && now(id).operation === operation);
  const list: Coupling[] = [];
  const pins = of('grind', (id) => id.startsWith('crank.pin.'));
  const mains = of('grind', (id) => id.startsWith('crank.main.'));
  const newCrank = of('replace', (id) => id.startsWith('crank.'));
  const sizeOf = (key: 'crank.pin' | 'crank.main' | 'bore', sign: string): string | undefined => {
    const step = sizeForAll(view, key)?.stepMm;
    return step ? `${sign}${step.toFixed(2)} mm` : undefined;
  };
  const sized = (key: 'crank.pin' | 'crank.main' | 'bore', sign: string): { size?: string } => {
    const size = sizeOf(key, sign);
    return size ? { size } : {};
  };
  if (newCrank.length > 0) {
    list.push({ to: (id) => id.startsWith('crank.'), operation: 'replace', reason: 'the crank is replaced whole', because: newCrank });
    list.push({
      to: (id) => id.includes('.shell.') || id.includes('.thrust.'),
      operation: 'replace',
      reason: 'new shells to a new crank',
      because: newCrank,
    });
  }
  if (pins.length > 0) {
    list.push({
      to: (id) => id.startsWith('crank.pin.'),
      operation: 'grind',
      reason: 'all crankpins to one size',
      because: pins,
      ...sized('crank.pin', '−'),
    });
    list.push({
      to: (id) => /^rod\.\d+\.(shell|bigend)/.test(id),
      operation: 'replace',
      reason: 'shells of the ground size; fillets and hardness checked',
      because: pins,
      ...sized('crank.pin', '−'),
    });
  }
  if (mains.length > 0) {
    list.push({
      to: (id) => id.startsWith('crank.main.'),
      operation: 'grind',
      reason: 'all mains to one size',
      because: mains,
      ...sized('crank.main', '−'),
    });
    list.push({
      to: (id) => /^main\.\d+\.shell/.test(id),
      operation: 'replace',
      reason: 'shells of the ground size; fillets and hardness checked',
      because: mains,
      ...sized('crank.main', '−'),
    });
  }
  for (const id of [...of('polish', (x) => x.startsWith('crank.'))])
    list.push({
      to: (x) => bearingOf(view, id).some((b) => x.startsWith(b)),
      operation: 'replace',
      reason: 'new shells to a polished journal',
      because: [id],
    });
  const reboring = ids.filter((id) => id.startsWith('bore.') && ['rebore', 'sleeve'].includes(now(id).operation));
  if (reboring.length > 0) {
    list.push({
      to: (id) => id.startsWith('bore.'),
      operation: 'rebore',
      reason: 'all bores to one size, so that the pistons weigh alike',
      because: reboring,
      ...sized('bore', '+'),
    });
    list.push({
      to: (id) => /^(piston|rings)\./.test(id),
      operation: 'replace',
      reason: 'pistons and rings of the new size; balanced',
      because: reboring,
      ...sized('bore', '+'),
    });
  }
  for (const id of of('hone', (x) => x.startsWith('bore.')))
    list.push({
      to: (x) => x === `rings.${id.split('.')[1]}.pack`,
      operation: 'replace',
      reason: 'new rings to a honed bore',
      because: [id],
    });
  for (const s of view.stations.filter((x) =>
    x.patterns.some((p) => p.value.present && ['spun-shell', 'shell-contracted', 'insufficient-crush'].includes(p.value.pattern)),
  )) {
    const stem = s.station.id.split('.').slice(0, 2).join('.');
    list.push({
      to: (id) => (stem.startsWith('rod.') ? id === stem : false),
      operation: 'resize',
      reason: 'its shell moved: housing measured with the cap torqued, resized or replaced',
      because: [s.station.id],
    });
  }
  const dirty = view.stations.filter((s) => s.patterns.some((p) => p.value.present && DIRT.has(p.value.pattern))).map((s) => s.station.id);
  if (dirty.length > 0)
    for (const [id, operation, reason] of [
      ['oil.gallery', 'clean', 'metal or grit went round: plugs out, every drilling brushed and blown, jets out'],
      ['oil.cooler', 'replace', 'metal or grit went round: a cooler is not washed clean for certain'],
      ['pump.gears', 'test', 'metal or grit went round: open, measure, relief valve out'],
      ['pump.relief', 'clean', 'metal or grit went round'],
      ['pickup.screen', 'clean', 'metal or grit went round'],
    ] as const)
      list.push({ to: (x) => x === id, operation, reason, because: dirty.slice(0, 3) });
  const hot = ids.filter((id) => /^rod\.\d+$/.test(id) && now(id).operation === 'replace');
  if (hot.length > 0)
    list.push({
      to: (id) => /^rod\.\d+$/.test(id),
      operation: 'test',
      reason: 'a rod is out: housings and alignment of the others checked',
      because: hot,
    });
  const headOff = view.stations
    .filter((s) => ['bore', 'crown', 'chamber'].includes(s.station.part) && s.state !== 'not-examined')
    .map((s) => s.station.id);
  if (headOff.length > 0)
    list.push({
      to: (id) => id === 'gasket.head',
      operation: 'replace',
      reason: 'the head was off: a gasket is used once, bolts by type',
      because: headOff.slice(0, 1),
    });
  const cams = of('replace', (id) => id.startsWith('cam.'));
  if (cams.length > 0)
    list.push({ to: (id) => id.startsWith('cam.'), operation: 'replace', reason: 'cam and followers as a set', because: cams });
  return list;
}

/** Stems of the bearings that run on a journal. */
function bearingOf(view: CaseView, journal: string): string[] {
  const number = Number(journal.split('.')[2]);
  if (journal.startsWith('crank.main')) return [`main.${number}.shell`];
  return cylinderPlaces(view.layout)
    .filter((p) => pinNumber(view.layout, p) === number)
    .map((p) => `rod.${p.cylinder}.shell`);
}
