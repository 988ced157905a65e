import { bankCount, cylinderPlaces, mainPositions, pinCount, pinNumber, type EngineLayout } from './layout.js';
import { stationsOf, type Side, type Station } from './stations.js';

/** One drawn part: its station, the column it starts at (half pin steps from the front) and how many half steps it is wide. */
export interface BenchCell {
  readonly station: Station;
  readonly column: number;
  readonly span: number;
}

/** A row of the bench: places of one kind side by side, front at the left. */
export interface BenchRow {
  readonly id: string;
  readonly label: string;
  readonly kind: 'head' | 'cam' | 'bore' | 'rings' | 'crown' | 'skirt' | 'rod' | 'shell' | 'journal' | 'thrust' | 'oil';
  readonly cells: readonly BenchCell[];
}

export interface BenchPlan {
  /** Width of the bench in columns; mains sit in even places, pins between them. */
  readonly columns: number;
  readonly rows: readonly BenchRow[];
}

/**
 * The engine laid out as parts lie on a bench: front at left, mains between the cylinders they sit between; of two banks one above the crank and one, the other way round, below it.
 * `shown` holds the places beside the running parts that lie there too. Columns are quarter pin steps: a pin takes columns 4p+2 … 4p+5, a main the two columns around its position.
 */
export function benchPlan(layout: EngineLayout, shown?: ReadonlySet<string>): BenchPlan {
  // A place beside the running parts lies on the bench once something is written there.
  const stations = new Map(stationsOf(layout).flatMap((s) => (!s.aside || shown?.has(s.id) ? [[s.id, s] as const] : [])));
  const places = cylinderPlaces(layout);
  const pins = pinCount(layout);
  const mainsAt = mainPositions(layout);
  const columns = pins * 4 + 2;
  const rows: BenchRow[] = [];
  const cell = (id: string, column: number, span: number): BenchCell[] => {
    const station = stations.get(id);
    return station ? [{ station, column, span }] : [];
  };
  const row = (id: string, label: string, kind: BenchRow['kind'], cells: BenchCell[]): void => {
    if (cells.length > 0) rows.push({ id, label, kind, cells: [...cells].sort((a, b) => a.column - b.column) });
  };
  const pinColumn = (pin: number): number => pin * 4 + 2;
  const mains = (suffix: string): BenchCell[] => mainsAt.flatMap((p, i) => cell(`main.${i + 1}.${suffix}`, p * 4, 2));
  const banks = bankCount(layout);
  const inBank = (bank: number): typeof places => places.filter((place) => place.bank === bank);
  const side = (bank: number): string => {
    if (banks === 1) return '';
    const left = (layout.firstBank === 'left') === (bank === 0);
    return left ? ', left bank' : ', right bank';
  };

  const topRows = (bank: number): void => {
    const of = inBank(bank);
    const at = (make: (c: number) => string): BenchCell[] => of.flatMap((p) => cell(make(p.cylinder), pinColumn(p.pin), 2));
    if (layout.valveGear !== 'ports')
      row(
        `cam-${bank}`,
        `Lobes and followers${side(bank)}`,
        'cam',
        at((c) => `cam.${c}`),
      );
    row(
      `head-${bank}`,
      `${layout.valveGear === 'ports' ? 'Chambers' : 'Chambers, valves'}${side(bank)}`,
      'head',
      of.flatMap((p) => [
        ...cell(`head.${p.cylinder}`, pinColumn(p.pin), layout.valveGear === 'ports' ? 2 : 1),
        ...cell(`valves.${p.cylinder}`, pinColumn(p.pin) + 1, 1),
      ]),
    );
    row(
      `bore-${bank}`,
      `Bores${side(bank)}`,
      'bore',
      at((c) => `bore.${c}`),
    );
    row(
      `rings-${bank}`,
      `Rings${side(bank)}`,
      'rings',
      at((c) => `rings.${c}.pack`),
    );
    row(
      `crown-${bank}`,
      `Crowns${side(bank)}`,
      'crown',
      at((c) => `piston.${c}.crown`),
    );
    row(
      `skirt-${bank}`,
      `Skirts: thrust, anti-thrust${side(bank)}`,
      'skirt',
      of.flatMap((p) => [
        ...cell(`piston.${p.cylinder}.skirt.thrust`, pinColumn(p.pin), 1),
        ...cell(`piston.${p.cylinder}.skirt.antithrust`, pinColumn(p.pin) + 1, 1),
      ]),
    );
    row(
      `rod-${bank}`,
      `Rods${side(bank)}`,
      'rod',
      at((c) => `rod.${c}`),
    );
  };
  const bigEnds = (bank: number, half: 'upper' | 'lower'): BenchCell[] =>
    inBank(bank).flatMap((p) => [
      ...cell(`rod.${p.cylinder}.shell.${half}`, pinColumn(p.pin), 2),
      ...(half === 'upper'
        ? [...cell(`rod.${p.cylinder}.bigend`, pinColumn(p.pin), 2), ...cell(`rod.${p.cylinder}.rollers`, pinColumn(p.pin), 2)]
        : []),
    ]);
  const pinCells = [...new Map(places.map((p) => [p.pin, pinNumber(layout, p)]))].flatMap(([pin, number]) =>
    cell(`crank.pin.${number}`, pinColumn(pin), 2),
  );

  const bigEndRows = (bank: number): void => {
    row(`rod-upper-${bank}`, `Rod upper${side(bank)}`, 'shell', bigEnds(bank, 'upper'));
    if (bank === 0) row('pins', 'Crankpins', 'journal', pinCells);
    row(`rod-lower-${bank}`, `Rod lower${side(bank)}`, 'shell', bigEnds(bank, 'lower'));
  };
  topRows(0);
  bigEndRows(0);
  row('main-upper', 'Main upper', 'shell', [...mains('shell.upper'), ...mains('rollers')]);
  row(
    'mains',
    'Main journals',
    'journal',
    mainsAt.flatMap((p, i) => cell(`crank.main.${i + 1}`, p * 4, 2)),
  );
  row('main-lower', 'Main lower', 'shell', mains('shell.lower'));
  if (banks === 2) {
    // The second bank lies on the other side of the crank, its head outwards.
    const from = rows.length;
    topRows(1);
    bigEndRows(1);
    rows.push(...rows.splice(from).reverse());
  }
  const thrustAt = (mainsAt[layout.thrustMain - 1] ?? 0) * 4;
  row('thrust', `Thrust faces, main ${layout.thrustMain}`, 'thrust', [
    ...cell(`main.${layout.thrustMain}.thrust.front`, thrustAt, 1),
    ...cell(`main.${layout.thrustMain}.thrust.rear`, thrustAt + 1, 1),
  ]);
  const inLine = (id: string, title: string, stations: readonly string[]): void =>
    row(
      id,
      title,
      'oil',
      stations.flatMap((s) => cell(s, 0, 1)).map((c, i) => ({ ...c, column: i })),
    );
  inLine('oil', 'Oil side', ['pickup.screen', 'pump.gears', 'pump.relief', 'filter.media', 'oil.cooler', 'oil.gallery', 'pan.debris']);
  inLine('rest', 'Joints and drive', ['gasket.head', 'timing.drive', 'bolts.head', 'bolts.rod', 'bolts.main', 'bolts.crank']);
  row(
    'housings',
    'Housings, caps and joints',
    'oil',
    [
      ...mainsAt.flatMap((p, i) => cell(`main.${i + 1}.housing`, p * 4, 2)),
      ...places.flatMap((p) => cell(`rod.${p.cylinder}.housing`, pinColumn(p.pin) + (banks === 2 && p.bank === 1 ? 1 : 0), 2)),
    ].map((c, i) => ({ ...c, column: i, span: 1 })),
  );
  inLine(
    'corners',
    'Ring corners',
    places.flatMap((p) => SIDES.map((side) => `rings.${p.cylinder}.${side}`)),
  );
  inLine(
    'ports',
    'Skirts at the ports',
    places.flatMap((p) => ['exhaust', 'inlet'].map((side) => `piston.${p.cylinder}.skirt.${side}`)),
  );
  inLine('aside', 'Beside the running parts', [
    'block.case',
    'cam.bearings',
    'cam.thrust',
    'pan.floor',
    'pump.drive',
    'balancer',
    'damper',
    'seals.shaft',
    'coolant.side',
    'turbo',
    'clutch.side',
  ]);
  return { columns, rows };
}

const SIDES: readonly Side[] = ['thrust', 'antithrust', 'exhaust', 'inlet', 'front', 'rear'];

/** A step from place to place on the bench. */
export type Direction = 'up' | 'down' | 'left' | 'right';

/** The station reached from another by an arrow key on the bench as laid out: along the row, or to the cell nearest below or above. */
export function neighbourOnBench(plan: BenchPlan, from: string, direction: Direction): string {
  const rowIndex = plan.rows.findIndex((r) => r.cells.some((c) => c.station.id === from));
  const current = plan.rows[rowIndex];
  if (!current) return plan.rows[0]?.cells[0]?.station.id ?? from;
  const at = current.cells.findIndex((c) => c.station.id === from);
  if (direction === 'left' || direction === 'right') return current.cells[at + (direction === 'left' ? -1 : 1)]?.station.id ?? from;
  const next = plan.rows[rowIndex + (direction === 'up' ? -1 : 1)];
  if (!next) return from;
  const here = current.cells[at];
  if (!here) return from;
  const share = (c: BenchCell, r: BenchRow): number =>
    r.kind === 'oil' ? (c.column + 0.5) / r.cells.length : (c.column + c.span / 2) / plan.columns;
  const target = share(here, current);
  const nearest = next.cells.reduce((best, c) => (Math.abs(share(c, next) - target) < Math.abs(share(best, next) - target) ? c : best));
  return nearest.station.id;
}
