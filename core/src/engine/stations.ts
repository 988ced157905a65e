import { cylinderPlaces, isPressureFed, pinNumber, type EngineLayout, type ShellConstruction } from './layout.js';
import { memo } from '../kit/memo.js';

/** Classes of parts; a station is one part of one class at one place of the engine. */
export type PartClass =
  | 'shell'
  | 'journal'
  | 'thrust'
  | 'rolling'
  | 'bore'
  | 'skirt'
  | 'crown'
  | 'rings'
  | 'rod'
  | 'gasket'
  | 'pump'
  | 'pickup'
  | 'filter'
  | 'debris'
  | 'timing'
  | 'chamber'
  | 'valve'
  | 'cam'
  | 'gallery'
  | 'cooler'
  | 'fastener'
  | 'housing'
  | 'block'
  | 'cambearing'
  | 'pan'
  | 'balancer'
  | 'seal'
  | 'coolant'
  | 'turbo'
  | 'clutch';

const HALVES = ['upper', 'lower'] as const;

/** Developed surface of a part class. `u` runs across, `v` along; spans in degrees or as a share 0–1. */
export interface SurfaceFrame {
  readonly columns: number;
  readonly rows: number;
  readonly uSpanDeg: number;
  /** Real size of the developed surface, mm. */
  readonly widthMm: number;
  readonly heightMm: number;
  readonly vFrom: string;
  readonly vTo: string;
  readonly uFrom: string;
  readonly uTo: string;
}

/** Sides of a piston or ring pack, and faces of a thrust bearing; exhaust and inlet where ports lie in the wall. */
export type Side = 'thrust' | 'antithrust' | 'front' | 'rear' | 'exhaust' | 'inlet';

/** A place on a part that is looked at and measured. */
export interface Station {
  readonly id: string;
  readonly part: PartClass;
  readonly name: string;
  /** 1-based cylinder or main number; 0 for parts the engine has once. */
  readonly number: number;
  readonly cylinder: number;
  /** What is taken apart and replaced as one: `rod.2`, `piston.1`, `main.3`, `crank`. */
  readonly unit: string;
  /** Bearing it belongs to, as the oil route names it: `main.3`, `rod.2`; a pin belongs to its first rod. Null for what runs in no bearing. */
  readonly bearing: string | null;
  /** Does that bearing carry the crank or a rod? */
  readonly carries: 'crank' | 'rod' | null;
  readonly half: 'upper' | 'lower' | null;
  readonly side: Side | null;
  readonly surface: SurfaceFrame | null;
  /** Beside the parts that run: it belongs to the case, and to what was examined of it, only once something is written there. */
  readonly aside: boolean;
}

/** Parts the whole engine has once: what is wrong there reaches every place. */
export const SHARED_PARTS: readonly PartClass[] = [
  'pickup',
  'pump',
  'filter',
  'gallery',
  'cooler',
  'debris',
  'gasket',
  'timing',
  'fastener',
];

/** Parts that carry the running surfaces: an engine whose running surfaces are all good is a sound engine, whether or not its bolts were looked at. */
export const RUNNING_PARTS: readonly PartClass[] = ['shell', 'rolling', 'journal', 'thrust', 'bore', 'skirt', 'crown', 'rings'];

/** What each class of part is called, in the plural of the bench. */
export const PART_NAMES: Readonly<Record<PartClass, string>> = {
  shell: 'Shell halves',
  journal: 'Journals',
  thrust: 'Thrust faces',
  rolling: 'Rolling bearings',
  bore: 'Bores',
  skirt: 'Piston skirts',
  crown: 'Piston crowns',
  rings: 'Ring packs',
  rod: 'Rods',
  gasket: 'Head gasket and deck',
  pump: 'Oil pump',
  pickup: 'Oil pickup',
  filter: 'Filter',
  debris: 'Debris',
  timing: 'Timing drive',
  chamber: 'Chambers and ports',
  valve: 'Valves and guides',
  cam: 'Lobes and followers',
  gallery: 'Oil galleries and jets',
  cooler: 'Oil cooler',
  fastener: 'Fasteners',
  housing: 'Housings, caps and joints',
  block: 'Block and crankcase',
  cambearing: 'Camshaft bearings',
  pan: 'Oil pan',
  balancer: 'Balancer',
  seal: 'Shaft seals',
  coolant: 'Coolant side and cooling air',
  turbo: 'Turbocharger',
  clutch: 'Clutch and what it drives',
};

function shellFrame(diameterMm: number, widthMm: number): SurfaceFrame {
  return {
    columns: 36,
    rows: 12,
    uSpanDeg: 180,
    widthMm: (Math.PI * diameterMm) / 2,
    heightMm: widthMm,
    vFrom: 'front edge',
    vTo: 'rear edge',
    uFrom: 'parting line, 0°',
    uTo: 'parting line, 180°',
  };
}

function journalFrame(diameterMm: number, widthMm: number): SurfaceFrame {
  return { ...shellFrame(diameterMm, widthMm), uSpanDeg: 360, widthMm: Math.PI * diameterMm, uFrom: '0°', uTo: '360°' };
}

function boreFrame(layout: EngineLayout): SurfaceFrame {
  return {
    columns: 72,
    rows: 24,
    uSpanDeg: 360,
    widthMm: Math.PI * layout.boreMm,
    heightMm: layout.strokeMm * 1.35,
    vFrom: 'deck',
    vTo: 'lower edge',
    uFrom: 'front, 0°',
    uTo: '360°',
  };
}

function skirtFrame(layout: EngineLayout): SurfaceFrame {
  return {
    ...boreFrame(layout),
    columns: 36,
    uSpanDeg: 180,
    widthMm: (Math.PI * layout.boreMm) / 2,
    heightMm: layout.boreMm * 0.62,
    vFrom: 'ring land',
    vTo: 'skirt foot',
    uFrom: 'pin axis',
    uTo: 'pin axis',
  };
}

function crownFrame(layout: EngineLayout): SurfaceFrame {
  return {
    columns: 24,
    rows: 24,
    uSpanDeg: 0,
    widthMm: layout.boreMm,
    heightMm: layout.boreMm,
    vFrom: 'one side',
    vTo: 'other side',
    uFrom: 'front',
    uTo: 'rear',
  };
}

/** Thrust face as one turn rolled out: a ring of a tenth of the journal's diameter about it. */
function thrustFrame(layout: EngineLayout): SurfaceFrame {
  const inner = layout.mainDiameterMm / 2 + 1;
  const width = layout.mainDiameterMm * 0.12;
  return {
    columns: 36,
    rows: 6,
    uSpanDeg: 360,
    widthMm: Math.PI * (2 * inner + width),
    heightMm: width,
    vFrom: 'outer edge',
    vTo: 'inner edge',
    uFrom: 'top, 0°',
    uTo: '360°',
  };
}

const SIDE_WORDS: Readonly<Record<Side, string>> = {
  thrust: 'thrust',
  antithrust: 'anti-thrust',
  front: 'front',
  rear: 'rear',
  exhaust: 'exhaust',
  inlet: 'inlet',
};

/** All stations that follow from the layout, in bench order (front to rear, top to bottom). Ids are stable and readable in an export. */
export const stationsOf: (layout: EngineLayout) => readonly Station[] = memo('stations of a layout', makeStations);

type Draft = Pick<Station, 'id' | 'part' | 'name'> & Partial<Station>;

function makeStations(layout: EngineLayout): Station[] {
  const list: Station[] = [];
  const add = (draft: Draft): void => {
    list.push({
      number: 0,
      cylinder: 0,
      unit: draft.id,
      bearing: null,
      carries: null,
      half: null,
      side: null,
      surface: null,
      aside: false,
      ...draft,
    });
  };
  const places = cylinderPlaces(layout);
  for (const { cylinder: c } of places) {
    const of = { number: c, cylinder: c };
    const piston = { ...of, unit: `piston.${c}` };
    const skirt = { ...piston, part: 'skirt' as const, surface: skirtFrame(layout) };
    add({ ...of, id: `head.${c}`, part: 'chamber', name: `Chamber ${c}` });
    if (layout.valveGear !== 'ports') {
      add({ ...of, id: `valves.${c}`, part: 'valve', name: `Valves ${c}` });
      add({ ...of, id: `cam.${c}`, part: 'cam', name: `Lobes and followers ${c}` });
    }
    add({ ...of, id: `bore.${c}`, part: 'bore', name: `Bore ${c}`, surface: boreFrame(layout) });
    add({ ...of, id: `rings.${c}.pack`, part: 'rings', name: `Rings ${c}`, unit: `rings.${c}` });
    add({ ...piston, id: `piston.${c}.crown`, part: 'crown', name: `Piston ${c} crown`, surface: crownFrame(layout) });
    add({ ...skirt, id: `piston.${c}.skirt.thrust`, name: `Piston ${c} skirt, thrust side`, side: 'thrust' });
    add({ ...skirt, id: `piston.${c}.skirt.antithrust`, name: `Piston ${c} skirt, anti-thrust side`, side: 'antithrust' });
    add({ ...of, id: `rod.${c}`, part: 'rod', name: `Rod ${c}` });
  }
  const rodFrame = shellFrame(layout.pinDiameterMm, layout.rodShellWidthMm);
  for (const { cylinder: c } of places) {
    const bearing = `rod.${c}`;
    const of = { number: c, cylinder: c, unit: bearing, bearing, carries: 'rod' as const };
    if (layout.bigEnds === 'shells')
      for (const half of HALVES)
        add({ ...of, id: `${bearing}.shell.${half}`, part: 'shell', name: `Rod ${c} ${half} shell`, half, surface: rodFrame });
    else if (layout.bigEnds === 'rolling') add({ ...of, id: `${bearing}.rollers`, part: 'rolling', name: `Rod ${c} big-end rollers` });
    else add({ ...of, id: `${bearing}.bigend`, part: 'shell', name: `Rod ${c} big end`, surface: rodFrame });
  }
  const pinWidth = layout.rodShellWidthMm * (layout.crankpins === 'shared' ? 2 : 1);
  for (const number of new Set(places.map((place) => pinNumber(layout, place)))) {
    const cylinder = places.find((place) => pinNumber(layout, place) === number)?.cylinder ?? number;
    const surface = journalFrame(layout.pinDiameterMm, pinWidth);
    const of = { number, cylinder, unit: 'crank', bearing: `rod.${cylinder}`, carries: 'rod' as const };
    add({ ...of, id: `crank.pin.${number}`, part: 'journal', name: `Crankpin ${number}`, surface });
  }
  const mainFrame = shellFrame(layout.mainDiameterMm, layout.mainShellWidthMm);
  for (let m = 1; m <= layout.mains; m++) {
    const bearing = `main.${m}`;
    const of = { number: m, unit: bearing, bearing, carries: 'crank' as const };
    if (layout.mainBearings === 'rolling') {
      add({ ...of, id: `${bearing}.rollers`, part: 'rolling', name: `Main ${m} rolling bearing` });
      continue;
    }
    const surface = journalFrame(layout.mainDiameterMm, layout.mainShellWidthMm);
    add({ ...of, id: `crank.main.${m}`, part: 'journal', name: `Main journal ${m}`, unit: 'crank', surface });
    for (const half of HALVES)
      add({ ...of, id: `${bearing}.shell.${half}`, part: 'shell', name: `Main ${m} ${half} shell`, half, surface: mainFrame });
    if (m === layout.thrustMain)
      for (const side of ['front', 'rear'] as const)
        add({
          ...of,
          id: `${bearing}.thrust.${side}`,
          part: 'thrust',
          name: `Main ${m} thrust face, ${side}`,
          side,
          surface: thrustFrame(layout),
        });
  }
  const once = (id: string, part: PartClass, name: string): void => add({ id, part, name });
  if (layout.valveGear !== 'ports') once('gasket.head', 'gasket', 'Head gasket and deck');
  if (layout.camDrive !== 'none') once('timing.drive', 'timing', 'Timing drive');
  if (isPressureFed(layout)) {
    once('pickup.screen', 'pickup', 'Pickup and screen');
    once('pump.gears', 'pump', 'Oil pump gears');
    once('pump.relief', 'pump', 'Relief valve');
    once('filter.media', 'filter', 'Filter media');
    once('oil.gallery', 'gallery', 'Oil galleries and jets');
    once('oil.cooler', 'cooler', 'Oil cooler');
  }
  if (layout.lubrication !== 'premix') once('pan.debris', 'debris', 'Pan debris');
  if (layout.bigEnds === 'shells') once('bolts.rod', 'fastener', 'Rod bolts');
  if (layout.mainBearings === 'shells') once('bolts.main', 'fastener', 'Main bolts');
  once('bolts.head', 'fastener', 'Head bolts');
  once('bolts.crank', 'fastener', 'Flywheel, damper and their bolts');
  const aside = (draft: Draft): void => add({ ...draft, aside: true });
  for (const { cylinder: c } of places)
    aside({
      id: `rod.${c}.housing`,
      part: 'housing',
      name: `Rod ${c} eye, cap and joint`,
      number: c,
      cylinder: c,
      unit: `rod.${c}`,
      bearing: `rod.${c}`,
      carries: 'rod',
    });
  for (let m = 1; m <= layout.mains; m++)
    aside({
      id: `main.${m}.housing`,
      part: 'housing',
      name: `Main ${m} housing, cap and joint`,
      number: m,
      unit: 'block',
      bearing: `main.${m}`,
      carries: 'crank',
    });
  const corners: readonly Side[] =
    layout.valveGear === 'ports' ? ['exhaust', 'inlet', 'front', 'rear'] : ['thrust', 'antithrust', 'front', 'rear'];
  for (const { cylinder: c } of places) {
    const of = { number: c, cylinder: c, aside: true };
    for (const side of corners)
      add({ ...of, id: `rings.${c}.${side}`, part: 'rings', name: `Rings ${c}, ${SIDE_WORDS[side]} corner`, unit: `rings.${c}`, side });
    if (layout.valveGear === 'ports')
      for (const side of ['exhaust', 'inlet'] as const)
        add({ ...of, id: `piston.${c}.skirt.${side}`, part: 'skirt', name: `Piston ${c} skirt, ${side} side`, unit: `piston.${c}`, side });
  }
  aside({ id: 'block.case', part: 'block', name: 'Block and crankcase', unit: 'block' });
  if (layout.valveGear !== 'ports') {
    aside({ id: 'cam.bearings', part: 'cambearing', name: 'Camshaft bearings and journals' });
    aside({ id: 'cam.thrust', part: 'cambearing', name: 'Camshaft thrust plate and play' });
  }
  if (layout.lubrication !== 'premix') aside({ id: 'pan.floor', part: 'pan', name: 'Oil pan and its baffles' });
  if (isPressureFed(layout)) aside({ id: 'pump.drive', part: 'pump', name: 'Pump drive' });
  if (layout.cylinders > 1) aside({ id: 'damper', part: 'timing', name: 'Vibration damper' });
  aside({ id: 'balancer', part: 'balancer', name: 'Balancer shafts' });
  aside({ id: 'seals.shaft', part: 'seal', name: 'Shaft seals' });
  aside({
    id: 'coolant.side',
    part: 'coolant',
    name: layout.cooling === 'liquid' ? 'Coolant side and core plugs' : 'Cooling air: fins, fan and ducts',
  });
  aside({ id: 'turbo', part: 'turbo', name: 'Turbocharger and charge side' });
  aside({ id: 'clutch.side', part: 'clutch', name: 'Clutch, converter or coupling' });
  return list;
}

const stationsById = memo(
  'stations of a layout by id',
  (layout: EngineLayout): ReadonlyMap<string, Station> => new Map(stationsOf(layout).map((s) => [s.id, s])),
);

/** Station by id; undefined where this engine has none of that name. */
export function stationOf(layout: EngineLayout, id: string): Station | undefined {
  return stationsById(layout).get(id);
}

/** Construction of the shell at a station; of several patterns that name it the last counts. */
export function shellConstructionAt(layout: EngineLayout, station: string): ShellConstruction {
  const own = Object.entries(layout.otherShells ?? {}).filter(([pattern]) => matchesStation(pattern, station));
  return own.at(-1)?.[1] ?? layout.shellConstruction;
}

/** The other half of a shell, the other face of a skirt or thrust bearing. */
export function partnerOf(layout: EngineLayout, of: Station): Station | undefined {
  if (of.aside || (of.half === null && of.side === null)) return undefined;
  return stationsOf(layout).find((s) => s !== of && s.part === of.part && s.unit === of.unit && (s.half !== of.half || s.side !== of.side));
}

/** The journal or pin a shell runs on. */
export function journalOf(layout: EngineLayout, of: Station): Station | undefined {
  if (of.carries === 'crank') return stationOf(layout, `crank.main.${of.number}`);
  const place = of.carries === 'rod' ? cylinderPlaces(layout).find((p) => p.cylinder === of.cylinder) : undefined;
  return place && stationOf(layout, `crank.pin.${pinNumber(layout, place)}`);
}

/** The shells that run on a journal: both halves of a main, those of every rod on a pin. */
export function shellsOn(layout: EngineLayout, journal: Station): Station[] {
  return stationsOf(layout).filter((s) => s.part === 'shell' && journalOf(layout, s) === journal);
}

/** The same place at the next bearing or cylinder, one step to the front (−1) or the rear (1). */
export function neighbourOf(layout: EngineLayout, of: Station, step: -1 | 1): Station | undefined {
  if (of.number === 0) return undefined;
  const alike = (s: Station): boolean => s.part === of.part && s.carries === of.carries && s.half === of.half && s.side === of.side;
  return stationsOf(layout).find((s) => alike(s) && s.number === of.number + step);
}

/** Matches a station id against a pattern in which `*` stands for one step, e.g. `rod.*.shell.lower`; a trailing `**` stands for the rest. */
export function matchesStation(pattern: string, id: string): boolean {
  const want = pattern.split('.');
  const have = id.split('.');
  for (let i = 0; i < want.length; i++) {
    if (want[i] === '**') return true;
    if (have[i] === undefined || (want[i] !== '*' && want[i] !== have[i])) return false;
  }
  return want.length === have.length;
}

/** Does a pattern of a file name this station? Corners of rings and sides at the ports are parts of places that have a pattern of their own already: only their own last step names them. */
export function isNamedBy(pattern: string, station: Station): boolean {
  if (station.aside && station.side !== null && pattern.endsWith('*')) return false;
  return matchesStation(pattern, station.id);
}
