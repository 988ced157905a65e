import { cylinderPlaces, isPressureFed, pinNumber, type EngineLayout } from './layout.js';

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
  | 'fastener';

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

/** A place on a part that is looked at and measured. */
export interface Station {
  readonly id: string;
  readonly part: PartClass;
  readonly name: string;
  /** 1-based cylinder or main number; 0 for parts the engine has once. */
  readonly number: number;
  readonly cylinder: number;
  readonly surface: SurfaceFrame | null;
}

/** Parts that carry the running surfaces: an engine whose running surfaces are all good is a sound engine, whether or not its bolts were looked at. */
export const RUNNING_PARTS: readonly PartClass[] = ['shell', 'rolling', 'journal', 'thrust', 'bore', 'skirt', 'crown', 'rings'];

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

/** All stations that follow from the layout, in bench order (front to rear, top to bottom). Ids are stable and readable in an export. */
export function stationsOf(layout: EngineLayout): Station[] {
  const list: Station[] = [];
  const add = (id: string, part: PartClass, name: string, number = 0, cylinder = 0, surface: SurfaceFrame | null = null): void => {
    list.push({ id, part, name, number, cylinder, surface });
  };
  const places = cylinderPlaces(layout);
  for (const { cylinder: c } of places) {
    add(`head.${c}`, 'chamber', `Chamber ${c}`, c, c);
    if (layout.valveGear !== 'ports') {
      add(`valves.${c}`, 'valve', `Valves ${c}`, c, c);
      add(`cam.${c}`, 'cam', `Lobes and followers ${c}`, c, c);
    }
    add(`bore.${c}`, 'bore', `Bore ${c}`, c, c, boreFrame(layout));
    add(`rings.${c}.pack`, 'rings', `Rings ${c}`, c, c);
    add(`piston.${c}.crown`, 'crown', `Piston ${c} crown`, c, c, crownFrame(layout));
    add(`piston.${c}.skirt.thrust`, 'skirt', `Piston ${c} skirt, thrust side`, c, c, skirtFrame(layout));
    add(`piston.${c}.skirt.antithrust`, 'skirt', `Piston ${c} skirt, anti-thrust side`, c, c, skirtFrame(layout));
    add(`rod.${c}`, 'rod', `Rod ${c}`, c, c);
  }
  const rodFrame = shellFrame(layout.pinDiameterMm, layout.rodShellWidthMm);
  for (const { cylinder: c } of places) {
    if (layout.bigEnds === 'shells') {
      add(`rod.${c}.shell.upper`, 'shell', `Rod ${c} upper shell`, c, c, rodFrame);
      add(`rod.${c}.shell.lower`, 'shell', `Rod ${c} lower shell`, c, c, rodFrame);
    } else if (layout.bigEnds === 'rolling') add(`rod.${c}.rollers`, 'rolling', `Rod ${c} big-end rollers`, c, c);
    else add(`rod.${c}.bigend`, 'shell', `Rod ${c} big end`, c, c, rodFrame);
  }
  const pinWidth = layout.rodShellWidthMm * (layout.crankpins === 'shared' ? 2 : 1);
  for (const number of new Set(places.map((place) => pinNumber(layout, place)))) {
    const cylinder = places.find((place) => pinNumber(layout, place) === number)?.cylinder ?? number;
    add(`crank.pin.${number}`, 'journal', `Crankpin ${number}`, number, cylinder, journalFrame(layout.pinDiameterMm, pinWidth));
  }
  const mainFrame = shellFrame(layout.mainDiameterMm, layout.mainShellWidthMm);
  for (let m = 1; m <= layout.mains; m++) {
    if (layout.mainBearings === 'rolling') {
      add(`main.${m}.rollers`, 'rolling', `Main ${m} rolling bearing`, m);
      continue;
    }
    add(`crank.main.${m}`, 'journal', `Main journal ${m}`, m, 0, journalFrame(layout.mainDiameterMm, layout.mainShellWidthMm));
    add(`main.${m}.shell.upper`, 'shell', `Main ${m} upper shell`, m, 0, mainFrame);
    add(`main.${m}.shell.lower`, 'shell', `Main ${m} lower shell`, m, 0, mainFrame);
    if (m === layout.thrustMain) {
      add(`main.${m}.thrust.front`, 'thrust', `Main ${m} thrust face, front`, m, 0, thrustFrame(layout));
      add(`main.${m}.thrust.rear`, 'thrust', `Main ${m} thrust face, rear`, m, 0, thrustFrame(layout));
    }
  }
  if (layout.valveGear !== 'ports') add('gasket.head', 'gasket', 'Head gasket and deck');
  if (layout.camDrive !== 'none') add('timing.drive', 'timing', 'Timing drive');
  if (isPressureFed(layout)) {
    add('pickup.screen', 'pickup', 'Pickup and screen');
    add('pump.gears', 'pump', 'Oil pump gears');
    add('pump.relief', 'pump', 'Relief valve');
    add('filter.media', 'filter', 'Filter media');
    add('oil.gallery', 'gallery', 'Oil galleries and jets');
    add('oil.cooler', 'cooler', 'Oil cooler');
  }
  if (layout.lubrication !== 'premix') add('pan.debris', 'debris', 'Pan debris');
  if (layout.bigEnds === 'shells') add('bolts.rod', 'fastener', 'Rod bolts');
  if (layout.mainBearings === 'shells') add('bolts.main', 'fastener', 'Main bolts');
  add('bolts.head', 'fastener', 'Head bolts');
  add('bolts.crank', 'fastener', 'Flywheel, damper and their bolts');
  return list;
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
