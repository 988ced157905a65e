import Papa from 'papaparse';
import { sizeForAll } from '../measured/consequences.js';
import type { CaseView } from '../case/views.js';
import type { EngineLayout } from '../engine/layout.js';
import { stationOf, type Station } from '../engine/stations.js';
import { MACHINE_WORK, OPERATION_NAMES, type Operation, type StandingDisposition } from '../workshop/operations.js';

/** One line of the machine-shop sheet. */
export interface MachineLine {
  readonly part: string;
  readonly stations: readonly string[];
  readonly work: Operation;
  readonly operation: string;
  /** Finished band, mm; null where the readings do not give one yet. */
  readonly sizeMm: readonly [number, number] | null;
  readonly finish: string;
  readonly limits: string;
  readonly quantity: number;
  readonly notes: string;
}

/** Finishes a good build aims at; the maker's data stands before them. */
const FINISH: Readonly<Record<string, string>> = {
  'crank.pin': 'Ra ≤ 0.25 µm, lapped with the rotation',
  'crank.main': 'Ra ≤ 0.25 µm, lapped with the rotation',
  bore: 'plateau hone, Rk ≤ 1.2 µm, Rvk 1.0–2.5 µm, 45°–60°',
  head: 'Ra ≤ 1.6 µm (steel gasket), ≤ 3.2 µm (composite)',
};

/** Kind of place a size is set for, else the part as its ids begin: `valves`, `head`. */
function kindOf(s: Station): string {
  if (s.part === 'journal') return s.carries === 'rod' ? 'crank.pin' : 'crank.main';
  return s.id.split('.')[0]!;
}

/** What goes to the machine shop, one line per kind of work, sizes from the readings. */
export function machineSheet(view: CaseView, dispositions: readonly StandingDisposition[]): MachineLine[] {
  const groups = new Map<string, StandingDisposition[]>();
  for (const d of dispositions) {
    if (!MACHINE_WORK.has(d.operation)) continue;
    const station = stationOf(view.layout, d.station);
    const key = `${station ? kindOf(station) : ''}|${d.operation}`;
    groups.set(key, [...(groups.get(key) ?? []), d]);
  }
  return [...groups].map(([key, list]): MachineLine => {
    const [kind = '', operation = ''] = key.split('|');
    const sizing = (operation === 'grind' || operation === 'rebore') && (kind === 'crank.pin' || kind === 'crank.main' || kind === 'bore');
    const size = sizing ? sizeForAll(view, kind) : null;
    const spec = kind === 'crank.pin' || kind === 'crank.main' || kind === 'bore' ? view.specs[kind]?.value.spec : undefined;
    const limits = [
      spec?.outOfRoundMaxMm !== undefined ? `out of round ≤ ${spec.outOfRoundMaxMm.toFixed(3)} mm` : '',
      spec?.taperMaxMm !== undefined ? `taper ≤ ${spec.taperMaxMm.toFixed(3)} mm` : '',
      kind.startsWith('crank') && operation === 'grind' ? 'fillet radius kept, runout checked, crack test' : '',
    ].filter(Boolean);
    return {
      part: list.length > 1 ? (PART_WORDS[kind] ?? list.map((d) => d.name).join(', ')) : list[0]!.name,
      stations: list.map((d) => d.station),
      work: list[0]!.operation,
      operation: OPERATION_NAMES[list[0]!.operation],
      sizeMm: size?.finishMm ?? null,
      finish: sizing || operation === 'polish' || operation === 'hone' ? (FINISH[kind] ?? '') : operation === 'face' ? FINISH['head']! : '',
      limits: limits.join('; '),
      quantity: list.length,
      notes: [...new Set(list.map((d) => d.reason))].slice(0, 2).join('; '),
    };
  });
}

const PART_WORDS: Readonly<Record<string, string>> = {
  'crank.pin': 'Crankpins',
  'crank.main': 'Main journals',
  bore: 'Bores',
  rod: 'Rods',
  valves: 'Valves and seats',
  head: 'Chambers',
};

/** The sheet as CSV. */
export function machineSheetCsv(lines: readonly MachineLine[]): string {
  return (
    Papa.unparse(
      {
        fields: ['part', 'operation', 'size_min_mm', 'size_max_mm', 'finish', 'limits', 'quantity', 'places', 'notes'],
        data: lines.map((l) => [
          l.part,
          l.operation,
          l.sizeMm?.[0].toFixed(3) ?? '',
          l.sizeMm?.[1].toFixed(3) ?? '',
          l.finish,
          l.limits,
          l.quantity,
          l.stations.join(' '),
          l.notes,
        ]),
      },
      { newline: '\n', escapeFormulae: true },
    ) + '\n'
  );
}

/** A part to be bought, with how many. */
export interface PartLine {
  readonly key: string;
  readonly part: string;
  readonly quantity: number;
  readonly size: string;
  readonly because: string;
}

/** Parts to buy, from what is replaced; sets where parts come in sets. */
export function partsList(layout: EngineLayout, dispositions: readonly StandingDisposition[]): PartLine[] {
  const sets: ReadonlyArray<readonly [key: string, part: string, test: (s: Station) => boolean, sold: 'each' | 'unit' | 'engine']> = [
    ['rod-shells', 'Rod shells, pair', (s) => s.part === 'shell' && s.carries === 'rod', 'unit'],
    ['main-shells', 'Main shells, pair', (s) => s.part === 'shell' && s.carries === 'crank', 'unit'],
    ['thrust-washers', 'Thrust washers, set', (s) => s.part === 'thrust', 'unit'],
    ['rollers', 'Rolling bearing', (s) => s.part === 'rolling', 'each'],
    ['crank', 'Crankshaft', (s) => s.part === 'journal', 'engine'],
    ['piston', 'Piston with pin', (s) => s.part === 'crown' || s.part === 'skirt', 'unit'],
    ['rings', 'Ring set', (s) => s.part === 'rings', 'each'],
    ['rod', 'Rod', (s) => s.part === 'rod', 'each'],
    ['gasket', 'Gasket set', (s) => s.part === 'gasket', 'each'],
    ['valves', 'Valves of a cylinder', (s) => s.part === 'valve', 'each'],
    ['cam', 'Camshaft with followers', (s) => s.part === 'cam', 'engine'],
    ['pump', 'Oil pump', (s) => s.part === 'pump', 'engine'],
    ['pickup', 'Pickup', (s) => s.part === 'pickup', 'each'],
    ['filter', 'Oil filter', (s) => s.part === 'filter', 'each'],
    ['cooler', 'Oil cooler', (s) => s.part === 'cooler', 'each'],
    ['timing', 'Timing drive, set', (s) => s.part === 'timing', 'each'],
    ['bolts', 'Bolts, set', (s) => s.part === 'fastener', 'each'],
  ];
  const bought = dispositions.flatMap((d) => {
    const station = d.operation === 'replace' || d.operation === 'scrap' ? stationOf(layout, d.station) : undefined;
    return station ? [{ ...d, station }] : [];
  });
  return sets.flatMap(([key, part, test, sold]) => {
    const out = bought.filter((d) => test(d.station));
    if (out.length === 0) return [];
    const units = sold === 'engine' ? 1 : new Set(out.map((d) => (sold === 'each' ? d.station.id : d.station.unit))).size;
    return [{ key, part, quantity: units, size: [...new Set(out.map((d) => d.size).filter(Boolean))].join(', '), because: out[0]!.reason }];
  });
}
