import { bankCount, cylinderPlaces, isPressureFed, mainPositions, type EngineLayout } from '../../engine/layout.js';
import { stationsOf } from '../../engine/stations.js';
import { AXES, PLANES } from '../journal.js';
import { DEEPEST_MARK, placeId, type Cell, type SheetPlace } from './cells.js';

/** Where the bore is read, as shares of the stroke below the deck: top of the ring travel, two between, foot. */
export const BORE_DEPTHS = [0.1, 0.4, 0.75, 1.1] as const;
/** Across the crank (thrust side), along it, and the two between. */
export const BORE_AXES = ['A', 'B', 'C', 'D'] as const;
export const RINGS = ['top', 'second', 'oil'] as const;
const HOUSING = ['vertical', 'left', 'right'] as const;
const HOUSING_WORDS = { vertical: 'along the bolts', left: '60° to the left', right: '60° to the right' } as const;

type Draft = Omit<SheetPlace, 'id' | 'fixed' | 'needs' | 'complete'> & Partial<Pick<SheetPlace, 'fixed' | 'needs' | 'complete'>>;
type Loose = Partial<Cell> & Pick<Cell, 'key' | 'name' | 'role'>;

const cell = (c: Loose): Cell => ({ row: '', column: c.name, quantity: 'length', field: c.key, ...c });
const GAP: readonly [number, number] = [0, 3];
const PLAY: readonly [number, number] = [-10, 10];

function journalCells(expectMm: number): Cell[] {
  return [
    ...PLANES.flatMap((plane) =>
      AXES.map((axis) =>
        cell({
          key: `${plane}.${axis}`,
          name: `${plane}, axis ${axis}`,
          row: axis,
          column: plane,
          role: 'micrometer',
          expectMm,
          list: '',
          item: { plane, axis },
          field: 'value',
        }),
      ),
    ),
    deepestMark,
  ];
}

/** What grinding or boring must get under; it is no reading of the sheet but sets the next size. */
const deepestMark = cell({
  key: DEEPEST_MARK,
  name: 'deepest mark, by depth gauge',
  column: 'deepest mark',
  role: 'depth',
  sense: [0, 3],
  optional: true,
});

const thermometer = cell({
  key: 'temperatureC',
  name: 'temperature of the part',
  column: 'at °C',
  quantity: 'temperature',
  role: 'thermometer',
  sense: [-30, 120],
  optional: true,
});

function boreCells(layout: EngineLayout): Cell[] {
  const depths = BORE_DEPTHS.map((share) => Math.round(share * layout.strokeMm));
  return [
    cell({ key: 'unworn', name: 'unworn, above the ring travel', column: 'unworn', role: 'bore', expectMm: layout.boreMm }),
    ...depths.flatMap((depthMm) =>
      BORE_AXES.map((axis) =>
        cell({
          key: `${depthMm}.${axis}`,
          name: `${depthMm} mm below the deck, axis ${axis}`,
          row: `${depthMm} mm`,
          column: axis,
          role: 'bore',
          expectMm: layout.boreMm,
          list: 'at',
          item: { depthMm, axis },
          field: 'value',
          optional: axis === 'C' || axis === 'D',
        }),
      ),
    ),
    deepestMark,
    thermometer,
  ];
}

function pistonCells(layout: EngineLayout): Cell[] {
  const size = (key: string, name: string, extra: Partial<Cell> = {}): Cell =>
    cell({ key, name, role: 'micrometer', expectMm: layout.boreMm, ...extra });
  return [
    size('piston', 'at the gauge point'),
    size('bore', 'its bore at that height', { role: 'bore' }),
    size('new', 'size new', { optional: true }),
    size('crown', 'crown', { optional: true }),
    cell({ key: 'pinBoss', name: 'pin boss', role: 'bore', optional: true, sense: [5, 120] }),
    cell({ key: 'print', name: 'height of the print', role: 'scale', optional: true, sense: [0, 200] }),
    thermometer,
  ];
}

function ringCells(): Cell[] {
  return [
    cell({ key: 'gapUnworn', name: 'end gap in the unworn bore', column: 'gap', role: 'feeler', sense: GAP }),
    cell({ key: 'gapWorn', name: 'end gap in the ring travel', column: 'gap, worn', role: 'feeler', sense: GAP }),
    cell({ key: 'groove', name: 'groove height', column: 'groove', role: 'feeler', sense: [0.5, 10] }),
    cell({ key: 'ring', name: 'ring height', column: 'ring', role: 'micrometer', sense: [0.5, 10] }),
    cell({ key: 'grooveDepth', name: 'groove depth', column: 'depth', role: 'depth', sense: [1, 12], optional: true }),
    cell({ key: 'ringDepth', name: 'ring thickness', column: 'thickness', role: 'micrometer', sense: [1, 12], optional: true }),
    cell({ key: 'freeGap', name: 'free gap', role: 'caliper', sense: [0, 60], optional: true }),
    cell({ key: 'tension', name: 'tension', role: 'spring', quantity: 'force', sense: [0, 300], optional: true }),
  ];
}

function clearanceCells(journalMm: number): Cell[] {
  const wall = (key: string, name: string, optional = false): Cell => cell({ key, name, role: 'wall', sense: [0.5, 12], optional });
  return [
    ...HOUSING.map((d) =>
      cell({
        key: `housing.${d}`,
        name: `housing, torqued, ${HOUSING_WORDS[d]}`,
        column: `housing ${d}`,
        role: 'bore',
        sense: [journalMm, journalMm * 1.3],
        optional: d !== 'vertical',
      }),
    ),
    wall('upper', 'upper wall at the crown'),
    wall('lower', 'lower wall at the crown'),
    wall('upperSide', 'upper wall, 25° above the parting line', true),
    wall('lowerSide', 'lower wall, 25° above the parting line', true),
    cell({ key: 'journal', name: 'its journal, on the same axis', column: 'journal', role: 'micrometer', expectMm: journalMm }),
    wall('newWall', 'wall of a new half', true),
  ];
}

function stripCells(): Cell[] {
  return [
    cell({ key: 'thread', name: 'thread of the strip', column: 'thread', role: 'scale', sense: [0.02, 1.5] }),
    ...PLANES.map((at) =>
      cell({
        key: `width.${at}`,
        name: `flattened width, ${at}`,
        column: at,
        role: 'scale',
        sense: [0.1, 12],
        list: 'widths',
        item: { at },
        field: 'value',
        optional: at === 'mid',
      }),
    ),
  ];
}

function fitCells(): Cell[] {
  return [
    cell({ key: 'protrusion', name: 'protrusion above the joint', column: 'protrusion', role: 'depth', sense: [0, 1] }),
    cell({ key: 'freeSpread', name: 'across the free ends', column: 'free ends', role: 'caliper', sense: [10, 400] }),
    cell({ key: 'housing', name: 'housing bore', column: 'housing', role: 'caliper', sense: [10, 400] }),
  ];
}

function housingCells(journalMm: number): Cell[] {
  return HOUSING.map((direction) =>
    cell({
      key: direction,
      name: `housing, torqued, ${HOUSING_WORDS[direction]}`,
      column: direction,
      role: 'bore',
      sense: [journalMm, journalMm * 1.3],
      list: '',
      item: { direction },
      field: 'value',
    }),
  );
}

function travelCells(): Cell[] {
  return [
    cell({ key: 'towards', name: 'pushed to the front', column: 'front', role: 'indicator', sense: PLAY }),
    cell({ key: 'away', name: 'pushed to the rear', column: 'rear', role: 'indicator', sense: PLAY }),
  ];
}

function rodCells(layout: EngineLayout): Cell[] {
  return [
    cell({ key: 'bend', name: 'bend, read over 100 mm', column: 'bend', role: 'indicator', sense: PLAY }),
    cell({ key: 'twist', name: 'twist, read over 100 mm', column: 'twist', role: 'indicator', sense: PLAY }),
    cell({
      key: 'centres',
      name: 'length between centres',
      column: 'centres',
      role: 'caliper',
      expectMm: layout.rodLengthMm,
      optional: true,
    }),
  ];
}

/** Places along a deck, mm: the rim of every bore in three rows. */
export function deckGrid(layout: EngineLayout): { readonly xs: number[]; readonly ys: number[]; readonly pitchMm: number } {
  const perBank = Math.ceil(layout.cylinders / bankCount(layout));
  const pitchMm = Math.round(layout.boreMm * 1.18);
  return {
    xs: Array.from({ length: perBank + 1 }, (_, i) => i * pitchMm),
    ys: [0, Math.round(layout.boreMm * 0.6), Math.round(layout.boreMm * 1.2)],
    pitchMm,
  };
}

function deckCells(layout: EngineLayout): Cell[] {
  const { xs, ys } = deckGrid(layout);
  return [
    ...ys.flatMap((yMm, j) =>
      xs.map((xMm, i) =>
        cell({
          // Not `1.1`: a spreadsheet would take that for a figure.
          key: `x${i + 1}.y${j + 1}`,
          name: `${xMm} mm from the front, row ${j + 1}`,
          row: `row ${j + 1}`,
          column: `${xMm} mm`,
          role: 'indicator',
          sense: PLAY,
          list: 'points',
          item: { xMm, yMm },
          field: 'value',
        }),
      ),
    ),
    cell({
      key: 'scratch',
      name: 'deepest scratch across a fire ring',
      column: 'scratch',
      role: 'depth',
      sense: [0, 3],
      list: 'scratches',
      item: { at: 'fire ring' },
      field: 'depth',
      optional: true,
    }),
  ];
}

function camCells(cylinders: readonly number[], journals: number): Cell[] {
  const lobes = cylinders.flatMap((c) =>
    (['intake', 'exhaust'] as const).flatMap((kind) => {
      const lobe = `${c} ${kind}`;
      return (['height', 'base'] as const).map((what) =>
        cell({
          key: `lobe.${c}.${kind}.${what}`,
          name: `lobe ${lobe}, ${what === 'height' ? 'over the nose' : 'base circle'}`,
          row: lobe,
          column: what === 'height' ? 'nose' : 'base circle',
          role: 'micrometer',
          sense: [8, 120],
          list: 'lobes',
          item: { lobe, kind },
          field: what,
        }),
      );
    }),
  );
  return [
    ...lobes,
    ...Array.from({ length: journals }, (_, i) =>
      (['value', 'bore'] as const).map((what) =>
        cell({
          key: `journal.${i + 1}.${what}`,
          name: `cam journal ${i + 1}${what === 'bore' ? ', its bore' : ''}`,
          row: `journal ${i + 1}`,
          column: what === 'bore' ? 'bore' : 'journal',
          role: what === 'bore' ? 'bore' : 'micrometer',
          sense: [10, 120],
          list: 'journals',
          item: { journal: i + 1 },
          field: what,
          optional: true,
        }),
      ),
    ).flat(),
  ];
}

function pumpCells(): Cell[] {
  return [
    cell({ key: 'end', name: 'gears to cover', column: 'end', role: 'feeler', sense: GAP }),
    cell({ key: 'tip', name: 'gear to gear', column: 'tip', role: 'feeler', sense: GAP }),
    cell({ key: 'side', name: 'gear to body', column: 'side', role: 'feeler', sense: GAP }),
    cell({ key: 'springLength', name: 'relief spring, free', column: 'spring', role: 'caliper', sense: [5, 200] }),
    cell({
      key: 'popPressure',
      name: 'relief opens at',
      column: 'opens',
      role: 'vacuum',
      quantity: 'pressure',
      sense: [0, 30],
      optional: true,
    }),
  ];
}

function* mainPlaces(layout: EngineLayout, has: (station: string) => boolean): Generator<Draft> {
  for (let m = 1; m <= layout.mains; m++) {
    if (!has(`crank.main.${m}`)) continue;
    yield {
      station: `crank.main.${m}`,
      sheet: 'journal',
      kind: 'journal',
      name: `Main journal ${m}`,
      short: `Main ${m}`,
      group: 'crank',
      spec: 'crank.main',
      cells: journalCells(layout.mainDiameterMm),
    };
  }
}

function* crankPlaces(layout: EngineLayout, has: (station: string) => boolean): Generator<Draft> {
  yield* mainPlaces(layout, has);
  for (const s of stationsOf(layout)) {
    if (!s.id.startsWith('crank.pin.')) continue;
    yield {
      station: s.id,
      sheet: 'journal',
      kind: 'journal',
      name: s.name,
      short: `Pin ${s.number}`,
      group: 'crank',
      spec: 'crank.pin',
      cells: journalCells(layout.pinDiameterMm),
    };
  }
  if (layout.mains >= 3) {
    const at = mainPositions(layout);
    const step = layout.pinDiameterMm * 0.95 + layout.rodShellWidthMm;
    yield {
      station: null,
      sheet: 'crank-runout',
      kind: 'crank-runout',
      name: 'Crank runout',
      short: 'Runout',
      group: 'crank',
      spec: 'crank.runout',
      complete: ['tir', 'highDeg'],
      cells: at.flatMap((pins, i) => {
        const item = { main: i + 1, alongMm: Math.round((pins + i) * step) };
        const base = { row: `main ${i + 1}`, role: 'indicator' as const, list: '', item };
        return [
          cell({
            ...base,
            key: `main.${i + 1}.tir`,
            name: `main ${i + 1}, indicator over one turn`,
            column: 'reading',
            sense: [0, 5],
            field: 'tir',
          }),
          cell({
            ...base,
            key: `main.${i + 1}.highDeg`,
            name: `main ${i + 1}, where it is high`,
            column: 'high at',
            quantity: 'angle',
            sense: [-360, 360],
            field: 'highDeg',
          }),
        ];
      }),
    };
  }
  if (has(`main.${layout.thrustMain}.thrust.front`))
    yield {
      station: `main.${layout.thrustMain}.thrust.front`,
      sheet: 'end-float',
      kind: 'end-float',
      name: 'Crank end float',
      short: 'End float',
      group: 'crank',
      spec: 'end-float',
      needs: ['towards', 'away'],
      cells: travelCells(),
    };
}

function* bearingPlaces(layout: EngineLayout, has: (station: string) => boolean): Generator<Draft> {
  const bearing = function* (prefix: string, name: string, short: string, own: string, journalMm: number): Generator<Draft> {
    const lower = `${prefix}.shell.lower`;
    if (!has(lower)) return;
    const base = { group: 'bearings' as const };
    yield {
      ...base,
      station: lower,
      sheet: 'shell-clearance',
      kind: 'shell-clearance',
      name: `${name} clearance by gauges`,
      short,
      spec: `${own}.clearance`,
      needs: ['housing.vertical', 'upper', 'lower', 'journal'],
      cells: clearanceCells(journalMm),
    };
    yield {
      ...base,
      station: lower,
      sheet: 'crushed-strip',
      kind: 'crushed-strip',
      name: `${name} clearance by crushed strip`,
      short: `${short} strip`,
      spec: `${own}.strip`,
      needs: ['thread'],
      cells: stripCells(),
    };
    for (const half of ['upper', 'lower'] as const)
      yield {
        ...base,
        station: `${prefix}.shell.${half}`,
        sheet: 'shell-fit',
        kind: 'shell-fit',
        name: `${name} ${half} shell fit`,
        short: `${short} fit, ${half}`,
        spec: `${own}.fit`,
        cells: fitCells(),
      };
    yield {
      ...base,
      station: lower,
      sheet: 'housing',
      kind: 'housing',
      name: `${name} housing bore`,
      short: `${short} housing`,
      spec: `${own}.housing`,
      cells: housingCells(journalMm),
    };
  };
  for (let m = 1; m <= layout.mains; m++) yield* bearing(`main.${m}`, `Main ${m}`, `Main ${m}`, 'main', layout.mainDiameterMm);
  for (const { cylinder: c } of cylinderPlaces(layout)) yield* bearing(`rod.${c}`, `Rod ${c}`, `Rod ${c}`, 'rod', layout.pinDiameterMm);
  if (layout.mains >= 3 && layout.mainBearings === 'shells')
    yield {
      station: null,
      sheet: 'main-line',
      kind: 'main-line',
      name: 'Main line by straight edge',
      short: 'Main line',
      group: 'bearings',
      spec: 'main.line',
      cells: Array.from({ length: layout.mains }, (_, i) =>
        cell({
          key: `main.${i + 1}`,
          name: `feeler at main ${i + 1}`,
          column: `main ${i + 1}`,
          role: 'feeler',
          sense: GAP,
          list: '',
          item: { main: i + 1 },
          field: 'gap',
        }),
      ),
    };
}

function* cylinderSheets(layout: EngineLayout): Generator<Draft> {
  const material = layout.bores === 'coated-aluminium' ? 'aluminium' : 'grey-iron';
  for (const { cylinder: c } of cylinderPlaces(layout)) {
    const base = { group: 'cylinders' as const };
    yield {
      ...base,
      station: `bore.${c}`,
      sheet: 'bore',
      kind: 'bore',
      name: `Bore ${c}`,
      short: `Bore ${c}`,
      spec: 'bore',
      fixed: { material },
      cells: boreCells(layout),
    };
    yield {
      ...base,
      station: `piston.${c}.skirt.thrust`,
      sheet: 'piston',
      kind: 'piston',
      name: `Piston ${c}`,
      short: `Piston ${c}`,
      spec: 'piston',
      fixed: { boreMaterial: material },
      needs: ['piston'],
      cells: pistonCells(layout),
    };
    for (const ring of layout.cycle === 'two-stroke' && layout.valveGear === 'ports' ? RINGS.slice(0, 2) : RINGS)
      yield {
        ...base,
        station: `rings.${c}.pack`,
        sheet: `ring.${ring}`,
        kind: 'ring',
        name: `Ring ${c}, ${ring}`,
        short: `Ring ${c} ${ring}`,
        spec: `ring.${ring}`,
        fixed: { boreMm: layout.boreMm },
        cells: ringCells(),
      };
  }
}

function* rodPlaces(layout: EngineLayout): Generator<Draft> {
  for (const { cylinder: c } of cylinderPlaces(layout)) {
    const base = { station: `rod.${c}`, group: 'rods' as const };
    yield {
      ...base,
      sheet: 'rod',
      kind: 'rod',
      name: `Rod ${c} bend and twist`,
      short: `Rod ${c}`,
      spec: 'rod',
      fixed: { overMm: 100 },
      cells: rodCells(layout),
    };
    yield {
      ...base,
      sheet: 'side-clearance',
      kind: 'side-clearance',
      name: `Rod ${c} side clearance`,
      short: `Rod ${c} side`,
      spec: 'rod.side',
      needs: ['towards', 'away'],
      cells: travelCells(),
    };
  }
}

function* headPlaces(layout: EngineLayout, has: (station: string) => boolean): Generator<Draft> {
  const banks = bankCount(layout);
  const side = (b: number): string => (banks === 1 ? '' : b === 0 ? ', bank of 1' : ', other bank');
  const of = (b: number): number[] =>
    cylinderPlaces(layout)
      .filter((p) => p.bank === b)
      .map((p) => p.cylinder);
  if (has('gasket.head'))
    for (let b = 0; b < banks; b++)
      for (const what of ['deck', 'head'] as const)
        yield {
          station: 'gasket.head',
          sheet: `${what}.${b + 1}`,
          kind: 'flatness',
          name: `${what === 'deck' ? 'Deck' : 'Head'} flatness${side(b)}`,
          short: `${what === 'deck' ? 'Deck' : 'Head'}${banks > 1 ? ` ${b + 1}` : ''}`,
          group: 'head',
          spec: what,
          cells: deckCells(layout),
        };
  if (layout.valveGear === 'ports') return;
  const cams =
    layout.valveGear === 'overhead-cam' ? Array.from({ length: banks }, (_, b) => of(b)) : [cylinderPlaces(layout).map((p) => p.cylinder)];
  for (const [i, cylinders] of cams.entries())
    yield {
      station: null,
      sheet: `cam.${i + 1}`,
      kind: 'cam',
      name: `Camshaft${cams.length > 1 ? side(i) : ''}`,
      short: `Cam${cams.length > 1 ? ` ${i + 1}` : ''}`,
      group: 'head',
      spec: 'cam',
      complete: ['height', 'base'],
      cells: camCells(cylinders, Math.min(7, Math.ceil(cylinders.length / 2) + 2)),
    };
  for (const { cylinder: c } of cylinderPlaces(layout))
    for (const valve of ['intake', 'exhaust'] as const)
      yield {
        station: null,
        sheet: `valve-seat.${c}.${valve}`,
        kind: 'valve-seat',
        name: `Valve seat ${c}, ${valve}`,
        short: `Seat ${c} ${valve}`,
        group: 'head',
        spec: 'valve-seat',
        needs: ['startKpa', 'endKpa', 'seconds'],
        cells: [
          cell({ key: 'startKpa', name: 'vacuum at the start, kPa', column: 'start', quantity: 'vacuum', role: 'vacuum', sense: [5, 101] }),
          cell({ key: 'endKpa', name: 'vacuum at the end, kPa', column: 'end', quantity: 'vacuum', role: 'vacuum', sense: [0, 101] }),
          cell({ key: 'seconds', name: 'seconds held', column: 'held', quantity: 'time', role: 'clock', sense: [1, 600] }),
        ],
      };
}

function* oilPlaces(layout: EngineLayout): Generator<Draft> {
  if (!isPressureFed(layout)) return;
  yield {
    station: 'pump.gears',
    sheet: 'oil-pump',
    kind: 'oil-pump',
    name: 'Oil pump and relief',
    short: 'Pump',
    group: 'oil',
    spec: 'oil-pump',
    cells: pumpCells(),
  };
}

const cache = new WeakMap<EngineLayout, SheetPlace[]>();

/** Every sheet this engine can be measured by, place by place, in the order hands go round it: crank, bearings, cylinders, rods, head, pump. */
export function measureProgram(layout: EngineLayout): SheetPlace[] {
  const known = cache.get(layout);
  if (known) return known;
  const stations = new Set(stationsOf(layout).map((s) => s.id));
  const has = (station: string): boolean => stations.has(station);
  const drafts = [
    ...crankPlaces(layout, has),
    ...bearingPlaces(layout, has),
    ...cylinderSheets(layout),
    ...rodPlaces(layout),
    ...headPlaces(layout, has),
    ...oilPlaces(layout),
  ];
  const places = drafts.map((d): SheetPlace => ({ fixed: {}, needs: [], complete: [], ...d, id: placeId(d.station, d.sheet) }));
  cache.set(layout, places);
  return places;
}

/** Place by station and sheet; undefined when this engine has no such place. */
export function placeOf(layout: EngineLayout, station: string | null, sheet: string): SheetPlace | undefined {
  const id = placeId(station, sheet);
  return measureProgram(layout).find((p) => p.id === id);
}
